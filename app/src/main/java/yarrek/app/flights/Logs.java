package yarrek.app.flights;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.UUID;
import java.util.function.Function;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.Viewer;
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightSummary;
import yarrek.core.geo.Position;
import yarrek.core.trace.Trace;
import yarrek.core.trace.TraceCodec;
import yarrek.formats.csv.CsvLogReader;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.csv.ReadingPlan;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.log.Problem;
import yarrek.formats.logs.LogFormat;

/** Brings logs in: reads them, finds the flights in them, has them judged, stores and counts them. */
@Service
public class Logs {
    /** So near a job in time and place a flight is counted to it without being asked for. */
    private static final Duration AROUND = Duration.ofHours(1);

    private static final double NEAR_M = 1000;

    private static final Duration UPLOADS_KEPT = Duration.ofDays(1);
    private static final double SECONDS_PER_HOUR = 3600;
    private static final int LONGEST_FLIGHT_H = 24;
    private static final double SAME_PLACE_DEG = 5e-4; // some 50 m: two receivers on one aircraft, never two at work
    private static final String TABLE = "CSV";
    private static final int MAX_NOTES_PROBLEMS = 20;

    private final EntityManager em;
    private final Clock clock;
    private final JsonMapper json;
    private final Flights flights;
    private final FlightJudging judging;
    private final Jobs jobs;

    Logs(EntityManager em, Clock clock, JsonMapper json, Flights flights, FlightJudging judging, Jobs jobs) {
        this.em = em;
        this.clock = clock;
        this.json = json;
        this.flights = flights;
        this.judging = judging;
        this.jobs = jobs;
    }

    /**
     * What became of a file.
     *
     * @param uploadId set when its columns have to be matched first; nothing but the file itself is kept then
     * @param already whether the same file was there before
     */
    public record Outcome(UUID logId, List<UUID> flights, UUID uploadId, boolean already, List<String> notes) {}

    /** A file whose columns wait to be matched. */
    public record Matching(UUID uploadId, String fileName, CsvSheet sheet, ReadingPlan plan, List<String> gaps) {}

    /**
     * Brings a file in. What says itself what it holds is read at once; delimited text by the saved plan for its headers, else it waits for its
     * columns to be matched. Everything of one file is stored together or not at all.
     *
     * @throws BrokenFileException when nothing can be read; nothing is stored then
     */
    @Transactional(rollbackFor = Exception.class)
    public Outcome bringIn(String fileName, byte[] content, Flights.Attribution attribution, Viewer by)
            throws BrokenFileException {
        return bringIn(
                fileName,
                content,
                attribution,
                by.name(),
                by.userId(),
                sheet -> savedPlan(sheet).filter(p -> p.gaps().isEmpty()));
    }

    /**
     * Brings a file in without a matching step: by the given plan, else the saved one, else the suggestion.
     *
     * @throws BrokenFileException when columns stay open or nothing can be read; nothing is stored then
     */
    @Transactional(rollbackFor = Exception.class)
    public Outcome bringInDirectly(
            String fileName, byte[] content, Optional<ReadingPlan> plan, Flights.Attribution attribution, String by)
            throws BrokenFileException {
        return bringIn(
                fileName,
                content,
                attribution,
                by,
                null,
                sheet -> Optional.of(plan.or(() -> savedPlan(sheet)).orElseGet(() -> PlanSuggester.suggest(sheet))));
    }

    /** @param plan how to read a table; none lets it wait */
    private Outcome bringIn(
            String fileName,
            byte[] content,
            Flights.Attribution attribution,
            String by,
            UUID byId,
            Function<CsvSheet, Optional<ReadingPlan>> plan)
            throws BrokenFileException {
        Optional<Outcome> already = already(content);
        if (already.isPresent()) {
            return already.get();
        }
        requireContent(content);
        Optional<LogFormat> format = LogFormat.of(content);
        if (format.isPresent()) {
            return store(fileName, content, format.get().name(), format.get().read(content), attribution, by);
        }
        CsvSheet sheet = CsvSheet.look(content);
        Optional<ReadingPlan> chosen = plan.apply(sheet);
        if (chosen.isPresent()) {
            return store(fileName, content, TABLE, CsvLogReader.read(sheet, chosen.get()), attribution, by);
        }
        em.createQuery("delete from Upload u where u.uploadedAt < :old")
                .setParameter("old", clock.instant().minus(UPLOADS_KEPT))
                .executeUpdate();
        Upload upload = new Upload(
                UUID.randomUUID(), Flights.cut(fileName), Flights.sha256(content), content, by, byId, clock.instant());
        em.persist(upload);
        return new Outcome(null, List.of(), upload.id, false, List.of());
    }

    private static void requireContent(byte[] content) throws BrokenFileException {
        if (content.length == 0) {
            throw new BrokenFileException("log.empty", "the file is empty; nothing to bring in");
        }
    }

    private Optional<Outcome> already(byte[] content) {
        return em.createQuery("from FlightLog l where l.sha256 = :h", FlightLog.class)
                .setParameter("h", Flights.sha256(content))
                .getResultStream()
                .findFirst()
                .map(l -> new Outcome(l.id, flightIds(l.id), null, true, List.of()));
    }

    private List<UUID> flightIds(UUID logId) {
        return em.createQuery("select f.id from FlightEntity f where f.logId = :l order by f.numberInLog", UUID.class)
                .setParameter("l", logId)
                .getResultList();
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
    public Matching matching(UUID uploadId, Viewer by) throws BrokenFileException {
        Upload upload = waiting(uploadId, by);
        CsvSheet sheet = CsvSheet.look(upload.content);
        ReadingPlan plan = savedPlan(sheet).orElseGet(() -> PlanSuggester.suggest(sheet));
        return new Matching(uploadId, upload.fileName, sheet, plan, plan.gaps());
    }

    /** Of those that wait a manager sees every one, others their own; another's is not said to be there. */
    private Upload waiting(UUID uploadId, Viewer by) {
        Upload upload = em.find(Upload.class, uploadId);
        if (upload == null || !(by.isManager() || by.userId().equals(upload.uploadedById))) {
            throw new NotFoundException("file waiting to be matched");
        }
        return upload;
    }

    /**
     * Reads a waiting file by the plan, stores its flights, and saves the plan for the next file with these headers.
     *
     * @throws BrokenFileException when the plan leaves something open or nothing can be read; the file keeps waiting
     */
    @Transactional(rollbackFor = Exception.class)
    public Outcome match(UUID uploadId, ReadingPlan plan, String planName, Flights.Attribution attribution, Viewer by)
            throws BrokenFileException {
        Upload upload = waiting(uploadId, by);
        CsvSheet sheet = CsvSheet.look(upload.content);
        Outcome outcome =
                store(upload.fileName, upload.content, TABLE, CsvLogReader.read(sheet, plan), attribution, by.name());
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

    /** A flight of a log that is being brought in, with its share of the trace. */
    private record Found(FlightEntity flight, Trace share, FlightFigures figures, Optional<Position> firstTakeoff) {}

    private Outcome store(
            String fileName, byte[] content, String format, LogReading read, Flights.Attribution given, String by)
            throws BrokenFileException {
        Trace trace = read.trace();
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
        log.fileName = Flights.cut(fileName);
        log.sha256 = Flights.sha256(content);
        log.sizeBytes = content.length;
        log.format = format;
        log.truncated = read.truncated();
        List<String> notes = new ArrayList<>(read.notes());
        read.problems().stream()
                .limit(MAX_NOTES_PROBLEMS)
                .map(Problem::sentence)
                .forEach(notes::add);
        if (read.problemCount() > MAX_NOTES_PROBLEMS) {
            notes.add("and " + (read.problemCount() - MAX_NOTES_PROBLEMS) + " more of the kind");
        }
        log.notes = json.writeValueAsString(notes);
        log.broughtInBy = by;
        log.broughtInAt = clock.instant();
        em.persist(log);
        em.flush();
        em.persist(new FlightLogContent(log.id, content));
        Optional<Position> firstTakeoff = Optional.empty();
        List<Found> found = new ArrayList<>();
        for (FlightFinder.Span whole : spans) {
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
            OptionalDouble fromFirst = firstTakeoff.isPresent()
                    ? FlightSummary.greatestDistanceFrom(share, span, firstTakeoff.get())
                    : OptionalDouble.empty();
            FlightEntity f = new FlightEntity(UUID.randomUUID());
            f.logId = log.id;
            f.numberInLog = found.size() + 1;
            FlightFigures figures = FlightFigures.of(summary, fromFirst);
            fill(f, figures);
            flights.attribute(f, suggest(given, summary));
            found.add(new Found(f, share, figures, firstTakeoff));
        }
        FlightJudging.Reading reading =
                judging.read(found.stream().map(Found::flight).toList());
        for (Found each : found) {
            FlightEntity f = each.flight();
            reading.judge(f, each.share(), each.firstTakeoff());
            em.persist(f);
            em.flush();
            em.persist(new FlightFiguresText(f.id, json.writeValueAsString(each.figures())));
            byte[] stored = TraceCodec.encode(each.share());
            em.persist(new FlightTrace(f.id, Flights.sha256(stored), stored));
            Optional<String> twin = twin(f);
            if (twin.isPresent()) {
                notes.add(twin.get());
                log.notes = json.writeValueAsString(notes);
            } else {
                flights.count(f, 1);
            }
        }
        em.flush();
        return new Outcome(log.id, found.stream().map(x -> x.flight().id).toList(), null, false, notes);
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
    private Flights.Attribution suggest(Flights.Attribution given, FlightSummary summary) {
        UUID job = given.jobId() != null
                ? given.jobId()
                : summary.takeoffPosition()
                        .flatMap(p -> jobs.jobAt(summary.takeoff(), p, AROUND, NEAR_M))
                        .orElse(null);
        if (job == null) {
            return given;
        }
        Jobs.JobView view = jobs.jobUnchecked(job);
        UUID aircraft = given.aircraftId() != null
                ? given.aircraftId()
                : view.build() == null ? null : view.build().aircraft().id();
        UUID pilot = given.pilotId() != null ? given.pilotId() : view.draft().pilotId();
        return new Flights.Attribution(aircraft, given.packId(), pilot, job);
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
}
