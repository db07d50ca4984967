package yarrek.core.flight;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import yarrek.core.geo.Position;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/**
 * Finds the flights in a log: one from each take-off to the landing after it.
 *
 * <p>The aircraft is taken to stand on the ground where it is still (height and position hardly change over three
 * seconds) and near the height it last stood at, or still and drawing little current. What lies between two such
 * stretches, and rises or moves, is a flight. A log that begins or ends in the air yields a flight marked so.
 *
 * <p>Thresholds, and the case that set each: heights above take-off come from a barometer and hold to about 0.1 m;
 * satellite altitudes wander by 1 to 2 m within minutes. Times of take-off and landing are good to about 1 s with the
 * former, 3 s with the latter or at 1 Hz.
 */
public final class FlightFinder {
    private static final double STILL_WINDOW_S = 3.0;
    private static final double STILL_HEIGHT_M = 0.3;
    private static final double STILL_MOVE_M = 0.6;
    private static final double SHORTEST_STAND_S = 2.0;
    private static final double SHORTEST_REST_S = 0.5; // what falls freely is 1.2 m further down after it
    private static final double NEAR_GROUND_BAROMETER_M = 0.7;
    private static final double NEAR_GROUND_SATELLITE_M = 2.6;
    private static final double RISE_BAROMETER_M = 0.7;
    private static final double RISE_SATELLITE_M = 2.6;
    private static final double LEFT_GROUND_BAROMETER_M = 0.15;
    private static final double LEFT_GROUND_SATELLITE_M = 0.4;
    private static final double MOVE_WITHOUT_HEIGHT_M = 8.0;
    private static final double IDLE_SHARE = 0.12;
    private static final double IDLE_PEAK_A = 3.0;
    private static final double LONGEST_SILENCE_S = 600; // no small aircraft changes its batteries in less and stays up
    private static final double METRES_PER_DEGREE = 111_195; // mean; only for stillness, never for a result

    /**
     * A flight as a stretch of a trace.
     *
     * @param takeoff index of the first sample in the air
     * @param landing index of the last sample in the air
     * @param shareFrom first sample whose charge counts to this flight
     * @param shareTo last sample whose charge counts to this flight
     */
    public record Span(
            int takeoff, int landing, boolean beginsInTheAir, boolean endsInTheAir, int shareFrom, int shareTo) {}

    private final Trace trace;
    private final double[] t;
    private final double[] height;
    private final boolean satellite;

    private FlightFinder(Trace trace) {
        this.trace = trace;
        this.t = trace.seconds();
        boolean relative = known(trace.column(Channel.HEIGHT_ABOVE_TAKEOFF_M)) > 0;
        this.satellite = !relative;
        this.height = relative ? trace.column(Channel.HEIGHT_ABOVE_TAKEOFF_M) : trace.column(Channel.ALTITUDE_MSL_M);
    }

    /** The flights of a trace, in order; empty when nothing in it left the ground. */
    public static List<Span> find(Trace trace) {
        return trace.size() < 2 ? List.of() : new FlightFinder(trace).spans();
    }

    private static int known(double[] column) {
        int n = 0;
        if (column != null) {
            for (double v : column) {
                n += Double.isNaN(v) ? 0 : 1;
            }
        }
        return n;
    }

    private List<Span> spans() {
        boolean[] still = stillness();
        boolean[] ground = new boolean[t.length];
        double nearGround = satellite ? NEAR_GROUND_SATELLITE_M : NEAR_GROUND_BAROMETER_M;
        double reference = Double.NaN;
        double[] current = trace.column(Channel.CURRENT_A);
        double peak = current == null
                ? Double.NaN
                : Arrays.stream(current).filter(c -> !Double.isNaN(c)).max().orElse(Double.NaN);
        boolean currentTells = peak > IDLE_PEAK_A;
        for (int i = 0; i < t.length; i++) {
            if (!still[i]) {
                continue;
            }
            double h = height == null ? Double.NaN : height[i];
            boolean idle = currentTells && current[i] < peak * IDLE_SHARE;
            boolean loaded = currentTells && current[i] >= peak * IDLE_SHARE;
            if (Double.isNaN(reference) && !loaded && (satellite || Math.abs(h) < nearGround || height == null)) {
                reference = h;
            }
            boolean near = height == null || Double.isNaN(h) || Math.abs(h - reference) < nearGround;
            if (idle || (near && !loaded && !Double.isNaN(reference)) || (height == null && !loaded)) {
                ground[i] = true;
                if (!Double.isNaN(h)) {
                    reference = h;
                }
            }
        }
        return between(stands(ground));
    }

    /** Whether height and position hardly change within the window around each sample. */
    private boolean[] stillness() {
        boolean[] still = new boolean[t.length];
        double[] lat = trace.column(Channel.LATITUDE_DEG);
        double[] lon = trace.column(Channel.LONGITUDE_DEG);
        double half = STILL_WINDOW_S / 2;
        int a = 0;
        int b = 0;
        for (int i = 0; i < t.length; i++) {
            while (t[i] - t[a] > half) {
                a++;
            }
            while (b + 1 < t.length && t[b + 1] - t[i] <= half) {
                b++;
            }
            int from = a == i && i > 0 ? i - 1 : a;
            int to = b == i && i + 1 < t.length ? i + 1 : b;
            still[i] = range(height, from, to) <= STILL_HEIGHT_M
                    && range(lat, from, to) * METRES_PER_DEGREE <= STILL_MOVE_M
                    && eastRange(lon, from, to) * METRES_PER_DEGREE * lonScale(lat, i) <= STILL_MOVE_M;
        }
        return still;
    }

    private static double lonScale(double[] lat, int i) {
        return lat == null || Double.isNaN(lat[i]) ? 1 : Math.cos(Math.toRadians(lat[i]));
    }

    private static double range(double[] v, int from, int to) {
        if (v == null) {
            return 0;
        }
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (int i = from; i <= to; i++) {
            if (!Double.isNaN(v[i])) {
                least = Math.min(least, v[i]);
                greatest = Math.max(greatest, v[i]);
            }
        }
        return greatest < least ? 0 : greatest - least;
    }

    /** Spread of longitudes in degrees, also across the 180th meridian. */
    private static double eastRange(double[] lon, int from, int to) {
        if (lon == null) {
            return 0;
        }
        double origin = Double.NaN;
        double least = 0;
        double greatest = 0;
        for (int i = from; i <= to; i++) {
            origin = Double.isNaN(origin) ? lon[i] : origin;
            double east = Position.eastOf(lon[i], origin);
            if (!Double.isNaN(east)) {
                least = Math.min(least, east);
                greatest = Math.max(greatest, east);
            }
        }
        return greatest - least;
    }

    /** Stretches on the ground that last long enough to be a stand, as pairs of indices. */
    private List<int[]> stands(boolean[] ground) {
        List<int[]> stands = new ArrayList<>();
        int open = -1;
        for (int i = 0; i <= ground.length; i++) {
            boolean on = i < ground.length && ground[i];
            if (on && open < 0) {
                open = i;
            } else if (!on && open >= 0) {
                boolean atAnEnd = open == 0 || i == ground.length;
                if (atAnEnd || t[i - 1] - t[open] >= SHORTEST_STAND_S) {
                    stands.add(new int[] {open, i - 1});
                }
                open = -1;
            }
        }
        return stands;
    }

    private List<Span> between(List<int[]> stands) {
        List<int[]> air = new ArrayList<>();
        int from = 0;
        for (int[] stand : stands) {
            if (stand[0] > from) {
                air.add(new int[] {from, stand[0] - 1});
            }
            from = stand[1] + 1;
        }
        if (from < t.length) {
            air.add(new int[] {from, t.length - 1});
        }
        List<Span> spans = new ArrayList<>();
        for (int[] run : air.stream().flatMap(this::withoutLongHoles).toList()) {
            if (rises(run[0], run[1])) {
                spans.add(refine(run[0], run[1]));
            }
        }
        return share(spans);
    }

    /** A log that stays silent for minutes in the air goes on with another flight, as far as anybody can tell. */
    private Stream<int[]> withoutLongHoles(int[] run) {
        List<int[]> parts = new ArrayList<>();
        int from = run[0];
        for (int i = run[0] + 1; i <= run[1]; i++) {
            if (t[i] - t[i - 1] > LONGEST_SILENCE_S) {
                parts.add(new int[] {from, i - 1});
                from = i;
            }
        }
        parts.add(new int[] {from, run[1]});
        return parts.stream();
    }

    private boolean silentBefore(int i) {
        return i == 0 || t[i] - t[i - 1] > LONGEST_SILENCE_S;
    }

    private boolean rises(int from, int to) {
        int a = silentBefore(from) ? from : from - 1;
        if (height != null) {
            return range(height, a, to) >= (satellite ? RISE_SATELLITE_M : RISE_BAROMETER_M);
        }
        double[] lat = trace.column(Channel.LATITUDE_DEG);
        double[] lon = trace.column(Channel.LONGITUDE_DEG);
        return range(lat, a, to) * METRES_PER_DEGREE >= MOVE_WITHOUT_HEIGHT_M
                || eastRange(lon, a, to) * METRES_PER_DEGREE * lonScale(lat, from) >= MOVE_WITHOUT_HEIGHT_M;
    }

    /** Moves the ends from where it is surely moving to where it left and touched the ground. */
    private Span refine(int from, int to) {
        boolean beginsInTheAir = silentBefore(from);
        boolean endsInTheAir = (to == t.length - 1 && !restsAtTheEnd()) || (to < t.length - 1 && silentBefore(to + 1));
        double left = satellite ? LEFT_GROUND_SATELLITE_M : LEFT_GROUND_BAROMETER_M;
        int takeoff = from;
        int landing = to;
        if (height != null) {
            if (!beginsInTheAir) {
                double stood = lastKnown(from - 1);
                while (takeoff < to && !(Math.abs(height[takeoff] - stood) > left)) {
                    takeoff++;
                }
            }
            if (!endsInTheAir) {
                double stands = lastKnown(Math.min(t.length - 1, to + 1));
                while (landing > takeoff && !(Math.abs(height[landing] - stands) > left)) {
                    landing--;
                }
            }
        }
        return new Span(takeoff, landing, beginsInTheAir, endsInTheAir, takeoff, landing);
    }

    /** Whether the log ends with the motors stopped and nothing falling: down, though too shortly to be a stand. */
    private boolean restsAtTheEnd() {
        double[] current = trace.column(Channel.CURRENT_A);
        int from = t.length - 1;
        while (from > 0 && t[t.length - 1] - t[from - 1] <= SHORTEST_REST_S) {
            from--;
        }
        if (current == null || height == null || t.length - from < 3) {
            return false;
        }
        double peak = Arrays.stream(current).filter(c -> !Double.isNaN(c)).max().orElse(Double.NaN);
        boolean stopped =
                peak > IDLE_PEAK_A && Arrays.stream(current, from, t.length).allMatch(c -> c < peak * IDLE_SHARE);
        return stopped && range(height, from, t.length - 1) <= STILL_HEIGHT_M;
    }

    private double lastKnown(int index) {
        for (int i = index; i >= 0; i--) {
            if (!Double.isNaN(height[i])) {
                return height[i];
            }
        }
        return 0;
    }

    /** Shares the log out among its flights, each stand by halves, so that the charge of all flights is that of the log. */
    private List<Span> share(List<Span> spans) {
        List<Span> shared = new ArrayList<>();
        for (int k = 0; k < spans.size(); k++) {
            Span s = spans.get(k);
            int from = k == 0 ? 0 : (spans.get(k - 1).landing() + s.takeoff()) / 2 + 1;
            int to = k == spans.size() - 1
                    ? t.length - 1
                    : (s.landing() + spans.get(k + 1).takeoff()) / 2;
            shared.add(new Span(s.takeoff(), s.landing(), s.beginsInTheAir(), s.endsInTheAir(), from, to));
        }
        return shared;
    }
}
