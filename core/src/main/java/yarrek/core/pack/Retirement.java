package yarrek.core.pack;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.time.Days;

/**
 * When a pack reaches the first of its limits: a day, and between which days.
 *
 * @param limits each that can be reckoned, the first reached first
 * @param missing what would have to be known for those that can not
 */
public record Retirement(List<Reached> limits, List<String> missing) {
    /** Farther than this nothing is said: no line holds for so long. */
    private static final int FARTHEST_YEARS = 5;

    private static final double Z = 1.645;
    private static final int RATE_DAYS = 60;
    private static final int MONTHS_NEEDED = 2;
    private static final double DAYS_A_MONTH = 365.25 / 12;

    /** What ends a pack's life. */
    public enum Limit {
        CYCLES("cycles"),
        HEALTH("health"),
        SPREAD("spread of its cells at rest"),
        RESISTANCE("inner resistance"),
        AGE("age");

        private final String words;

        Limit(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A limit's day.
     *
     * @param early empty when no range can be given
     * @param late empty when it may never be, or no range can be given
     */
    public record Reached(Limit limit, LocalDate middle, Optional<LocalDate> early, Optional<LocalDate> late) {}

    /**
     * Where a pack is to be retired. House figures; a maker's go before them.
     *
     * @param health share of the design capacity
     * @param spreadV between the cells at rest
     * @param resistance of the worst cell against new
     */
    public record Ends(double cycles, double health, double spreadV, double resistance, int years) {
        public static final Ends HOUSE = new Ends(
                PackStanding.Limits.HOUSE.retireCycles(),
                0.75,
                0.050,
                Resistance.RETIRE_FROM,
                PackStanding.Limits.HOUSE.retireYears());
    }

    /**
     * What is on file.
     *
     * @param cycles so far
     * @param monthly cycles of each of the last months, at most six, the newest last
     * @param health null when never measured
     * @param spread of the cells at rest, V; null when never measured
     * @param resistance of the worst cell at 25 °C against new; null when never measured
     * @param firstUse or bought; null when not known
     * @param healthDays days on which its health was measured, also when they are too few for a trend
     */
    public record OnFile(
            double cycles,
            List<Double> monthly,
            Trend health,
            Trend spread,
            Trend resistance,
            LocalDate firstUse,
            int healthDays) {
        public OnFile {
            monthly = List.copyOf(monthly);
        }
    }

    public Retirement {
        limits = List.copyOf(limits);
        missing = List.copyOf(missing);
    }

    /** @param today the day from which cycles go on */
    public static Retirement of(OnFile r, LocalDate today, Ends ends) {
        List<Reached> found = new ArrayList<>();
        List<String> missing = new ArrayList<>();
        if (r.cycles >= ends.cycles) {
            found.add(new Reached(Limit.CYCLES, today, Optional.of(today), Optional.of(today)));
        } else if (r.monthly.size() < MONTHS_NEEDED) {
            missing.add("its use a month: " + RATE_DAYS + " days of flights are needed");
        } else {
            cycles(r, today, ends).ifPresent(found::add);
        }
        trend(Limit.HEALTH, r.health, r.healthDays, ends.health, "measurements of its health")
                .into(found, missing);
        trend(Limit.SPREAD, r.spread, measured(r.spread), ends.spreadV, "measurements of its cells at rest")
                .into(found, missing);
        trend(
                        Limit.RESISTANCE,
                        r.resistance,
                        measured(r.resistance),
                        ends.resistance,
                        "flights that showed its resistance")
                .into(found, missing);
        if (r.firstUse == null) {
            missing.add("when it was first used or bought");
        } else {
            LocalDate old = r.firstUse.plusYears(ends.years);
            found.add(new Reached(Limit.AGE, old, Optional.of(old), Optional.of(old)));
        }
        found.sort(Comparator.comparing(Reached::middle));
        return new Retirement(found, missing);
    }

    private record Line(Reached reached, String missing) {
        void into(List<Reached> found, List<String> missed) {
            if (reached != null) {
                found.add(reached);
            }
            if (missing != null) {
                missed.add(missing);
            }
        }
    }

    private static Optional<Reached> cycles(OnFile r, LocalDate today, Ends ends) {
        double mean = r.monthly.stream().mapToDouble(v -> v).average().orElseThrow();
        double variance =
                r.monthly.stream().mapToDouble(v -> (v - mean) * (v - mean)).sum() / (r.monthly.size() - 1);
        double doubt = Z * Math.sqrt(variance / r.monthly.size());
        if (!(mean > 0)) {
            return Optional.empty();
        }
        double left = ends.cycles - r.cycles;
        return day(today, left / mean)
                .map(middle -> new Reached(
                        Limit.CYCLES,
                        middle,
                        day(today, left / (mean + doubt)),
                        mean > doubt ? day(today, left / (mean - doubt)) : Optional.empty()));
    }

    private static Optional<LocalDate> day(LocalDate today, double months) {
        return within(today.toEpochDay() + months * DAYS_A_MONTH);
    }

    /** @return empty when no calendar reaches so far */
    private static Optional<LocalDate> within(double epochDay) {
        return epochDay < LocalDate.of(9999, 1, 1).toEpochDay()
                ? Optional.of(LocalDate.ofEpochDay((long) Math.floor(epochDay)))
                : Optional.empty();
    }

    private static int measured(Trend t) {
        return t == null ? 0 : t.measured();
    }

    /** Days of the trend are epoch days. */
    private static Line trend(Limit limit, Trend t, int measured, double end, String needed) {
        if (t == null || t.low().isEmpty()) {
            return new Line(null, Trend.FEWEST + " " + needed + " are needed, " + measured + " on file");
        }
        // a health falls to its limit, a spread or a resistance rises to it
        boolean falls = limit == Limit.HEALTH;
        double low = t.low().getAsDouble();
        double high = t.high().orElseThrow();
        boolean past = falls ? t.middle() <= end : t.middle() >= end;
        OptionalDouble middle = past ? OptionalDouble.of(t.middleDay()) : t.meets(end, t.perDay());
        if (middle.isEmpty()) {
            return new Line(null, null);
        }
        Optional<LocalDate> early = days(past ? middle : t.meets(end, falls ? low : high));
        Optional<LocalDate> late = days(past ? middle : t.meets(end, falls ? high : low));
        return new Line(
                days(middle).map(d -> new Reached(limit, d, early, late)).orElse(null), null);
    }

    private static Optional<LocalDate> days(OptionalDouble day) {
        return day.isEmpty() ? Optional.empty() : within(day.getAsDouble());
    }

    /** The limit reached first. */
    public Optional<Reached> first() {
        return limits.stream().findFirst();
    }

    /** @return earliest of the early ends */
    public Optional<LocalDate> early() {
        return limits.stream().flatMap(l -> l.early().stream()).min(Comparator.naturalOrder());
    }

    /** @return earliest of the late ends */
    public Optional<LocalDate> late() {
        return limits.stream().flatMap(l -> l.late().stream()).min(Comparator.naturalOrder());
    }

    /** In words, as of a day. */
    public String words(LocalDate today) {
        if (limits.isEmpty()) {
            return "not known: " + notKnown();
        }
        Reached r = limits.get(0);
        if (!r.middle().isAfter(today)) {
            return "reached on " + Days.show(r.middle()) + " (" + r.limit().words() + ")";
        }
        if (r.middle().isAfter(today.plusYears(FARTHEST_YEARS))) {
            // what is far away by one limit may be near by another that nobody knows
            return missing.isEmpty()
                    ? "more than " + FARTHEST_YEARS + " years away"
                    : "not known: " + notKnown() + "; by what is known more than " + FARTHEST_YEARS + " years away";
        }
        return Days.show(r.middle()) + " (" + r.limit().words() + ")"
                + early().map(e -> late().filter(l -> !l.equals(e))
                                .map(l -> ", between " + Days.show(e) + " and " + Days.show(l))
                                .orElse(late().isEmpty() ? ", not before " + Days.show(e) : ""))
                        .orElse("")
                + (missing.isEmpty() ? "" : ", by what is known; not known: " + notKnown());
    }

    private String notKnown() {
        return String.join("; ", missing);
    }
}
