package yarrek.core.rulebook;

import java.util.Map;

/** How near the limit counts as close. */
public record Closeness(double percentOfLimit, boolean straddling) {
    /** 5 % of the limit or the measuring uncertainty, whichever is greater (house default). */
    public static final Closeness USUAL = new Closeness(5, false);

    /** Nothing certain is close: for what is counted, where the limit itself is the usual case. */
    public static final Closeness NONE = new Closeness(-1, false);

    /** Only the uncertainty counts: reaching over the limit from either side, or standing on it, is close. */
    public static final Closeness UNCERTAINTY = new Closeness(0, true);

    private static final Map<String, Closeness> NAMED = Map.of("uncertainty", UNCERTAINTY, "none", NONE);

    /** As a requirement says it; the usual one where it does not. */
    static Closeness read(Written n) {
        if (n.has("closeness")) {
            return n.get("closeness").oneOf(NAMED);
        }
        return n.has("closePercent")
                ? new Closeness(n.get("closePercent").number().doubleValue(), false)
                : USUAL;
    }

    Verdict verdict(FactValue.Quantity q, Limit.Span limit, Bound bound) {
        boolean surely = bound.surely(q, limit);
        if (!surely && (q.isOpen() || Double.isInfinite(limit.greatest()))) {
            return bound.possibly(q, limit) ? Verdict.NOT_KNOWN : Verdict.BREACHED;
        }
        boolean holds = bound.holds(q.value(), limit.at());
        if (straddling) {
            return surely != bound.possibly(q, limit) || (holds && q.value() == limit.at())
                    ? Verdict.CLOSE
                    : holds ? Verdict.MET : Verdict.BREACHED;
        }
        if (!holds) {
            return Verdict.BREACHED;
        }
        double band = Math.max(
                Math.abs(limit.at()) * percentOfLimit / 100, bound.isUpper() && !q.isOpen() ? q.above() : q.below());
        boolean near = percentOfLimit >= 0 && Math.abs(bound.margin(q.value(), limit.at())) <= band;
        return !surely || near ? Verdict.CLOSE : Verdict.MET;
    }
}
