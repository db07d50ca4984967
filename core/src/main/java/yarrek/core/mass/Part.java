package yarrek.core.mass;

import java.math.BigDecimal;
import java.util.Optional;
import yarrek.core.units.Mass;

/**
 * One thing that goes up: airframe, pack, accessory or card.
 *
 * @param id stable identity; a weighing of a build holds for exactly one list of these
 * @param name as the crew says it
 * @param makersMass what the maker states, more than zero or zero
 * @param tolerance plus or minus, zero or more
 * @param weighed the part's own weighing, which takes the place of the maker's mass
 */
public record Part(String id, String name, Mass makersMass, Mass tolerance, Optional<Weighing> weighed) {
    private static final Mass DEFAULT_TOLERANCE = Mass.ofGrams(0.5);
    private static final Mass LARGE = Mass.ofGrams(500);
    private static final BigDecimal LARGE_SHARE = new BigDecimal("0.01");

    /** @throws IllegalArgumentException if a mass or the tolerance is negative */
    public Part {
        if (makersMass.isNegative()) {
            throw new IllegalArgumentException("mass of " + name + " must be 0 g or more, got " + makersMass
                    + "; give the mass in grams, such as 12.5");
        }
        if (tolerance.isNegative()) {
            throw new IllegalArgumentException("tolerance of " + name + " must be 0 g or more, got " + tolerance);
        }
    }

    /** The house's default tolerance for a stated mass: 0.5 g, or 1 % above 500 g. */
    public static Mass defaultTolerance(Mass makersMass) {
        return makersMass.compareTo(LARGE) > 0
                ? Mass.ofGrams(BigDecimal.valueOf(makersMass.toGrams()).multiply(LARGE_SHARE))
                : DEFAULT_TOLERANCE;
    }

    /** What counts in a sum: the weighed mass where there is one. */
    public Mass mass() {
        return weighed.map(Weighing::mass).orElse(makersMass);
    }

    /** Plus or minus of {@link #mass()}: the scale's resolution for a weighed part. */
    public Mass uncertainty() {
        return weighed.map(Weighing::resolution).orElse(tolerance);
    }
}
