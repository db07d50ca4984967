package yarrek.core.energy;

import java.util.OptionalDouble;

/**
 * A straight way over the ground in a steady wind.
 *
 * @param airSpeed m/s, above 0
 * @param wind m/s, 0 or more
 * @param offDownwind degrees from where the wind blows to, to where one goes: 0 goes with it, 180 against it
 */
public record Track(double airSpeed, double wind, double offDownwind) {
    /** A house figure: slower than this over the ground one does not get anywhere. */
    public static final double SLOWEST = 0.5;

    private double across() {
        return wind * Math.sin(Math.toRadians(offDownwind));
    }

    /** m/s over the ground; empty when the wind lets nothing, or next to nothing, be made good along it. */
    public OptionalDouble groundSpeed() {
        double x = across();
        if (Math.abs(x) >= airSpeed) {
            return OptionalDouble.empty();
        }
        double along = Math.sqrt(airSpeed * airSpeed - x * x) + wind * Math.cos(Math.toRadians(offDownwind));
        return along > SLOWEST ? OptionalDouble.of(along) : OptionalDouble.empty();
    }

    /** Degrees that the nose stands off the way; only where there is a ground speed. */
    public double crab() {
        return Math.toDegrees(Math.asin(across() / airSpeed));
    }

    public Track back() {
        return new Track(airSpeed, wind, offDownwind + 180);
    }
}
