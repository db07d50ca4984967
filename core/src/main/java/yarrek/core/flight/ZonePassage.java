package yarrek.core.flight;

import java.util.ArrayList;
import java.util.List;
import yarrek.core.airspace.Ground;
import yarrek.core.airspace.Zone;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.Interval;
import yarrek.core.trace.Trace;

/**
 * When a flight was in a zone: straight and even between two positions, so that a zone is met also between them and its
 * edges are crossed where they lie. Across a hole nothing is assumed.
 */
final class ZonePassage {
    private static final int HALVINGS = 12; // of a step of at most 5 s: to about a thousandth of a second
    private static final double SAME_MOMENT_S = 1e-6;

    private final Zone zone;
    private final Ground ground;
    private final double[] t;
    private final double[] lat;
    private final double[] lon;
    private final double[] height;

    private ZonePassage(Zone zone, Ground ground, double[] t, double[] lat, double[] lon, double[] height) {
        this.zone = zone;
        this.ground = ground;
        this.t = t;
        this.lat = lat;
        this.lon = lon;
        this.height = height;
    }

    /**
     * @param height above take-off in metres, or null; where there is none the aircraft is taken to reach the zone, never to
     *     pass below it
     * @return the stretches in the zone in order, joined where they meet; of no length where one position alone says so
     */
    static List<Interval> of(Zone zone, Ground ground, double[] t, double[] lat, double[] lon, double[] height) {
        return new ZonePassage(zone, ground, t, lat, lon, height).intervals();
    }

    private List<Interval> intervals() {
        List<Interval> found = new ArrayList<>();
        int previous = -1;
        for (int i = 0; i < t.length; i++) {
            if (Double.isNaN(lat[i]) || Double.isNaN(lon[i])) {
                continue;
            }
            boolean joined = previous >= 0 && t[i] - t[previous] <= Trace.LONGEST_HOLE_S;
            if (joined) {
                step(previous, i, found);
            } else if (zone.area().locate(lat[i], lon[i]) != Area.Side.OUTSIDE && reaches(i, i, 0)) {
                found.add(new Interval(t[i], t[i], t[i], Double.NaN));
            }
            previous = i;
        }
        return joined(found);
    }

    private void step(int a, int b, List<Interval> found) {
        for (double[] s : zone.area().stretches(new Position(lat[a], lon[a]), new Position(lat[b], lon[b]))) {
            double middle = (s[0] + s[1]) / 2;
            part(a, b, s[0], middle, found);
            part(a, b, middle, s[1], found);
        }
    }

    /** The share of a step within the zone's heights; a step rises or falls evenly, so it has at most one edge in half. */
    private void part(int a, int b, double from, double to, List<Interval> found) {
        boolean first = reaches(a, b, from);
        boolean last = reaches(a, b, to);
        if (!first && !last) {
            return;
        }
        double in = first ? from : to;
        double out = first ? to : from;
        if (first != last) {
            double inside = in;
            for (int k = 0; k < HALVINGS; k++) {
                double middle = (inside + out) / 2;
                if (reaches(a, b, middle)) {
                    inside = middle;
                } else {
                    out = middle;
                }
            }
        }
        double start = t[a] + Math.min(in, out) * (t[b] - t[a]);
        found.add(new Interval(start, t[a] + Math.max(in, out) * (t[b] - t[a]), start, Double.NaN));
    }

    private boolean reaches(int a, int b, double share) {
        if (height == null || Double.isNaN(height[a]) || Double.isNaN(height[b])) {
            return true;
        }
        return zone.reaches(Math.max(0, height[a] + share * (height[b] - height[a])), ground);
    }

    private static List<Interval> joined(List<Interval> parts) {
        List<Interval> whole = new ArrayList<>();
        for (Interval i : parts) {
            Interval last = whole.isEmpty() ? null : whole.get(whole.size() - 1);
            if (last != null && i.fromS() - last.toS() <= SAME_MOMENT_S) {
                whole.set(
                        whole.size() - 1,
                        new Interval(last.fromS(), Math.max(last.toS(), i.toS()), last.fromS(), Double.NaN));
            } else {
                whole.add(i);
            }
        }
        return whole;
    }
}
