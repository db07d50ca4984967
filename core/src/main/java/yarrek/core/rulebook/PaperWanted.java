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
    /** The check of the mark on the aircraft is kept as a paper, and asked for as a fact. */
    private static final String MARK = "markOnAircraft";

    private static final String MARKED = "marked";

    /** Those that a rule asks for in every case; of alternatives another may do. */
    public static List<PaperWanted> of(Rule r) {
        List<PaperWanted> wanted = new ArrayList<>();
        r.requires()
                .papers()
                .forEach(p -> wanted.add(new PaperWanted(r.id(), p.role(), p.kind(), p.kindName(), p.levels())));
        if (r.requires().factNames().contains(MARKED)) {
            wanted.add(new PaperWanted(r.id(), "aircraft", MARK, "mark, with photo", Set.of()));
        }
        return wanted;
    }

    /** Those asked for by rules that bind on a day and certainly apply to these facts. */
    public static List<PaperWanted> certainly(RulePack pack, Facts facts, LocalDate day) {
        return pack.rules().stream()
                .filter(r -> r.inForceOn(day)
                        && r.severity() != Severity.CAUTION
                        && r.appliesWhen().test(facts) == Truth.YES)
                .flatMap(r -> of(r).stream())
                .toList();
    }
}
