package yarrek.app.fleet;

import java.math.BigDecimal;
import java.util.Optional;
import yarrek.core.mass.Part;
import yarrek.core.mass.Weighing;
import yarrek.core.units.Mass;

/** What a stored mass is as a part of a build; masses in grams. */
final class Parts {
    private Parts() {}

    static Part part(String id, String name, BigDecimal grams, BigDecimal tolerance, Optional<Weighing> weighed) {
        Mass mass = Mass.ofGrams(grams);
        return new Part(
                id, name, mass, tolerance == null ? Part.defaultTolerance(mass) : Mass.ofGrams(tolerance), weighed);
    }
}
