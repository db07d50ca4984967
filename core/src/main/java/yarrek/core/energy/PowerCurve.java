package yarrek.core.energy;

import java.util.function.DoubleUnaryOperator;

/**
 * Power over air speed of one build in one air, by the level form P(v) = Ph·[(1 − k) + k·vi/vh] + ½·ρ·(CdA/η)·v³.
 *
 * @param massKg as flown, above 0
 * @param discM2 of all discs, above 0
 * @param density of the air, kg/m³
 * @param hoverW in that air at that mass
 * @param inducedShare k, what of the hover power throws air down, 0 to 1
 * @param drag CdA/η, m²
 */
public record PowerCurve(
        double massKg, double discM2, double density, double hoverW, double inducedShare, double drag) {
    /** m/s². */
    public static final double G = 9.80665;

    /** Until fitted; a house figure. */
    public static final double INDUCED_SHARE = 0.75;

    /** Until fitted; a house figure. */
    public static final double EFFICIENCY = 0.6;

    private static final double CLIMB_EFFICIENCY = 0.75;
    private static final double SLOWEST = 0.5;
    private static final double SCAN = 0.5;
    private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;
    private static final double CLOSE = 1e-6;

    /** @throws IllegalArgumentException for a figure that is not above 0, or a share beyond 1 */
    public PowerCurve {
        if (!(massKg > 0
                && discM2 > 0
                && density > 0
                && hoverW > 0
                && inducedShare >= 0
                && inducedShare <= 1
                && drag > 0)) {
            throw new IllegalArgumentException(
                    "a power curve needs a mass, disc, density, hover power and drag above 0 and an"
                            + " induced share from 0 to 1, got " + massKg + " kg, " + discM2 + " m², " + density
                            + " kg/m³, " + hoverW
                            + " W, " + inducedShare + ", " + drag + " m²");
        }
    }

    /**
     * Hover power from that at another mass in standard air; electronics draw the same at any.
     *
     * @param electronicsW within {@code knownW}; 0 where they are not known apart
     */
    public static double hoverScaled(double knownW, double massRatio, double density, double electronicsW) {
        return (knownW - electronicsW) * Math.pow(massRatio, 1.5) * Math.sqrt(Air.STANDARD / density) + electronicsW;
    }

    /** Drag area of an airframe nobody measured, m²: 50 % out in either direction. A house figure. */
    public static double dragArea(double massKg) {
        return 0.013 * Math.pow(massKg, 2.0 / 3);
    }

    /** Induced speed in hover, m/s. */
    public double hoverInduced() {
        return Induced.hover(massKg * G, density, discM2);
    }

    /** W at an air speed of 0 or more m/s. */
    public double at(double airSpeed) {
        double vh = hoverInduced();
        return hoverW * (1 - inducedShare + inducedShare * Induced.level(vh, airSpeed) / vh)
                + 0.5 * density * drag * airSpeed * airSpeed * airSpeed;
    }

    /** W straight up at so many m/s. Down nothing is gained: hover power. */
    public double climbing(double climb) {
        double vh = hoverInduced();
        return hoverW * (1 - inducedShare + inducedShare * Induced.climbing(vh, climb) / vh)
                + massKg * G * climb / CLIMB_EFFICIENCY;
    }

    /**
     * An air speed with what it costs.
     *
     * @param value W, or J of a metre over the ground
     * @param atTheLimit whether a faster mode would do better
     */
    public record Best(double airSpeed, double value, boolean atTheLimit) {}

    /** The air speed of least power, for the longest stay. */
    public Best endurance(double fastest) {
        return least(this::at, SLOWEST, fastest);
    }

    /**
     * The air speed that pays least for a metre over the ground.
     *
     * @param headWind m/s along the way, from ahead; 0 in calm
     * @param fastest of the mode, above the head wind
     */
    public Best range(double headWind, double fastest) {
        return least(v -> at(v) / (v - headWind), Math.max(SLOWEST, headWind + SLOWEST), fastest);
    }

    /** The least in a grid, then closer by golden section. */
    static Best least(DoubleUnaryOperator cost, double from, double to) {
        double best = from;
        for (double v = from; v <= to; v += SCAN) {
            best = cost.applyAsDouble(v) < cost.applyAsDouble(best) ? v : best;
        }
        best = cost.applyAsDouble(to) < cost.applyAsDouble(best) ? to : best;
        double lo = Math.max(from, best - SCAN);
        double hi = Math.min(to, best + SCAN);
        while (hi - lo > CLOSE) {
            double a = hi - GOLDEN * (hi - lo);
            double b = lo + GOLDEN * (hi - lo);
            if (cost.applyAsDouble(a) < cost.applyAsDouble(b)) {
                hi = b;
            } else {
                lo = a;
            }
        }
        double v = (lo + hi) / 2;
        return new Best(v, cost.applyAsDouble(v), to - v < 2 * CLOSE);
    }
}
