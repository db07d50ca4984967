package yarrek.core.judging;

import java.util.Set;
import yarrek.core.mass.TakeoffMass;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;

/**
 * An aircraft as it takes off: with its pack and what it carries.
 *
 * @param packWh of its pack when new and full
 * @param bareG airframe with that pack and nothing else, in grams
 */
public record Built(String name, Craft craft, TakeoffMass mass, Set<String> lights, double packWh, double bareG) {
    /** The most that it may weigh, in grams: a zone that binds from a mass binds as soon as that may be reached. */
    public double mostG() {
        return mass.mass().toGrams() + mass.uncertainty().toGrams();
    }

    /** Puts what the build alone gives. */
    public void describe(Facts.Builder b, String source) {
        b.quantity("takeoffMassG", mass.mass().toGrams(), mass.uncertainty().toGrams(), source);
        craft.describe(b);
        b.with("lights", new FactValue.Words(lights), source);
    }
}
