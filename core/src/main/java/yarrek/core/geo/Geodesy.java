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
}
