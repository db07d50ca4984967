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
        return text(shown()) + (uncertainty > 0 ? " ± " + text(uncertainty) : "") + suffix(text(shown()));
    }

    public String limitText() {
        return bound.words() + " " + Finite.words(limit) + suffix(Finite.format(limit))
                + (stated.isEmpty() ? "" : " (" + stated + ")");
    }

    /** "1.4 g left", "16.5 m beyond", "1 year short", "exactly on the limit". */
    public String marginText() {
        double margin = bound.margin(shown(), limit);
        if (margin == 0) {
            return "exactly on the limit";
        }
        String amount = text(Math.abs(margin));
        return amount + suffix(amount) + (margin > 0 ? " left" : bound.isUpper() ? " beyond" : " short");
    }

    /** No finer than it is known: whole units from an uncertainty of one on, unless that took it to or over the limit. */
    private double shown() {
        double whole = Math.rint(value);
        return uncertainty >= 1 && Math.signum(whole - limit) == Math.signum(value - limit) ? whole : value;
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
