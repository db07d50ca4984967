package yarrek.app.fleet;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.judging.Built;
import yarrek.core.judging.Craft;
import yarrek.core.judging.PackLasts;
import yarrek.core.mass.Headroom;
import yarrek.core.mass.MassClass;
import yarrek.core.mass.Part;
import yarrek.core.mass.TakeoffMass;
import yarrek.core.units.Mass;

/** The register of the fleet, and what its builds weigh. */
@Service
public class Fleet {
    /** A model with the maker's limits; a null figure is not known. */
    public record ModelView(
            UUID id,
            long version,
            String maker,
            String name,
            BigDecimal airframeMassG,
            BigDecimal toleranceG,
            BigDecimal maxTakeoffMassG,
            String classMark,
            boolean privatelyBuilt,
            boolean hasCamera,
            boolean isToy,
            Double maxLevelSpeedMps,
            Double dimensionM,
            Double windLimitMps,
            Double temperatureMinC,
            Double temperatureMaxC,
            Double maxHeightM,
            String remoteId,
            Set<String> lights,
            PackLasts.Leaflet leaflet,
            Set<UUID> packIds) {
        public String fullName() {
            return maker + " " + name;
        }
    }

    public record PackModelView(
            UUID id,
            long version,
            String name,
            BigDecimal massG,
            BigDecimal toleranceG,
            double capacityMah,
            int cells,
            double nominalV) {
        public double energyWh() {
            return capacityMah / 1000 * nominalV;
        }
    }

    public record AccessoryView(
            UUID id, long version, String name, String kind, BigDecimal massG, BigDecimal toleranceG, String light) {}

    public record AircraftView(
            UUID id,
            long version,
            String name,
            String serial,
            ModelView model,
            LocalDate marketDate,
            LocalDate boughtOn,
            BigDecimal weighedG,
            BigDecimal weighedResolutionG,
            LocalDate weighedOn,
            String weighedScale,
            Boolean remoteIdActive,
            Boolean geoAwarenessCurrent,
            long flownS,
            int landings) {
        public double flownHours() {
            return flownS / 3600.0;
        }

        /** As judging sees it. */
        public Craft craft(List<Set<String>> lightsOfBuilds) {
            return new Craft(
                    name,
                    serial,
                    marketDate,
                    remoteIdActive,
                    geoAwarenessCurrent,
                    new Craft.Model(
                            model.fullName(),
                            model.maxTakeoffMassG() == null
                                    ? null
                                    : Double.valueOf(model.maxTakeoffMassG().doubleValue()),
                            model.classMark(),
                            model.privatelyBuilt(),
                            model.hasCamera(),
                            model.isToy(),
                            model.maxLevelSpeedMps(),
                            model.dimensionM(),
                            model.windLimitMps(),
                            model.temperatureMinC(),
                            model.temperatureMaxC(),
                            model.maxHeightM(),
                            model.remoteId(),
                            model.lights(),
                            model.leaflet()),
                    lightsOfBuilds);
        }
    }

    public record PackView(
            UUID id,
            long version,
            String label,
            String serial,
            PackModelView model,
            LocalDate boughtOn,
            double drawnMah,
            double equivalentCycles,
            int flights,
            int flightsWithoutCharge) {}

    /** A build with its mass and where that falls in the classes of a jurisdiction. */
    public record BuildView(
            UUID id,
            long version,
            String name,
            AircraftView aircraft,
            PackModelView pack,
            Set<UUID> accessoryIds,
            List<String> accessoryNames,
            Set<String> lights,
            TakeoffMass mass) {
        /** As judging sees it. */
        public Built built() {
            return built(aircraft.craft(List.of(lights)));
        }

        /** The same of an aircraft that was read with all its builds. */
        public Built built(Craft craft) {
            return new Built(
                    name,
                    craft,
                    mass,
                    lights,
                    pack.energyWh(),
                    aircraft.model().airframeMassG().add(pack.massG()).doubleValue());
        }

        /** How it stands against what its maker declares for the model, in words; empty when it is lighter for certain. */
        public Optional<String> overMaker() {
            return mass.overDeclared(
                    Optional.ofNullable(aircraft.model().maxTakeoffMassG()).map(Mass::ofGrams));
        }

        /** Whether the same is on it as on another. */
        public boolean carriesWhat(BuildView o) {
            return pack.id().equals(o.pack.id()) && accessoryIds.equals(o.accessoryIds);
        }
    }

    /** Class and headroom of a build under a jurisdiction. */
    public record Weighed(
            TakeoffMass mass, MassClass.Placement placement, List<Headroom.Crossing> crossings, String jurisdiction) {}

    /** A build changed; jobs that use it are judged again. */
    public record BuildChanged(UUID buildId, String what) {}

    private final Held<Map<UUID, String>> names;
    private final EntityManager em;
    private final ApplicationEventPublisher events;
    private final Rulebook rulebook;

    Fleet(EntityManager em, ApplicationEventPublisher events, Rulebook rulebook, Stamps stamps) {
        this.names = stamps.holding("aircraft names", this::readNames);
        this.em = em;
        this.events = events;
        this.rulebook = rulebook;
    }

    // --- models ------------------------------------------------------------------------------------------------------

    @Transactional(readOnly = true)
    public List<ModelView> models() {
        return em.createQuery("from AircraftModel m order by m.maker, m.name", AircraftModel.class)
                .getResultStream()
                .map(Fleet::view)
                .toList();
    }

    @Transactional(readOnly = true)
    public ModelView model(UUID id) {
        return view(find(AircraftModel.class, id, "model"));
    }

    /**
     * Stores a model; a null id makes a new one.
     *
     * @throws LostUpdateException when somebody else saved it since the view was read
     */
    @Transactional
    public UUID save(ModelView v) {
        AircraftModel m =
                v.id() == null ? new AircraftModel(UUID.randomUUID()) : find(AircraftModel.class, v.id(), "model");
        if (v.id() != null && v.version() != m.version) {
            throw new LostUpdateException(m.version);
        }
        requireFree("AircraftModel", "name", v.name(), m.id, "model");
        m.maker = v.maker();
        m.name = v.name();
        m.airframeMassG = v.airframeMassG();
        m.toleranceG = v.toleranceG();
        m.maxTakeoffMassG = v.maxTakeoffMassG();
        m.classMark = v.classMark();
        m.privatelyBuilt = v.privatelyBuilt();
        m.hasCamera = v.hasCamera();
        m.isToy = v.isToy();
        m.maxLevelSpeedMps = v.maxLevelSpeedMps();
        m.dimensionM = v.dimensionM();
        m.windLimitMps = v.windLimitMps();
        m.temperatureMinC = v.temperatureMinC();
        m.temperatureMaxC = v.temperatureMaxC();
        m.maxHeightM = v.maxHeightM();
        m.remoteId = v.remoteId();
        m.lights = String.join(",", new TreeSet<>(v.lights()));
        m.flightMinutes = v.leaflet() == null ? null : (Double) v.leaflet().minutes();
        m.flightMinutesStated = v.leaflet() == null ? null : v.leaflet().stated();
        m.flightMinutesWh = v.leaflet() == null ? null : v.leaflet().wh();
        m.packs = v.packIds().stream()
                .map(id -> find(PackModel.class, id, "pack model"))
                .collect(Collectors.toCollection(LinkedHashSet::new));
        if (v.id() == null) {
            em.persist(m);
        }
        em.flush();
        buildsChanged(
                "select b.id from BuildEntity b where b.aircraft.model.id = :id",
                m.id,
                "the model " + m.name + " changed");
        return m.id;
    }

    @Transactional(readOnly = true)
    public List<PackModelView> packModels() {
        return em.createQuery("from PackModel m order by m.name", PackModel.class)
                .getResultStream()
                .map(Fleet::view)
                .toList();
    }

    @Transactional(readOnly = true)
    public PackModelView packModel(UUID id) {
        return view(find(PackModel.class, id, "pack model"));
    }

    /** @see #save(ModelView) */
    @Transactional
    public UUID save(PackModelView v) {
        PackModel m = v.id() == null ? new PackModel(UUID.randomUUID()) : find(PackModel.class, v.id(), "pack model");
        if (v.id() != null && v.version() != m.version) {
            throw new LostUpdateException(m.version);
        }
        requireFree("PackModel", "name", v.name(), m.id, "pack model");
        m.name = v.name();
        m.massG = v.massG();
        m.toleranceG = v.toleranceG();
        m.capacityMah = v.capacityMah();
        m.cells = v.cells();
        m.nominalV = v.nominalV();
        if (v.id() == null) {
            em.persist(m);
        }
        em.flush();
        buildsChanged(
                "select b.id from BuildEntity b where b.pack.id = :id", m.id, "the pack model " + m.name + " changed");
        return m.id;
    }

    @Transactional(readOnly = true)
    public List<AccessoryView> accessories() {
        return em.createQuery("from Accessory a order by a.name", Accessory.class)
                .getResultStream()
                .map(a -> new AccessoryView(a.id, a.version, a.name, a.kind, a.massG, a.toleranceG, a.light))
                .toList();
    }

    @Transactional(readOnly = true)
    public AccessoryView accessory(UUID id) {
        Accessory a = find(Accessory.class, id, "accessory");
        return new AccessoryView(a.id, a.version, a.name, a.kind, a.massG, a.toleranceG, a.light);
    }

    /** @see #save(ModelView) */
    @Transactional
    public UUID save(AccessoryView v) {
        Accessory a = v.id() == null ? new Accessory(UUID.randomUUID()) : find(Accessory.class, v.id(), "accessory");
        if (v.id() != null && v.version() != a.version) {
            throw new LostUpdateException(a.version);
        }
        requireFree("Accessory", "name", v.name(), a.id, "accessory");
        a.name = v.name();
        a.kind = v.kind();
        a.massG = v.massG();
        a.toleranceG = v.toleranceG();
        a.light = v.light();
        if (v.id() == null) {
            em.persist(a);
        }
        em.flush();
        buildsChanged(
                "select b.id from BuildEntity b join b.accessories x where x.id = :id",
                a.id,
                "the accessory " + a.name + " changed");
        return a.id;
    }

    // --- aircraft and packs ------------------------------------------------------------------------------------------

    @Transactional(readOnly = true)
    public List<AircraftView> aircraft() {
        return em.createQuery("from AircraftEntity a join fetch a.model order by a.name", AircraftEntity.class)
                .getResultStream()
                .map(Fleet::view)
                .toList();
    }

    /** Aircraft by identity; asks nothing for none. */
    @Transactional(readOnly = true)
    public Map<UUID, AircraftView> aircraftOf(Collection<UUID> ids) {
        return ids.isEmpty()
                ? Map.of()
                : em.createQuery("from AircraftEntity a join fetch a.model where a.id in :ids", AircraftEntity.class)
                        .setParameter("ids", ids)
                        .getResultStream()
                        .collect(Collectors.toMap(a -> a.id, Fleet::view));
    }

    @Transactional(readOnly = true)
    public AircraftView aircraft(UUID id) {
        return view(find(AircraftEntity.class, id, "aircraft"));
    }

    /**
     * Stores an aircraft; a null id makes a new one. The model is taken by its id.
     *
     * @throws LostUpdateException when somebody else saved it since the view was read
     * @throws IllegalArgumentException when name or serial number is taken
     */
    @Transactional
    public UUID save(AircraftView v, UUID modelId) {
        AircraftEntity a =
                v.id() == null ? new AircraftEntity(UUID.randomUUID()) : find(AircraftEntity.class, v.id(), "aircraft");
        if (v.id() != null && v.version() != a.version) {
            throw new LostUpdateException(a.version);
        }
        requireFree("AircraftEntity", "name", v.name(), a.id, "aircraft");
        requireFree("AircraftEntity", "serial", v.serial(), a.id, "aircraft with the serial number");
        a.model = find(AircraftModel.class, modelId, "model");
        a.name = v.name();
        a.serial = v.serial();
        a.marketDate = v.marketDate();
        a.boughtOn = v.boughtOn();
        a.weighedG = v.weighedG();
        a.weighedResolutionG = v.weighedResolutionG();
        a.weighedOn = v.weighedOn();
        a.weighedScale = v.weighedScale();
        a.remoteIdActive = v.remoteIdActive();
        a.geoAwarenessCurrent = v.geoAwarenessCurrent();
        if (v.id() == null) {
            em.persist(a);
        }
        em.flush();
        names.changed();
        buildsChanged(
                "select b.id from BuildEntity b where b.aircraft.id = :id",
                a.id,
                "the aircraft " + a.name + " changed");
        return a.id;
    }

    @Transactional(readOnly = true)
    public List<PackView> packs() {
        return em.createQuery("from PackEntity p join fetch p.model order by p.label", PackEntity.class)
                .getResultStream()
                .map(Fleet::view)
                .toList();
    }

    @Transactional(readOnly = true)
    public PackView pack(UUID id) {
        return view(find(PackEntity.class, id, "pack"));
    }

    /** @see #save(AircraftView, UUID) */
    @Transactional
    public UUID save(PackView v, UUID modelId) {
        PackEntity p = v.id() == null ? new PackEntity(UUID.randomUUID()) : find(PackEntity.class, v.id(), "pack");
        if (v.id() != null && v.version() != p.version) {
            throw new LostUpdateException(p.version);
        }
        requireFree("PackEntity", "label", v.label(), p.id, "pack");
        if (v.serial() != null) {
            requireFree("PackEntity", "serial", v.serial(), p.id, "pack with the serial number");
        }
        p.model = find(PackModel.class, modelId, "pack model");
        p.label = v.label();
        p.serial = v.serial();
        p.boughtOn = v.boughtOn();
        if (v.id() == null) {
            em.persist(p);
        }
        em.flush();
        return p.id;
    }

    /** Adds flown time and landings to an aircraft; negative figures take them back. */
    @Transactional
    public void countAircraft(UUID id, long seconds, int landings) {
        AircraftEntity a = em.find(AircraftEntity.class, id, LockModeType.PESSIMISTIC_WRITE);
        a.flownS = Math.max(0, a.flownS + seconds);
        a.landings = Math.max(0, a.landings + landings);
    }

    /**
     * Adds a flight to a pack, or takes it back with {@code sign} -1.
     *
     * @param mah charge drawn; empty counts the flight as one without a figure
     */
    @Transactional
    public void countPack(UUID id, Optional<Double> mah, int sign) {
        PackEntity p = em.find(PackEntity.class, id, LockModeType.PESSIMISTIC_WRITE);
        p.flights = Math.max(0, p.flights + sign);
        if (mah.isPresent()) {
            p.drawnMah = Math.max(0, p.drawnMah + sign * mah.get());
            p.equivalentCycles = p.drawnMah / p.model.capacityMah;
        } else {
            p.flightsWithoutCharge = Math.max(0, p.flightsWithoutCharge + sign);
        }
    }

    // --- builds ------------------------------------------------------------------------------------------------------

    @Transactional(readOnly = true)
    public List<BuildView> builds() {
        List<BuildEntity> builds = em.createQuery(
                        "from BuildEntity b join fetch b.aircraft a join fetch a.model join fetch b.pack order by a.name, b.name",
                        BuildEntity.class)
                .getResultList();
        return views(builds);
    }

    @Transactional(readOnly = true)
    public Map<UUID, String> aircraftNames() {
        return names.get();
    }

    private Map<UUID, String> readNames() {
        return em.createQuery("select a.id, a.name from AircraftEntity a", Object[].class)
                .getResultStream()
                .collect(Collectors.toUnmodifiableMap(r -> (UUID) r[0], r -> (String) r[1]));
    }

    @Transactional(readOnly = true)
    public Map<UUID, String> packLabels(Collection<UUID> ids) {
        return ids.isEmpty()
                ? Map.of()
                : em.createQuery("select p.id, p.label from PackEntity p where p.id in :ids", Object[].class)
                        .setParameter("ids", ids)
                        .getResultStream()
                        .collect(Collectors.toMap(r -> (UUID) r[0], r -> (String) r[1]));
    }

    /** "aircraft, build" by the build's id. */
    @Transactional(readOnly = true)
    public Map<UUID, String> buildNames(Collection<UUID> ids) {
        return ids.isEmpty()
                ? Map.of()
                : em.createQuery(
                                "select b.id, a.name, b.name from BuildEntity b join b.aircraft a where b.id in :ids",
                                Object[].class)
                        .setParameter("ids", ids)
                        .getResultStream()
                        .collect(Collectors.toMap(r -> (UUID) r[0], r -> r[1] + ", " + r[2]));
    }

    /** Whose aircraft some builds are. */
    @Transactional(readOnly = true)
    public Map<UUID, UUID> aircraftByBuild(Collection<UUID> builds) {
        return builds.isEmpty()
                ? Map.of()
                : em.createQuery("select b.id, b.aircraft.id from BuildEntity b where b.id in :ids", Object[].class)
                        .setParameter("ids", builds)
                        .getResultStream()
                        .collect(Collectors.toMap(r -> (UUID) r[0], r -> (UUID) r[1]));
    }

    /** Builds of these aircraft, by aircraft. */
    @Transactional(readOnly = true)
    public Map<UUID, List<UUID>> buildsByAircraft(Collection<UUID> aircraft) {
        return aircraft.isEmpty()
                ? Map.of()
                : em.createQuery(
                                "select b.aircraft.id, b.id from BuildEntity b where b.aircraft.id in :ids",
                                Object[].class)
                        .setParameter("ids", aircraft)
                        .getResultStream()
                        .collect(Collectors.groupingBy(
                                r -> (UUID) r[0], Collectors.mapping(r -> (UUID) r[1], Collectors.toList())));
    }

    @Transactional(readOnly = true)
    public List<BuildView> buildsOf(UUID aircraftId) {
        return views(em.createQuery("from BuildEntity b where b.aircraft.id = :id order by b.name", BuildEntity.class)
                .setParameter("id", aircraftId)
                .getResultList());
    }

    /** Every build of the aircraft of these builds, by identity, in a fixed number of statements. */
    @Transactional(readOnly = true)
    public Map<UUID, BuildView> withSiblings(Collection<UUID> ids, Collection<UUID> aircraft) {
        return ids.isEmpty() && aircraft.isEmpty()
                ? Map.of()
                : views(em.createQuery(
                                        "select distinct b from BuildEntity b join fetch b.aircraft a join fetch a.model m"
                                                + " left join fetch m.packs join fetch b.pack left join fetch b.accessories"
                                                + " where a.id in (select c.aircraft.id from BuildEntity c where c.id in :ids)"
                                                + " or a.id in :aircraft",
                                        BuildEntity.class)
                                .setParameter("ids", orNone(ids))
                                .setParameter("aircraft", orNone(aircraft))
                                .getResultList())
                        .stream()
                        .collect(Collectors.toMap(BuildView::id, b -> b));
    }

    /** Identities of all builds of the aircraft of these. */
    @Transactional(readOnly = true)
    public Set<UUID> siblings(Collection<UUID> ids) {
        return ids.isEmpty()
                ? Set.of()
                : Set.copyOf(em.createQuery(
                                "select b.id from BuildEntity b where b.aircraft.id in"
                                        + " (select c.aircraft.id from BuildEntity c where c.id in :ids)",
                                UUID.class)
                        .setParameter("ids", ids)
                        .getResultList());
    }

    private static Collection<UUID> orNone(Collection<UUID> ids) {
        return ids.isEmpty() ? Set.of(new UUID(0, 0)) : ids;
    }

    @Transactional(readOnly = true)
    public BuildView build(UUID id) {
        List<BuildEntity> whole = em.createQuery(
                        "select distinct b from BuildEntity b join fetch b.aircraft a join fetch a.model m"
                                + " left join fetch m.packs join fetch b.pack left join fetch b.accessories where b.id = :id",
                        BuildEntity.class)
                .setParameter("id", id)
                .getResultList();
        if (whole.isEmpty()) {
            throw new NotFoundException("build");
        }
        return views(whole).get(0);
    }

    @Transactional
    public UUID createBuild(UUID aircraftId, String name, UUID packModelId) {
        BuildEntity b = new BuildEntity(UUID.randomUUID());
        b.aircraft = find(AircraftEntity.class, aircraftId, "aircraft");
        b.pack = find(PackModel.class, packModelId, "pack model");
        boolean taken = em.createQuery(
                                "select count(b) from BuildEntity b where b.aircraft.id = :a and b.name = :n",
                                Long.class)
                        .setParameter("a", aircraftId)
                        .setParameter("n", name)
                        .getSingleResult()
                > 0;
        if (taken) {
            throw new IllegalArgumentException("this aircraft has a build called “" + name + "” already");
        }
        b.name = name;
        em.persist(b);
        em.flush();
        return b.id;
    }

    /** A build as it would be with another pack and other parts; nothing is stored. */
    @Transactional(readOnly = true)
    public BuildView tried(UUID id, UUID packModelId, Collection<UUID> accessoryIds) {
        BuildEntity stored = find(BuildEntity.class, id, "build");
        BuildEntity b = new BuildEntity(id);
        b.version = stored.version;
        b.name = stored.name;
        b.aircraft = stored.aircraft;
        put(b, packModelId, accessoryIds);
        return views(List.of(b)).get(0);
    }

    /**
     * Another build of the same aircraft.
     *
     * @throws IllegalArgumentException when the aircraft has one of this name
     */
    @Transactional
    public UUID buildFrom(UUID id, String name, UUID packModelId, Collection<UUID> accessoryIds) {
        UUID made = createBuild(find(BuildEntity.class, id, "build").aircraft.id, name, packModelId);
        put(find(BuildEntity.class, made, "build"), packModelId, accessoryIds);
        return made;
    }

    private void put(BuildEntity b, UUID packModelId, Collection<UUID> accessoryIds) {
        b.pack = find(PackModel.class, packModelId, "pack model");
        b.accessories = accessoryIds.stream()
                .map(a -> find(Accessory.class, a, "accessory"))
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /**
     * Changes what is on a build.
     *
     * @throws LostUpdateException when somebody else changed it since {@code version}
     */
    @Transactional
    public BuildView changeBuild(UUID id, long version, UUID packModelId, Collection<UUID> accessoryIds) {
        BuildEntity b = find(BuildEntity.class, id, "build");
        if (version != b.version) {
            throw new LostUpdateException(b.version);
        }
        Set<UUID> before = b.accessories.stream().map(a -> a.id).collect(Collectors.toSet());
        boolean same = b.pack.id.equals(packModelId) && before.equals(Set.copyOf(accessoryIds));
        put(b, packModelId, accessoryIds);
        if (!same) {
            em.lock(b, LockModeType.OPTIMISTIC_FORCE_INCREMENT);
        }
        em.flush();
        if (!same) {
            events.publishEvent(new BuildChanged(b.id, "the build " + b.name + " of " + b.aircraft.name + " changed"));
        }
        return views(List.of(b)).get(0);
    }

    /** Records a weighing of the build as it stands. */
    @Transactional
    public void weigh(UUID buildId, LocalDate on, String scale, Mass mass, Mass resolution) {
        BuildView b = build(buildId);
        WeighingEntity w = new WeighingEntity(UUID.randomUUID());
        w.buildId = buildId;
        w.weighedOn = on;
        w.scale = scale;
        w.massG = BigDecimal.valueOf(mass.toGrams());
        w.resolutionG = BigDecimal.valueOf(resolution.toGrams());
        w.partIds = b.mass().parts().stream().map(Part::id).sorted().collect(Collectors.joining(" "));
        em.persist(w);
        em.flush();
        events.publishEvent(new BuildChanged(
                buildId, "the build " + b.name() + " of " + b.aircraft().name() + " was weighed"));
    }

    /** Class, headroom, and what of the owned accessories and fitting packs would cross the next threshold. */
    @Transactional(readOnly = true)
    public Optional<Weighed> weighed(BuildView b, String jurisdiction) {
        List<Headroom.Candidate> candidates = new ArrayList<>();
        for (AccessoryView a : accessories()) {
            if (!b.accessoryIds().contains(a.id())) {
                candidates.add(new Headroom.Candidate(a.name(), Mass.ofGrams(a.massG()), false));
            }
        }
        AircraftModel model = find(AircraftModel.class, b.aircraft().model().id(), "model");
        for (PackModel p : model.packs) {
            if (!p.id.equals(b.pack().id())) {
                candidates.add(new Headroom.Candidate(
                        "pack " + p.name, Mass.ofGrams(p.massG.subtract(b.pack().massG())), true));
            }
        }
        return classify(b.mass(), candidates, jurisdiction);
    }

    /** Class and headroom of any take-off mass; empty when the jurisdiction has no pack. */
    public Optional<Weighed> classify(TakeoffMass mass, List<Headroom.Candidate> candidates, String jurisdiction) {
        List<MassClass> classes = rulebook.massClasses(jurisdiction);
        if (classes.isEmpty()) {
            return Optional.empty();
        }
        MassClass.Placement placement = MassClass.place(mass, classes);
        return Optional.of(new Weighed(
                mass, placement, Headroom.crossings(mass, placement.massClass().below(), candidates), jurisdiction));
    }

    /** Has what rests on a changed aircraft, build, model or part follow. */
    void restored(AircraftEntity a) {
        names.changed();
        buildsChanged(
                "select b.id from BuildEntity b where b.aircraft.id = :id",
                a.id,
                "a change of " + a.name + " was taken back");
    }

    void restored(BuildEntity b) {
        events.publishEvent(new BuildChanged(b.id, "a change of the build " + b.name + " was taken back"));
    }

    void restored(AircraftModel m) {
        buildsChanged(
                "select b.id from BuildEntity b where b.aircraft.model.id = :id",
                m.id,
                "a change of " + m.name + " was taken back");
    }

    void restored(Accessory a) {
        buildsChanged(
                "select b.id from BuildEntity b join b.accessories x where x.id = :id",
                a.id,
                "a change of " + a.name + " was taken back");
    }

    private void buildsChanged(String query, UUID id, String what) {
        em.createQuery(query, UUID.class)
                .setParameter("id", id)
                .getResultList()
                .forEach(b -> events.publishEvent(new BuildChanged(b, what)));
    }

    private List<BuildView> views(List<BuildEntity> builds) {
        Map<UUID, List<WeighingEntity>> weighings = new HashMap<>();
        if (!builds.isEmpty()) {
            em.createQuery("from WeighingEntity w where w.buildId in :ids", WeighingEntity.class)
                    .setParameter("ids", builds.stream().map(b -> b.id).toList())
                    .getResultStream()
                    .forEach(w -> weighings
                            .computeIfAbsent(w.buildId, k -> new ArrayList<>())
                            .add(w));
        }
        return builds.stream()
                .map(b -> {
                    List<Part> parts = new ArrayList<>();
                    parts.add(b.aircraft.part());
                    parts.add(b.pack.part());
                    Set<String> lights = new TreeSet<>(lights(b.aircraft.model.lights));
                    for (Accessory a : b.accessories) {
                        parts.add(a.part());
                        if (a.light != null) {
                            lights.add(a.light);
                        }
                    }
                    TakeoffMass mass = TakeoffMass.of(
                            parts,
                            weighings.getOrDefault(b.id, List.of()).stream()
                                    .map(WeighingEntity::weighing)
                                    .toList());
                    return new BuildView(
                            b.id,
                            b.version,
                            b.name,
                            view(b.aircraft),
                            view(b.pack),
                            b.accessories.stream().map(a -> a.id).collect(Collectors.toSet()),
                            b.accessories.stream().map(a -> a.name).toList(),
                            lights,
                            mass);
                })
                .toList();
    }

    private void requireFree(String entity, String field, String value, UUID id, String what) {
        boolean taken = em.createQuery(
                                "select count(e) from " + entity + " e where e." + field + " = :v and e.id <> :id",
                                Long.class)
                        .setParameter("v", value)
                        .setParameter("id", id)
                        .getSingleResult()
                > 0;
        if (taken) {
            throw new IllegalArgumentException(
                    "there is " + (what.matches("[aeiou].*") ? "an " : "a ") + what + " “" + value + "” already");
        }
    }

    private <T> T find(Class<T> type, UUID id, String what) {
        T found = em.find(type, id);
        if (found == null) {
            throw new NotFoundException(what);
        }
        return found;
    }

    private static Set<String> lights(String stored) {
        return stored.isBlank() ? Set.of() : Set.of(stored.split(","));
    }

    private static ModelView view(AircraftModel m) {
        return new ModelView(
                m.id,
                m.version,
                m.maker,
                m.name,
                m.airframeMassG,
                m.toleranceG,
                m.maxTakeoffMassG,
                m.classMark,
                m.privatelyBuilt,
                m.hasCamera,
                m.isToy,
                m.maxLevelSpeedMps,
                m.dimensionM,
                m.windLimitMps,
                m.temperatureMinC,
                m.temperatureMaxC,
                m.maxHeightM,
                m.remoteId,
                lights(m.lights),
                m.flightMinutes == null
                        ? null
                        : new PackLasts.Leaflet(m.flightMinutes, m.flightMinutesStated, m.flightMinutesWh),
                m.packs.stream().map(p -> p.id).collect(Collectors.toSet()));
    }

    private static PackModelView view(PackModel m) {
        return new PackModelView(m.id, m.version, m.name, m.massG, m.toleranceG, m.capacityMah, m.cells, m.nominalV);
    }

    private static AircraftView view(AircraftEntity a) {
        return new AircraftView(
                a.id,
                a.version,
                a.name,
                a.serial,
                view(a.model),
                a.marketDate,
                a.boughtOn,
                a.weighedG,
                a.weighedResolutionG,
                a.weighedOn,
                a.weighedScale,
                a.remoteIdActive,
                a.geoAwarenessCurrent,
                a.flownS,
                a.landings);
    }

    private static PackView view(PackEntity p) {
        return new PackView(
                p.id,
                p.version,
                p.label,
                p.serial,
                view(p.model),
                p.boughtOn,
                p.drawnMah,
                p.equivalentCycles,
                p.flights,
                p.flightsWithoutCharge);
    }
}
