package yarrek.core.board;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Stream;
import yarrek.core.judging.Neighbours;
import yarrek.core.rulebook.Tally;
import yarrek.core.time.TimeWindow;

/**
 * Lays out jobs over some weeks: who flies each with what from which day on, so that most are go and nobody is in two places.
 * The rulebook judges every line that is proposed; a search only says which lines to take together.
 */
public final class Layout {
    /** More ways than these are not weighed for one job. */
    public static final int MOST_OPTIONS = 400;

    /** So many of each pilot, build and day are kept whatever else is better, so that no other job is shut out by them. */
    private static final int OF_EACH = 4;

    private static final int MOST_ROUNDS = 6;

    // what a change of the plan weighs against another
    private static final int PILOT_CHANGED = 20;
    private static final int BUILD_CHANGED = 10;
    private static final int CLOSE = 2;
    private static final int MOST_CLOSE_WEIGHED = 10;
    private static final int MOST_DAYS_WEIGHED = 60;

    /** Who, with what, from which day on. */
    public record Choice(UUID pilot, UUID build, LocalDate first) {}

    /** @param open what stands in the way, the most pressing first */
    public record Judged(Tally tally, List<String> open) {
        public boolean isGo() {
            return !tally.isNoGo();
        }
    }

    /**
     * A job to be laid out.
     *
     * @param planned as it is now; pilot and build may be null
     * @param stay where and when it has whom and what, by choice
     */
    public record Job(UUID id, String name, Choice planned, Function<Choice, Neighbours.Stay> stay) {}

    /**
     * A way to fly a job.
     *
     * @param cost how far from the present plan, and what stands close or open with it; less is better
     */
    public record Option(Choice choice, int cost, Neighbours.Stay stay) {}

    /** What may be taken. */
    public record Field(List<UUID> pilots, List<UUID> builds, List<LocalDate> days) {
        long size() {
            return (long) pilots.size() * builds.size() * days.size();
        }
    }

    /** A job that is not laid out but holds its people and aircraft. */
    public record Booking(String name, Neighbours.Stay stay) {}

    /** The rulebook: what it says of a job, flown so, beside all that is not laid out. */
    @FunctionalInterface
    public interface Judge {
        /** @return one for each choice, in their order */
        List<Judged> judge(Job job, List<Choice> choices);
    }

    /** Which options go together. */
    @FunctionalInterface
    public interface Search {
        /**
         * @param options of each job
         * @return the place of the option taken for each job, -1 for none: as many jobs as can be without two in each other's
         *     way, at the least cost
         */
        List<Integer> find(List<List<Option>> options, Conflicts conflicts);
    }

    /** Whether two options would need somebody or something in two places at once. */
    @FunctionalInterface
    public interface Conflicts {
        boolean between(Option a, Option b);
    }

    /**
     * A job in the proposal.
     *
     * @param choice null when it stays out
     * @param judged what is said of it as proposed; null when it stays out
     * @param keepsOut the single thing that keeps it out; empty when it is in
     */
    public record Line(Job job, Choice choice, Judged judged, String keepsOut) {
        public boolean isIn() {
            return choice != null;
        }

        /** Whether it stays as it is. */
        public boolean isAsPlanned() {
            return Objects.equals(choice, job.planned());
        }
    }

    /**
     * @param judged how many ways were judged
     * @param ways how many there are
     */
    public record Proposal(List<Line> lines, int judged, long ways) {
        public long in() {
            return lines.stream().filter(Line::isIn).count();
        }
    }

    private final Function<Job, Field> fields;
    private final Booked booked;
    private final Judge judge;
    private final Search search;
    private final Neighbours.Way way;
    private final Instant now;
    private final int budget;
    private int judgings;

    /**
     * @param fields what may be taken for a job
     * @param budget ways to be judged at most in the first look; where there are more, the rest are foreseen from those judged,
     *     and judged when they are proposed
     */
    public Layout(
            Function<Job, Field> fields,
            List<Booking> bookings,
            Judge judge,
            Search search,
            Neighbours.Way way,
            Instant now,
            int budget) {
        this.fields = fields;
        this.booked = new Booked(bookings, way);
        this.judge = judge;
        this.search = search;
        this.way = way;
        this.now = now;
        this.budget = budget;
    }

    /** What is known of the ways to fly a job. */
    private final class Outlook {
        private final Job job;
        private final Field field;
        private final Map<Choice, Judged> known = new HashMap<>();
        private final List<Option> options = new ArrayList<>();

        Outlook(Job job, boolean all) {
            this.job = job;
            this.field = ahead(job);
            look(all ? every() : probes());
        }

        private List<Choice> every() {
            List<Choice> every = new ArrayList<>();
            field.pilots()
                    .forEach(p ->
                            field.builds().forEach(b -> field.days().forEach(d -> every.add(new Choice(p, b, d)))));
            return every;
        }

        /** The plan as it is with one thing changed at a time. */
        private List<Choice> probes() {
            Choice base = base();
            if (base == null) {
                return List.of();
            }
            return Stream.of(
                            Stream.of(base),
                            field.pilots().stream().map(p -> new Choice(p, base.build(), base.first())),
                            field.builds().stream().map(b -> new Choice(base.pilot(), b, base.first())),
                            field.days().stream().map(d -> new Choice(base.pilot(), base.build(), d)))
                    .flatMap(Function.identity())
                    .distinct()
                    .toList();
        }

        private Choice base() {
            return field.size() == 0
                    ? null
                    : new Choice(
                            usual(field.pilots(), job.planned().pilot()),
                            usual(field.builds(), job.planned().build()),
                            usual(field.days(), job.planned().first()));
        }

        void look(List<Choice> choices) {
            List<Choice> fresh =
                    choices.stream().filter(c -> !known.containsKey(c)).toList();
            if (!fresh.isEmpty()) {
                List<Judged> judged = judge.judge(job, fresh);
                for (int i = 0; i < fresh.size(); i++) {
                    known.put(fresh.get(i), judged.get(i));
                }
                judgings += fresh.size();
            }
        }

        /** What will be said of a way: what was, or what those say that share its pilot, its build and its day. */
        private Set<String> foreseen(Choice c) {
            Judged j = known.get(c);
            if (j != null) {
                return j.isGo() ? Set.of() : new LinkedHashSet<>(j.open());
            }
            Set<String> usual = open(base());
            List<Set<String>> changed = alike(c).map(this::open).toList();
            Set<String> open = new LinkedHashSet<>();
            changed.forEach(open::addAll);
            // what stands open of the plan as it is goes when any one of the changes takes it away
            open.removeIf(o -> usual.contains(o) && !changed.stream().allMatch(s -> s.contains(o)));
            return open;
        }

        private Set<String> open(Choice c) {
            Judged j = known.get(c);
            return j.isGo() ? Set.of() : new LinkedHashSet<>(j.open());
        }

        /** The ways that are go as far as is known, the nearest to the plan, and some of each pilot, build and day. */
        void weigh() {
            options.clear();
            if (field.size() == 0) {
                return;
            }
            List<Option> all = new ArrayList<>();
            for (Choice c : every()) {
                if (foreseen(c).isEmpty()) {
                    Neighbours.Stay stay = job.stay().apply(c);
                    if (booked.isFree(stay)) {
                        all.add(new Option(c, cost(c), stay));
                    }
                }
            }
            all.sort(Comparator.comparingInt(Option::cost)
                    .thenComparing(o -> o.choice().first())
                    .thenComparing(o -> o.choice().pilot())
                    .thenComparing(o -> o.choice().build()));
            Map<Object, Integer> seen = new HashMap<>();
            for (Option o : all) {
                boolean rare = Stream.of(
                                o.choice().pilot(),
                                o.choice().build(),
                                o.choice().first())
                        .anyMatch(k -> seen.merge(k, 1, Integer::sum) <= OF_EACH);
                if (rare || options.size() < MOST_OPTIONS) {
                    options.add(o);
                }
            }
        }

        private int cost(Choice c) {
            Choice now = job.planned();
            return (c.pilot().equals(now.pilot()) ? 0 : PILOT_CHANGED)
                    + (c.build().equals(now.build()) ? 0 : BUILD_CHANGED)
                    + (int) Math.min(
                            MOST_DAYS_WEIGHED,
                            Math.abs(now.first().toEpochDay() - c.first().toEpochDay()))
                    + CLOSE * Math.min(MOST_CLOSE_WEIGHED, openOrClose(c));
        }

        /** How much stands close or open; of a way that was not judged, as much as with the worst of those like it. */
        private int openOrClose(Choice c) {
            Judged j = known.get(c);
            return j == null
                    ? alike(c).mapToInt(this::openOrClose).max().orElse(0)
                    : j.tally().close() + j.tally().departures() + j.tally().notKnown();
        }

        /** Those judged that share its pilot, its build or its day. */
        private Stream<Choice> alike(Choice c) {
            Choice base = base();
            return Stream.of(
                    new Choice(c.pilot(), base.build(), base.first()),
                    new Choice(base.pilot(), c.build(), base.first()),
                    new Choice(base.pilot(), base.build(), c.first()));
        }
    }

    /** Without days of which the hours have begun already; the day planned stays, for that is no move. */
    private Field ahead(Job job) {
        Field f = fields.apply(job);
        return new Field(
                f.pilots(),
                f.builds(),
                f.size() == 0
                        ? f.days()
                        : f.days().stream()
                                .filter(d -> d.equals(job.planned().first())
                                        || begins(
                                                        job,
                                                        new Choice(
                                                                f.pilots().get(0),
                                                                f.builds().get(0),
                                                                d))
                                                .isAfter(now))
                                .toList());
    }

    private static Instant begins(Job job, Choice c) {
        return job.stay().apply(c).uses().values().stream()
                .flatMap(List::stream)
                .map(TimeWindow::start)
                .min(Comparator.naturalOrder())
                .orElseThrow();
    }

    private static <T> T usual(List<T> all, T planned) {
        return all.contains(planned) ? planned : all.get(0);
    }

    /**
     * The same jobs, fields and verdicts always give the same proposal.
     *
     * @param jobs to be laid out
     */
    public Proposal propose(List<Job> jobs) {
        long ways = jobs.stream().mapToLong(j -> ahead(j).size()).sum();
        boolean all = ways <= budget;
        List<Outlook> outlooks = jobs.stream().map(j -> new Outlook(j, all)).toList();
        List<Integer> taken = List.of();
        for (int round = 0; round < MOST_ROUNDS; round++) {
            outlooks.forEach(Outlook::weigh);
            taken = search.find(outlooks.stream().map(o -> o.options).toList(), this::between);
            if (!disproved(outlooks, taken)) {
                break;
            }
        }
        List<Option> in = new ArrayList<>();
        for (int i = 0; i < jobs.size(); i++) {
            Outlook o = outlooks.get(i);
            Option option = taken.get(i) < 0 ? null : o.options.get(taken.get(i));
            in.add(option != null && o.known.get(option.choice()).isGo() ? option : null);
        }
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < jobs.size(); i++) {
            Outlook o = outlooks.get(i);
            Option option = in.get(i);
            lines.add(
                    option == null
                            ? new Line(o.job, null, null, keepsOut(o, in, jobs))
                            : new Line(o.job, option.choice(), o.known.get(option.choice()), ""));
        }
        return new Proposal(lines, judgings, ways);
    }

    /** Judges what is proposed and was only foreseen; whether any of it is not go after all. */
    private static boolean disproved(List<Outlook> outlooks, List<Integer> taken) {
        boolean disproved = false;
        for (int i = 0; i < outlooks.size(); i++) {
            if (taken.get(i) >= 0) {
                Outlook o = outlooks.get(i);
                Choice c = o.options.get(taken.get(i)).choice();
                o.look(List.of(c));
                disproved |= !o.known.get(c).isGo();
            }
        }
        return disproved;
    }

    private boolean between(Option a, Option b) {
        return a.stay().isInTheWayOf(b.stay(), way);
    }

    private static final String NOT_FOUND = "no way to fly it was found in the time for it";

    private String keepsOut(Outlook o, List<Option> in, List<Job> jobs) {
        if (o.field.size() == 0) {
            return o.field.pilots().isEmpty()
                    ? "nobody may be asked to fly"
                    : o.field.builds().isEmpty()
                            ? "no build may be flown"
                            : "these weeks have too few days left for it";
        }
        if (!o.options.isEmpty()) {
            Map<String, Integer> names = new LinkedHashMap<>();
            for (int i = 0; i < in.size(); i++) {
                Option other = in.get(i);
                int met = other == null
                        ? 0
                        : (int) o.options.stream()
                                .filter(m -> between(m, other))
                                .count();
                if (met > 0) {
                    names.put(jobs.get(i).name(), met);
                }
            }
            return most(names)
                    .map(n -> "whoever or whatever could fly it is at “" + n + "” in those hours")
                    .orElse(NOT_FOUND);
        }
        // judged ways that only one thing, or bookings, keep from being a go
        Map<String, Integer> alone = new LinkedHashMap<>();
        boolean go = false;
        for (Choice c : o.known.keySet()) {
            Set<String> open = o.foreseen(c);
            go |= open.isEmpty();
            if (open.size() == 1) {
                alone.merge(open.iterator().next(), 1, Integer::sum);
            }
        }
        if (go) {
            Map<String, Integer> names = new LinkedHashMap<>();
            o.known.forEach((c, j) -> {
                if (j.isGo()) {
                    Neighbours.Stay stay = o.job.stay().apply(c);
                    booked.inTheWayOf(stay).map(Booking::name).distinct().forEach(n -> names.merge(n, 1, Integer::sum));
                }
            });
            return most(names)
                    .map(n -> "whoever or whatever could fly it is booked for “" + n + "”")
                    .orElse(NOT_FOUND);
        }
        return most(alone).orElseGet(() -> {
            Set<String> always = new LinkedHashSet<>(o.foreseen(o.base()));
            o.known.keySet().forEach(c -> always.retainAll(o.foreseen(c)));
            return (always.isEmpty() ? o.foreseen(o.base()) : always)
                    .stream().findFirst().orElse("");
        });
    }

    private static Optional<String> most(Map<String, Integer> counted) {
        return counted.entrySet().stream()
                .max(Map.Entry.<String, Integer>comparingByValue()
                        .thenComparing(
                                Map.Entry.<String, Integer>comparingByKey().reversed()))
                .map(Map.Entry::getKey);
    }

    /** How good a choice of options is, none in another's way: jobs in first, then the cost; more is better. */
    public static long worth(Collection<Option> taken) {
        return taken.size() * 1_000_000L - taken.stream().mapToInt(Option::cost).sum();
    }

    /** Days on which a job of some length may begin between two, both included. */
    public static List<LocalDate> days(LocalDate from, LocalDate through, long length) {
        LocalDate last = through.minusDays(length - 1);
        return last.isBefore(from)
                ? List.of()
                : from.datesUntil(last.plusDays(1)).toList();
    }
}
