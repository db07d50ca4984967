package yarrek.core.airspace;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.units.Finite;

/** Where an aircraft that no longer obeys can be. */
public final class FlyAway {
    private FlyAway() {}

    /**
     * The greatest of what any of several aircraft may reach, since it is not said which of them is gone.
     *
     * @param each a null is not known
     * @return empty when there is none, or when one of them is not known
     */
    public static OptionalDouble greatest(Collection<Double> each) {
        return each.stream().anyMatch(Objects::isNull)
                ? OptionalDouble.empty()
                : each.stream().mapToDouble(Double::doubleValue).max();
    }

    private static final int USUAL_MINUTES = 20;
    private static final double USUAL_CLIMB_MPS = 4;
    private static final double USUAL_SPEED_MPS = 15;
    private static final double LEAST_WIND_HEIGHT_M = 10;

    /** What somebody said of it; each part empty when nobody did. */
    public record Given(
            Optional<Position> from,
            OptionalDouble headingDeg,
            OptionalDouble airspeedMps,
            OptionalDouble heightM,
            OptionalInt minutes) {}

    /**
     * What is reckoned with.
     *
     * @param from last position known
     * @param headingDeg where the nose points, degrees true; 0 while nobody says
     * @param heightM above ground
     * @param minutes of flying time left
     * @param assumed in words, each figure that nobody said
     */
    public record Asked(
            Position from,
            double headingDeg,
            double speedMps,
            double climbMps,
            double heightM,
            int minutes,
            List<String> assumed) {
        /** Height at which the wind is taken, metres. */
        public double windHeightM() {
            return Math.max(LEAST_WIND_HEIGHT_M, heightM);
        }
    }

    /**
     * What was said, and for the rest what the plan and the maker say, or what is usual.
     *
     * @param launch where the pilot stands
     * @param greatestSpeedMps of the model in level flight; empty when not on file
     * @param plannedHeightM greatest of the plan; empty when not known
     */
    public static Asked asked(
            Given given, Position launch, OptionalDouble greatestSpeedMps, OptionalDouble plannedHeightM) {
        List<String> assumed = new ArrayList<>();
        double speed = given.airspeedMps().orElse(greatestSpeedMps.orElse(USUAL_SPEED_MPS));
        if (given.airspeedMps().isEmpty()) {
            assumed.add("airspeed " + Finite.format(speed) + " m/s: "
                    + (greatestSpeedMps.isPresent()
                            ? "the greatest level speed of the model"
                            : "usual, the model's is not on file"));
        }
        double height = given.heightM().orElse(plannedHeightM.orElse(0));
        if (given.heightM().isEmpty()) {
            assumed.add(
                    plannedHeightM.isPresent()
                            ? "height " + Finite.format(height) + " m: the greatest of the plan"
                            : "height not known, reckoned from the ground");
        }
        if (given.minutes().isEmpty()) {
            assumed.add("flying time left " + USUAL_MINUTES + " min: nobody has said");
        }
        assumed.add("climb " + Finite.format(USUAL_CLIMB_MPS) + " m/s: usual");
        return new Asked(
                given.from().orElse(launch),
                given.headingDeg().orElse(0),
                speed,
                USUAL_CLIMB_MPS,
                height,
                given.minutes().orElse(USUAL_MINUTES),
                assumed);
    }

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
    public record Above(Zone zone, Optional<HeightLimit.Span> fromM) {}

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
