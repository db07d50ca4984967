package yarrek.core.pack;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import yarrek.core.energy.Cold.Rest;

/**
 * The share of its design capacity that a pack still has.
 *
 * @param value share, 1 when new
 * @param sd one standard deviation of it
 * @param way how it was had
 */
public record Health(double value, double sd, Way way) {
    /** How a health was had, the surest last. */
    public enum Way {
        CLAIM("said by the pack", 0),
        GAUGE("charge counted between two readings of the gauge", 0.40),
        REST("charge counted between two rests", 0.30),
        POOLED("several of one day", 0);

        private final String words;
        private final double span;

        Way(String words, double span) {
            this.words = words;
            this.span = span;
        }

        public String words() {
            return words;
        }

        /** The least share of the charge that has to pass. */
        public double leastSpan() {
            return span;
        }
    }

    private static final double LOWEST = 0.3;
    private static final double HIGHEST = 1.1;
    /** Of the charge counted; house. */
    private static final double COUNTER = 0.01;
    /** Of the gauge, in shares of the charge; house. */
    public static final double GAUGE = 0.015;
    /** Of a capacity that the pack itself reports; house. */
    public static final double CLAIMED = 0.03;

    /** Lost in the first year at 25 °C when stored full; house. */
    private static final double AGE_LOSS = 0.03;

    private static final double VOLTS = 0.005;
    /** Where a cell's volts change less than this over the whole charge, they say nothing of it. */
    private static final double FLAT = 0.5;

    /** What no figure of a pack outranks. */
    public static final List<String> CAUTIONS = List.of(
            "A swollen, dropped, wet or hot pack is out, whatever the numbers: nothing here looked at it.",
            "The gauge's per cent is an estimate of an estimate; a cold pack can fall from 25 % to 5 %.",
            "The maker's limits and the pilot in command go before these figures.");

    /** A value, or why there is none. */
    public record Answer(Optional<Health> health, String why) {
        static Answer none(String why) {
            return new Answer(Optional.empty(), why);
        }
    }

    /**
     * From charge counted between two known states.
     *
     * @param mah counted, 0 or more
     * @param before state of charge, 0 to 1
     * @param after state of charge, 0 to 1, below {@code before}
     * @param designMah above 0
     * @param sdCharge of each state, see {@link #GAUGE} and {@link #sdOfRest}
     */
    public static Answer counted(double mah, double before, double after, double designMah, double sdCharge, Way way) {
        if (!(designMah > 0)) {
            return Answer.none("the model's capacity is not known");
        }
        if (!(before >= 0 && before <= 1 && after >= 0 && after <= 1)) {
            return Answer.none("a state of charge lies from 0 to 100 %");
        }
        double span = before - after;
        if (span < way.leastSpan()) {
            return Answer.none(
                    "only " + percent(span) + " of the charge passed; " + percent(way.leastSpan()) + " are needed");
        }
        double health = mah / span / designMah;
        if (!(health >= LOWEST && health <= HIGHEST)) {
            return Answer.none(
                    "it would be " + percent(health) + ", which no pack has: look at capacity, counter and gauge");
        }
        double relative = Math.hypot(Math.sqrt(2) * sdCharge / span, COUNTER);
        return new Answer(Optional.of(new Health(health, health * relative, way)), way.words());
    }

    /** What the pack claims of itself: shown, and of little weight. */
    public static Answer claimed(double fullMah, double designMah) {
        double health = fullMah / designMah;
        return health >= LOWEST && health <= HIGHEST
                ? new Answer(Optional.of(new Health(health, CLAIMED * health, Way.CLAIM)), Way.CLAIM.words())
                : Answer.none("the pack says " + percent(health) + " of its design, which no pack has");
    }

    /**
     * By age alone: for a start, and never a reason to retire.
     *
     * @param storedC mean temperature where it stands
     * @param fullness 0.6 when stored at half, 1 when stored full
     */
    public static double byAge(double years, double storedC, double fullness) {
        return 1 - AGE_LOSS * Math.pow(2, (storedC - 25) / 10) * fullness * Math.sqrt(years);
    }

    /** Several of one day as one, the surer the heavier. */
    public static Health pooled(List<Health> ofOneDay) {
        double weights = ofOneDay.stream().mapToDouble(Health::weight).sum();
        return new Health(
                ofOneDay.stream().mapToDouble(h -> h.value * h.weight()).sum() / weights,
                Math.sqrt(1 / weights),
                ofOneDay.size() == 1
                        ? ofOneDay.get(0).way
                        : ofOneDay.stream().map(Health::way).distinct().count() == 1
                                ? ofOneDay.get(0).way
                                : Way.POOLED);
    }

    private double weight() {
        return 1 / (sd * sd);
    }

    /** Whether two of one day are further apart than their doubt allows: then the gauge may need calibrating. */
    public boolean disagrees(Health other) {
        return Math.abs(value - other.value) > 2 * Math.hypot(sd, other.sd);
    }

    /**
     * State of charge of a cell at rest.
     *
     * @param table of the model by rising charge, at least two lines
     * @return 0 to 1, never beyond the table's ends
     */
    public static double chargeAtRest(List<Rest> table, double volts) {
        Rest before = table.get(0);
        for (Rest r : table.subList(1, table.size())) {
            if (volts <= r.volts()) {
                double share = (volts - before.volts()) / (r.volts() - before.volts());
                return before.charge() + Math.max(0, share) * (r.charge() - before.charge());
            }
            before = r;
        }
        return before.charge();
    }

    /**
     * How far off a state of charge read from volts may be, one standard deviation.
     *
     * @return empty in the flat part
     */
    public static Optional<Double> sdOfRest(List<Rest> table, double volts) {
        return table.stream()
                .filter(r -> r.volts() >= volts)
                .min(Comparator.comparing(Rest::volts))
                .flatMap(upper -> table.stream()
                        .filter(r -> r.volts() < upper.volts())
                        .max(Comparator.comparing(Rest::volts))
                        .map(lower -> (upper.volts() - lower.volts()) / (upper.charge() - lower.charge())))
                .filter(slope -> slope >= FLAT)
                .map(Health::sdOfVolts);
    }

    /** @param slope volts of the cell over the whole charge, above 0 */
    public static double sdOfVolts(double slope) {
        return VOLTS / slope;
    }

    /**
     * Equivalent full cycles.
     *
     * @param drawnMah of each flight
     */
    public static double cycles(double[] drawnMah, double designMah) {
        return Arrays.stream(drawnMah).sum() / designMah;
    }

    private static String percent(double share) {
        return Math.round(100 * share) + " %";
    }
}
