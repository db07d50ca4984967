package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * A paper that a rule asks of somebody, or of the aircraft.
 *
 * @param role whose: operator, pilot, aircraft
 * @param levels any of which will do; empty for any
 */
public record PaperWanted(String ruleId, String role, String kind, String kindName, Set<String> levels) {
    /** Those that a rule asks for in every case, and those that settle what it asks; of alternatives another may do. */
    public static List<PaperWanted> of(Rule r, PaperKinds kinds) {
        List<PaperWanted> wanted = new ArrayList<>();
        r.requires()
                .papers()
                .forEach(p -> wanted.add(new PaperWanted(r.id(), p.role(), p.kind(), p.kindName(), p.levels())));
        wanted.addAll(kinds.wantedFor(r));
        return wanted;
    }

    /** Those asked for by rules that bind on a day and certainly apply to these facts. */
    public static List<PaperWanted> certainly(RulePack pack, PaperKinds kinds, Facts facts, LocalDate day) {
        return pack.rules().stream()
                .filter(r -> r.inForceOn(day)
                        && r.severity() != Severity.CAUTION
                        && r.appliesWhen().test(facts) == Truth.YES)
                .flatMap(r -> of(r, kinds).stream())
                .toList();
    }
}
