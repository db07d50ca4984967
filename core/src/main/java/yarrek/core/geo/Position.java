package yarrek.core.geo;

import java.util.Locale;

/**
 * A point on the WGS-84 ellipsoid.
 *
 * @param latitudeDeg degrees north, -90 to 90 included
 * @param longitudeDeg degrees east, -180 to 180 included
 */
public record Position(double latitudeDeg, double longitudeDeg) {
    /** @throws IllegalArgumentException if a coordinate is out of range or NaN */
    public Position {
        if (!(latitudeDeg >= -90 && latitudeDeg <= 90)) {
            throw new IllegalArgumentException("latitude must be -90 to 90 degrees, got " + latitudeDeg);
        }
        if (!(longitudeDeg >= -180 && longitudeDeg <= 180)) {
            throw new IllegalArgumentException("longitude must be -180 to 180 degrees, got " + longitudeDeg);
        }
    }

    /** Degrees from one meridian east to another by the shorter way, -180 to 180; NaN when either is. */
    public static double eastOf(double toDeg, double fromDeg) {
        return Math.IEEEremainder(toDeg - fromDeg, 360);
    }

    @Override
    public String toString() {
        return String.format(Locale.ROOT, "%.6f, %.6f", latitudeDeg, longitudeDeg);
    }
}
