package yarrek.core.energy;

import java.util.List;
import java.util.OptionalDouble;

/**
 * How far out and back along one bearing.
 *
 * @param gap why nowhere; null where there is a distance
 * @param metres 0 where there is none
 * @param minutesOut to the turn
 * @param minutesBack from the turn
 * @param turnAt charge at which to turn at the latest, as the gauge shows it, 0 to 1
 */
public record Reach(Gap gap, double metres, double minutesOut, double minutesBack, double turnAt) {
    /** Why one gets nowhere along a bearing. */
    public enum Gap {
        NO_WAY_OUT("no ground is made good on the way out"),
        NO_WAY_BACK("no way back: the wind is at or above the air speed"),
        NOTHING_LEFT("nothing is left for distance");

        private final String words;

        Gap(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Energy besides the way itself, Wh.
     *
     * @param before the turn: climb, work at the far end
     * @param after it: descent, hover before landing
     */
    public record Fixed(double before, double after) {
        double all() {
            return before + after;
        }
    }

    /**
     * How much the figures may be off, as standard deviations.
     *
     * @param power relative
     * @param energy relative
     * @param wind m/s
     * @param direction degrees
     * @param z how many of them are reckoned with: 1.2816 leaves one in ten below
     */
    public record Doubt(double power, double energy, double wind, double direction, double z) {
        /** One in ten. */
        public static final double ONE_IN_TEN = 1.2816;

        private static final double FITTED_AT_LEAST = 0.03;
        private static final double LIGHT_WIND = 4;

        /**
         * House figures.
         *
         * @param fitted relative error of energy on flights that were not in the fit; null before a fit
         * @param measured whether the wind was measured at that height within twenty minutes
         */
        public static Doubt house(Double fitted, double wind, boolean measured) {
            return new Doubt(
                    fitted == null ? 0.10 : Math.max(FITTED_AT_LEAST, fitted),
                    0.04,
                    measured ? 0.5 : Math.max(1, 0.15 * wind),
                    wind < LIGHT_WIND ? 30 : 15,
                    ONE_IN_TEN);
        }
    }

    private static final int WATT_SECONDS = 3600;

    private static Reach none(Gap gap) {
        return new Reach(gap, 0, 0, 0, 1);
    }

    /**
     * The middle of what is expected.
     *
     * @param wh to fly with, the fixed part in it
     */
    public static Reach of(PowerCurve curve, Track out, Track back, double wh, Fixed fixed, Charge charge) {
        return along(curve, out, back, wh, fixed, charge, false);
    }

    private static Reach along(
            PowerCurve curve, Track out, Track back, double wh, Fixed fixed, Charge charge, boolean bottom) {
        OptionalDouble gsOut = out.groundSpeed();
        OptionalDouble gsBack = back.groundSpeed();
        if (gsOut.isEmpty()) {
            return none(Gap.NO_WAY_OUT);
        }
        if (gsBack.isEmpty()) {
            return none(Gap.NO_WAY_BACK);
        }
        double left = wh - fixed.all();
        if (left <= 0) {
            return none(Gap.NOTHING_LEFT);
        }
        double metreBack = curve.at(back.airSpeed()) / gsBack.getAsDouble();
        double metres = WATT_SECONDS * left / (curve.at(out.airSpeed()) / gsOut.getAsDouble() + metreBack);
        return new Reach(
                null,
                metres,
                metres / gsOut.getAsDouble() / 60,
                metres / gsBack.getAsDouble() / 60,
                turnAt(curve, back, metres, fixed.after(), charge, bottom).orElseThrow());
    }

    /**
     * Charge at which to turn for home from a distance.
     *
     * @param bottom whether the cold is read as a loss at the bottom
     * @return may lie beyond 1: further than one may go; empty where there is no way back
     */
    public static OptionalDouble turnAt(
            PowerCurve curve, Track back, double metres, double after, Charge c, boolean bottom) {
        OptionalDouble gs = back.groundSpeed();
        if (gs.isEmpty()) {
            return OptionalDouble.empty();
        }
        double home = curve.at(back.airSpeed()) * metres / gs.getAsDouble() / WATT_SECONDS + after;
        return OptionalDouble.of(
                bottom
                        ? c.reserve() + 1 - c.cold() + home / (c.wh() * c.health())
                        : c.reserve() + home / (c.wh() * c.health() * c.cold()));
    }

    /** Wh that a way out and back takes, the fixed part in it; empty where there is no way out or back. */
    public static OptionalDouble needed(PowerCurve curve, Track out, Track back, double metres, Fixed fixed) {
        OptionalDouble gsOut = out.groundSpeed();
        OptionalDouble gsBack = back.groundSpeed();
        if (gsOut.isEmpty() || gsBack.isEmpty()) {
            return OptionalDouble.empty();
        }
        double metre =
                curve.at(out.airSpeed()) / gsOut.getAsDouble() + curve.at(back.airSpeed()) / gsBack.getAsDouble();
        return OptionalDouble.of(metre * metres / WATT_SECONDS + fixed.all());
    }

    /**
     * The reach that one in ten falls short of at most: less energy, more wind, the worst of five directions. Where the ways out
     * and back differ in wind or speed, less wind too. Never more than the middle one.
     *
     * @param wh to fly with by the careful reading, the fixed part in it
     */
    public static Reach careful(
            PowerCurve curve, Track out, Track back, double wh, Fixed fixed, Charge charge, Doubt doubt) {
        double energy = wh * Math.exp(-doubt.z() * Math.hypot(doubt.power(), doubt.energy()));
        boolean alike = out.wind() == back.wind() && out.airSpeed() == back.airSpeed();
        Reach worst = null;
        for (double turned : List.of(0.0, -0.5, 0.5, -1.0, 1.0)) {
            for (double blown : alike ? List.of(1.0) : List.of(1.0, -1.0)) {
                double by = turned * doubt.z() * doubt.direction();
                double more = blown * doubt.z() * doubt.wind();
                Reach r = along(curve, blown(out, more, by), blown(back, more, by), energy, fixed, charge, true);
                if (r.gap() != null) {
                    return r;
                }
                worst = worst == null || r.metres() < worst.metres() ? r : worst;
            }
        }
        return worst;
    }

    private static Track blown(Track t, double more, double by) {
        return new Track(t.airSpeed(), Math.max(0, t.wind() + more), t.offDownwind() + by);
    }

    /** Whether the wind is too near the air speed for any figure to be shown alone. */
    public static boolean tooNear(double airSpeed, double wind, Doubt doubt) {
        return wind + doubt.z() * doubt.wind() >= airSpeed;
    }
}
