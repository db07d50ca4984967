package yarrek.app.airspace;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrek.app.page.NotFoundException;
import yarrek.core.airspace.Zone;
import yarrek.core.geo.Area;
import yarrek.core.geo.ShapeText;
import yarrek.formats.zones.ZoneFiles;
import yarrek.formats.zones.ZoneGeoJson;

/**
 * Notices that were not understood whole, one by one, for a person to decide. Until then more counts than may be meant. A
 * decision holds for the words it was made of: when the same notice comes again it stands, when its words change it is asked
 * anew.
 */
@Component
class Doubts {
    /** What a person said of a notice. */
    enum Decision {
        TAKEN("stands as it was taken"),
        AREA("stands in another area"),
        LEFT("left out");

        private final String words;

        Decision(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * @param text the notice whole
     * @param why what was not understood, and what was taken instead
     * @param heights limits as they stand now
     * @param when timetable as it stands now
     * @param decision null while nobody has decided
     */
    record View(
            UUID id,
            UUID sourceId,
            String zoneId,
            String text,
            String why,
            String heights,
            String when,
            Decision decision,
            String area,
            String reason,
            String decidedBy,
            Instant decidedAt) {}

    private final EntityManager em;
    private final Clock clock;

    Doubts(EntityManager em, Clock clock) {
        this.em = em;
        this.clock = clock;
    }

    private List<ZoneDoubtEntity> of(UUID sourceId) {
        return em.createQuery("from ZoneDoubtEntity d where d.sourceId = :s order by d.zoneId", ZoneDoubtEntity.class)
                .setParameter("s", sourceId)
                .getResultList();
    }

    List<View> views(UUID sourceId) {
        return of(sourceId).stream().map(Doubts::view).toList();
    }

    private static View view(ZoneDoubtEntity d) {
        Zone z = ZoneGeoJson.zone(d.taken);
        return new View(
                d.id,
                d.sourceId,
                d.zoneId,
                d.text,
                d.why,
                z.heights(),
                z.times().words(),
                d.decision,
                d.area,
                d.reason,
                d.decidedBy,
                d.decidedAt);
    }

    /** How many of each source wait. */
    Map<UUID, Integer> waiting() {
        Map<UUID, Integer> count = new HashMap<>();
        em.createQuery("select d.sourceId from ZoneDoubtEntity d where d.decision is null", UUID.class)
                .getResultStream()
                .forEach(s -> count.merge(s, 1, Integer::sum));
        return count;
    }

    /** Identities on file of the zones that wait; one that another source holds too bears its source's name. */
    Set<String> waitingZones() {
        Set<String> ids = new HashSet<>();
        em.createQuery(
                        "select d.zoneId, s.name from ZoneDoubtEntity d, ZoneSourceEntity s where s.id = d.sourceId and d.decision is null",
                        Object[].class)
                .getResultStream()
                .forEach(r -> {
                    ids.add((String) r[0]);
                    ids.add(r[0] + " @ " + r[1]);
                });
        return ids;
    }

    /** What a file says anew: its doubts replace the source's, decisions on the same words stand. The zones as decided. */
    List<Zone> takeIn(UUID sourceId, ZoneFiles.Reading reading) {
        Map<String, ZoneDoubtEntity> before = new HashMap<>();
        of(sourceId).forEach(d -> before.put(d.zoneId, d));
        Map<String, Zone> byId = new HashMap<>();
        reading.zones().forEach(z -> byId.put(z.id(), z));
        Map<String, List<ZoneFiles.Doubt>> told = new java.util.TreeMap<>();
        reading.doubts()
                .forEach(d ->
                        told.computeIfAbsent(d.zoneId(), k -> new ArrayList<>()).add(d));
        told.forEach((zone, doubts) -> {
            ZoneDoubtEntity d = before.remove(zone);
            boolean fresh = d == null;
            d = fresh ? new ZoneDoubtEntity(UUID.randomUUID(), sourceId, zone) : d;
            if (!doubts.get(0).text().equals(d.text)) {
                d.text = doubts.get(0).text();
                undo(d);
            }
            String why = String.join(
                    "; and ", doubts.stream().map(ZoneFiles.Doubt::why).toList());
            d.why = why.length() > 1000 ? why.substring(0, 1000) : why;
            d.taken = ZoneGeoJson.write(byId.get(zone)).toString();
            if (fresh) {
                em.persist(d);
            }
        });
        before.values().forEach(em::remove);
        em.flush();
        return decided(sourceId, reading.zones());
    }

    private static void undo(ZoneDoubtEntity d) {
        d.decision = null;
        d.area = null;
        d.reason = "";
        d.decidedBy = null;
        d.decidedAt = null;
    }

    private List<Zone> decided(UUID sourceId, List<Zone> zones) {
        Map<String, ZoneDoubtEntity> doubts = new HashMap<>();
        of(sourceId).forEach(d -> doubts.put(d.zoneId, d));
        return zones.stream()
                .flatMap(z -> {
                    ZoneDoubtEntity d = doubts.get(z.id());
                    return d == null ? java.util.stream.Stream.of(z) : decided(d).stream();
                })
                .toList();
    }

    private static Optional<Zone> decided(ZoneDoubtEntity d) {
        Zone taken = ZoneGeoJson.zone(d.taken);
        if (d.decision == null || d.decision == Decision.TAKEN) {
            return Optional.of(taken);
        }
        return d.decision == Decision.LEFT ? Optional.empty() : Optional.of(taken.on(ShapeText.area(d.area)));
    }

    /**
     * @param decision null takes back what was decided
     * @param area for another area, else null
     * @return the notice's source, and the zone as it now is; empty when it is left out
     */
    Decided decide(UUID id, Decision decision, Area area, String reason, String by) {
        ZoneDoubtEntity d = em.find(ZoneDoubtEntity.class, id);
        if (d == null) {
            throw new NotFoundException("notice");
        }
        undo(d);
        if (decision != null) {
            d.decision = decision;
            d.area = area == null ? null : ShapeText.write(area);
            d.reason = reason;
            d.decidedBy = by;
            d.decidedAt = clock.instant();
        }
        em.flush();
        return new Decided(d.sourceId, d.zoneId, decided(d));
    }

    record Decided(UUID sourceId, String zoneId, Optional<Zone> zone) {}
}
