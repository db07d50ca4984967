package yarrek.core.flight;

import java.util.List;
import java.util.Optional;
import org.hipparchus.exception.MathIllegalArgumentException;
import org.hipparchus.stat.regression.OLSMultipleLinearRegression;
import yarrek.core.energy.Air;

/**
 * Wind from how an aircraft leans: what leans into the wind and stands still tells it, what flies several ways tells its own
 * drag as well. Velocities to the east and north, m/s.
 *
 * @param east where the wind blows to
 * @param north where the wind blows to
 * @param lean air speed of a lean of 45° in standard air, √(2·m·g / (1.225·CdA)), m/s
 * @param dragKnown false when the drag area was taken and not found: then the speed is a rough one, the direction is not
 * @param sd one standard deviation of each part, m/s
 */
public record WindFlown(double east, double north, double lean, boolean dragKnown, double sd) {
    private static final double G = 9.80665;
    private static final int FEWEST = 5;
    /** Neighbouring windows share their gusts: an error is larger by this than of windows that share nothing. */
    private static final double SHARED = 1.53;
    /** Of the wind, for the doubt in the drag. */
    private static final double OF_DRAG = 0.04;

    private static final double OF_DRAG_TAKEN = 0.5;

    /**
     * Means over a window of steady flight.
     *
     * @param east over ground, m/s
     * @param north over ground, m/s
     * @param leanEast horizontal over vertical part of the thrust to the east, less the acceleration
     * @param leanNorth the same to the north
     */
    public record Steady(double east, double north, double leanEast, double leanNorth) {
        /** Part of the air velocity for each m/s of {@link WindFlown#lean}. */
        private double[] air(double density) {
            double lean = Math.hypot(leanEast, leanNorth);
            double by = lean == 0 ? 0 : Math.sqrt(lean) / lean * Math.sqrt(Air.STANDARD / density);
            return new double[] {by * leanEast, by * leanNorth};
        }
    }

    /** A lean from attitude. @return horizontal over vertical part of the thrust, to the east and north */
    public static double[] lean(double rollDeg, double pitchDeg, double headingDeg) {
        double forward = Math.tan(-Math.toRadians(pitchDeg));
        double right = Math.tan(Math.toRadians(rollDeg)) * Math.sqrt(forward * forward + 1);
        double heading = Math.toRadians(headingDeg);
        return new double[] {
            forward * Math.sin(heading) + right * Math.cos(heading),
            forward * Math.cos(heading) - right * Math.sin(heading)
        };
    }

    /** Air speed of a lean of 45° for a drag area in m². */
    public static double leanOf(double massKg, double dragArea) {
        return Math.sqrt(2 * massKg * G / (Air.STANDARD * dragArea));
    }

    /** Drag area, m², behind {@link #lean}. */
    public double dragArea(double massKg) {
        return 2 * massKg * G / (Air.STANDARD * lean * lean);
    }

    /**
     * Wind and drag together, from windows on several headings or at several speeds.
     *
     * @return empty with fewer than five windows, or when all are of one sort
     */
    public static Optional<WindFlown> of(List<Steady> windows, double density) {
        if (windows.size() < FEWEST) {
            return Optional.empty();
        }
        double[] y = new double[2 * windows.size()];
        double[][] x = new double[y.length][];
        for (int i = 0; i < windows.size(); i++) {
            double[] air = windows.get(i).air(density);
            y[2 * i] = windows.get(i).east();
            x[2 * i] = new double[] {1, 0, air[0]};
            y[2 * i + 1] = windows.get(i).north();
            x[2 * i + 1] = new double[] {0, 1, air[1]};
        }
        OLSMultipleLinearRegression fit = new OLSMultipleLinearRegression(1e-6);
        fit.setNoIntercept(true);
        fit.newSampleData(y, x);
        try {
            double[] found = fit.estimateRegressionParameters();
            double[] se = fit.estimateRegressionParametersStandardErrors();
            double wind = Math.hypot(found[0], found[1]);
            return found[2] > 0
                    ? Optional.of(new WindFlown(
                            found[0],
                            found[1],
                            found[2],
                            true,
                            Math.hypot(SHARED * Math.max(se[0], se[1]), OF_DRAG * wind)))
                    : Optional.empty();
        } catch (MathIllegalArgumentException e) {
            return Optional.empty(); // all windows lean alike: nothing tells the wind from the flight
        }
    }

    /**
     * Wind alone, with a drag that is known or taken.
     *
     * @param lean air speed of a lean of 45° in standard air, m/s
     * @param known whether it was found on own flights
     * @return empty without windows
     */
    public static Optional<WindFlown> of(List<Steady> windows, double density, double lean, boolean known) {
        if (windows.isEmpty()) {
            return Optional.empty();
        }
        double east = 0;
        double north = 0;
        double squares = 0;
        for (Steady s : windows) {
            double[] air = s.air(density);
            double e = s.east() - lean * air[0];
            double n = s.north() - lean * air[1];
            east += e;
            north += n;
            squares += e * e + n * n;
        }
        int count = windows.size();
        east /= count;
        north /= count;
        double variance = Math.max(0, squares / count - east * east - north * north) / 2;
        double wind = Math.hypot(east, north);
        double se = Math.sqrt(variance / Math.max(1, count - 1));
        return Optional.of(new WindFlown(
                east, north, lean, known, Math.hypot(SHARED * se, (known ? OF_DRAG : OF_DRAG_TAKEN) * wind)));
    }

    public double speed() {
        return Math.hypot(east, north);
    }

    /** Where it comes from, degrees from north. */
    public double from() {
        return (Math.toDegrees(Math.atan2(-east, -north)) + 360) % 360;
    }
}
