package yarrek.app.airspace;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.core.airspace.Freshness;
import yarrek.core.airspace.SiteLook;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneIndex;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.airspace.ZonesOnFile;
import yarrek.core.geo.Area;
import yarrek.core.time.TimeWindow;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.zones.ZoneFiles;
import yarrek.formats.zones.ZoneGeoJson;

/** Zones, where they come from, and what a site meets among them. */
@Service
public class Airspace {
    /** Zone data older than this is no longer current (house default). */
    public static final int STALE_DAYS = 28;

    /** Shapes drawn at once; of more, the largest are drawn and the rest counted. */
    static final int MOST_DRAWN = 1500;

    private static final int MOST_NAMED = 300;

    /** Zones were brought in or taken out; open jobs are judged again. */
    public record ZonesChanged() {}

    /**
     * A source of zones.
     *
     * @param whole it holds every zone and aerodrome of the ground it covers, as its publisher says
     * @param ageDays since it was published, or since it was brought in when that is not known
     * @param stale older than its own limit: what it says is then not known
     * @param undecided notices that were not understood whole and wait for a person
     * @param whatChanged lines of what was added, changed and removed the last time
     */
    public record SourceView(
            UUID id,
            String name,
            String format,
            String fileName,
            String attribution,
            LocalDate publishedOn,
            int staleDays,
            boolean whole,
            Instant broughtInAt,
            String broughtInBy,
            int zones,
            int added,
            int changed,
            int removed,
            List<String> notes,
            List<String> whatChanged,
            long ageDays,
            boolean stale,
            int undecided) {

        /** Name of the status shape. */
        public String shape() {
            return stale ? "dots" : "full";
        }

        /** How old it is against how old it may be. */
        public String age() {
            return "own".equals(format)
                    ? "kept by you"
                    : (stale ? "out of date, " : "") + ageDays + " of " + staleDays + " days";
        }
    }

    /**
     * A source as the person describes it.
     *
     * @param attribution as the publisher wants to be named; empty for none
     * @param publishedOn day of its edition; null when not known
     * @param staleDays after which it counts as out of date
     */
    public record SourceDraft(String name, String attribution, LocalDate publishedOn, int staleDays, boolean whole) {}

    private final EntityManager em;
    private final Doubts doubts;
    private final Clock clock;
    private final ApplicationEventPublisher events;
    private final JsonMapper json;
    private final Held<Standing> held;

    /**
     * @param law sources that hold a zone of law
     * @param maker sources that hold a zone of a maker's map
     * @param undecided zones of which more was taken than is certain
     */
    private record Standing(
            List<ZonesOnFile.Source> standing,
            ZoneIndex index,
            Map<String, UUID> sourceOfZone,
            Set<UUID> law,
            Set<UUID> maker,
            Set<String> undecided) {}

    Airspace(
            EntityManager em,
            Doubts doubts,
            Clock clock,
            ApplicationEventPublisher events,
            JsonMapper json,
            Stamps stamps) {
        this.held = stamps.holding("zones", this::read);
        this.em = em;
        this.doubts = doubts;
        this.clock = clock;
        this.events = events;
        this.json = json;
    }

    // --- asking ------------------------------------------------------------------------------------------------------

    /** Every zone on file, to be found by place. Read once and kept until a source changes. */
    @Transactional(readOnly = true)
    public ZoneIndex index() {
        return onFile().index();
    }

    /** The zones with the standing of their sources, as of now. */
    @Transactional(readOnly = true)
    public ZonesOnFile onFile() {
        Standing h = held.get();
        return new ZonesOnFile(clock.instant(), h.index(), h.standing(), h.law(), h.maker(), h.undecided());
    }

    private Standing read() {
        List<ZonesOnFile.Source> standing = em.createQuery(
                        "from ZoneSourceEntity s order by s.id", ZoneSourceEntity.class)
                .getResultStream()
                .map(s -> new ZonesOnFile.Source(s.id, edition(s), s.staleDays, s.format.equals(OWN), s.whole))
                .toList();
        List<Zone> zones = new ArrayList<>();
        Map<String, UUID> sources = new HashMap<>();
        Set<UUID> law = new HashSet<>();
        Set<UUID> maker = new HashSet<>();
        em.createQuery("select z.geojson, z.sourceId from ZoneEntity z order by z.name", Object[].class)
                .setHint("org.hibernate.fetchSize", 1000)
                .getResultStream()
                .forEach(r -> {
                    Zone z = ZoneGeoJson.zone((String) r[0]);
                    zones.add(z);
                    sources.put(z.id(), (UUID) r[1]);
                    (z.kind().isLaw() ? law : maker).add((UUID) r[1]);
                });
        return new Standing(standing, new ZoneIndex(zones), sources, law, maker, doubts.waitingZones());
    }

    @Transactional(readOnly = true)
    public Optional<Zone> zone(String id) {
        return index().all().stream().filter(z -> z.id().equals(id)).findFirst();
    }

    /** When zones were last brought in; empty when there are none. */
    @Transactional(readOnly = true)
    public Optional<Instant> zonesAsOf() {
        return Optional.ofNullable(em.createQuery("select max(s.broughtInAt) from ZoneSourceEntity s", Instant.class)
                .getSingleResult());
    }

    @Transactional(readOnly = true)
    public List<SourceView> sources() {
        Map<UUID, Integer> waiting = doubts.waiting();
        return em.createQuery("from ZoneSourceEntity s order by s.name", ZoneSourceEntity.class)
                .getResultStream()
                .map(s -> view(s, waiting))
                .toList();
    }

    @Transactional(readOnly = true)
    public SourceView source(UUID id) {
        return view(entity(id), doubts.waiting());
    }

    private SourceView view(ZoneSourceEntity s, Map<UUID, Integer> waiting) {
        long age = Math.max(0, Duration.between(edition(s), clock.instant()).toDays());
        return new SourceView(
                s.id,
                s.name,
                s.format,
                s.fileName,
                s.attribution,
                s.publishedOn,
                s.staleDays,
                s.whole,
                s.broughtInAt,
                s.broughtInBy,
                s.zones,
                s.added,
                s.changed,
                s.removed,
                lines(s.notes),
                lines(s.whatChanged),
                age,
                age > s.staleDays,
                waiting.getOrDefault(s.id, 0));
    }

    private static List<String> lines(String text) {
        return text.isEmpty() ? List.of() : List.of(text.split("\n"));
    }

    /** Names of the source of each zone, for showing whence it comes. */
    @Transactional(readOnly = true)
    public Map<String, String> sourceNames(List<Zone> zones) {
        Map<UUID, String> names = sources().stream().collect(Collectors.toMap(SourceView::id, SourceView::name));
        Standing h = held.get();
        Map<String, String> byZone = new HashMap<>();
        zones.forEach(z ->
                byZone.put(z.id(), names.getOrDefault(h.sourceOfZone().get(z.id()), "")));
        return byZone;
    }

    /** What a plan meets and what lies around it. */
    @Transactional(readOnly = true)
    public SiteLook look(SiteLook.Plan plan) {
        return onFile().look(plan);
    }

    /** Stale when any source of law is out of date now; the operator's own zones and the maker's map do not count. */
    @Transactional(readOnly = true)
    public Freshness freshness() {
        return onFile().freshness();
    }

    private static Instant edition(ZoneSourceEntity s) {
        return s.publishedOn == null
                ? s.broughtInAt
                : s.publishedOn.atStartOfDay(java.time.ZoneOffset.UTC).toInstant();
    }

    // --- bringing in -------------------------------------------------------------------------------------------------

    /** Format of the source that holds the operator's own zones. */
    static final String OWN = "own";

    private static final String OWN_NAME = "own observations";

    /**
     * Brings a file in; a source of the same name is replaced whole.
     *
     * @return the source, with what was added, changed and removed
     * @throws BrokenFileException with every fault, and then nothing is stored
     */
    @Transactional
    public SourceView bringIn(
            byte[] content, String fileName, SourceDraft draft, ZoneFiles.Settings settings, String by)
            throws BrokenFileException {
        ZoneFiles.Reading reading = ZoneFiles.read(content, settings);
        ZoneSourceEntity source = em.createQuery("from ZoneSourceEntity s where s.name = :n", ZoneSourceEntity.class)
                .setParameter("n", draft.name())
                .getResultStream()
                .findFirst()
                .orElse(null);
        boolean known = source != null;
        if (!known) {
            source = new ZoneSourceEntity(UUID.randomUUID(), draft.name());
        }
        source.format = reading.format();
        source.fileName = fileName;
        source.sha256 = sha256(content);
        source.attribution = draft.attribution();
        source.publishedOn = draft.publishedOn();
        source.staleDays = draft.staleDays();
        source.whole = draft.whole();
        source.broughtInBy = by;
        source.notes = cut(reading.notes());
        if (!known) {
            source.broughtInAt = clock.instant();
            em.persist(source);
            em.flush();
        }
        replace(source, doubts.takeIn(source.id, reading));
        if (!reading.scenery().isEmpty()) {
            em.createQuery("delete from Scenery s").executeUpdate();
            int n = 1;
            for (JsonNode f : reading.scenery()) {
                em.persist(new Scenery(n++, f.toString()));
            }
        }
        em.flush();
        held.changed();
        events.publishEvent(new ZonesChanged());
        return view(source, doubts.waiting());
    }

    /** Puts the zones in the place of those the source held; an identity that another source holds gets this one's name. */
    private void replace(ZoneSourceEntity source, List<Zone> zones) {
        Map<String, String> before = new HashMap<>();
        em.createQuery("select z.id, z.geojson from ZoneEntity z where z.sourceId = :s", Object[].class)
                .setParameter("s", source.id)
                .getResultStream()
                .forEach(r -> before.put((String) r[0], (String) r[1]));
        Set<String> others =
                new HashSet<>(em.createQuery("select z.id from ZoneEntity z where z.sourceId <> :s", String.class)
                        .setParameter("s", source.id)
                        .getResultList());
        List<String> changes = new ArrayList<>();
        Map<String, ZoneEntity> now = new HashMap<>();
        int added = 0;
        int changed = 0;
        for (Zone z : zones) {
            ObjectNode feature = ZoneGeoJson.write(z);
            String id = others.contains(z.id()) ? z.id() + " @ " + source.name : z.id();
            ((ObjectNode) feature.get("properties")).put("zone", id);
            String text = feature.toString();
            now.put(
                    id,
                    new ZoneEntity(
                            id, z.name().substring(0, Math.min(255, z.name().length())), text, source.id));
            String was = before.get(id);
            if (was == null) {
                added++;
                changes.add("added " + z.name() + " (" + id + ")");
            } else if (!was.equals(text)) {
                changed++;
                changes.add("changed " + z.name() + " (" + id + "): " + difference(was, text));
            }
        }
        int removed = 0;
        for (String id : before.keySet()) {
            if (!now.containsKey(id)) {
                removed++;
                changes.add("removed " + ZoneGeoJson.zone(before.get(id)).name() + " (" + id + ")");
            }
        }
        store(before, now);
        source.zones = now.size();
        source.added = added;
        source.changed = changed;
        source.removed = removed;
        source.whatChanged = cut(changes);
        source.broughtInAt = clock.instant();
    }

    private void store(Map<String, String> before, Map<String, ZoneEntity> now) {
        List<String> gone = before.entrySet().stream()
                .filter(e -> !now.containsKey(e.getKey())
                        || !now.get(e.getKey()).geojson.equals(e.getValue()))
                .map(Map.Entry::getKey)
                .toList();
        for (int i = 0; i < gone.size(); i += 500) {
            em.createQuery("delete from ZoneEntity z where z.id in :ids")
                    .setParameter("ids", gone.subList(i, Math.min(gone.size(), i + 500)))
                    .executeUpdate();
        }
        List<ZoneEntity> fresh = now.values().stream()
                .filter(z -> !z.geojson.equals(before.get(z.id)))
                .toList();
        for (int i = 0; i < fresh.size(); i += 500) {
            List<ZoneEntity> part = fresh.subList(i, Math.min(fresh.size(), i + 500));
            part.forEach(em::persist);
            em.flush();
            part.forEach(em::detach);
        }
    }

    /** Which properties of a zone differ, in words. */
    private String difference(String was, String is) {
        JsonNode a = json.readTree(was);
        JsonNode b = json.readTree(is);
        List<String> parts = new ArrayList<>();
        Set<String> names = new java.util.TreeSet<>(a.path("properties").propertyNames());
        names.addAll(b.path("properties").propertyNames());
        for (String p : names) {
            if (!a.path("properties").path(p).equals(b.path("properties").path(p))) {
                parts.add(p + " " + shown(a.path("properties").path(p)) + " → "
                        + shown(b.path("properties").path(p)));
            }
        }
        if (!a.path("geometry").equals(b.path("geometry"))) {
            parts.add("its ground");
        }
        return String.join(", ", parts);
    }

    private static String shown(JsonNode n) {
        String s = n.isMissingNode() ? "nothing" : n.isValueNode() ? n.asString("") : n.toString();
        return s.length() > 60 ? s.substring(0, 60) + "…" : s;
    }

    private static String cut(List<String> lines) {
        return lines.stream().limit(MOST_NAMED).map(l -> l.replace('\n', ' ')).collect(Collectors.joining("\n"))
                + (lines.size() > MOST_NAMED ? "\nand " + (lines.size() - MOST_NAMED) + " more" : "");
    }

    private static String sha256(byte[] content) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Notices of a source that were not understood whole, decided or not. */
    @Transactional(readOnly = true)
    public List<Doubts.View> doubts(UUID sourceId) {
        return doubts.views(sourceId);
    }

    /**
     * Says what a notice means that was not understood whole.
     *
     * @param decision null takes back what was decided
     * @param area where it is another, else null
     * @return the notice's source
     */
    @Transactional
    public UUID decide(UUID doubtId, Doubts.Decision decision, Area area, String reason, String by) {
        Doubts.Decided d = doubts.decide(doubtId, decision, area, reason, by);
        ZoneSourceEntity source = entity(d.sourceId());
        Set<String> own = Set.of(d.zoneId(), d.zoneId() + " @ " + source.name);
        List<Zone> zones = new ArrayList<>();
        index().all().stream()
                .filter(z -> source.id.equals(held.get().sourceOfZone().get(z.id())) && !own.contains(z.id()))
                .forEach(zones::add);
        d.zone().ifPresent(zones::add);
        Instant edition = source.broughtInAt;
        replace(source, zones);
        source.broughtInAt = edition; // what was decided makes no source newer
        em.lock(source, LockModeType.OPTIMISTIC_FORCE_INCREMENT);
        em.flush();
        held.changed();
        events.publishEvent(new ZonesChanged());
        return source.id;
    }

    /** Takes a source and its zones out. */
    @Transactional
    public void remove(UUID sourceId) {
        em.createQuery("delete from ZoneEntity z where z.sourceId = :s")
                .setParameter("s", sourceId)
                .executeUpdate();
        em.remove(entity(sourceId));
        em.flush();
        held.changed();
        events.publishEvent(new ZonesChanged());
    }

    /** Adds a zone of the operator's own, or puts it in the place of the one with the same name. */
    @Transactional
    public void saveOwn(Zone z, String by) {
        ZoneSourceEntity source = em.createQuery("from ZoneSourceEntity s where s.format = :f", ZoneSourceEntity.class)
                .setParameter("f", OWN)
                .getResultStream()
                .findFirst()
                .orElse(null);
        if (source == null) {
            source = new ZoneSourceEntity(UUID.randomUUID(), OWN_NAME);
            source.format = OWN;
            source.fileName = "typed or drawn here";
            source.sha256 = sha256(new byte[0]);
            source.attribution = "";
            source.staleDays = 36_500;
            source.broughtInAt = clock.instant();
            source.broughtInBy = by;
            em.persist(source);
            em.flush();
        }
        UUID id = source.id;
        List<Zone> zones = new ArrayList<>(index().all().stream()
                .filter(o -> id.equals(held.get().sourceOfZone().get(o.id())) && !o.id().equals(z.id()))
                .toList());
        zones.add(z);
        source.broughtInBy = by;
        replace(source, zones);
        em.flush();
        held.changed();
        events.publishEvent(new ZonesChanged());
    }

    /** Takes one of the operator's own zones out. */
    @Transactional
    public void removeOwn(String zoneId, String by) {
        UUID id = held.get().sourceOfZone().get(zoneId);
        if (id == null || !entity(id).format.equals(OWN)) {
            throw new NotFoundException("zone of your own");
        }
        ZoneSourceEntity source = entity(id);
        source.broughtInBy = by;
        replace(
                source,
                index().all().stream()
                        .filter(o -> id.equals(held.get().sourceOfZone().get(o.id())) && !o.id().equals(zoneId))
                        .toList());
        em.flush();
        held.changed();
        events.publishEvent(new ZonesChanged());
    }

    private ZoneSourceEntity entity(UUID id) {
        ZoneSourceEntity s = em.find(ZoneSourceEntity.class, id);
        if (s == null) {
            throw new NotFoundException("source of zones");
        }
        return s;
    }

    // --- drawing -----------------------------------------------------------------------------------------------------

    /**
     * What is to be seen of the zones.
     *
     * @param fromM lower end of a band of heights above ground in metres; null for the ground
     * @param toM upper end; null for no end
     * @param at hour at which they are in force; null for any
     * @param kinds to show; empty for all
     */
    public record Sight(
            double south,
            double west,
            double north,
            double east,
            Double fromM,
            Double toM,
            Instant at,
            Set<ZoneKind> kinds) {}

    /** Zones in sight, the largest first. */
    @Transactional(readOnly = true)
    public List<Zone> inSight(Sight s, ZoneId place) {
        return index().inBox(s.south(), s.west(), s.north(), s.east()).stream()
                .filter(z -> s.kinds().isEmpty() || s.kinds().contains(z.kind()))
                .filter(z -> s.at() == null || z.times().meets(new TimeWindow(s.at(), s.at()), place))
                .filter(z -> inBand(z, s))
                .sorted(java.util.Comparator.comparingDouble(Airspace::boxSize).reversed())
                .toList();
    }

    /** Limits that do not count from the ground may lie anywhere: they stay in sight. */
    private static boolean inBand(Zone z, Sight s) {
        double low = z.lower()
                .aboveGround(yarrek.core.airspace.Ground.UNKNOWN)
                .map(yarrek.core.airspace.HeightLimit.Span::leastM)
                .orElse(0.0);
        double high = z.upper()
                .aboveGround(yarrek.core.airspace.Ground.UNKNOWN)
                .map(yarrek.core.airspace.HeightLimit.Span::greatestM)
                .orElse(Double.MAX_VALUE);
        return (s.toM() == null || low <= s.toM()) && (s.fromM() == null || high >= s.fromM());
    }

    private static double boxSize(Zone z) {
        Area a = z.area();
        return (a.maxLatitudeDeg() - a.minLatitudeDeg()) * (a.maxLongitudeDeg() - a.minLongitudeDeg());
    }

    /** The zones in sight for drawing, their corners thinned to what can be seen, and how many were left out. */
    @Transactional(readOnly = true)
    public ObjectNode drawn(Sight s, ZoneId place) {
        List<Zone> all = inSight(s, place);
        double metres = Math.max(1, (s.north() - s.south()) * 111_000 / 900);
        ObjectNode root = json.createObjectNode();
        root.put("inSight", all.size());
        root.put("drawn", Math.min(all.size(), MOST_DRAWN));
        ArrayNode zones = root.putArray("zones");
        for (Zone z : all.subList(0, Math.min(all.size(), MOST_DRAWN))) {
            ObjectNode n = zones.addObject();
            n.put("id", z.id());
            n.put("name", z.name());
            n.put("kind", z.kind().name());
            n.put("kindWords", z.kind().words());
            n.put("restriction", z.restriction().name());
            n.put("heights", z.heights());
            n.put("when", z.times().words());
            n.put("message", z.message());
            ArrayNode patches = n.putArray("patches");
            for (Area.Patch p : z.area().coarse(metres)) {
                ArrayNode rings = patches.addArray();
                rings.add(Drawing.ring(json, p.outline()));
                p.holes().forEach(h -> rings.add(Drawing.ring(json, h)));
            }
        }
        return root;
    }

    /** Coast, names and the like. */
    @Transactional(readOnly = true)
    public ArrayNode scenery() {
        ArrayNode scenery = json.createArrayNode();
        em.createQuery("from Scenery s order by s.id", Scenery.class)
                .getResultStream()
                .forEach(s -> scenery.add(json.readTree(s.geojson)));
        return scenery;
    }

    /** Every zone as GeoJSON, to be read here or by others. */
    @Transactional(readOnly = true)
    public String export() {
        ObjectNode root = json.createObjectNode();
        root.put("type", "FeatureCollection");
        ArrayNode features = root.putArray("features");
        index().all().forEach(z -> features.add(ZoneGeoJson.write(z)));
        return root.toString();
    }
}
