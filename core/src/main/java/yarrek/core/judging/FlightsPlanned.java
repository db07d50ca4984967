package yarrek.core.judging;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The planned flights of a job in their order: what of them is judged as one, and what is wrong with them.
 *
 * @param all those of earlier days first
 * @param job what holds for every flight that does not say otherwise
 */
public record FlightsPlanned(List<PlannedFlight> all, Job job) {
    /** More than these are planned as several jobs. */
    public static final int MOST = 200;

    /** Longer than this no battery keeps anything in the air: a figure typed wrong. Minutes. */
    public static final double MOST_MINUTES = 600;

    /**
     * What the job says for all its flights; ids are null while nobody is named.
     *
     * @param to at or before {@code from} means past midnight
     * @param besides hours of days that differ, and who is there without a flight
     */
    public record Job(
            LocalDate firstDay,
            LocalDate lastDay,
            LocalTime from,
            LocalTime to,
            UUID buildId,
            UUID pilotId,
            UUID observerId,
            Arranged besides) {
        private static final double DAY = 24 * 60.0;

        /** One whose days all have the same hours, and nobody but those who fly and watch. */
        public Job(
                LocalDate firstDay,
                LocalDate lastDay,
                LocalTime from,
                LocalTime to,
                UUID buildId,
                UUID pilotId,
                UUID observerId) {
            this(firstDay, lastDay, from, to, buildId, pilotId, observerId, Arranged.NOTHING);
        }

        /** The hours of one of its days. */
        public Arranged.Hours hours(LocalDate day) {
            return besides.hours().getOrDefault(day, new Arranged.Hours(from, to));
        }

        /** Minutes from the beginning of a day to its end, by the clock. */
        double minutes(LocalDate day) {
            double span = minutesBetween(hours(day).from(), hours(day).to());
            return span > 0 ? span : span + DAY;
        }

        /** Minutes from the beginning of a day to an hour of the same night. */
        private double into(LocalDate day, LocalTime at) {
            double span = minutesBetween(hours(day).from(), at);
            return span >= 0 ? span : span + DAY;
        }

        private static double minutesBetween(LocalTime a, LocalTime b) {
            return Duration.between(a, b).toSeconds() / 60.0;
        }
    }

    /**
     * Flights that differ in nothing that is judged, on days that follow one another.
     *
     * @param flights their numbers in the job, from 1
     * @param as any of them, with what the job has for all put in
     * @param supervised whether it is judged for who is at the controls beside the pilot in command
     */
    public record Part(List<Integer> flights, PlannedFlight as, LocalDate first, LocalDate last, boolean supervised) {
        /** Who is judged as the pilot; null while nobody is named. */
        public UUID atControls() {
            return supervised ? as.supervisedId() : as.pilotId();
        }
    }

    /**
     * Something wrong with a flight.
     *
     * @param number of the flight, from 1
     * @param field as {@link PlannedFlight} names it
     */
    public record Fault(int number, String field, String words) {}

    public FlightsPlanned {
        all = List.copyOf(all);
    }

    /** A flight with what the job has for all where it says nothing itself. */
    public PlannedFlight whole(PlannedFlight f) {
        return new PlannedFlight(
                f.day(),
                f.startsAt(),
                or(f.buildId(), job.buildId()),
                or(f.pilotId(), job.pilotId()),
                f.supervisedId(),
                or(f.observerId(), job.observerId()),
                f.heightM(),
                f.aboveTakeoff(),
                f.distanceM(),
                f.subcategory(),
                f.minutes(),
                f.mode(),
                f.purpose());
    }

    private static <T> T or(T own, T ofJob) {
        return own == null ? ofJob : own;
    }

    private record Judged(
            UUID build,
            UUID pilot,
            UUID supervised,
            UUID observer,
            Double height,
            Boolean above,
            Double distance,
            String subcategory) {}

    /** What is judged as one: flights alike on days that follow one another, and who is at the controls apart. */
    public List<Part> parts() {
        List<Part> parts = new ArrayList<>();
        Map<Judged, List<Integer>> alike = new LinkedHashMap<>();
        for (int i = 0; i < all.size(); i++) {
            PlannedFlight f = whole(all.get(i));
            alike.computeIfAbsent(
                            new Judged(
                                    f.buildId(),
                                    f.pilotId(),
                                    f.supervisedId(),
                                    f.observerId(),
                                    f.heightM(),
                                    f.aboveTakeoff(),
                                    f.distanceM(),
                                    f.subcategory()),
                            k -> new ArrayList<>())
                    .add(i);
        }
        alike.forEach((judged, places) -> runs(places).forEach(run -> {
            PlannedFlight as = whole(all.get(run.get(0)));
            List<Integer> numbers = run.stream().map(i -> i + 1).toList();
            LocalDate last = all.get(run.get(run.size() - 1)).day();
            parts.add(new Part(numbers, as, as.day(), last, false));
            if (judged.supervised() != null) {
                parts.add(new Part(numbers, as, as.day(), last, true));
            }
        }));
        return parts;
    }

    /** Places of flights on days that follow one another without a day between. */
    private List<List<Integer>> runs(List<Integer> places) {
        List<List<Integer>> runs = new ArrayList<>();
        LocalDate last = null;
        for (int i : places) {
            LocalDate day = all.get(i).day();
            if (last == null || day.isAfter(last.plusDays(1))) {
                runs.add(new ArrayList<>());
            }
            runs.get(runs.size() - 1).add(i);
            last = day;
        }
        return runs;
    }

    /** What somebody does in a flight. */
    public enum Role {
        COMMAND("pilot in command"),
        SUPERVISED("at the controls, supervised"),
        OBSERVER("observer"),
        PAYLOAD("payload operator"),
        HELPER("helper");

        /** Those that need no flight. */
        public static final Set<Role> BESIDES = Collections.unmodifiableSet(EnumSet.of(OBSERVER, PAYLOAD, HELPER));

        private final String words;

        Role(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Whether the law judges them as a pilot. */
        public boolean flies() {
            return this == COMMAND || this == SUPERVISED;
        }
    }

    /** Who does what in any of them, in the order in which they come; whoever the job names first. */
    public Map<UUID, Set<Role>> crew() {
        Map<UUID, Set<Role>> crew = new LinkedHashMap<>();
        Stream.concat(Stream.of(whole(PlannedFlight.on(job.firstDay()))), all.stream())
                .forEach(f -> {
                    put(crew, f.pilotId(), Role.COMMAND);
                    put(crew, f.supervisedId(), Role.SUPERVISED);
                    put(crew, f.observerId(), Role.OBSERVER);
                });
        job.besides().crew().forEach(c -> put(crew, c.personId(), c.role()));
        return crew;
    }

    private static void put(Map<UUID, Set<Role>> crew, UUID id, Role role) {
        if (id != null) {
            crew.computeIfAbsent(id, k -> EnumSet.noneOf(Role.class)).add(role);
        }
    }

    /** Everybody who flies, watches or helps in any of them, and whoever the job names. */
    public Set<UUID> people() {
        return crew().keySet();
    }

    /** Every build that flies. */
    public Set<UUID> builds() {
        return (all.isEmpty() ? Stream.ofNullable(job.buildId()) : all.stream().map(f -> whole(f).buildId()))
                .filter(Objects::nonNull)
                .collect(Collectors.toSet());
    }

    /** What is wrong with them; empty when nothing is. */
    public List<Fault> faults() {
        List<Fault> faults = new ArrayList<>();
        if (all.size() > MOST) {
            faults.add(new Fault(
                    MOST + 1,
                    "day",
                    all.size() + " flights are planned; a job has at most " + MOST + ", plan the rest as another job"));
            return faults;
        }
        for (int i = 0; i < all.size(); i++) {
            one(i + 1, whole(all.get(i)), faults);
        }
        if (faults.isEmpty()) {
            together(faults);
        }
        return faults;
    }

    private void one(int number, PlannedFlight f, List<Fault> faults) {
        if (f.day().isBefore(job.firstDay()) || f.day().isAfter(job.lastDay())) {
            faults.add(new Fault(number, "day", "that day is none of the job's"));
        }
        if (f.minutes() != null && (f.minutes() <= 0 || f.minutes() > MOST_MINUTES)) {
            faults.add(new Fault(number, "minutes", "more than 0 and at most " + (int) MOST_MINUTES + " minutes"));
        }
        if (f.startsAt() != null) {
            double left = job.minutes(f.day()) - job.into(f.day(), f.startsAt());
            if (left < 0 || (left == 0 && f.minutes() != null)) {
                faults.add(new Fault(number, "startsAt", "outside the hours of that day"));
            } else if (f.minutes() != null && f.minutes() > left) {
                faults.add(new Fault(number, "minutes", "it would land after the hours of that day"));
            }
        }
        if (f.supervisedId() != null && f.pilotId() == null) {
            faults.add(
                    new Fault(number, "supervisedId", "somebody at the controls needs a pilot in command beside them"));
        }
        if (f.supervisedId() != null && f.supervisedId().equals(f.pilotId())) {
            faults.add(new Fault(number, "supervisedId", "is the pilot in command; nobody supervises themselves"));
        }
        if (f.observerId() != null && Set.of(f.observerId()).equals(atControls(f))) {
            faults.add(new Fault(number, "observerId", "flies it, and cannot watch for it too"));
        }
    }

    private static Set<UUID> atControls(PlannedFlight f) {
        UUID flies = f.supervisedId() == null ? f.pilotId() : f.supervisedId();
        return flies == null ? Set.of() : Set.of(flies);
    }

    /** Whether somebody or something flies twice at once, where the hours are said. */
    private void together(List<Fault> faults) {
        for (int i = 0; i < all.size(); i++) {
            for (int k = 0; k < i; k++) {
                PlannedFlight a = whole(all.get(k));
                PlannedFlight b = whole(all.get(i));
                if (!atOnce(a, b)) {
                    continue;
                }
                if (a.buildId() != null && a.buildId().equals(b.buildId())) {
                    faults.add(new Fault(i + 1, "startsAt", "its build flies in flight " + (k + 1) + " then"));
                } else if (!Collections.disjoint(crew(a), crew(b))) {
                    faults.add(new Fault(i + 1, "startsAt", "somebody of it is at flight " + (k + 1) + " then"));
                }
            }
        }
    }

    /** Who cannot be at another flight: those who fly it. One observer may watch for several. */
    private static Set<UUID> crew(PlannedFlight f) {
        return Stream.of(f.pilotId(), f.supervisedId())
                .filter(Objects::nonNull)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private boolean atOnce(PlannedFlight a, PlannedFlight b) {
        if (!a.day().equals(b.day()) || a.startsAt() == null || b.startsAt() == null) {
            return false;
        }
        double from = job.into(a.day(), a.startsAt());
        double other = job.into(b.day(), b.startsAt());
        double end = from + (a.minutes() == null ? 1 : a.minutes());
        double otherEnd = other + (b.minutes() == null ? 1 : b.minutes());
        return from < otherEnd && other < end;
    }
}
