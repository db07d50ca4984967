package yarrek.core.airspace;

import java.util.OptionalDouble;

/**
 * The ground under a plan.
 *
 * @param elevationM elevation of the launch point above sea level in metres; empty when not known
 * @param reliefM greatest difference of the ground under the plan from it, zero or more; empty when not known
 */
public record Ground(OptionalDouble elevationM, OptionalDouble reliefM) {
    public static final Ground UNKNOWN = new Ground(OptionalDouble.empty(), OptionalDouble.empty());

    public static Ground of(Double elevationM, Double reliefM) {
        return new Ground(
                elevationM == null ? OptionalDouble.empty() : OptionalDouble.of(elevationM),
                reliefM == null ? OptionalDouble.empty() : OptionalDouble.of(reliefM));
    }
}
