package yarrek.core.rulebook;

/**
 * A stretch of a flight in which a requirement was not held.
 *
 * @param fromS seconds from the start of the trace, included
 * @param toS seconds from the start of the trace, included
 * @param worstS moment of the worst value
 * @param worst worst value in the unit of the fact; NaN when the fact is no quantity
 */
public record Interval(double fromS, double toS, double worstS, double worst) {
    public double durationS() {
        return toS - fromS;
    }
}
