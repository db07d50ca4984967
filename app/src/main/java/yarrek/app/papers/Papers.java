package yarrek.app.papers;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.web.LostUpdateException;
import yarrek.app.web.NotFoundException;
import yarrek.core.paper.Paper;
import yarrek.core.paper.PaperState;
import yarrek.core.paper.Weave;
import yarrek.core.rulebook.PaperHeld;

/** The register of papers. */
@Service
public class Papers {
    /** Who can hold a paper, as a row of the weave. */
    public record Holder(String kind, UUID id, String name) {}

    /** A paper in a list. */
    public record Row(
            UUID id,
            String kind,
            String kindWords,
            String level,
            String number,
            String issuer,
            String holderKind,
            UUID holderId,
            LocalDate validFrom,
            LocalDate validTo,
            LocalDate actBy,
            String actByWhy,
            PaperState state,
            String shape,
            String verifiedWhere,
            Double amountSdr,
            Set<String> lifts) {}

    /** What is entered for a paper. */
    public record Entry(
            String kind,
            String level,
            String number,
            String issuer,
            String jurisdiction,
            String holderKind,
            UUID holderId,
            LocalDate issuedOn,
            LocalDate validFrom,
            LocalDate validTo,
            boolean endKnown,
            ZoneId zone,
            int leadDays,
            String conditions,
            String verifiedWhere,
            Double amountSdr,
            String lifts) {}

    /** Papers of these holders changed; what rests on them is judged again. */
    public record Changed(String holderKind, UUID holderId) {}

    private final EntityManager em;
    private final Clock clock;
    private final ApplicationEventPublisher events;

    Papers(EntityManager em, Clock clock, ApplicationEventPublisher events) {
        this.em = em;
        this.clock = clock;
        this.events = events;
    }

    /**
     * Stores a paper; a null id makes a new one.
     *
     * @throws IllegalArgumentException when the end is before the start
     * @throws LostUpdateException when somebody else saved it since {@code version}
     */
    @Transactional
    public UUID save(UUID id, long version, Entry e, String by) {
        if (e.validFrom() != null && e.validTo() != null && e.validTo().isBefore(e.validFrom())) {
            throw new IllegalArgumentException("valid to " + e.validTo() + " is before valid from " + e.validFrom());
        }
        PaperEntity p;
        if (id == null) {
            p = new PaperEntity(UUID.randomUUID());
        } else {
            p = entity(id);
            if (version != p.version) {
                throw new LostUpdateException(stored(p), p.version);
            }
        }
        p.kind = e.kind();
        p.level = e.level();
        p.number = e.number();
        p.issuer = e.issuer();
        p.jurisdiction = e.jurisdiction();
        p.holderKind = e.holderKind();
        p.holderId = e.holderId();
        p.issuedOn = e.issuedOn();
        p.validFrom = e.validFrom();
        p.validTo = e.validTo();
        p.endKnown = e.endKnown();
        p.zone = e.zone().getId();
        p.leadDays = e.leadDays();
        p.conditions = e.conditions();
        p.verifiedWhere = e.verifiedWhere();
        p.amountSdr = e.amountSdr();
        p.lifts = e.lifts();
        p.enteredBy = by;
        p.enteredAt = clock.instant();
        if (id == null) {
            em.persist(p);
        }
        em.flush();
        events.publishEvent(new Changed(p.holderKind, p.holderId));
        return p.id;
    }

    private static Map<String, String> stored(PaperEntity p) {
        Map<String, String> m = new LinkedHashMap<>();
        m.put("number", p.number);
        m.put("issuer", p.issuer);
        m.put("validFrom", p.validFrom == null ? "" : p.validFrom.toString());
        m.put("validTo", p.validTo == null ? "" : p.validTo.toString());
        m.put("leadDays", String.valueOf(p.leadDays));
        m.put("conditions", p.conditions);
        m.put("verifiedWhere", p.verifiedWhere);
        return m;
    }

    private PaperEntity entity(UUID id) {
        PaperEntity p = em.find(PaperEntity.class, id);
        if (p == null) {
            throw new NotFoundException("paper");
        }
        return p;
    }

    @Transactional
    public void delete(UUID id) {
        PaperEntity p = entity(id);
        em.remove(p);
        em.flush();
        events.publishEvent(new Changed(p.holderKind, p.holderId));
    }

    @Transactional(readOnly = true)
    public Entry entry(UUID id) {
        PaperEntity p = entity(id);
        return new Entry(
                p.kind,
                p.level,
                p.number,
                p.issuer,
                p.jurisdiction,
                p.holderKind,
                p.holderId,
                p.issuedOn,
                p.validFrom,
                p.validTo,
                p.endKnown,
                ZoneId.of(p.zone),
                p.leadDays,
                p.conditions,
                p.verifiedWhere,
                p.amountSdr,
                p.lifts);
    }

    @Transactional(readOnly = true)
    public long version(UUID id) {
        return entity(id).version;
    }

    @Transactional(readOnly = true)
    public List<Row> all() {
        return em.createQuery("from PaperEntity p", PaperEntity.class)
                .getResultStream()
                .map(this::row)
                .sorted(Comparator.comparing((Row r) -> r.actBy() == null ? LocalDate.MAX : r.actBy())
                        .thenComparing(Row::number))
                .toList();
    }

    @Transactional(readOnly = true)
    public List<Row> of(Collection<UUID> holders) {
        if (holders.isEmpty()) {
            return List.of();
        }
        return em.createQuery(
                        "from PaperEntity p where p.holderId in :ids order by p.kind, p.validFrom", PaperEntity.class)
                .setParameter("ids", holders)
                .getResultStream()
                .map(this::row)
                .toList();
    }

    private Row row(PaperEntity p) {
        Paper paper = p.paper();
        PaperState state = paper.state(clock.instant(), List.of());
        return new Row(
                p.id,
                p.kind,
                PaperKind.words(p.kind),
                p.level,
                p.number,
                p.issuer,
                p.holderKind,
                p.holderId,
                p.validFrom,
                p.validTo,
                paper.actBy().orElse(null),
                paper.actByWhy(),
                state,
                shape(state),
                p.verifiedWhere,
                p.amountSdr,
                p.lifts.isBlank() ? Set.of() : Set.of(p.lifts.split("[ ,]+")));
    }

    /** Name of the status shape of a state. */
    public static String shape(PaperState state) {
        return switch (state) {
            case IN_FORCE -> "full";
            case ACT_SOON -> "cut";
            case GAP, RUN_OUT -> "notch";
            case NOT_YET_VALID, UNKNOWN -> "dots";
        };
    }

    /** Papers as facts: each holder under a role. */
    @Transactional(readOnly = true)
    public List<PaperHeld> held(Map<UUID, String> roleByHolder) {
        if (roleByHolder.isEmpty()) {
            return List.of();
        }
        return em.createQuery("from PaperEntity p where p.holderId in :ids", PaperEntity.class)
                .setParameter("ids", roleByHolder.keySet())
                .getResultStream()
                .map(p -> {
                    Paper paper = p.paper();
                    return new PaperHeld(
                            p.kind,
                            paper.level(),
                            roleByHolder.get(p.holderId),
                            p.number,
                            paper.validity(),
                            p.endKnown);
                })
                .toList();
    }

    /** The weave of these holders, in their order, with the jobs across them. Only rows with papers or needs appear. */
    @Transactional(readOnly = true)
    public Weave weave(LocalDate from, LocalDate through, ZoneId zone, List<Holder> holders, List<Weave.JobSpan> jobs) {
        List<Weave.RowInput> rows = new ArrayList<>();
        Map<UUID, List<PaperEntity>> byHolder = new LinkedHashMap<>();
        List<UUID> ids = holders.stream().map(Holder::id).toList();
        if (!ids.isEmpty()) {
            em.createQuery("from PaperEntity p where p.holderId in :ids order by p.validFrom", PaperEntity.class)
                    .setParameter("ids", ids)
                    .getResultStream()
                    .forEach(p -> byHolder.computeIfAbsent(p.holderId, k -> new ArrayList<>())
                            .add(p));
        }
        for (Holder h : holders) {
            List<Paper> held = byHolder.getOrDefault(h.id(), List.of()).stream()
                    .map(PaperEntity::paper)
                    .toList();
            Map<List<String>, List<Paper>> lines = new LinkedHashMap<>();
            for (Paper p : held) {
                lines.computeIfAbsent(List.of(p.kind(), p.level().orElse("")), k -> new ArrayList<>())
                        .add(p);
            }
            for (Weave.JobSpan job : jobs) {
                for (Weave.Need n : job.needs()) {
                    boolean shown = lines.keySet().stream()
                            .anyMatch(k -> k.get(0).equals(n.kind())
                                    && (n.anyLevel().isEmpty()
                                            || n.anyLevel().contains(k.get(1))
                                            || k.get(1).isEmpty()));
                    if (n.holderId().equals(h.id().toString()) && !shown) {
                        lines.put(
                                List.of(
                                        n.kind(),
                                        n.anyLevel().size() == 1
                                                ? n.anyLevel().iterator().next()
                                                : ""),
                                new ArrayList<>());
                    }
                }
            }
            lines.forEach((k, papers) -> rows.add(new Weave.RowInput(
                    h.id().toString(),
                    h.name(),
                    k.get(0),
                    PaperKind.words(k.get(0)) + (k.get(1).isEmpty() ? "" : " " + k.get(1)),
                    k.get(1).isEmpty() ? Optional.empty() : Optional.of(k.get(1)),
                    papers,
                    held.stream().filter(p -> p.kind().equals(k.get(0))).toList())));
        }
        return Weave.lay(from, through, clock.instant(), zone, rows, jobs);
    }

    /** The greatest liability cover in force over a day, for the fact of that name; empty when none states an amount. */
    @Transactional(readOnly = true)
    public Optional<Double> liabilityAmount(UUID operatorId, LocalDate day) {
        return em.createQuery(
                        "from PaperEntity p where p.holderId = :id and p.kind = 'liabilityInsurance'",
                        PaperEntity.class)
                .setParameter("id", operatorId)
                .getResultStream()
                .filter(p -> p.amountSdr != null
                        && (p.validFrom == null || !day.isBefore(p.validFrom))
                        && (p.validTo == null || !day.isAfter(p.validTo)))
                .map(p -> p.amountSdr)
                .max(Comparator.naturalOrder());
    }
}
