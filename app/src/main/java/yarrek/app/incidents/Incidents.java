package yarrek.app.incidents;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.flights.Flights;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.FindingRow;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/** What went wrong. */
@Service
public class Incidents {
    private static final DateTimeFormatter MOMENT =
            DateTimeFormatter.ofPattern("d MMM yyyy HH:mm:ss 'UTC'", Locale.UK).withZone(ZoneOffset.UTC);

    /** What it was can be said later; that it happened is said at once. */
    public static final String NOT_SORTED = "not sorted yet";

    /** Kinds, as people say them. */
    public static final List<String> KINDS = List.of(
            "injury",
            "damage to others",
            "damage to own",
            "near miss with a crewed aircraft",
            "fly-away",
            "lost",
            "flight into a zone",
            "limit exceeded",
            "complaint or privacy",
            "pack fire or swelling",
            "other",
            NOT_SORTED);

    /**
     * What an incident belongs to; a null is not known.
     *
     * @param jurisdiction law of the place where it happened
     */
    public record About(String jurisdiction, UUID jobId, UUID aircraftId, UUID pilotId) {
        public static final About NOTHING = new About(null, null, null, null);
    }

    /** An incident; a null is not known. */
    public record View(
            UUID id,
            long version,
            String kind,
            String statement,
            Instant happenedAt,
            Double lat,
            Double lon,
            UUID flightId,
            String ruleId,
            String breach,
            String harm,
            String state,
            String openedBy,
            Instant openedAt,
            About about) {
        public boolean isOpen() {
            return state.equals("OPEN");
        }

        /** Name of the status shape. */
        public String shape() {
            return isOpen() ? "notch" : "full";
        }

        public String standing() {
            return isOpen() ? "open" : "closed";
        }
    }

    private final EntityManager em;
    private final Clock clock;
    private final Flights flights;
    private final Jobs jobs;
    private final JdbcClient jdbc;

    Incidents(EntityManager em, Clock clock, Flights flights, Jobs jobs, JdbcClient jdbc) {
        this.em = em;
        this.clock = clock;
        this.flights = flights;
        this.jobs = jobs;
        this.jdbc = jdbc;
    }

    /** What an incident opened from a breach begins with: time, place and the breach in words. */
    @Transactional(readOnly = true)
    public View fromBreach(UUID flightId, String ruleId, int interval, Viewer viewer) {
        Flights.FlightView f = flights.flight(flightId, viewer);
        FindingRow finding = f.assessment().findings().stream()
                .filter(x -> x.ruleId().equals(ruleId)
                        && interval >= 0
                        && interval < x.intervals().size())
                .findFirst()
                .orElseThrow(() -> new NotFoundException("breach in that flight"));
        FindingRow.IntervalRow i = finding.intervals().get(interval);
        Trace trace = flights.trace(flightId, viewer);
        int index = nearest(trace.seconds(), i.worstS());
        double lat = trace.at(Channel.LATITUDE_DEG, index);
        double lon = trace.at(Channel.LONGITUDE_DEG, index);
        String words = finding.title() + " (" + finding.citation() + "): " + finding.says() + ". From "
                + MOMENT.format(trace.instant(i.fromS())) + " to "
                + MOMENT.format(trace.instant(i.toS())) + ", log "
                + f.log().fileName() + ", SHA-256 " + f.log().sha256();
        return new View(
                null,
                -1,
                finding.ruleId().contains("ZONE") ? "flight into a zone" : "limit exceeded",
                "",
                trace.instant(i.worstS()),
                Double.isNaN(lat) ? null : lat,
                Double.isNaN(lon) ? null : lon,
                flightId,
                ruleId,
                words,
                "none",
                "OPEN",
                viewer.name(),
                clock.instant(),
                of(f.attribution()));
    }

    private About of(Flights.Attribution a) {
        return new About(
                a.jobId() == null ? null : jobs.jobUnchecked(a.jobId()).site().jurisdiction(),
                a.jobId(),
                a.aircraftId(),
                a.pilotId());
    }

    private static int nearest(double[] seconds, double s) {
        int found = java.util.Arrays.binarySearch(seconds, s);
        return Math.max(0, Math.min(seconds.length - 1, found >= 0 ? found : -found - 1));
    }

    /**
     * Stores an incident; a null id makes a new one.
     *
     * @throws LostUpdateException when somebody else saved it in between
     * @throws IllegalArgumentException when it happened in the future
     */
    @Transactional
    public UUID save(View v, Viewer viewer) {
        if (v.happenedAt().isAfter(clock.instant().plusSeconds(60))) {
            throw new IllegalArgumentException("it cannot have happened in the future");
        }
        if (v.flightId() != null) {
            flights.flight(v.flightId(), viewer);
        }
        Incident i = v.id() == null ? new Incident(UUID.randomUUID()) : entity(v.id());
        if (v.id() != null && v.version() != i.version) {
            throw new LostUpdateException(i.version);
        }
        i.kind = v.kind();
        i.statement = v.statement();
        i.happenedAt = v.happenedAt();
        i.lat = v.lat();
        i.lon = v.lon();
        i.harm = v.harm();
        i.state = v.state();
        About about = v.about();
        i.jobId = about.jobId();
        i.aircraftId = about.aircraftId();
        i.pilotId = about.pilotId();
        i.jurisdiction = about.jurisdiction() != null || about.jobId() == null
                ? about.jurisdiction()
                : jobs.jobUnchecked(about.jobId()).site().jurisdiction();
        if (v.id() == null) {
            i.flightId = v.flightId();
            i.ruleId = v.ruleId();
            i.breach = v.breach();
            i.openedBy = viewer.name();
            i.openedById = viewer.userId();
            i.openedAt = clock.instant();
            em.persist(i);
        }
        em.flush();
        return i.id;
    }

    @Transactional(readOnly = true)
    public List<View> all(Viewer viewer) {
        return em.createQuery("from Incident i order by i.state desc, i.happenedAt desc", Incident.class)
                .getResultStream()
                .filter(i -> maySee(i, viewer))
                .map(Incidents::view)
                .toList();
    }

    @Transactional(readOnly = true)
    public List<View> open(Viewer viewer) {
        return all(viewer).stream().filter(View::isOpen).toList();
    }

    @Transactional(readOnly = true)
    public View incident(UUID id, Viewer viewer) {
        Incident i = entity(id);
        if (!maySee(i, viewer)) {
            throw new NotFoundException("incident");
        }
        return view(i);
    }

    /** A pilot sees what they opened, and what they flew. Two of one name are two. */
    private static boolean maySee(Incident i, Viewer viewer) {
        return !viewer.isPilot()
                || viewer.userId().equals(i.openedById)
                || (i.pilotId != null && i.pilotId.equals(viewer.personId()));
    }

    private Incident entity(UUID id) {
        Incident i = em.find(Incident.class, id);
        if (i == null) {
            throw new NotFoundException("incident");
        }
        return i;
    }

    private static View view(Incident i) {
        return new View(
                i.id,
                i.version,
                i.kind,
                i.statement,
                i.happenedAt,
                i.lat,
                i.lon,
                i.flightId,
                i.ruleId,
                i.breach,
                i.harm,
                i.state,
                i.openedBy,
                i.openedAt,
                new About(i.jurisdiction, i.jobId, i.aircraftId, i.pilotId));
    }

    // --- duties ------------------------------------------------------------------------------------------------------

    /** A duty that is done, or found not to be due. */
    public record Settled(String ruleId, String note, String by, Instant at) {}

    @Transactional(readOnly = true)
    public Map<String, Settled> settled(UUID id) {
        Map<String, Settled> all = new java.util.HashMap<>();
        jdbc.sql("select rule_id, note, settled_by, settled_at from incident_duty where incident_id = ?")
                .param(id)
                .query((r, n) -> new Settled(
                        r.getString(1),
                        r.getString(2),
                        r.getString(3),
                        r.getTimestamp(4).toInstant()))
                .list()
                .forEach(x -> all.put(x.ruleId(), x));
        return all;
    }

    /**
     * Says that a duty is done, or why it is not due; an empty note takes it back.
     *
     * @throws IllegalArgumentException when the note is too long
     */
    @Transactional
    public void settle(UUID id, String ruleId, String note, Viewer viewer) {
        incident(id, viewer);
        if (note.length() > 1000) {
            throw new IllegalArgumentException("at most 1,000 characters can be kept of what was done");
        }
        jdbc.sql("delete from incident_duty where incident_id = ? and rule_id = ?")
                .params(id, ruleId)
                .update();
        if (!note.isBlank()) {
            jdbc.sql("insert into incident_duty values (?, ?, ?, ?, ?)")
                    .params(id, ruleId, note.strip(), viewer.name(), java.sql.Timestamp.from(clock.instant()))
                    .update();
        }
    }
}
