package yarrek.app.flights;

import jakarta.persistence.EntityManager;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.Assessments;
import yarrek.core.flight.FlightFinder;
import yarrek.core.geo.Position;
import yarrek.core.trace.Trace;
import yarrek.core.trace.TraceCodec;

/** The register of flights: whom and what each is counted to, and what is said of it. */
@Service
public class Flights {
    private static final double HALF_A_STEP_S = 5e-4; // stored instants are whole microseconds, stored times 0.1 ms

    /** Whom and what a flight is counted to; a null is not known. */
    public record Attribution(UUID aircraftId, UUID packId, UUID pilotId, UUID jobId) {
        public static final Attribution NONE = new Attribution(null, null, null, null);
    }

    /** A flight in a list. */
    public record Row(
            UUID id,
            UUID logId,
            Instant takeoff,
            ZoneId zone,
            double durationS,
            String aircraft,
            String pilot,
            UUID pilotId,
            String pack,
            String job,
            UUID jobId,
            double pathM,
            Double distanceM,
            Double heightM,
            Double chargeMah,
            int breached,
            int notKnown,
            int close,
            String worst,
            boolean lookedAt) {
        /** Name of the status shape. */
        public String shape() {
            return breached > 0 ? "notch" : notKnown > 0 ? "dots" : close > 0 ? "cut" : "full";
        }

        /** What the judging found, and whether anybody looked at it. */
        public String standing() {
            String found =
                    breached > 0 ? breached + " breached" : notKnown > 0 ? notKnown + " not known" : "no breach found";
            return found + (lookedAt ? "" : ", new");
        }
    }

    /** A flight whole, without its trace. */
    public record FlightView(
            UUID id,
            long version,
            Row row,
            FlightFigures figures,
            AssessmentRow assessment,
            Attribution attribution,
            LogView log,
            Double equivalentCycles,
            boolean counted) {}

    /** A log as others see it. */
    public record LogView(
            UUID id,
            String fileName,
            String sha256,
            long sizeBytes,
            String format,
            List<String> notes,
            boolean truncated,
            String by,
            Instant at) {}

    private final EntityManager em;
    private final JsonMapper json;
    private final FlightJudging judging;
    private final Assessments assessments;
    private final Jobs jobs;
    private final Fleet fleet;
    private final Crew crew;
    private final Office office;

    Flights(
            EntityManager em,
            JsonMapper json,
            FlightJudging judging,
            Assessments assessments,
            Jobs jobs,
            Fleet fleet,
            Crew crew,
            Office office) {
        this.em = em;
        this.json = json;
        this.judging = judging;
        this.assessments = assessments;
        this.jobs = jobs;
        this.fleet = fleet;
        this.crew = crew;
        this.office = office;
    }

    /** Says whom and what it is to be counted to; it is not counted by that. */
    void attribute(FlightEntity f, Attribution a) {
        f.aircraftId = a.aircraftId();
        f.packId = a.packId();
        f.pilotId = a.pilotId();
        f.jobId = a.jobId();
        // a flight of no job has nothing that says where it was: its clock is that of the operator's home
        f.zone = (a.jobId() == null
                        ? office.operator().zone()
                        : jobs.jobUnchecked(a.jobId()).site().zone())
                .getId();
    }

    // --- counting ----------------------------------------------------------------------------------------------------

    /** The flight within its stored trace, by its take-off and landing. */
    static FlightFinder.Span span(Trace trace, FlightEntity f) {
        return span(trace, f.takeoff, f.landing, f.beginsInAir, f.endsInAir);
    }

    /** The same by its figures. */
    static FlightFinder.Span span(Trace trace, FlightFigures f) {
        return span(trace, f.takeoffUtc(), f.landingUtc(), f.beginsInTheAir(), f.endsInTheAir());
    }

    private static FlightFinder.Span span(
            Trace trace, Instant takeoff, Instant landing, boolean beginsInAir, boolean endsInAir) {
        return new FlightFinder.Span(
                indexAt(trace, takeoff), indexAt(trace, landing), beginsInAir, endsInAir, 0, trace.size() - 1);
    }

    private static int indexAt(Trace trace, Instant at) {
        double seconds = Duration.between(trace.start(), at).toNanos() / 1e9;
        int found = java.util.Arrays.binarySearch(trace.seconds(), seconds - HALF_A_STEP_S);
        return Math.min(trace.size() - 1, found >= 0 ? found : -found - 1);
    }

    /** The pilot's newest day in the logbook, with this flight or without it. */
    private LocalDate lastFlight(FlightEntity f, boolean with) {
        Instant other = em.createQuery(
                        "select max(x.takeoff) from FlightEntity x where x.pilotId = :p and x.counted and x.id <> :id",
                        Instant.class)
                .setParameter("p", f.pilotId)
                .setParameter("id", f.id)
                .getSingleResult();
        Instant last = with && (other == null || f.takeoff.isAfter(other)) ? f.takeoff : other;
        return last == null ? null : last.atZone(ZoneId.of(f.zone)).toLocalDate();
    }

    /** Counts it, by 1, or takes it back, by -1. */
    void count(FlightEntity f, int sign) {
        long seconds = sign * Math.round(f.durationS);
        if (f.aircraftId != null) {
            fleet.countAircraft(f.aircraftId, seconds, f.endsInAir ? 0 : sign);
        }
        if (f.pilotId != null) {
            crew.count(f.pilotId, seconds, f.endsInAir ? 0 : sign, lastFlight(f, sign > 0));
        }
        if (f.packId != null) {
            fleet.countPack(f.packId, Optional.ofNullable(f.chargeMah), sign);
        }
        f.counted = sign > 0;
    }

    /**
     * Changes whom and what a flight is counted to, judges and counts it anew.
     *
     * @throws LostUpdateException when somebody else changed it since {@code version}
     */
    @Transactional
    public void change(UUID id, long version, Attribution a) {
        FlightEntity f = entity(id);
        if (f.version != version) {
            throw new LostUpdateException(f.version);
        }
        if (f.counted) {
            count(f, -1);
        }
        attribute(f, a);
        judgeStored(f);
        count(f, 1);
    }

    /** Judges a stored flight again by the rules and facts as they are now. */
    private void judgeStored(FlightEntity f) {
        Trace trace = TraceCodec.decode(em.find(FlightTrace.class, f.id).content);
        Optional<Position> pilot = em.createQuery(
                        "from FlightEntity x where x.logId = :l and x.numberInLog = 1", FlightEntity.class)
                .setParameter("l", f.logId)
                .getResultStream()
                .filter(x -> x.takeoffLat != null)
                .map(x -> new Position(x.takeoffLat, x.takeoffLon))
                .findFirst();
        judging.read(List.of(f)).judge(f, trace, pilot);
    }

    @Transactional
    public void lookedAt(UUID id) {
        entity(id).lookedAt = true;
    }

    // --- reading -----------------------------------------------------------------------------------------------------

    private FlightEntity entity(UUID id) {
        FlightEntity f = em.find(FlightEntity.class, id);
        if (f == null) {
            throw new NotFoundException("flight");
        }
        return f;
    }

    /** The newest flights the viewer may see. */
    @Transactional(readOnly = true)
    public List<Row> newest(Viewer viewer, int from, int most) {
        String mine = viewer.isPilot() ? " where f.pilotId = :me" : "";
        var query = em.createQuery("from FlightEntity f" + mine + " order by f.takeoff desc", FlightEntity.class)
                .setFirstResult(from)
                .setMaxResults(most);
        if (viewer.isPilot()) {
            query.setParameter("me", viewer.personId());
        }
        return rows(query.getResultList());
    }

    /** How many flights the viewer may see. */
    /** When each pack that was ever flown took off last. */
    @Transactional(readOnly = true)
    public Map<UUID, Instant> lastFlownByPack() {
        return em.createQuery(
                        "select f.packId, max(f.takeoff) from FlightEntity f where f.packId is not null group by f.packId",
                        Object[].class)
                .getResultStream()
                .collect(Collectors.toMap(r -> (UUID) r[0], r -> (Instant) r[1]));
    }

    @Transactional(readOnly = true)
    public long count(Viewer viewer) {
        String mine = viewer.isPilot() ? " where f.pilotId = :me" : "";
        var query = em.createQuery("select count(f) from FlightEntity f" + mine, Long.class);
        if (viewer.isPilot()) {
            query.setParameter("me", viewer.personId());
        }
        return query.getSingleResult();
    }

    /** Flights that nobody has looked at, those with breaches first. */
    @Transactional(readOnly = true)
    public List<Row> notLookedAt(Viewer viewer, int most) {
        String mine = viewer.isPilot() ? " and f.pilotId = :me" : "";
        var query = em.createQuery(
                        "from FlightEntity f where f.lookedAt = false" + mine
                                + " order by f.breached desc, f.takeoff desc",
                        FlightEntity.class)
                .setMaxResults(most);
        if (viewer.isPilot()) {
            query.setParameter("me", viewer.personId());
        }
        return rows(query.getResultList());
    }

    @Transactional(readOnly = true)
    public List<Row> ofJob(UUID jobId) {
        return rows(em.createQuery("from FlightEntity f where f.jobId = :j order by f.takeoff", FlightEntity.class)
                .setParameter("j", jobId)
                .getResultList());
    }

    /** More are not offered to be laid beside a flight. */
    private static final int MOST_BESIDE = 50;

    /** Other flights of the same job that the viewer may see, to be laid beside it. */
    @Transactional(readOnly = true)
    public List<Row> besides(FlightView f, Viewer viewer) {
        return f.row().jobId() == null
                ? List.of()
                : ofJob(f.row().jobId()).stream()
                        .filter(r -> !r.id().equals(f.id()) && viewer.maySee(r.pilotId()))
                        .limit(MOST_BESIDE)
                        .toList();
    }

    private List<Row> rows(List<FlightEntity> flights) {
        if (flights.isEmpty()) {
            return List.of();
        }
        Map<UUID, String> aircraft = fleet.aircraftNames();
        Map<UUID, String> packs = fleet.packLabels(flights.stream()
                .map(f -> f.packId)
                .filter(java.util.Objects::nonNull)
                .collect(Collectors.toSet()));
        Map<UUID, String> people = crew.names();
        Map<UUID, String> jobNames = jobs.names(
                flights.stream().map(f -> f.jobId).filter(Objects::nonNull).collect(Collectors.toSet()));
        return flights.stream()
                .map(f -> new Row(
                        f.id,
                        f.logId,
                        f.takeoff,
                        ZoneId.of(f.zone),
                        f.durationS,
                        name(aircraft, f.aircraftId),
                        name(people, f.pilotId),
                        f.pilotId,
                        name(packs, f.packId),
                        name(jobNames, f.jobId),
                        f.jobId,
                        f.pathM,
                        f.distanceM,
                        f.heightM,
                        f.chargeMah,
                        f.breached,
                        f.notKnown,
                        f.closeCount,
                        f.worst,
                        f.lookedAt))
                .toList();
    }

    private static String name(Map<UUID, String> names, UUID id) {
        return id == null ? null : names.get(id);
    }

    /** Law and category a flight was judged under, by fact; says nothing of who flew, so everybody may see it. */
    @Transactional(readOnly = true)
    public Map<String, String> judgedUnder(UUID id) {
        return assessments.of(entity(id).id).orElseThrow().facts().stream()
                .filter(f -> f.name().equals("category") || f.name().equals("jurisdiction"))
                .collect(Collectors.toMap(AssessmentRow.FactRow::name, AssessmentRow.FactRow::value));
    }

    /** @throws NotFoundException when there is none; access is denied when it is not the viewer's to see */
    @Transactional(readOnly = true)
    public FlightView flight(UUID id, Viewer viewer) {
        FlightEntity f = entity(id);
        viewer.requireSight(f.pilotId);
        FlightLog log = em.find(FlightLog.class, f.logId);
        FlightFigures figures = json.readValue(em.find(FlightFiguresText.class, id).figures, FlightFigures.class);
        Double cycles = f.packId == null || f.chargeMah == null
                ? null
                : f.chargeMah / fleet.pack(f.packId).model().capacityMah();
        return new FlightView(
                f.id,
                f.version,
                rows(List.of(f)).get(0),
                figures,
                assessments.of(id).orElseThrow(),
                new Attribution(f.aircraftId, f.packId, f.pilotId, f.jobId),
                view(log),
                cycles,
                f.counted);
    }

    private LogView view(FlightLog log) {
        return new LogView(
                log.id,
                log.fileName,
                log.sha256,
                log.sizeBytes,
                log.format,
                List.of(json.readValue(log.notes, String[].class)),
                log.truncated,
                log.broughtInBy,
                log.broughtInAt);
    }

    @Transactional(readOnly = true)
    public boolean maySee(UUID id, Viewer viewer) {
        return viewer.maySee(entity(id).pilotId);
    }

    /** The stored trace, on the clock of the flight's share of the log. */
    @Transactional(readOnly = true)
    public Trace trace(UUID id, Viewer viewer) {
        viewer.requireSight(entity(id).pilotId);
        return TraceCodec.decode(em.find(FlightTrace.class, id).content);
    }

    /** The original file with its name. */
    @Transactional(readOnly = true)
    public Map.Entry<String, byte[]> original(UUID flightId, Viewer viewer) {
        FlightEntity f = entity(flightId);
        viewer.requireSight(f.pilotId);
        return Map.entry(em.find(FlightLog.class, f.logId).fileName, em.find(FlightLogContent.class, f.logId).content);
    }

    static String sha256(byte[] content) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    static String cut(String name) {
        String clean = name == null || name.isBlank() ? "log" : name.replaceAll("[\\p{Cntrl}/\\\\]", "_");
        return clean.length() > 200 ? clean.substring(0, 200) : clean;
    }
}
