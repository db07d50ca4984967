package yarrek.core.rulebook;

import yarrek.core.units.Finite;

/**
 * A measured quantity beside its limit on one scale.
 *
 * @param fact name of the quantity
 * @param unit as shown
 * @param value the value judged: the plan's, or the worst of the flight
 * @param uncertainty plus or minus
 * @param least least value over the flight; equal to {@code value} for a plan
 * @param greatest greatest value over the flight; equal to {@code value} for a plan
 * @param limit what the rule allows
 * @param bound which side complies
 * @param stated the limit as the law prints it, when in another unit; else empty
 */
public record Gauge(
        String fact,
        String unit,
        double value,
        double uncertainty,
        double least,
        double greatest,
        double limit,
        Bound bound,
        String stated) {

    private static final java.util.Set<String> COUNTED = java.util.Set.of("years", "months", "days");

    /** Left to the limit, negative beyond it. */
    public double margin() {
        return bound.margin(value, limit);
    }

    public String valueText() {
        return text(value) + (uncertainty > 0 ? " ± " + text(uncertainty) : "") + suffix(text(value));
    }

    public String limitText() {
        return bound.words() + " " + Finite.words(limit) + suffix(Finite.format(limit))
                + (stated.isEmpty() ? "" : " (" + stated + ")");
    }

    /** "1.4 g left", "16.5 m beyond", "1 year short", "exactly on the limit". */
    public String marginText() {
        double margin = margin();
        if (margin == 0) {
            return "exactly on the limit";
        }
        String amount = text(Math.abs(margin));
        return amount + suffix(amount) + (margin > 0 ? " left" : bound.isUpper() ? " beyond" : " short");
    }

    /** Units that are words have a singular. */
    private String suffix(String amount) {
        boolean one = amount.equals("1") && COUNTED.contains(unit);
        return unit.isEmpty() ? "" : " " + (one ? unit.substring(0, unit.length() - 1) : unit);
    }

    /** One decimal: finer than anything a crew can hold. */
    private static String text(double v) {
        double rounded = Math.rint(v * 10) / 10;
        return Finite.words(rounded == 0 && v != 0 ? v : rounded);
    }
}
