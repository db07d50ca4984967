package yarrek.core.mass;

import java.time.LocalDate;
import java.util.Set;
import yarrek.core.units.Mass;

/**
 * A reading of a scale.
 *
 * @param on day of the weighing
 * @param scale which scale
 * @param mass what it showed
 * @param resolution the scale's step; the true mass is taken to lie within one step either side
 * @param partIds exactly what lay on the scale
 */
public record Weighing(LocalDate on, String scale, Mass mass, Mass resolution, Set<String> partIds) {
    /** @throws IllegalArgumentException if the mass is not above zero or the resolution is negative */
    public Weighing {
        if (mass.compareTo(Mass.ZERO) <= 0) {
            throw new IllegalArgumentException("a weighing must be more than 0 g, got " + mass);
        }
        if (resolution.isNegative()) {
            throw new IllegalArgumentException("the scale's resolution must be 0 g or more, got " + resolution);
        }
        partIds = Set.copyOf(partIds);
    }
}
