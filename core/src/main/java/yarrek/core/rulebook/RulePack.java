package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import yarrek.core.mass.MassClass;

/**
 * Rules of one jurisdiction, or of the house.
 *
 * @param version goes up whenever anything in it changes
 * @param head what must be read before it is relied on
 */
public record RulePack(
        String id,
        String title,
        Optional<String> jurisdiction,
        String version,
        LocalDate readOn,
        String head,
        List<MassClass> massClasses,
        List<Rule> rules) {
    public RulePack {
        massClasses = List.copyOf(massClasses);
        rules = List.copyOf(rules);
    }
}
