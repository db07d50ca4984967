package yarrek.core.energy;

/** How fast a rotor throws the air down. Momentum theory (Glauert 1935). Speeds in m/s. */
public final class Induced {
    /** A house figure: straight down faster than this share of the speed in hover the air beneath is one's own. */
    private static final double STEEP = 0.5;

    private static final double CLOSE = 1e-10;
    private static final int MOST_STEPS = 100;

    private Induced() {}

    /**
     * @param thrustN above 0
     * @param density kg/m³, above 0
     * @param discM2 of all discs, coaxial pairs once; above 0
     */
    public static double hover(double thrustN, double density, double discM2) {
        return Math.sqrt(thrustN / (2 * density * discM2));
    }

    /** Level flight with the disc level, in closed form; {@code hover} at an air speed of 0, falling with it. */
    public static double level(double hover, double airSpeed) {
        double v2 = airSpeed * airSpeed;
        return Math.sqrt(-v2 / 2 + Math.sqrt(v2 * v2 / 4 + Math.pow(hover, 4)));
    }

    /** Straight up. */
    public static double climbing(double hover, double climb) {
        return -climb / 2 + Math.sqrt(climb * climb / 4 + hover * hover);
    }

    /**
     * Of a tilted disc: solves vi·√(along² + (through + vi)²) = hover², by Newton within a bracket, since plain substitution
     * swings for ever at small speeds.
     *
     * @param along the air along the disc
     * @param through the air through it from above, 0 or more
     */
    public static double tilted(double hover, double along, double through) {
        double want = hover * hover;
        double lo = 0;
        double hi = 1.5 * hover + Math.abs(through);
        while (excess(hi, along, through, want) < 0) {
            hi *= 2;
        }
        double x = hover;
        for (int i = 0; i < MOST_STEPS; i++) {
            double f = excess(x, along, through, want);
            if (f > 0) {
                hi = x;
            } else {
                lo = x;
            }
            double s = Math.hypot(along, through + x);
            double next = x - f / (s + x * (through + x) / s);
            if (!(next > lo && next < hi)) {
                next = (lo + hi) / 2;
            }
            if (Math.abs(next - x) < CLOSE) {
                return next;
            }
            x = next;
        }
        return x;
    }

    private static double excess(double x, double along, double through, double want) {
        return x * Math.hypot(along, through + x) - want;
    }

    /** Whether straight down so fast needs a caution: it sinks into its own wake. */
    public static boolean steepDescent(double hover, double descent) {
        return descent > STEEP * hover;
    }
}
