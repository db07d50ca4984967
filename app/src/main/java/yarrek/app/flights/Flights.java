package yarrek.app.flights;

import jakarta.persistence.EntityManager;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.approvals.Approvals;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.Jobs;
import yarrek.app.judging.Wanted;
import yarrek.app.office.Office;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.Assessments;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.app.web.LostUpdateException;
import yarrek.app.web.NotFoundException;
import yarrek.app.web.Viewer;
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightJudge;
import yarrek.core.flight.FlightSummary;
import yarrek.core.geo.Position;
import yarrek.core.judging.FlightInput;
import yarrek.core.judging.PlanInput;
import yarrek.core.rulebook.FlightFacts;
import yarrek.core.rulebook.Tally;
import yarrek.core.time.TimeWindow;
import yarrek.core.trace.Trace;
import yarrek.core.trace.TraceCodec;
import yarrek.formats.csv.CsvLogReader;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.csv.ReadingPlan;
import yarrek.formats.gpx.GpxReader;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.log.Problem;

/** Brings logs in, judges the flights in them, and counts them to aircraft, pack and pilot. */
@Service
public class Flights {
    private static final Duration UPLOADS_KEPT = Duration.ofDays(1);
    private static final double SECONDS_PER_HOUR = 3600;
    private static final int LONGEST_FLIGHT_H = 24;
    private static final double SAME_PLACE_DEG = 5e-4; // some 50 m: two receivers on one aircraft, never two at work
    private static final int MAX_NOTES_PROBLEMS = 20;
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

    /**
     * What became of a file.
     *
     * @param uploadId set when its columns have to be matched first; nothing but the file itself is kept then
     * @param already whether the same file was there before
     */
    public record Outcome(UUID logId, List<UUID> flights, UUID uploadId, boolean already, List<String> notes) {}

    /** A file whose columns wait to be matched. */
    public record Matching(UUID uploadId, String fileName, CsvSheet sheet, ReadingPlan plan, List<String> gaps) {}

    private final EntityManager em;
    private final Clock clock;
    private final JsonMapper json;
    private final Rulebook rulebook;
    private final Assessments assessments;
    private final Jobs jobs;
    private final Fleet fleet;
    private final Crew crew;
    private final Office office;

    Flights(
            EntityManager em,
            Clock clock,
            JsonMapper json,
            Rulebook rulebook,
            Assessments assessments,
            Jobs jobs,
            Fleet fleet,
            Crew crew,
            Office office,
            Approvals approvals) {
        this.em = em;
        this.clock = clock;
        this.json = json;
        this.rulebook = rulebook;
        this.assessments = assessments;
        this.jobs = jobs;
        this.fleet = fleet;
        this.crew = crew;
        this.office = office;
    }

    // --- bringing in -------------------------------------------------------------------------------------------------

    /**
     * Brings a file in. GPX is read at once; delimited text by the saved plan for its headers, else it waits for its
     * columns to be matched. Everything of one file is stored together or not at all.
     *
     * @throws BrokenFileException when nothing can be read; nothing is stored then
     */
    @Transactional(rollbackFor = Exception.class)
    public Outcome bringIn(String fileName, byte[] content, Attribution attribution, String by)
            throws BrokenFileException {
        Optional<Outcome> already = already(content);
        if (already.isPresent()) {
            return already.get();
        }
        requireContent(content);
        if (isXml(content)) {
            return store(fileName, content, "GPX", GpxReader.read(content), attribution, by);
        }
        CsvSheet sheet = CsvSheet.look(content);
        Optional<ReadingPlan> saved = savedPlan(sheet);
        if (saved.isPresent() && saved.get().gaps().isEmpty()) {
            return store(fileName, content, "CSV", CsvLogReader.read(sheet, saved.get()), attribution, by);
        }
        em.createQuery("delete from Upload u where u.uploadedAt < :old")
                .setParameter("old", clock.instant().minus(UPLOADS_KEPT))
                .executeUpdate();
        Upload upload = new Upload(UUID.randomUUID(), cut(fileName), sha256(content), content, by, clock.instant());
        em.persist(upload);
        return new Outcome(null, List.of(), upload.id, false, List.of());
    }

    /**
     * Brings a file in without a matching step: by the given plan, else the saved one, else the suggestion.
     *
     * @throws BrokenFileException when columns stay open or nothing can be read; nothing is stored then
     */
    @Transactional(rollbackFor = Exception.class)
    public Outcome bringInDirectly(
            String fileName, byte[] content, Optional<ReadingPlan> plan, Attribution attribution, String by)
            throws BrokenFileException {
        Optional<Outcome> already = already(content);
        if (already.isPresent()) {
            return already.get();
        }
        requireContent(content);
        if (isXml(content)) {
            return store(fileName, content, "GPX", GpxReader.read(content), attribution, by);
        }
        CsvSheet sheet = CsvSheet.look(content);
        ReadingPlan chosen = plan.or(() -> savedPlan(sheet)).orElseGet(() -> PlanSuggester.suggest(sheet));
        return store(fileName, content, "CSV", CsvLogReader.read(sheet, chosen), attribution, by);
    }

    private static void requireContent(byte[] content) throws BrokenFileException {
        if (content.length == 0) {
            throw new BrokenFileException("log.empty", "the file is empty; nothing to bring in");
        }
    }

    private Optional<Outcome> already(byte[] content) {
        return em.createQuery("from FlightLog l where l.sha256 = :h", FlightLog.class)
                .setParameter("h", sha256(content))
                .getResultStream()
                .findFirst()
                .map(l -> new Outcome(l.id, flightIds(l.id), null, true, List.of()));
    }

    private List<UUID> flightIds(UUID logId) {
        return em.createQuery("select f.id from FlightEntity f where f.logId = :l order by f.numberInLog", UUID.class)
                .setParameter("l", logId)
                .getResultList();
    }

    private static boolean isXml(byte[] content) {
        String head =
                new String(content, 0, Math.min(content.length, 400), StandardCharsets.ISO_8859_1).replace("\0", "");
        int from = 0;
        while (from < head.length() && (Character.isWhitespace(head.charAt(from)) || head.charAt(from) > 0x7F)) {
            from++; // white space and byte order marks
        }
        return from < head.length() && head.charAt(from) == '<';
    }

    private Optional<ReadingPlan> savedPlan(CsvSheet sheet) {
        return em.createQuery("from SavedPlan p where p.signature = :s", SavedPlan.class)
                .setParameter("s", ReadingPlan.signature(sheet.headers()))
                .getResultStream()
                .findFirst()
                .map(p -> withStart(
                        json.readValue(p.plan, ReadingPlan.class),
                        PlanSuggester.suggest(sheet).start()));
    }

    private static ReadingPlan withStart(ReadingPlan p, Optional<Instant> start) {
        return new ReadingPlan(p.columns(), p.decimalComma(), p.zone(), p.dateOrder(), start);
    }

    /** @throws BrokenFileException when the file is not a table after all */
    @Transactional(readOnly = true)
    public Matching matching(UUID uploadId) throws BrokenFileException {
        Upload upload = em.find(Upload.class, uploadId);
        if (upload == null) {
            throw new NotFoundException("file waiting to be matched");
        }
        CsvSheet sheet = CsvSheet.look(upload.content);
        ReadingPlan plan = savedPlan(sheet).orElseGet(() -> PlanSuggester.suggest(sheet));
        return new Matching(uploadId, upload.fileName, sheet, plan, plan.gaps());
    }

    /**
     * Reads a waiting file by the plan, stores its flights, and saves the plan for the next file with these headers.
     *
     * @throws BrokenFileException when the plan leaves something open or nothing can be read; the file keeps waiting
     */
    @Transactional(rollbackFor = Exception.class)
    public Outcome match(UUID uploadId, ReadingPlan plan, String planName, Attribution attribution, String by)
            throws BrokenFileException {
        Upload upload = em.find(Upload.class, uploadId);
        if (upload == null) {
            throw new NotFoundException("file waiting to be matched");
        }
        CsvSheet sheet = CsvSheet.look(upload.content);
        Outcome outcome =
                store(upload.fileName, upload.content, "CSV", CsvLogReader.read(sheet, plan), attribution, by);
        String signature = ReadingPlan.signature(sheet.headers());
        Optional<SavedPlan> known = em.createQuery("from SavedPlan p where p.signature = :s", SavedPlan.class)
                .setParameter("s", signature)
                .getResultStream()
                .findFirst();
        SavedPlan saved = known.orElseGet(() -> new SavedPlan(UUID.randomUUID(), signature));
        saved.name = planName.isBlank() ? upload.fileName : planName;
        saved.plan = json.writeValueAsString(withStart(plan, Optional.empty()));
        saved.savedAt = clock.instant();
        if (known.isEmpty()) {
            em.persist(saved);
        }
        em.remove(upload);
        return outcome;
    }

    private Outcome store(
            String fileName, byte[] content, String format, LogReading reading, Attribution given, String by)
            throws BrokenFileException {
        Trace trace = reading.trace();
        List<FlightFinder.Span> spans = FlightFinder.find(trace);
        if (spans.isEmpty()) {
            throw new BrokenFileException(
                    "log.noflight",
                    "no flight was found in this log: nothing in its " + trace.size()
                            + " rows left the ground. Nothing was stored.");
        }
        for (FlightFinder.Span s : spans) {
            double hours = (trace.seconds()[s.landing()] - trace.seconds()[s.takeoff()]) / SECONDS_PER_HOUR;
            if (hours > LONGEST_FLIGHT_H) {
                throw new BrokenFileException(
                        "log.day",
                        "the flight from " + trace.instant(trace.seconds()[s.takeoff()]) + " would last "
                                + Math.round(hours) + " h; no flight lasts longer than " + LONGEST_FLIGHT_H
                                + " h, so a time in the log is wrong. Nothing was stored.");
            }
        }
        FlightLog log = new FlightLog(UUID.randomUUID());
        log.fileName = cut(fileName);
        log.sha256 = sha256(content);
        log.sizeBytes = content.length;
        log.format = format;
        log.truncated = reading.truncated();
        List<String> notes = new ArrayList<>(reading.notes());
        reading.problems().stream()
                .limit(MAX_NOTES_PROBLEMS)
                .map(Problem::sentence)
                .forEach(notes::add);
        if (reading.problemCount() > MAX_NOTES_PROBLEMS) {
            notes.add("and " + (reading.problemCount() - MAX_NOTES_PROBLEMS) + " more of the kind");
        }
        log.notes = json.writeValueAsString(notes);
        log.broughtInBy = by;
        log.broughtInAt = clock.instant();
        em.persist(log);
        em.flush();
        em.persist(new FlightLogContent(log.id, content));
        List<UUID> ids = new ArrayList<>();
        Optional<Position> firstTakeoff = Optional.empty();
        for (int i = 0; i < spans.size(); i++) {
            FlightFinder.Span whole = spans.get(i);
            Trace share = trace.slice(whole.shareFrom(), whole.shareTo());
            // one clock for figures, findings and the stored trace
            FlightFinder.Span span = new FlightFinder.Span(
                    whole.takeoff() - whole.shareFrom(),
                    whole.landing() - whole.shareFrom(),
                    whole.beginsInTheAir(),
                    whole.endsInTheAir(),
                    0,
                    share.size() - 1);
            FlightSummary summary = FlightSummary.of(share, span);
            if (firstTakeoff.isEmpty()) {
                firstTakeoff = summary.takeoffPosition();
            }
            FlightEntity f = new FlightEntity(UUID.randomUUID());
            f.logId = log.id;
            f.numberInLog = i + 1;
            OptionalDouble fromFirst = firstTakeoff.isPresent()
                    ? FlightSummary.greatestDistanceFrom(share, span, firstTakeoff.get())
                    : OptionalDouble.empty();
            FlightFigures figures = FlightFigures.of(summary, fromFirst);
            fill(f, figures);
            attribute(f, suggest(given, summary));
            judge(f, share, firstTakeoff);
            em.persist(f);
            em.flush();
            em.persist(new FlightFiguresText(f.id, json.writeValueAsString(figures)));
            byte[] stored = TraceCodec.encode(share);
            em.persist(new FlightTrace(f.id, sha256(stored), stored));
            Optional<String> twin = twin(f);
            if (twin.isPresent()) {
                notes.add(twin.get());
                log.notes = json.writeValueAsString(notes);
            } else {
                count(f, 1);
            }
            ids.add(f.id);
        }
        em.flush();
        return new Outcome(log.id, ids, null, false, notes);
    }

    /** Says so when the same flight seems to be on file from another log; it is then not counted until somebody says so. */
    private Optional<String> twin(FlightEntity f) {
        return em.createQuery(
                        "from FlightEntity x where x.logId <> :l and x.takeoff < :landing and x.landing > :takeoff"
                                + " and (x.aircraftId = :a or (abs(x.takeoffLat - :lat) < :near and abs(x.takeoffLon - :lon) < :near))",
                        FlightEntity.class)
                .setParameter("l", f.logId)
                .setParameter("landing", f.landing)
                .setParameter("takeoff", f.takeoff)
                .setParameter("a", f.aircraftId)
                .setParameter("lat", f.takeoffLat == null ? Double.NaN : f.takeoffLat)
                .setParameter("lon", f.takeoffLon == null ? Double.NaN : f.takeoffLon)
                .setParameter("near", SAME_PLACE_DEG)
                .getResultStream()
                .findFirst()
                .map(x -> "flight " + f.numberInLog + " overlaps one on file from "
                        + em.find(FlightLog.class, x.logId).fileName + ", taken off at " + x.takeoff
                        + ": it may be the same flight, so it is not counted to aircraft, pilot or pack. If it is another,"
                        + " save under 'counted to'");
    }

    /** Fills what was not given from the job of that hour and place. */
    private Attribution suggest(Attribution given, FlightSummary summary) {
        UUID job = given.jobId() != null
                ? given.jobId()
                : summary.takeoffPosition()
                        .flatMap(p -> jobs.jobAt(summary.takeoff(), p))
                        .orElse(null);
        if (job == null) {
            return given;
        }
        Jobs.JobView view = jobs.jobUnchecked(job);
        UUID aircraft = given.aircraftId() != null
                ? given.aircraftId()
                : view.build() == null ? null : view.build().aircraft().id();
        UUID pilot = given.pilotId() != null ? given.pilotId() : view.draft().pilotId();
        return new Attribution(aircraft, given.packId(), pilot, job);
    }

    private void fill(FlightEntity f, FlightFigures g) {
        f.takeoff = g.takeoffUtc();
        f.landing = g.landingUtc();
        f.durationS = g.durationS();
        f.pathM = g.pathLengthM();
        f.distanceM = g.greatestDistanceM();
        f.heightM = g.greatestHeightM();
        f.heightFromAltitude = g.heightFromAltitude();
        f.speedMps = g.greatestSpeedMps();
        f.chargeMah = g.chargeMah();
        f.energyWh = g.energyWh();
        f.chargeTakeoffPct = g.chargeAtTakeoffPct();
        f.chargeLandingPct = g.chargeAtLandingPct();
        f.leastCellV = g.leastCellV();
        f.windMps = g.greatestWindMps();
        f.takeoffLat = g.takeoffLatitudeDeg();
        f.takeoffLon = g.takeoffLongitudeDeg();
        f.beginsInAir = g.beginsInTheAir();
        f.endsInAir = g.endsInTheAir();
    }

    private void attribute(FlightEntity f, Attribution a) {
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

    // --- judging and counting ----------------------------------------------------------------------------------------

    /** Judges by the flight's own trace; intervals are in seconds of it. */
    private void judge(FlightEntity f, Trace trace, Optional<Position> firstTakeoff) {
        FlightFinder.Span span = span(trace, f);
        FlightJudge.Context context = context(f, firstTakeoff);
        FlightFacts facts = FlightJudge.facts(trace, span, context);
        AssessmentRow a = rulebook.judge(facts, facts.constant(), setting(f));
        Tally tally = a.tally();
        f.breached = tally.breached();
        f.notKnown = tally.notKnown();
        f.closeCount = tally.close();
        f.worst = a.open().isEmpty()
                ? ""
                : cut(a.open().get(0).title() + ": " + a.open().get(0).says(), 590);
        f.assessedAt = clock.instant();
        assessments.put(Assessments.Kind.FLIGHT, List.of(new Assessments.Entry(f.id, a, List.of())), f.assessedAt);
    }

    private OwnRules.Setting setting(FlightEntity f) {
        Jobs.JobView job = f.jobId == null ? null : jobs.jobUnchecked(f.jobId);
        return new OwnRules.Setting(
                job == null ? null : job.site().id(),
                f.aircraftId == null
                        ? null
                        : fleet.aircraft(f.aircraftId).model().id(),
                f.jobId);
    }

    /** The flight within its stored trace, by its take-off and landing. */
    static FlightFinder.Span span(Trace trace, FlightEntity f) {
        return new FlightFinder.Span(
                indexAt(trace, f.takeoff), indexAt(trace, f.landing), f.beginsInAir, f.endsInAir, 0, trace.size() - 1);
    }

    private static int indexAt(Trace trace, Instant at) {
        double seconds = Duration.between(trace.start(), at).toNanos() / 1e9;
        int found = java.util.Arrays.binarySearch(trace.seconds(), seconds - HALF_A_STEP_S);
        return Math.min(trace.size() - 1, found >= 0 ? found : -found - 1);
    }

    private FlightJudge.Context context(FlightEntity f, Optional<Position> firstTakeoff) {
        TimeWindow flown = new TimeWindow(f.takeoff, f.landing);
        LocalDate day = f.takeoff.atZone(ZoneId.of(f.zone)).toLocalDate();
        LocalDate before = lastFlightBefore(f);
        OptionalDouble height = f.heightM == null ? OptionalDouble.empty() : OptionalDouble.of(f.heightM);
        Optional<PlanInput> job = Optional.empty();
        FlightInput.Home home = null;
        if (f.jobId == null) {
            Wanted w = new Wanted(null, null, f.pilotId, null, f.aircraftId, day, zone -> null);
            home = jobs.load(List.of(w), List.of(flown)).home(f.aircraftId, f.pilotId, day, before);
        } else {
            Wanted planned = jobs.wanted(List.of(f.jobId)).get(f.jobId);
            // the log does not say which build flew: the planned one when its aircraft did
            UUID build = planned.buildId() != null
                            && fleet.build(planned.buildId()).aircraft().id().equals(f.aircraftId)
                    ? planned.buildId()
                    : null;
            Wanted w = planned.flownWith(f.pilotId, build, f.aircraftId);
            boolean asPlanned = Objects.equals(planned.pilotId(), f.pilotId);
            job = Optional.of(jobs.load(List.of(w), List.of(flown)).flown(w, flown, before, asPlanned));
        }
        return new FlightInput(flown, height, firstTakeoff, job, home).context();
    }

    /** The pilot's newest day in the logbook before this flight; null for none. */
    private LocalDate lastFlightBefore(FlightEntity f) {
        if (f.pilotId == null) {
            return null;
        }
        ZoneId zone = ZoneId.of(f.zone);
        Instant last = em.createQuery(
                        "select max(x.takeoff) from FlightEntity x where x.pilotId = :p and x.counted and x.takeoff < :t",
                        Instant.class)
                .setParameter("p", f.pilotId)
                .setParameter("t", f.takeoff)
                .getSingleResult();
        LocalDate logged = last == null ? null : last.atZone(zone).toLocalDate();
        // a day said by hand counts when it lies before the flight and after those on file
        LocalDate said = crew.person(f.pilotId).lastFlightOn();
        boolean later = said != null
                && said.isBefore(f.takeoff.atZone(zone).toLocalDate())
                && (logged == null || said.isAfter(logged));
        return later ? said : logged;
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

    private void count(FlightEntity f, int sign) {
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
            throw new LostUpdateException(Map.of(), f.version);
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
        judge(f, trace, pilot);
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

    private static String cut(String name) {
        String clean = name == null || name.isBlank() ? "log" : name.replaceAll("[\\p{Cntrl}/\\\\]", "_");
        return clean.length() > 200 ? clean.substring(0, 200) : clean;
    }

    private static String cut(String s, int most) {
        return s.length() > most ? s.substring(0, most) + "…" : s;
    }
}
