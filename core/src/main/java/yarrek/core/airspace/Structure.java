package yarrek.core.airspace;

import java.util.List;
import java.util.Optional;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.LocalPlane;
import yarrek.core.geo.Position;

/**
 * An obstacle that stands on the ground: a point, a line such as a cable, or an area.
 *
 * @param kind mast, line, tree, crane, building or another word
 * @param points one for a point, two or more for a line; the outline when {@code area} is given
 * @param area empty for points and lines
 * @param heightM of its top above the ground below it, above 0 m; empty when not known
 */
public record Structure(
        String name, String kind, List<Position> points, Optional<Area> area, java.util.OptionalDouble heightM) {
    public Structure {
        points = List.copyOf(points);
        if (points.isEmpty()) {
            throw new IllegalArgumentException("an obstacle needs a position");
        }
    }

    private static final java.util.Set<String> GROWN = java.util.Set.of("tree", "trees", "wood", "cliff", "hill");

    /** Whether people made it: only such a structure raises a height limit. */
    public boolean isArtificial() {
        return !GROWN.contains(kind);
    }

    /** Horizontal distance from a position to its nearest point in metres; zero inside an area. */
    public double distanceM(Position from) {
        if (area.isPresent()) {
            return area.get().distanceM(from);
        }
        double best = Geodesy.distanceM(from, points.get(0));
        LocalPlane plane = new LocalPlane(from);
        for (int i = 1; i < points.size(); i++) {
            double[] a = plane.toMetres(points.get(i - 1));
            double[] b = plane.toMetres(points.get(i));
            double dx = b[0] - a[0];
            double dy = b[1] - a[1];
            double length2 = dx * dx + dy * dy;
            double t = length2 == 0 ? 0 : Math.max(0, Math.min(1, -(a[0] * dx + a[1] * dy) / length2));
            best = Math.min(best, Math.hypot(a[0] + t * dx, a[1] + t * dy));
        }
        return best;
    }
}
