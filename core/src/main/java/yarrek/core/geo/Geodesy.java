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
}
