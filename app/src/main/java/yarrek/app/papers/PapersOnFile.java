package yarrek.app.papers;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.PaperKinds;
import yarrek.core.time.Validity;

/** Papers of many holders, read once. */
public final class PapersOnFile {
    /** A paper of a job, with the ids of the rules and zones that it lifts. */
    public record OfJob(UUID id, String number, Set<String> lifts, Validity validity) {}

    private final Map<UUID, List<PaperEntity>> byHolder = new HashMap<>();

    private final PaperKinds kinds;

    PapersOnFile(PaperKinds kinds, List<PaperEntity> all) {
        this.kinds = kinds;
        // the same papers name the same number, whatever order they were read in
        all.stream()
                .sorted(Comparator.<PaperEntity, String>comparing(p -> p.kind).thenComparing(p -> p.number))
                .forEach(p -> byHolder.computeIfAbsent(p.holderId, k -> new ArrayList<>())
                        .add(p));
    }

    private List<PaperEntity> of(UUID holder) {
        return byHolder.getOrDefault(holder, List.of());
    }

    /** What the papers mean. */
    public PaperKinds kinds() {
        return kinds;
    }

    /** As facts: each holder under a role. */
    public List<PaperHeld> held(Map<UUID, String> roleByHolder) {
        return roleByHolder.entrySet().stream()
                .sorted(Map.Entry.<UUID, String>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .flatMap(e -> of(e.getKey()).stream().map(p -> p.held(e.getValue())))
                .toList();
    }

    /** Those of a job, by kind and beginning. */
    public List<OfJob> ofJob(UUID jobId) {
        return of(jobId).stream()
                .sorted(Comparator.<PaperEntity, String>comparing(p -> p.kind)
                        .thenComparing(p -> p.validFrom, Comparator.nullsFirst(Comparator.naturalOrder())))
                .map(p -> new OfJob(
                        p.id,
                        p.number,
                        p.lifts.isBlank()
                                ? Set.of()
                                : new HashSet<>(List.of(p.lifts.strip().split("[ ,]+"))),
                        p.paper().validity()))
                .toList();
    }

    /** The greatest liability cover in force on a day; empty when none states an amount. */
    public Optional<Double> liabilityAmount(UUID operatorId, LocalDate day) {
        return of(operatorId).stream()
                .filter(p -> kinds.is(p.kind, k -> k.insures().equals(Optional.of("liability"))))
                .filter(p -> p.amountSdr != null
                        && (p.validFrom == null || !day.isBefore(p.validFrom))
                        && (p.validTo == null || !day.isAfter(p.validTo)))
                .map(p -> p.amountSdr)
                .max(Comparator.naturalOrder());
    }
}
