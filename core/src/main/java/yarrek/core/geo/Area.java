package yarrek.core.geo;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.operation.distance.DistanceOp;
import org.locationtech.jts.operation.valid.IsValidOp;
import org.locationtech.jts.operation.valid.TopologyValidationError;

/**
 * A simple closed area without holes, its corners joined by straight lines in latitude and longitude. Meant for areas
 * up to some tens of kilometres that touch neither a pole nor the 180th meridian. Immutable.
 */
public final class Area {
    private static final GeometryFactory FACTORY = new GeometryFactory();
    private static final int MIN_CORNERS = 3;

    /** Where a point lies relative to an area. */
    public enum Side {
        INSIDE,
        EDGE,
        OUTSIDE
    }

    /**
     * The outcome of checking corners: an area, or what is wrong and where.
     *
     * @param area null when there is a fault
     * @param fault null when there is an area
     */
    public record Check(Area area, String fault) {
        public boolean isValid() {
            return area != null;
        }
    }

    private final List<Position> corners;
    private final Polygon polygon;
    private final IndexedPointInAreaLocator locator;

    private Area(List<Position> corners, Polygon polygon) {
        this.corners = List.copyOf(corners);
        this.polygon = polygon;
        this.locator = new IndexedPointInAreaLocator(polygon);
    }

    /**
     * Checks corners, in order, with or without the first repeated at the end. An area with fewer than three corners, or
     * one whose sides cross, is a fault that names the place; nothing is repaired in silence.
     */
    public static Check check(List<Position> corners) {
        List<Position> open = new ArrayList<>(corners);
        if (open.size() > 1 && open.get(0).equals(open.get(open.size() - 1))) {
            open.remove(open.size() - 1);
        }
        if (open.size() < MIN_CORNERS) {
            return new Check(null, "an area needs at least three different corners, got " + open.size());
        }
        Coordinate[] ring = new Coordinate[open.size() + 1];
        for (int i = 0; i < open.size(); i++) {
            ring[i] = coordinate(open.get(i));
        }
        ring[open.size()] = ring[0];
        Polygon polygon = FACTORY.createPolygon(ring);
        TopologyValidationError error = new IsValidOp(polygon).getValidationError();
        if (error != null) {
            Coordinate at = error.getCoordinate();
            return new Check(
                    null,
                    "the sides of the area cross or touch near " + new Position(at.y, at.x)
                            + "; put the corners in order around the area");
        }
        return new Check(new Area(open, polygon), null);
    }

    /**
     * An area from corners known to be good.
     *
     * @throws IllegalArgumentException with the fault that {@link #check} names
     */
    public static Area of(List<Position> corners) {
        Check check = check(corners);
        if (!check.isValid()) {
            throw new IllegalArgumentException(check.fault());
        }
        return check.area();
    }

    /** A regular polygon of 72 corners on the circle of the given radius, for zones given as centre and radius. */
    public static Area circle(Position centre, double radiusM) {
        List<Position> corners = new ArrayList<>();
        for (int azimuth = 0; azimuth < 360; azimuth += 5) {
            corners.add(Geodesy.destination(centre, azimuth, radiusM));
        }
        return of(corners);
    }

    public List<Position> corners() {
        return corners;
    }

    public Side locate(double latitudeDeg, double longitudeDeg) {
        int location = locator.locate(new Coordinate(longitudeDeg, latitudeDeg));
        return location == Location.INTERIOR ? Side.INSIDE : location == Location.BOUNDARY ? Side.EDGE : Side.OUTSIDE;
    }

    /** Whether the two areas share any point; a shared edge counts. */
    public boolean meets(Area other) {
        return polygon.intersects(other.polygon);
    }

    /** Whether the two areas share an edge or a corner but no inside. */
    public boolean onlyTouches(Area other) {
        return polygon.touches(other.polygon);
    }

    /**
     * Distance from a point to the nearest point of the area in metres; zero inside. The nearest point is found in a
     * local plane with longitudes scaled by the cosine of the latitude, then measured by geodesic; over 30 km the nearest
     * point so found is right to better than 0.2 %.
     */
    public double distanceM(Position from) {
        double scale = Math.cos(Math.toRadians(from.latitudeDeg()));
        AffineTransformation toPlane = AffineTransformation.scaleInstance(scale, 1);
        Point point = FACTORY.createPoint(new Coordinate(from.longitudeDeg() * scale, from.latitudeDeg()));
        Coordinate nearest = DistanceOp.nearestPoints(toPlane.transform(polygon), point)[0];
        return Geodesy.distanceM(from.latitudeDeg(), from.longitudeDeg(), nearest.y, nearest.x / scale);
    }

    /** The greatest distance in metres from a point to any corner, and so to any point of the area. */
    public double farthestCornerM(Position from) {
        return corners.stream()
                .mapToDouble(c -> Geodesy.distanceM(from, c))
                .max()
                .orElseThrow();
    }

    public double minLatitudeDeg() {
        return polygon.getEnvelopeInternal().getMinY();
    }

    public double maxLatitudeDeg() {
        return polygon.getEnvelopeInternal().getMaxY();
    }

    public double minLongitudeDeg() {
        return polygon.getEnvelopeInternal().getMinX();
    }

    public double maxLongitudeDeg() {
        return polygon.getEnvelopeInternal().getMaxX();
    }

    private static Coordinate coordinate(Position p) {
        return new Coordinate(p.longitudeDeg(), p.latitudeDeg());
    }
}
