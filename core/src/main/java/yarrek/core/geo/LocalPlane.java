package yarrek.core.geo;

import java.util.List;
import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.GeodesicData;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateSequence;
import org.locationtech.jts.geom.CoordinateSequenceFilter;
import org.locationtech.jts.geom.Geometry;

/**
 * A plane in metres about a point: x east, y north, every point at its geodesic distance and azimuth from the middle
 * (azimuthal equidistant on WGS-84). Distances from the middle are exact; across, a length at distance s from it is too
 * great by (s/R)²/6: 4 parts in 10⁷ at 10 km, 1 in 10⁵ at 50 km.
 */
public final class LocalPlane {
    private final Position middle;

    public LocalPlane(Position middle) {
        this.middle = middle;
    }

    static LocalPlane around(Area area) {
        return new LocalPlane(area.middle());
    }

    public Position middle() {
        return middle;
    }

    /** East and north in metres. */
    public double[] toMetres(Position p) {
        GeodesicData g =
                Geodesic.WGS84.Inverse(middle.latitudeDeg(), middle.longitudeDeg(), p.latitudeDeg(), p.longitudeDeg());
        double azimuth = Math.toRadians(g.azi1);
        return new double[] {g.s12 * Math.sin(azimuth), g.s12 * Math.cos(azimuth)};
    }

    public Position toPosition(double eastM, double northM) {
        return Geodesy.destination(middle, Math.toDegrees(Math.atan2(eastM, northM)), Math.hypot(eastM, northM));
    }

    Geometry toPlane(Geometry degrees) {
        return transformed(degrees, c -> {
            double[] m = toMetres(Area.position(c));
            return new Coordinate(m[0], m[1]);
        });
    }

    /** Longitudes come out without a jump, within half a turn of the middle. */
    Geometry toDegrees(Geometry plane) {
        return transformed(plane, c -> {
            Position p = toPosition(c.x, c.y);
            double turns = Math.rint((middle.longitudeDeg() - p.longitudeDeg()) / 360);
            return new Coordinate(p.longitudeDeg() + 360 * turns, p.latitudeDeg());
        });
    }

    /** The two corners farthest from each other, by turning two parallel lines around the convex hull. */
    List<Position> farthestPair(Geometry degrees) {
        Coordinate[] hull = toPlane(degrees).convexHull().getCoordinates();
        int n = hull.length - 1;
        int j = 1;
        double best = -1;
        Coordinate one = hull[0];
        Coordinate other = hull[0];
        for (int i = 0; i < n; i++) {
            Coordinate a = hull[i];
            Coordinate b = hull[(i + 1) % n];
            while (cross(a, b, hull[(j + 1) % n]) > cross(a, b, hull[j])) {
                j = (j + 1) % n;
            }
            for (Coordinate end : new Coordinate[] {a, b}) {
                if (end.distance(hull[j]) > best) {
                    best = end.distance(hull[j]);
                    one = end;
                    other = hull[j];
                }
            }
        }
        return List.of(toPosition(one.x, one.y), toPosition(other.x, other.y));
    }

    /** Twice the area of the triangle, whichever way round. */
    private static double cross(Coordinate a, Coordinate b, Coordinate c) {
        return Math.abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
    }

    private interface Moved {
        Coordinate of(Coordinate c);
    }

    private static Geometry transformed(Geometry g, Moved moved) {
        Geometry copy = g.copy();
        copy.apply(new CoordinateSequenceFilter() {
            @Override
            public void filter(CoordinateSequence s, int i) {
                Coordinate c = moved.of(s.getCoordinate(i));
                s.setOrdinate(i, 0, c.x);
                s.setOrdinate(i, 1, c.y);
            }

            @Override
            public boolean isDone() {
                return false;
            }

            @Override
            public boolean isGeometryChanged() {
                return true;
            }
        });
        copy.geometryChanged();
        return copy;
    }
}
