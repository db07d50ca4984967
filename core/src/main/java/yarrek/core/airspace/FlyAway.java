package yarrek.core.airspace;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;

/** Where an aircraft that no longer obeys can be. */
public final class FlyAway {
    private FlyAway() {}

    /**
     * One minute of a fly-away.
     *
     * @param minute after it began
     * @param onHeading where it is when it keeps its heading and airspeed in the wind
     * @param reachM how far from its first position it can be on any heading: (airspeed + wind) x time
     * @param met names of zones that hold the position on its heading
     */
    public record Minute(int minute, Position onHeading, double reachM, List<String> met) {}

    /**
     * Minute by minute until the energy is used up.
     *
     * <p>Model: constant heading and airspeed, the wind blows the same everywhere; over the ground it moves with the sum
     * of both. Turns, climb and a failing pack only make it come less far than the reach.
     *
     * @param headingDeg where the nose points, degrees true
     * @param airspeedMps zero or more
     * @param windFromDeg where the wind comes from; empty when not known, and then only the reach counts
     * @param windMps zero or more
     * @param minutesLeft flying time left, 1 to 120
     */
    public static List<Minute> sideways(
            Position from,
            double headingDeg,
            double airspeedMps,
            OptionalDouble windFromDeg,
            double windMps,
            int minutesLeft,
            ZoneIndex zones) {
        if (!(airspeedMps >= 0 && windMps >= 0) || minutesLeft < 1 || minutesLeft > 120) {
            throw new IllegalArgumentException("speeds must be 0 m/s or more and minutes 1 to 120, got " + airspeedMps
                    + ", " + windMps + ", " + minutesLeft);
        }
        double east = airspeedMps * Math.sin(Math.toRadians(headingDeg));
        double north = airspeedMps * Math.cos(Math.toRadians(headingDeg));
        if (windFromDeg.isPresent()) {
            east -= windMps * Math.sin(Math.toRadians(windFromDeg.getAsDouble()));
            north -= windMps * Math.cos(Math.toRadians(windFromDeg.getAsDouble()));
        }
        double track = Math.toDegrees(Math.atan2(east, north));
        double speed = Math.hypot(east, north);
        List<Minute> minutes = new ArrayList<>();
        for (int m = 1; m <= minutesLeft; m++) {
            Position at = Geodesy.destination(from, track, speed * m * 60);
            minutes.add(new Minute(
                    m,
                    at,
                    (airspeedMps + windMps) * m * 60,
                    zones.at(at).stream()
                            .filter(z -> z.kind().isLaw())
                            .map(Zone::name)
                            .sorted()
                            .distinct()
                            .toList()));
        }
        return minutes;
    }

    /** What lies above a point, lowest first. */
    public record Above(Zone zone, java.util.Optional<HeightLimit.Span> fromM) {}

    /**
     * Zones and routes above a point up to where the aircraft can climb.
     *
     * @param climbMps rate of climb, zero or more
     * @param minutesLeft flying time left
     * @param heightM now, above ground
     */
    public static List<Above> upwards(
            Position at, double heightM, double climbMps, double minutesLeft, Ground ground, ZoneIndex zones) {
        double top = heightM + climbMps * minutesLeft * 60;
        return zones.at(at).stream()
                .filter(z -> z.kind().isLaw())
                .map(z -> new Above(z, z.lower().aboveGround(ground)))
                .filter(a -> a.fromM().map(s -> s.leastM() <= top).orElse(true)
                        && a.zone()
                                .upper()
                                .aboveGround(ground)
                                .map(s -> s.greatestM() >= heightM)
                                .orElse(true))
                .sorted(java.util.Comparator.comparingDouble(
                        a -> a.fromM().map(HeightLimit.Span::leastM).orElse(Double.MAX_VALUE)))
                .toList();
    }
}
