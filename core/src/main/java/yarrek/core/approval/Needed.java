package yarrek.core.approval;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Truth;
import yarrek.core.rulebook.Verdict;

/**
 * An approval that a plan needs, and why.
 *
 * @param zoneId the zone it is for; empty when it is for no zone in particular
 * @param zoneName in words; empty likewise
 * @param known false when it may be needed, and what decides is not known
 * @param because the findings, zones and kinds that ask for it
 * @param craft the aircraft that it is for; empty where it is for all of them
 */
public record Needed(
        ApprovalKind kind,
        Optional<String> zoneId,
        String zoneName,
        boolean known,
        List<String> because,
        Optional<ForCraft> craft) {
    /**
     * An aircraft that has an approval of its own.
     *
     * @param name said beside the kind; empty where there is no other
     */
    public record ForCraft(UUID id, String name) {}

    /** One for whatever is flown. */
    public Needed(ApprovalKind kind, Optional<String> zoneId, String zoneName, boolean known, List<String> because) {
        this(kind, zoneId, zoneName, known, because, Optional.empty());
    }

    public Needed {
        because = List.copyOf(because);
    }

    /**
     * A zone that the plan meets.
     *
     * @param known whether it is known that it is met
     */
    public record ZoneHit(String id, String name, ZoneKind kind, boolean known) {}

    /** The same for one aircraft. */
    public Needed of(ForCraft its) {
        return new Needed(kind, zoneId, zoneName, known, because, Optional.of(its));
    }

    /** Identity within a job: the kind, and the zone and the aircraft where there is one. */
    public String key() {
        return key(kind.code(), zoneId.orElse(null), craft.map(ForCraft::id).orElse(null));
    }

    /** The same of one on file; zone and aircraft are null for none. */
    public static String key(String kind, String zoneId, UUID craftId) {
        return kind + (zoneId == null ? "" : "@" + zoneId) + (craftId == null ? "" : "~" + craftId);
    }

    public String title() {
        String whose = craft.map(ForCraft::name).orElse("");
        return kind.title() + (zoneName.isEmpty() ? "" : ", " + zoneName) + (whose.isEmpty() ? "" : ", " + whose);
    }

    /**
     * What a plan needs, kinds in the order of the list.
     *
     * @param bare the plan judged as if nothing were granted yet
     * @param zones every zone met, the maker's among them, those that do not bind this mass left out
     */
    public static List<Needed> of(
            List<ApprovalKind> kinds, String jurisdiction, Assessment bare, Facts facts, List<ZoneHit> zones) {
        Map<String, Needed> needed = new LinkedHashMap<>();
        List<ApprovalKind> here =
                kinds.stream().filter(k -> k.holdsIn(jurisdiction)).toList();
        for (ApprovalKind k : here) {
            triggered(k, bare, facts, zones).forEach(n -> needed.merge(n.key(), n, Needed::and));
        }
        pulled(here, needed);
        // as the list has them, whatever pulled them in
        return here.stream()
                .flatMap(k -> needed.values().stream().filter(n -> n.kind().equals(k)))
                .toList();
    }

    private Needed and(Needed other) {
        Set<String> why = new LinkedHashSet<>(because);
        why.addAll(other.because);
        return new Needed(kind, zoneId, zoneName, known || other.known, List.copyOf(why), craft);
    }

    private static List<Needed> triggered(ApprovalKind k, Assessment bare, Facts facts, List<ZoneHit> zones) {
        List<Needed> found = new ArrayList<>();
        List<ZoneHit> its = zones.stream()
                .filter(z -> k.trigger().zones().contains(z.kind()))
                .toList();
        for (Finding f : bare.findings()) {
            // what can only be said on the day asks for no approval ahead of it
            boolean open = f.verdict() == Verdict.BREACHED
                    || (f.verdict() == Verdict.NOT_KNOWN && !f.rule().onTheDay());
            if (!open || !k.trigger().answers().contains(f.rule().id())) {
                continue;
            }
            boolean known = f.verdict() == Verdict.BREACHED;
            String why = f.rule().title() + " (" + f.rule().id() + "): " + f.says();
            if (k.trigger().zones().isEmpty()) {
                found.add(new Needed(k, Optional.empty(), "", known, List.of(why)));
            } else {
                its.forEach(
                        z -> found.add(new Needed(k, Optional.of(z.id()), z.name(), known && z.known(), List.of(why))));
            }
        }
        if (k.trigger().answers().isEmpty()) {
            its.forEach(z -> found.add(new Needed(
                    k,
                    Optional.of(z.id()),
                    z.name(),
                    z.known(),
                    List.of("the area meets " + z.name() + ", " + z.kind().words()))));
        }
        if (k.trigger().makersMap()) {
            zones.stream()
                    .filter(z -> z.kind() == ZoneKind.MAKER)
                    .forEach(z -> found.add(new Needed(
                            k,
                            Optional.empty(),
                            "",
                            z.known(),
                            List.of("the maker's map blocks " + z.name() + ", whatever the build weighs"))));
        }
        Truth when = k.trigger().when().test(facts);
        if (when != Truth.NO) {
            found.add(new Needed(
                    k,
                    Optional.empty(),
                    "",
                    when == Truth.YES,
                    List.of((when == Truth.YES ? "" : "not known whether ")
                            + k.trigger().when().words())));
        }
        return found;
    }

    /** Kinds that others need, until nothing new comes. */
    private static void pulled(List<ApprovalKind> here, Map<String, Needed> needed) {
        boolean more = true;
        while (more) {
            more = false;
            for (Needed n : List.copyOf(needed.values())) {
                for (ApprovalKind k : here) {
                    boolean there =
                            needed.values().stream().anyMatch(x -> x.kind().equals(k));
                    if (n.kind().needs().contains(k.code()) && !there) {
                        Needed p = new Needed(
                                k,
                                Optional.empty(),
                                "",
                                n.known(),
                                List.of(n.kind().title() + " asks for it"));
                        needed.put(p.key(), p);
                        more = true;
                    }
                }
            }
        }
    }
}
