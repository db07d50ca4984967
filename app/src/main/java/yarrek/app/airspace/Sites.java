package yarrek.app.airspace;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.core.airspace.Ground;
import yarrek.core.airspace.SiteLook;
import yarrek.core.airspace.Structure;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.geo.ShapeText;
import yarrek.core.judging.Place;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.Wind;

/** Places with a flight area, and what stands and lies there. */
@Service
public class Sites {
    /** Things on a site beside its area and its launch point. */
    public enum FeatureKind {
        ALTERNATE("alternate landing"),
        OBSTACLE("obstacle"),
        PEOPLE("people"),
        ROAD("road or path"),
        HAZARD("hazard"),
        EMITTER("emitter"),
        NO_RECOVERY("no recovery"),
        CREW("crew or crowd line"),
        MEASURE("measure");

        private final String words;

        FeatureKind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        static FeatureKind of(String text) {
            for (FeatureKind k : values()) {
                if (k.words.equalsIgnoreCase(text) || k.name().equalsIgnoreCase(text)) {
                    return k;
                }
            }
            return null;
        }
    }

    /** How a thing on the site is known. */
    public enum Known {
        SEEN("seen"),
        TOLD("told"),
        ASSUMED("assumed");

        private final String words;

        Known(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A thing on the site.
     *
     * @param sort mast, line, tree, crane, building and the like; empty for none
     * @param heightM of its top above the ground; null when not known or it has none
     * @param shape as {@link ShapeText} reads it
     */
    public record Feature(
            FeatureKind kind, String sort, String name, Double heightM, String shape, Known known, String note) {
        public ShapeText.Shape drawn() {
            return ShapeText.shape(shape);
        }
    }

    /**
     * What was said of the place; empty texts are not known.
     *
     * @param coverage none, some or good
     * @param makerLevel what the built-in map of the aircraft says here, never taken as authority
     * @param officialMap result of the authority's own map or application: colour, names, when and by whom
     */
    public record Particulars(
            String landowner,
            String landContact,
            String coverage,
            String makerLevel,
            LocalDate makerLookedOn,
            String officialMap,
            LocalDate officialLookedOn,
            LocalDate visitedOn,
            String visitedBy,
            String help,
            String discretion) {
        static final Particulars NONE = new Particulars("", "", "", "", null, "", null, null, "", "", "");
    }

    /** A site as others see it; a null figure is not known. */
    private static final long BESIDE_M = 50;

    public record SiteView(
            UUID id,
            long version,
            String name,
            Position launch,
            Area area,
            String jurisdiction,
            ZoneId zone,
            Double elevationM,
            Double reliefM,
            Double bufferM,
            Wind.Terrain terrain,
            Double builtUpDistanceM,
            Boolean overWater,
            List<Feature> features,
            Particulars particulars,
            String notes) {
        /** The same place with other things on it. */
        SiteView with(List<Feature> things) {
            return new SiteView(
                    id,
                    version,
                    name,
                    launch,
                    area,
                    jurisdiction,
                    zone,
                    elevationM,
                    reliefM,
                    bufferM,
                    terrain,
                    builtUpDistanceM,
                    overWater,
                    things,
                    particulars,
                    notes);
        }

        /** As judging sees it. */
        public Place place() {
            return new Place(
                    name,
                    zone,
                    jurisdiction,
                    launch,
                    area,
                    bufferM,
                    elevationM,
                    reliefM,
                    terrain,
                    builtUpDistanceM,
                    overWater);
        }

        public Ground ground() {
            return place().ground();
        }

        /** How far the launch point lies outside the area, in whole metres; 0 inside, on the edge or within some steps of it. */
        public long launchOutsideM() {
            long off = Math.round(area.distanceM(launch));
            return off <= BESIDE_M ? 0 : off;
        }

        /** Obstacles as structures, for heights; one without a height keeps it unknown. */
        public List<Structure> structures() {
            return features.stream()
                    .filter(f -> f.kind() == FeatureKind.OBSTACLE)
                    .map(f -> {
                        ShapeText.Shape s = f.drawn();
                        return new Structure(
                                f.name().isEmpty() ? f.sort() : f.name(),
                                f.sort(),
                                s.area().map(Area::corners).orElse(s.points()),
                                s.area(),
                                f.heightM() == null ? OptionalDouble.empty() : OptionalDouble.of(f.heightM()));
                    })
                    .toList();
        }

        public List<Feature> of(FeatureKind kind) {
            return features.stream().filter(f -> f.kind() == kind).toList();
        }

        /** What is flown here, for looking at the zones around. */
        public SiteLook.Plan plan(OptionalDouble greatestHeightM, List<TimeWindow> windows) {
            return place().look(greatestHeightM, windows);
        }
    }

    /** A site changed; its jobs are judged again. */
    public record SiteChanged(UUID siteId) {}

    /** What lists say of every site. */
    private record Brief(Map<UUID, String> names, Map<UUID, ZoneId> zones, Map<UUID, Position> launches) {}

    private final Held<Brief> brief;
    private final EntityManager em;
    private final ApplicationEventPublisher events;
    private final JsonMapper json;

    Sites(EntityManager em, ApplicationEventPublisher events, JsonMapper json, Stamps stamps) {
        this.brief = stamps.holding("sites", this::readBrief);
        this.em = em;
        this.events = events;
        this.json = json;
    }

    @Transactional(readOnly = true)
    public List<SiteView> sites() {
        return em.createQuery("from SiteEntity s order by s.name", SiteEntity.class)
                .getResultStream()
                .map(this::view)
                .toList();
    }

    /** South, west, north and east of all sites in degrees, with commas between; null while there is none. */
    @Transactional(readOnly = true)
    public String mapView() {
        Object[] edge = em.createQuery(
                        "select min(s.launchLat), min(s.launchLon), max(s.launchLat), max(s.launchLon) from SiteEntity s",
                        Object[].class)
                .getSingleResult();
        return edge[0] == null
                ? null
                : Arrays.stream(edge).map(Object::toString).collect(Collectors.joining(","));
    }

    /** These sites, by identity, in one statement. */
    @Transactional(readOnly = true)
    public Map<UUID, SiteView> sites(Collection<UUID> ids) {
        return ids.isEmpty()
                ? Map.of()
                : em.createQuery("from SiteEntity s where s.id in :ids", SiteEntity.class)
                        .setParameter("ids", ids)
                        .getResultStream()
                        .collect(java.util.stream.Collectors.toMap(s -> s.id, this::view));
    }

    @Transactional(readOnly = true)
    public SiteView site(UUID id) {
        return view(entity(id));
    }

    /** The site nearest to a position within a distance. */
    @Transactional(readOnly = true)
    public Optional<SiteView> near(Position p, double metres) {
        return sites().stream()
                .filter(s -> s.area().distanceM(p) <= metres)
                .min(java.util.Comparator.comparingDouble(s -> s.area().distanceM(p)));
    }

    /**
     * Stores a site; one without an id is made new.
     *
     * @throws IllegalArgumentException when the name is taken
     * @throws LostUpdateException when somebody else saved it in between
     */
    @Transactional
    public UUID save(SiteView v) {
        SiteEntity s = v.id() == null ? new SiteEntity(UUID.randomUUID()) : entity(v.id());
        if (v.id() != null && v.version() != s.version) {
            throw new LostUpdateException(s.version);
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
        s.area = ShapeText.write(v.area());
        s.jurisdiction = v.jurisdiction();
        s.zone = v.zone().getId();
        s.elevationM = v.elevationM();
        s.reliefM = v.reliefM();
        s.bufferM = v.bufferM();
        s.terrain = v.terrain() == null ? null : v.terrain().name();
        s.builtUpDistanceM = v.builtUpDistanceM();
        s.overWater = v.overWater();
        s.features = json.writeValueAsString(v.features());
        s.particulars = json.writeValueAsString(v.particulars());
        s.notes = v.notes();
        if (v.id() == null) {
            em.persist(s);
        }
        em.flush();
        restored(s);
        return s.id;
    }

    /** Has what rests on a changed site follow. */
    void restored(SiteEntity s) {
        brief.changed();
        events.publishEvent(new SiteChanged(s.id));
    }

    private SiteEntity entity(UUID id) {
        SiteEntity s = em.find(SiteEntity.class, id);
        if (s == null) {
            throw new NotFoundException("site");
        }
        return s;
    }

    private SiteView view(SiteEntity s) {
        List<Feature> features = new ArrayList<>(json.readValue(s.features, new TypeReference<List<Feature>>() {}));
        Particulars p =
                s.particulars.equals("{}") ? Particulars.NONE : json.readValue(s.particulars, Particulars.class);
        return new SiteView(
                s.id,
                s.version,
                s.name,
                new Position(s.launchLat, s.launchLon),
                ShapeText.area(s.area),
                s.jurisdiction,
                ZoneId.of(s.zone),
                s.elevationM,
                s.reliefM,
                s.bufferM,
                s.terrain == null ? null : Wind.Terrain.valueOf(s.terrain),
                s.builtUpDistanceM,
                s.overWater,
                List.copyOf(features),
                p,
                s.notes);
    }

    /** Ids and names, by name. */
    /** The clock of each site, without its drawing. */
    @Transactional(readOnly = true)
    public Map<UUID, ZoneId> zones() {
        return brief.get().zones();
    }

    /** Launch points by identity. */
    @Transactional(readOnly = true)
    public Map<UUID, Position> launches() {
        return brief.get().launches();
    }

    /** Names by identity, in order of the names. */
    @Transactional(readOnly = true)
    public Map<UUID, String> names() {
        return brief.get().names();
    }

    private Brief readBrief() {
        Map<UUID, String> names = new LinkedHashMap<>();
        Map<UUID, ZoneId> zones = new HashMap<>();
        Map<UUID, Position> launches = new HashMap<>();
        em.createQuery(
                        "select s.id, s.name, s.zone, s.launchLat, s.launchLon from SiteEntity s order by s.name",
                        Object[].class)
                .getResultList()
                .forEach(r -> {
                    names.put((UUID) r[0], (String) r[1]);
                    zones.put((UUID) r[0], ZoneId.of((String) r[2]));
                    launches.put((UUID) r[0], new Position((double) r[3], (double) r[4]));
                });
        return new Brief(Collections.unmodifiableMap(names), Map.copyOf(zones), Map.copyOf(launches));
    }
}
