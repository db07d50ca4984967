package yarrek.core.paper;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import yarrek.core.time.Days;
import yarrek.core.time.TimeWindow;

/**
 * The validity weave: papers as bars along time, jobs as strands across them, and a knot where a strand that needs a kind
 * of paper from a holder meets none in force. Positions are fractions of the shown span, 0 at its start and 1 at its end.
 */
public record Weave(
        LocalDate from, LocalDate through, double now, List<Row> rows, List<Strand> strands, List<Tick> ticks) {

    /**
     * What a job needs: a kind of paper from a holder.
     *
     * @param ruleId the rule that asks for it
     */
    public record Need(String holderId, String kind, Set<String> anyLevel, String ruleId) {}

    /** A job as the weave sees it. */
    public record JobSpan(String jobId, String name, List<TimeWindow> windows, List<Need> needs) {}

    /**
     * A line of the weave: the papers of one kind and level that one holder has.
     *
     * @param level empty for kinds without levels, and for a kind that is needed but not held
     * @param allOfKind every paper of this kind that the holder has, of any level: each of them may cover a need
     */
    public record RowInput(
            String holderId,
            String holderName,
            String kind,
            String kindName,
            Optional<String> level,
            List<Paper> papers,
            List<Paper> allOfKind) {}

    public record Bar(
            String paperId,
            String label,
            double start,
            double end,
            boolean openEnd,
            PaperState state,
            Optional<Double> actBy,
            String tip) {}

    /** @param ruleId the rule whose finding the knot opens */
    public record Knot(String jobId, String jobName, double at, String says, String ruleId) {}

    /** The stretch around now in which no paper of the line is in force. */
    public record Gap(double start, double end, String says) {}

    public record Row(
            String holderName,
            String kindName,
            List<Bar> bars,
            Optional<Gap> gap,
            List<Knot> knots,
            PaperState worst) {}

    public record Strand(String jobId, String name, double start, double end) {}

    public record Tick(double at, String label, boolean major) {}

    /** A holder with every paper held. */
    public record Holding(String holderId, String holderName, List<Paper> papers) {}

    /**
     * The lines of the weave: for each holder one for each kind and level held, and one for each kind that a job needs and
     * that is not held.
     *
     * @param kindNames names of kinds by code; a kind without one stands by its code
     */
    public static List<RowInput> rows(List<Holding> holdings, Map<String, String> kindNames, List<JobSpan> jobs) {
        Map<String, Set<Need>> wanted = new HashMap<>();
        // thousands of jobs share the same few needs; telling them apart by identity spares hashing each
        Set<Need> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        jobs.forEach(j -> j.needs().stream()
                .filter(seen::add)
                .forEach(n -> wanted.computeIfAbsent(n.holderId(), k -> new LinkedHashSet<>())
                        .add(new Need(n.holderId(), n.kind(), n.anyLevel(), ""))));
        List<RowInput> rows = new ArrayList<>();
        for (Holding h : holdings) {
            Map<Line, List<Paper>> lines = new LinkedHashMap<>();
            for (Paper p : h.papers()) {
                lines.computeIfAbsent(new Line(p.kind(), p.level().orElse("")), k -> new ArrayList<>())
                        .add(p);
            }
            for (Need n : wanted.getOrDefault(h.holderId(), Set.of())) {
                if (lines.keySet().stream().noneMatch(l -> l.mayMeet(n))) {
                    String level =
                            n.anyLevel().size() == 1 ? n.anyLevel().iterator().next() : "";
                    lines.put(new Line(n.kind(), level), List.of());
                }
            }
            lines.forEach((line, papers) -> rows.add(new RowInput(
                    h.holderId(),
                    h.holderName(),
                    line.kind(),
                    kindNames.getOrDefault(line.kind(), line.kind())
                            + (line.level().isEmpty() ? "" : " " + line.level()),
                    line.level().isEmpty() ? Optional.empty() : Optional.of(line.level()),
                    papers,
                    h.papers().stream()
                            .filter(p -> p.kind().equals(line.kind()))
                            .toList())));
        }
        return rows;
    }

    /** @param level empty for none */
    private record Line(String kind, String level) {
        boolean mayMeet(Need n) {
            return kind.equals(n.kind())
                    && (n.anyLevel().isEmpty() || n.anyLevel().contains(level) || level.isEmpty());
        }
    }

    /** Lays the weave out; pure, and in the order of the rows given. */
    public static Weave lay(
            LocalDate from, LocalDate through, Instant now, ZoneId zone, List<RowInput> rows, List<JobSpan> jobs) {
        Scale scale = new Scale(
                from.atStartOfDay(zone).toInstant(),
                through.plusDays(1).atStartOfDay(zone).toInstant(),
                zone);
        Map<String, Map<String, List<Wanted>>> byHolderAndKind = new HashMap<>();
        for (JobSpan job : jobs) {
            for (Need need : job.needs()) {
                byHolderAndKind
                        .computeIfAbsent(need.holderId(), k -> new HashMap<>())
                        .computeIfAbsent(need.kind(), k -> new ArrayList<>())
                        .add(new Wanted(job, need));
            }
        }
        List<Row> laid = new ArrayList<>();
        for (RowInput row : rows) {
            laid.add(layRow(
                    row,
                    scale,
                    now,
                    byHolderAndKind.getOrDefault(row.holderId(), Map.of()).getOrDefault(row.kind(), List.of())));
        }
        List<Strand> strands = strands(scale, jobs);
        List<Tick> ticks = new ArrayList<>();
        long days = java.time.temporal.ChronoUnit.DAYS.between(from, through) + 1;
        for (LocalDate d = from; !d.isAfter(through); d = d.plusDays(1)) {
            boolean monthStart = d.getDayOfMonth() == 1;
            boolean monday = d.getDayOfWeek() == java.time.DayOfWeek.MONDAY;
            if (monthStart || (monday && days <= 130)) {
                String label = monthStart || (days <= 45 && d.getDayOfMonth() > 4 && d.getDayOfMonth() < 28)
                        ? d.getDayOfMonth() + " "
                                + d.getMonth().getDisplayName(java.time.format.TextStyle.SHORT, java.util.Locale.UK)
                        : "";
                ticks.add(new Tick(scale.at(d.atStartOfDay(zone).toInstant()), label, monthStart));
            }
        }
        return new Weave(from, through, scale.at(now), laid, strands, ticks);
    }

    /** What a job wants of a holder. */
    private record Wanted(JobSpan job, Need need) {}

    /** When a paper is in force, reckoned once for the many jobs it is held against. */
    private record Life(Optional<String> level, Instant from, Instant before) {
        static Life of(Paper p) {
            return new Life(
                    p.level(),
                    p.validity().start().orElse(Instant.MIN),
                    p.validity().endExclusive().orElse(Instant.MAX));
        }

        boolean covers(TimeWindow w) {
            return !w.start().isBefore(from) && w.end().isBefore(before);
        }

        boolean isOf(Set<String> anyLevel) {
            return anyLevel.isEmpty() || level.map(anyLevel::contains).orElse(false);
        }
    }

    /** Drawn no nearer than this: two jobs that begin within it are one strand, two gaps one knot. */
    private static final double APART = 1 / 200.0;

    private static long place(double at) {
        return Math.round(at / APART);
    }

    /** Each day of each job; those that lie upon one another are one strand that says how many it stands for. */
    private static List<Strand> strands(Scale scale, List<JobSpan> jobs) {
        Map<Long, List<Strand>> byPlace = new LinkedHashMap<>();
        for (JobSpan job : jobs) {
            for (TimeWindow w : job.windows()) {
                if (scale.shows(w.start(), w.end())) {
                    double at = scale.at(w.start());
                    byPlace.computeIfAbsent(place(at), k -> new ArrayList<>())
                            .add(new Strand(job.jobId(), job.name(), at, scale.at(w.end())));
                }
            }
        }
        return byPlace.values().stream()
                .map(some -> some.size() == 1
                        ? some.get(0)
                        : new Strand(
                                some.get(0).jobId(),
                                some.size() + " jobs, the first " + some.get(0).name(),
                                some.stream().mapToDouble(Strand::start).min().orElseThrow(),
                                some.stream().mapToDouble(Strand::end).max().orElseThrow()))
                .toList();
    }

    private static List<Knot> merged(List<Knot> knots) {
        Map<Long, List<Knot>> byPlace = new LinkedHashMap<>();
        knots.forEach(k ->
                byPlace.computeIfAbsent(place(k.at()), p -> new ArrayList<>()).add(k));
        return byPlace.values().stream()
                .map(some -> {
                    Knot first = some.get(0);
                    return some.size() == 1
                            ? first
                            : new Knot(
                                    first.jobId(),
                                    first.jobName(),
                                    first.at(),
                                    first.says() + " and " + (some.size() - 1) + " more",
                                    first.ruleId());
                })
                .toList();
    }

    /** Asked some ten thousand times a page, so without a stream. */
    private static boolean covered(List<Life> lives, TimeWindow w, Set<String> anyLevel) {
        for (Life l : lives) {
            if (l.covers(w) && l.isOf(anyLevel)) {
                return true;
            }
        }
        return false;
    }

    private static Row layRow(RowInput row, Scale scale, Instant now, List<Wanted> wanted) {
        List<Bar> bars = new ArrayList<>();
        List<Knot> knots = new ArrayList<>();
        List<Life> lives = row.allOfKind().stream().map(Life::of).toList();
        PaperState worst = row.papers().isEmpty() ? PaperState.UNKNOWN : PaperState.IN_FORCE;
        for (Wanted x : wanted) {
            JobSpan job = x.job();
            Need need = x.need();
            boolean elsewhere = !need.anyLevel().isEmpty()
                    && row.level().map(l -> !need.anyLevel().contains(l)).orElse(false);
            if (elsewhere) {
                continue;
            }
            for (TimeWindow w : job.windows()) {
                if (!covered(lives, w, need.anyLevel()) && !w.end().isBefore(now)) {
                    worst = PaperState.GAP;
                    if (scale.shows(w.start(), w.end())) {
                        knots.add(new Knot(
                                job.jobId(),
                                job.name(),
                                scale.at(w.start()),
                                row.holderName() + ": no " + row.kindName() + " in force for " + job.name(),
                                need.ruleId()));
                    }
                }
            }
        }
        for (Paper p : row.papers()) {
            Instant start = p.validity().start().orElse(scale.start());
            Instant end = p.validity().endExclusive().orElse(scale.end());
            PaperState state = p.state(now, List.of());
            if (scale.shows(start, end)) {
                bars.add(new Bar(
                        p.id(),
                        p.level().orElse(p.number()),
                        scale.at(start),
                        scale.at(end),
                        p.validity().endExclusive().isEmpty(),
                        state,
                        p.actBy()
                                .map(d -> d.atStartOfDay(p.validity().zone()).toInstant())
                                .filter(i -> scale.shows(i, i))
                                .map(scale::at),
                        row.holderName() + ", " + row.kindName() + " " + p.number() + ": " + state.words() + ", "
                                + p.validity()
                                        .validThrough()
                                        .map(d -> "valid to " + Days.show(d))
                                        .orElse("no end date")));
            }
        }
        PaperState best = row.papers().stream()
                .map(p -> p.state(now, List.of()))
                .min(Comparator.naturalOrder())
                .orElse(PaperState.UNKNOWN);
        return new Row(
                row.holderName(),
                row.kindName(),
                bars,
                gap(row, scale, now, wanted),
                merged(knots),
                worst == PaperState.GAP ? worst : best);
    }

    /** From the end of the last paper to the begin of the next; none where a paper holds now, or might. */
    private static Optional<Gap> gap(RowInput row, Scale scale, Instant now, List<Wanted> wanted) {
        if (row.papers().isEmpty() ? wanted.isEmpty() : mayHold(row.papers(), now)) {
            return Optional.empty();
        }
        Optional<Instant> last = row.papers().stream()
                .flatMap(p -> p.validity().endExclusive().stream())
                .filter(e -> !e.isAfter(now))
                .max(Comparator.naturalOrder());
        Optional<Instant> next = row.papers().stream()
                .flatMap(p -> p.validity().start().stream())
                .filter(s -> s.isAfter(now))
                .min(Comparator.naturalOrder());
        Instant from = last.orElse(scale.start());
        Instant to = next.orElse(scale.end());
        String says = row.holderName() + ", " + row.kindName() + ": none in force"
                + last.map(e -> " since " + Days.show(LocalDate.ofInstant(e, scale.zone())))
                        .orElse("")
                + next.map(s -> ", the next from " + Days.show(LocalDate.ofInstant(s, scale.zone())))
                        .orElse("");
        return scale.shows(from, to) ? Optional.of(new Gap(scale.at(from), scale.at(to), says)) : Optional.empty();
    }

    private static boolean mayHold(List<Paper> papers, Instant now) {
        return papers.stream().anyMatch(p -> {
            PaperState s = p.state(now, List.of());
            return s != PaperState.RUN_OUT && s != PaperState.NOT_YET_VALID;
        });
    }

    private record Scale(Instant start, Instant end, ZoneId zone) {
        double at(Instant i) {
            double share = (double) (i.getEpochSecond() - start.getEpochSecond())
                    / (end.getEpochSecond() - start.getEpochSecond());
            return Math.max(0, Math.min(1, share));
        }

        boolean shows(Instant a, Instant b) {
            return !b.isBefore(start) && a.isBefore(end);
        }
    }
}
