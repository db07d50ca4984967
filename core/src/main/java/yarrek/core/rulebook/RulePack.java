package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yarrek.core.mass.MassClass;

/**
 * Rules of one jurisdiction, or of the house.
 *
 * @param overlays jurisdiction of the wider pack that this one adds to, such as "EU" for "EU-xx"; empty for most
 * @param asksForOverlay whether its states add rules of their own, so that a place without an overlay is not known
 * @param version goes up whenever anything in it changes
 * @param recency how long a qualifying activity counts; empty where the law sets none
 * @param category of whatever is flown without an authorisation; empty where the law knows no categories
 * @param head what must be read before it is relied on
 */
public record RulePack(
        String id,
        String title,
        Optional<String> jurisdiction,
        Optional<String> overlays,
        boolean asksForOverlay,
        String version,
        LocalDate readOn,
        String head,
        List<MassClass> massClasses,
        Optional<Recency> recency,
        Optional<String> category,
        List<Operation> operations,
        List<Rule> rules) {
    public RulePack {
        massClasses = List.copyOf(massClasses);
        operations = List.copyOf(operations);
        rules = List.copyOf(rules);
        versionsDoNotOverlap(rules);
    }

    /** The pack with some of its rules alone. */
    public RulePack only(java.util.function.Predicate<Rule> which) {
        return new RulePack(
                id,
                title,
                jurisdiction,
                overlays,
                asksForOverlay,
                version,
                readOn,
                head,
                massClasses,
                recency,
                category,
                operations,
                rules.stream().filter(which).toList());
    }

    /** Whether it holds at a place: its own jurisdiction, a part of it, or everywhere. */
    public boolean holdsIn(String place) {
        return jurisdiction.isEmpty()
                || (place != null && (jurisdiction.get().equals(place) || place.startsWith(jurisdiction.get() + "-")));
    }

    /** @throws IllegalArgumentException naming a rule of which two versions hold on one day */
    private static void versionsDoNotOverlap(List<Rule> rules) {
        Map<String, List<Rule>> byId = new LinkedHashMap<>();
        rules.forEach(r -> byId.computeIfAbsent(r.id(), k -> new ArrayList<>()).add(r));
        byId.forEach((id, versions) -> {
            List<Rule> inOrder = versions.stream()
                    .sorted(Comparator.comparing(Rule::inForceFrom))
                    .toList();
            for (int i = 1; i < inOrder.size(); i++) {
                Optional<LocalDate> end = inOrder.get(i - 1).inForceThrough();
                if (end.isEmpty() || !end.get().isBefore(inOrder.get(i).inForceFrom())) {
                    throw new IllegalArgumentException("rule " + id + ": two versions hold on "
                            + inOrder.get(i).inForceFrom() + "; give the older one a last day before it");
                }
            }
        });
    }
}
