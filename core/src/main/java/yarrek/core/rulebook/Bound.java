package yarrek.core.rulebook;

/** Which side of a limit complies, and whether the limit itself does. */
public enum Bound {
    AT_MOST("at most", true, true),
    BELOW("below", true, false),
    AT_LEAST("at least", false, true),
    ABOVE("above", false, false);

    private final String words;
    private final boolean upper;
    private final boolean inclusive;

    Bound(String words, boolean upper, boolean inclusive) {
        this.words = words;
        this.upper = upper;
        this.inclusive = inclusive;
    }

    public String words() {
        return words;
    }

    /** Whether the limit is the greatest that complies, not the least. */
    public boolean isUpper() {
        return upper;
    }

    public boolean isInclusive() {
        return inclusive;
    }

    /** Whether a known value complies; NaN never does. */
    public boolean holds(double value, double limit) {
        return upper ? (inclusive ? value <= limit : value < limit) : (inclusive ? value >= limit : value > limit);
    }

    /** Distance left to the limit in the unit of the value: negative beyond it. */
    public double margin(double value, double limit) {
        return upper ? limit - value : value - limit;
    }

    /** Whether every value of the stretch complies with every limit of the span. */
    boolean surely(FactValue.Quantity q, Limit.Span limit) {
        return upper ? holds(q.high(), limit.least()) : holds(q.low(), limit.greatest());
    }

    /** Whether some value of the stretch complies with some limit of the span. */
    boolean possibly(FactValue.Quantity q, Limit.Span limit) {
        return upper ? holds(q.low(), limit.greatest()) : holds(q.high(), limit.least());
    }
}
