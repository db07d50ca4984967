package yarrek.app.airspace;

import jakarta.persistence.EntityManager;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yarrek.app.web.LostUpdateException;
import yarrek.app.web.NotFoundException;
import yarrek.core.airspace.Zone;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.ZoneMet;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.zones.ZoneGeoJson;

/** Zones and sites. */
@Service
public class Airspace {
    /** Zone data older than this is no longer current (house default). */
    public static final Duration FRESH = Duration.ofDays(28);

    /** A site as others see it; a null figure is not known. */
    public record SiteView(
            UUID id,
            long version,
            String name,
            Position launch,
            List<Position> corners,
            String jurisdiction,
            ZoneId zone,
            Double reliefM,
            Double builtUpDistanceM,
            Boolean overWater,
            String notes) {
        public Area area() {
            return Area.of(corners);
        }
    }

    /** A site changed; its jobs are judged again. */
    public record SiteChanged(UUID siteId) {}

    /** Zones were brought in; open jobs are judged again. */
    public record ZonesChanged() {}

    private final EntityManager em;
    private final Clock clock;
    private final ApplicationEventPublisher events;
    private final JsonMapper json;
    private volatile CachedZones cache;

    private record CachedZones(Instant newest, long count, List<Zone> zones) {}

    Airspace(EntityManager em, Clock clock, ApplicationEventPublisher events, JsonMapper json) {
        this.em = em;
        this.clock = clock;
        this.events = events;
        this.json = json;
    }

    /** Every zone on file. Parsed once and kept until the table changes. */
    @Transactional(readOnly = true)
    public List<Zone> zones() {
        Object[] state = em.createQuery("select max(z.broughtInAt), count(z) from ZoneEntity z", Object[].class)
                .getSingleResult();
        CachedZones held = cache;
        if (held != null && held.count() == (Long) state[1] && java.util.Objects.equals(held.newest(), state[0])) {
            return held.zones();
        }
        List<Zone> zones = new ArrayList<>();
        for (ZoneEntity z : em.createQuery("from ZoneEntity z order by z.name", ZoneEntity.class)
                .getResultList()) {
            try {
                zones.addAll(ZoneGeoJson.read(("{\"features\":[" + z.geojson + "]}").getBytes(StandardCharsets.UTF_8)));
            } catch (BrokenFileException e) {
                throw new IllegalStateException("the stored zone " + z.id + " cannot be read", e);
            }
        }
        cache = new CachedZones((Instant) state[0], (Long) state[1], List.copyOf(zones));
        return cache.zones();
    }

    /** When zones were last brought in; empty when there are none. */
    @Transactional(readOnly = true)
    public Optional<Instant> zonesAsOf() {
        return Optional.ofNullable(em.createQuery("select max(z.broughtInAt) from ZoneEntity z", Instant.class)
                .getSingleResult());
    }

    /** Zones that a plan's area and height meet on its days, each with the approval that lifts it. */
    @Transactional(readOnly = true)
    public List<ZoneMet> met(
            Area area, Double greatestHeightM, List<LocalDate> days, Map<String, String> approvalOfZone) {
        List<ZoneMet> met = new ArrayList<>();
        for (Zone z : zones()) {
            if (z.inForceOnAny(days)) {
                z.touches(area, Optional.ofNullable(greatestHeightM))
                        .ifPresent(edge -> met.add(new ZoneMet(
                                z.id(),
                                z.name() + " (" + z.heights() + ")",
                                z.restriction(),
                                edge,
                                z.message(),
                                Optional.ofNullable(approvalOfZone.get(z.id())))));
            }
        }
        return met;
    }

    /** Whether the area meets a caution area or controlled airspace. */
    @Transactional(readOnly = true)
    public boolean caution(Area area, List<LocalDate> days) {
        return zones().stream()
                .anyMatch(z -> z.isCaution() && z.inForceOnAny(days) && z.area().meets(area));
    }

    /**
     * Brings in a feature collection: zones by their id (a repeated id replaces), everything else as scenery.
     *
     * @return how many zones
     * @throws BrokenFileException and then nothing is stored
     */
    @Transactional
    public int bringIn(byte[] geoJson, String source) throws BrokenFileException {
        List<Zone> zones = ZoneGeoJson.read(geoJson);
        JsonNode root = json.readTree(geoJson);
        Set<String> ids = new java.util.HashSet<>();
        List<JsonNode> scenery = new ArrayList<>();
        for (JsonNode f : root.get("features")) {
            JsonNode p = f.path("properties");
            if (!p.has("zone")) {
                scenery.add(f);
                continue;
            }
            String id = p.get("zone").asString();
            ids.add(id);
            ZoneEntity z = em.find(ZoneEntity.class, id);
            if (z == null) {
                em.persist(new ZoneEntity(id, p.path("name").asString(id), f.toString(), source, clock.instant()));
            } else {
                z.name = p.path("name").asString(id);
                z.geojson = f.toString();
                z.source = source;
                z.broughtInAt = clock.instant();
            }
        }
        if (!scenery.isEmpty()) {
            em.createQuery("delete from Scenery s").executeUpdate();
            int n = 1;
            for (JsonNode f : scenery) {
                em.persist(new Scenery(n++, f.toString()));
            }
        }
        em.flush();
        events.publishEvent(new ZonesChanged());
        return Math.min(zones.size(), ids.size());
    }

    /** Everything the map draws: scenery, zones, and the sites. */
    @Transactional(readOnly = true)
    public ObjectNode map() {
        ObjectNode root = json.createObjectNode();
        ArrayNode scenery = root.putArray("scenery");
        em.createQuery("from Scenery s order by s.id", Scenery.class)
                .getResultStream()
                .forEach(s -> scenery.add(json.readTree(s.geojson)));
        ArrayNode zones = root.putArray("zones");
        for (Zone z : zones()) {
            ObjectNode n = zones.addObject();
            n.put("id", z.id());
            n.put("name", z.name());
            n.put("kind", z.kind());
            n.put("restriction", z.restriction().name());
            n.put("heights", z.heights() + ", " + z.when());
            n.put("message", z.message());
            n.set("ring", ring(z.area().corners()));
        }
        ArrayNode sites = root.putArray("sites");
        for (SiteView s : sites()) {
            ObjectNode n = sites.addObject();
            n.put("id", s.id().toString());
            n.put("name", s.name());
            n.set("launch", point(s.launch()));
            n.set("ring", ring(s.corners()));
        }
        return root;
    }

    private ArrayNode ring(List<Position> corners) {
        ArrayNode ring = json.createArrayNode();
        corners.forEach(c -> ring.add(point(c)));
        return ring;
    }

    private ArrayNode point(Position p) {
        return json.createArrayNode().add(p.latitudeDeg()).add(p.longitudeDeg());
    }

    @Transactional(readOnly = true)
    public List<SiteView> sites() {
        return em.createQuery("from SiteEntity s order by s.name", SiteEntity.class)
                .getResultStream()
                .map(Airspace::view)
                .toList();
    }

    @Transactional(readOnly = true)
    public SiteView site(UUID id) {
        return view(entity(id));
    }

    /**
     * Stores a site; a null id makes a new one.
     *
     * @throws IllegalArgumentException when the area is invalid or the name is taken
     * @throws LostUpdateException when somebody else saved it in between
     */
    @Transactional
    public UUID save(SiteView v) {
        Area.Check check = Area.check(v.corners());
        if (!check.isValid()) {
            throw new IllegalArgumentException(check.fault());
        }
        SiteEntity s = v.id() == null ? new SiteEntity(UUID.randomUUID()) : entity(v.id());
        if (v.id() != null && v.version() != s.version) {
            throw new LostUpdateException(
                    Map.of("name", s.name, "launch", new Position(s.launchLat, s.launchLon).toString(), "area", s.area),
                    s.version);
        }
        boolean taken =
                em.createQuery("select count(s) from SiteEntity s where s.name = :n and s.id <> :id", Long.class)
                                .setParameter("n", v.name())
                                .setParameter("id", s.id)
                                .getSingleResult()
                        > 0;
        if (taken) {
            throw new IllegalArgumentException("there is a site called “" + v.name() + "” already");
        }
        s.name = v.name();
        s.launchLat = v.launch().latitudeDeg();
        s.launchLon = v.launch().longitudeDeg();
        s.area = SiteEntity.text(v.corners());
        s.jurisdiction = v.jurisdiction();
        s.zone = v.zone().getId();
        s.reliefM = v.reliefM();
        s.builtUpDistanceM = v.builtUpDistanceM();
        s.overWater = v.overWater();
        s.notes = v.notes();
        if (v.id() == null) {
            em.persist(s);
        }
        em.flush();
        events.publishEvent(new SiteChanged(s.id));
        return s.id;
    }

    private SiteEntity entity(UUID id) {
        SiteEntity s = em.find(SiteEntity.class, id);
        if (s == null) {
            throw new NotFoundException("site");
        }
        return s;
    }

    private static SiteView view(SiteEntity s) {
        return new SiteView(
                s.id,
                s.version,
                s.name,
                new Position(s.launchLat, s.launchLon),
                s.corners(),
                s.jurisdiction,
                ZoneId.of(s.zone),
                s.reliefM,
                s.builtUpDistanceM,
                s.overWater,
                s.notes);
    }
}
