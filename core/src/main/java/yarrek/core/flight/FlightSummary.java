package yarrek.core.flight;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/**
 * What a flight comes to. Every figure that the log cannot give is empty.
 *
 * @param takeoffS seconds from the start of the trace
 * @param landingS seconds from the start of the trace
 * @param pathM sum of the geodesics between the positions in the air, in the horizontal; jumps of the log left out
 * @param greatestDistanceM geodesic from the take-off position
 * @param greatestHeightM above the take-off point, from the log's own height or else from the altitude
 * @param heightFromAltitude whether heights come from satellite altitude less the altitude at take-off
 * @param greatestSpeedMps over the ground, as logged; else between positions at least 0.5 s apart
 * @param chargeMah drawn over the flight's share of the log, standing included: current over time by trapezoids, or the
 *     log's own counter
 * @param energyWh volts times amperes over the same stretch
 * @param positionsMissing samples in the air without a position
 */
public record FlightSummary(
        Instant takeoff,
        Instant landing,
        double takeoffS,
        double landingS,
        boolean beginsInTheAir,
        boolean endsInTheAir,
        Optional<Position> takeoffPosition,
        double pathM,
        OptionalDouble greatestDistanceM,
        double greatestDistanceS,
        OptionalDouble greatestHeightM,
        double greatestHeightS,
        boolean heightFromAltitude,
        OptionalDouble greatestAltitudeMslM,
        OptionalDouble greatestSpeedMps,
        OptionalDouble chargeAtTakeoffPct,
        OptionalDouble chargeAtLandingPct,
        OptionalDouble leastChargePct,
        OptionalDouble chargeMah,
        OptionalDouble energyWh,
        OptionalDouble leastCellV,
        OptionalDouble greatestCellSpreadV,
        OptionalDouble greatestWindMps,
        int positionsMissing,
        int samples) {

    private static final double SPEED_STEP_S = 0.5;
    private static final double SHORTEST_STEP_S = 0.05;
    private static final double STOOD_S = 10; // before take-off; longer ago a satellite altitude has wandered

    /** Flattening stretches north against east by at most 0.7 %; over 100 km the plane adds less than 1 % to that. */
    private static final double PLANE_SURE = 0.97;

    private static final double SECONDS_PER_HOUR = 3600;
    private static final double MILLI = 1000;

    public Duration duration() {
        return Duration.between(takeoff, landing);
    }

    /** Equivalent full cycles of a pack of this capacity; empty when no charge was logged. */
    public OptionalDouble equivalentCycles(double capacityMah) {
        if (!(capacityMah > 0)) {
            throw new IllegalArgumentException("capacity must be more than 0 mAh, got " + capacityMah);
        }
        return chargeMah.isPresent() ? OptionalDouble.of(chargeMah.getAsDouble() / capacityMah) : chargeMah;
    }

    /** Measures one flight of a trace. */
    public static FlightSummary of(Trace trace, FlightFinder.Span span) {
        return new Measure(trace, span).summary();
    }

    /** Greatest geodesic in metres from a point to a position in the air of the span; empty when it has no positions. */
    public static OptionalDouble greatestDistanceFrom(Trace trace, FlightFinder.Span span, Position point) {
        int i = farthest(trace, span, point);
        return i < 0
                ? OptionalDouble.empty()
                : OptionalDouble.of(Geodesy.distanceM(
                        point.latitudeDeg(),
                        point.longitudeDeg(),
                        trace.at(Channel.LATITUDE_DEG, i),
                        trace.at(Channel.LONGITUDE_DEG, i)));
    }

    /**
     * Index of the position in the air farthest from a point, or -1. A look in the plane leaves out what is nearer by more
     * than its own error; the rest is measured by geodesic.
     */
    private static int farthest(Trace trace, FlightFinder.Span span, Position point) {
        double[] lat = trace.column(Channel.LATITUDE_DEG);
        double[] lon = trace.column(Channel.LONGITUDE_DEG);
        if (lat == null || lon == null) {
            return -1;
        }
        double scale = Math.cos(Math.toRadians(point.latitudeDeg()));
        double[] plane = new double[span.landing() - span.takeoff() + 1];
        double most = -1;
        for (int i = span.takeoff(); i <= span.landing(); i++) {
            double d = Math.hypot(lat[i] - point.latitudeDeg(), Position.eastOf(lon[i], point.longitudeDeg()) * scale);
            plane[i - span.takeoff()] = d;
            most = d > most ? d : most;
        }
        int best = -1;
        double far = -1;
        for (int i = span.takeoff(); i <= span.landing(); i++) {
            if (plane[i - span.takeoff()] >= most * PLANE_SURE) {
                double d = Geodesy.distanceM(point.latitudeDeg(), point.longitudeDeg(), lat[i], lon[i]);
                if (d > far) {
                    far = d;
                    best = i;
                }
            }
        }
        return best;
    }

    /** Heights above the take-off of the span: the log's own, or altitude less that at take-off; null when neither. */
    public static double[] heights(Trace trace, FlightFinder.Span span) {
        double[] own = trace.column(Channel.HEIGHT_ABOVE_TAKEOFF_M);
        if (own != null) {
            return own;
        }
        double[] altitude = trace.column(Channel.ALTITUDE_MSL_M);
        if (altitude == null) {
            return null;
        }
        double ground = groundBefore(altitude, trace.seconds(), span);
        double[] heights = new double[altitude.length];
        for (int i = 0; i < heights.length; i++) {
            heights[i] = altitude[i] - ground;
        }
        return heights;
    }

    /** Mean altitude of the seconds it stood before take-off; where the log has none of those, the first in the air. */
    private static double groundBefore(double[] altitude, double[] t, FlightFinder.Span span) {
        double sum = 0;
        int n = 0;
        // the last half second may already be on the way up
        for (int i = span.takeoff() - 1;
                i >= Math.max(0, span.shareFrom()) && t[span.takeoff()] - t[i] <= STOOD_S;
                i--) {
            if (!Double.isNaN(altitude[i]) && t[span.takeoff()] - t[i] >= SPEED_STEP_S) {
                sum += altitude[i];
                n++;
            }
        }
        if (n > 0) {
            return sum / n;
        }
        for (int i = Math.max(0, span.takeoff() - 1); i < altitude.length; i++) {
            if (!Double.isNaN(altitude[i])) {
                return altitude[i];
            }
        }
        return Double.NaN;
    }

    private static final class Measure {
        private final Trace trace;
        private final FlightFinder.Span span;
        private final double[] t;

        Measure(Trace trace, FlightFinder.Span span) {
            this.trace = trace;
            this.span = span;
            this.t = trace.seconds();
        }

        FlightSummary summary() {
            double[] lat = trace.column(Channel.LATITUDE_DEG);
            double[] lon = trace.column(Channel.LONGITUDE_DEG);
            Position takeoff = firstPosition(lat, lon);
            double path = 0;
            double far = Double.NaN;
            double farS = Double.NaN;
            double derivedSpeed = Double.NaN;
            int missing = 0;
            int previous = -1;
            int speedFrom = -1;
            for (int i = span.takeoff(); i <= span.landing(); i++) {
                if (lat == null || lon == null || Double.isNaN(lat[i]) || Double.isNaN(lon[i])) {
                    missing++;
                    continue;
                }
                if (previous >= 0) {
                    double step = Geodesy.stepM(lat[previous], lon[previous], lat[i], lon[i]);
                    path += jump(step, t[i] - t[previous]) ? 0 : step;
                }
                if (speedFrom < 0) {
                    speedFrom = i;
                } else if (t[i] - t[speedFrom] >= SPEED_STEP_S) {
                    double step = Geodesy.stepM(lat[speedFrom], lon[speedFrom], lat[i], lon[i]);
                    double v = step / (t[i] - t[speedFrom]);
                    if (!jump(step, t[i] - t[speedFrom])) {
                        derivedSpeed = Double.isNaN(derivedSpeed) ? v : Math.max(derivedSpeed, v);
                    }
                    speedFrom = i;
                }
                previous = i;
            }
            int farAt = takeoff == null ? -1 : farthest(trace, span, takeoff);
            if (farAt >= 0) {
                far = Geodesy.distanceM(takeoff.latitudeDeg(), takeoff.longitudeDeg(), lat[farAt], lon[farAt]);
                farS = t[farAt];
            }
            double[] height = heights(trace, span);
            int top = indexOfGreatest(height, span.takeoff(), span.landing());
            OptionalDouble speed = greatest(Channel.GROUND_SPEED_MPS);
            return new FlightSummary(
                    trace.instant(t[span.takeoff()]),
                    trace.instant(t[span.landing()]),
                    t[span.takeoff()],
                    t[span.landing()],
                    span.beginsInTheAir(),
                    span.endsInTheAir(),
                    Optional.ofNullable(takeoff),
                    path,
                    known(far),
                    farS,
                    top < 0 ? OptionalDouble.empty() : OptionalDouble.of(height[top]),
                    top < 0 ? Double.NaN : t[top],
                    !trace.has(Channel.HEIGHT_ABOVE_TAKEOFF_M),
                    greatest(Channel.ALTITUDE_MSL_M),
                    speed.isPresent() ? speed : known(derivedSpeed),
                    firstOrLast(Channel.BATTERY_PCT, true),
                    firstOrLast(Channel.BATTERY_PCT, false),
                    least(trace.column(Channel.BATTERY_PCT)),
                    charge(),
                    integral(true),
                    cells(false),
                    cells(true),
                    greatest(Channel.WIND_MPS),
                    missing,
                    span.landing() - span.takeoff() + 1);
        }

        /** Whether a step could not have been flown; clocks that count whole tenths are given one half of that. */
        private static boolean jump(double metres, double seconds) {
            return metres / Math.max(seconds, SHORTEST_STEP_S) > Trace.IMPLAUSIBLE_SPEED_MPS;
        }

        private static OptionalDouble known(double v) {
            return Double.isNaN(v) ? OptionalDouble.empty() : OptionalDouble.of(v);
        }

        private Position firstPosition(double[] lat, double[] lon) {
            if (lat == null || lon == null) {
                return null;
            }
            for (int i = span.takeoff(); i <= span.landing(); i++) {
                if (!Double.isNaN(lat[i]) && !Double.isNaN(lon[i])) {
                    return new Position(lat[i], lon[i]);
                }
            }
            return null;
        }

        private static int indexOfGreatest(double[] v, int from, int to) {
            int best = -1;
            for (int i = from; v != null && i <= to; i++) {
                if (!Double.isNaN(v[i]) && (best < 0 || v[i] > v[best])) {
                    best = i;
                }
            }
            return best;
        }

        private OptionalDouble greatest(Channel c) {
            double[] v = trace.column(c);
            int i = indexOfGreatest(v, span.takeoff(), span.landing());
            return i < 0 ? OptionalDouble.empty() : OptionalDouble.of(v[i]);
        }

        private OptionalDouble least(double[] v) {
            double least = Double.NaN;
            for (int i = span.shareFrom(); v != null && i <= span.shareTo(); i++) {
                if (!Double.isNaN(v[i]) && !(least <= v[i])) {
                    least = v[i];
                }
            }
            return known(least);
        }

        private OptionalDouble firstOrLast(Channel c, boolean first) {
            double[] v = trace.column(c);
            if (v == null) {
                return OptionalDouble.empty();
            }
            for (int k = 0; k <= span.landing() - span.takeoff(); k++) {
                int i = first ? span.takeoff() + k : span.landing() - k;
                if (!Double.isNaN(v[i])) {
                    return OptionalDouble.of(v[i]);
                }
            }
            return OptionalDouble.empty();
        }

        private OptionalDouble charge() {
            OptionalDouble integrated = integral(false);
            if (integrated.isPresent()) {
                return integrated;
            }
            double[] used = trace.column(Channel.CHARGE_USED_MAH);
            OptionalDouble least = least(used);
            double greatest = Double.NaN;
            for (int i = span.shareFrom(); used != null && i <= span.shareTo(); i++) {
                if (!Double.isNaN(used[i]) && !(greatest >= used[i])) {
                    greatest = used[i];
                }
            }
            return least.isEmpty() ? least : OptionalDouble.of(greatest - least.getAsDouble());
        }

        /** Trapezoids over the flight's share of the log, in Wh with volts and mAh without. */
        private OptionalDouble integral(boolean withVolts) {
            double[] amps = trace.column(Channel.CURRENT_A);
            double[] volts = trace.column(Channel.VOLTAGE_V);
            if (amps == null || (withVolts && volts == null)) {
                return OptionalDouble.empty();
            }
            double sum = 0;
            int previous = -1;
            for (int i = span.shareFrom(); i <= span.shareTo(); i++) {
                double now = amps[i] * (withVolts ? volts[i] : 1);
                if (Double.isNaN(now)) {
                    continue;
                }
                if (previous >= 0) {
                    double before = amps[previous] * (withVolts ? volts[previous] : 1);
                    sum += (now + before) / 2 * (t[i] - t[previous]);
                }
                previous = i;
            }
            return previous < 0
                    ? OptionalDouble.empty()
                    : OptionalDouble.of(sum / SECONDS_PER_HOUR * (withVolts ? 1 : MILLI));
        }

        /** Least voltage of any cell, or the greatest difference between two cells at one moment. */
        private OptionalDouble cells(boolean spread) {
            double result = Double.NaN;
            List<double[]> cells = trace.channels().stream()
                    .filter(Channel::isCell)
                    .map(trace::column)
                    .toList();
            for (int i = span.shareFrom(); !cells.isEmpty() && i <= span.shareTo(); i++) {
                double low = Double.NaN;
                double high = Double.NaN;
                for (double[] cell : cells) {
                    double v = cell[i];
                    if (!Double.isNaN(v)) {
                        low = low <= v ? low : v;
                        high = high >= v ? high : v;
                    }
                }
                double here = spread ? high - low : low;
                if (!Double.isNaN(here) && (Double.isNaN(result) || (spread ? here > result : here < result))) {
                    result = here;
                }
            }
            return known(result);
        }
    }
}
