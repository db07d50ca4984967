package yarrek.core.geo;

import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.GeodesicData;
import net.sf.geographiclib.GeodesicMask;

/**
 * Distances on the WGS-84 ellipsoid by the geodesic inverse problem (C. F. F. Karney, "Algorithms for geodesics",
 * J. Geodesy 87, 2013); accurate to about 15 nm.
 */
public final class Geodesy {
    private Geodesy() {}

    /** Length of the shortest line between two points on the ellipsoid, in metres; zero or more. */
    public static double distanceM(double lat1Deg, double lon1Deg, double lat2Deg, double lon2Deg) {
        return Geodesic.WGS84.Inverse(lat1Deg, lon1Deg, lat2Deg, lon2Deg, GeodesicMask.DISTANCE).s12;
    }

    private static final double FIRST_ECCENTRICITY_SQUARED = 0.00669437999014;
    private static final double EQUATOR_M = 6_378_137;
    private static final double SHORT_DEG = 0.01;
    private static final double FARTHEST_NORTH_DEG = 85;

    /**
     * The same for one step of many, such as between the samples of a log: below some kilometre by the radii of curvature at
     * the middle latitude, which is within a millionth of the geodesic and some ten times as quick; above it the geodesic.
     */
    public static double stepM(double lat1Deg, double lon1Deg, double lat2Deg, double lon2Deg) {
        double north = lat2Deg - lat1Deg;
        double east = lon2Deg - lon1Deg;
        if (!(Math.abs(north) < SHORT_DEG && Math.abs(east) < SHORT_DEG && Math.abs(lat1Deg) < FARTHEST_NORTH_DEG)) {
            return distanceM(lat1Deg, lon1Deg, lat2Deg, lon2Deg);
        }
        double middle = Math.toRadians((lat1Deg + lat2Deg) / 2);
        double sin = Math.sin(middle);
        double w2 = 1 - FIRST_ECCENTRICITY_SQUARED * sin * sin;
        double prime = EQUATOR_M / Math.sqrt(w2);
        double meridian = prime * (1 - FIRST_ECCENTRICITY_SQUARED) / w2;
        double y = Math.toRadians(north) * meridian;
        double x = Math.toRadians(east) * prime * Math.cos(middle);
        return Math.sqrt(x * x + y * y);
    }

    public static double distanceM(Position from, Position to) {
        return distanceM(from.latitudeDeg(), from.longitudeDeg(), to.latitudeDeg(), to.longitudeDeg());
    }

    /** The point reached from {@code start} along an initial azimuth (degrees clockwise from north). */
    public static Position destination(Position start, double azimuthDeg, double distanceM) {
        GeodesicData g = Geodesic.WGS84.Direct(start.latitudeDeg(), start.longitudeDeg(), azimuthDeg, distanceM);
        return new Position(g.lat2, g.lon2);
    }

    /** Azimuth at the first point of the shortest line to the second, degrees clockwise from true north, 0 to below 360. */
    public static double bearingDeg(Position from, Position to) {
        double azimuth = Geodesic.WGS84.Inverse(
                        from.latitudeDeg(), from.longitudeDeg(), to.latitudeDeg(), to.longitudeDeg())
                .azi1;
        return azimuth < 0 ? azimuth + 360 : azimuth;
    }

    /** Length of a line over its corners, in metres. */
    public static double lengthM(java.util.List<Position> line) {
        double sum = 0;
        for (int i = 1; i < line.size(); i++) {
            sum += distanceM(line.get(i - 1), line.get(i));
        }
        return sum;
    }

    /** A side straight in degrees stands off the shortest line between its ends by no more than this. */
    private static final double MOST_STAND_OFF_M = 1;

    private static final double EARTH_M = 6_371_000;

    /**
     * The corners of a ring with more between them where a side is so long that straight in degrees and the shortest line
     * part. A parallel and the shortest line part by s² tan φ / 8R (the sagitta of the parallel's curvature tan φ / R).
     */
    public static java.util.List<Position> alongSides(java.util.List<Position> ring) {
        java.util.List<Position> dense = new java.util.ArrayList<>();
        for (int i = 0; i < ring.size(); i++) {
            Position a = ring.get(i);
            Position b = ring.get((i + 1) % ring.size());
            dense.add(a);
            double steepest = Math.max(Math.abs(a.latitudeDeg()), Math.abs(b.latitudeDeg()));
            double curving = Math.max(Math.tan(Math.toRadians(Math.min(89, steepest))), 0.1);
            GeodesicData side =
                    Geodesic.WGS84.Inverse(a.latitudeDeg(), a.longitudeDeg(), b.latitudeDeg(), b.longitudeDeg());
            int parts = (int) Math.ceil(side.s12 / Math.sqrt(8 * EARTH_M * MOST_STAND_OFF_M / curving));
            for (int k = 1; k < Math.min(parts, MOST_PARTS); k++) {
                dense.add(destination(a, side.azi1, side.s12 * k / Math.min(parts, MOST_PARTS)));
            }
        }
        return dense;
    }

    /** Of one side: some 1,400 km at 46 degrees. */
    private static final int MOST_PARTS = 200;
}
