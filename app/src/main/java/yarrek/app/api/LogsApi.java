package yarrek.app.api;

import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.flights.FlightFigures;
import yarrek.app.flights.Flights;
import yarrek.app.flights.Logs;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.csv.ReadingPlan;
import yarrek.formats.log.BrokenFileException;

/** Bringing logs in, and flights as JSON. */
@RestController
@RequestMapping("/api/v1")
class LogsApi {
    /** A flight with its figures and findings. */
    record FlightOut(UUID id, FlightFigures figures, Double equivalentCycles, AssessmentRow assessment) {}

    /** What became of a log. */
    record LogOut(
            UUID logId,
            String fileName,
            String sha256,
            String format,
            boolean alreadyThere,
            boolean truncated,
            List<String> notes,
            List<FlightOut> flights) {}

    /** What the columns of a file would be read as. */
    record PlanOut(List<String> headers, ReadingPlan plan, List<String> gaps) {}

    private final Flights flights;
    private final Logs logs;
    private final Jobs jobs;
    private final JsonMapper json;

    LogsApi(Flights flights, Logs logs, Jobs jobs, JsonMapper json) {
        this.flights = flights;
        this.logs = logs;
        this.jobs = jobs;
        this.json = json;
    }

    @Operation(
            summary =
                    "Bring a log in: ULog, DataFlash, GPX 1.1, KML track, GeoJSON with times, or CSV/TSV by the saved or suggested reading plan, or by the one sent along as part 'plan'")
    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping(value = "/logs", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    ResponseEntity<LogOut> bringIn(
            @RequestPart("file") MultipartFile file,
            @RequestParam(value = "plan", required = false) String plan,
            @RequestParam(value = "aircraftId", required = false) UUID aircraftId,
            @RequestParam(value = "packId", required = false) UUID packId,
            @RequestParam(value = "pilotId", required = false) UUID pilotId,
            @RequestParam(value = "jobId", required = false) UUID jobId)
            throws IOException, BrokenFileException {
        Optional<ReadingPlan> given;
        try {
            given = plan == null ? Optional.empty() : Optional.of(json.readValue(plan, ReadingPlan.class));
        } catch (JacksonException e) {
            throw new ApiConfig.BadRequestException(
                    "plan.json",
                    "the plan is not understood: " + e.getOriginalMessage()
                            + "; POST the file to /api/v1/logs/plan to see what one looks like");
        }
        Viewer viewer = Viewer.current();
        // before anything is stored: to no job that the viewer may not see, and to somebody
        viewer.requirePerson();
        if (jobId != null) {
            jobs.job(jobId, viewer);
        }
        UUID pilot = viewer.isPilot() ? viewer.personId() : pilotId;
        Logs.Outcome o = logs.bringInDirectly(
                file.getOriginalFilename(),
                file.getBytes(),
                given,
                new Flights.Attribution(aircraftId, packId, pilot, jobId),
                viewer.name());
        if (o.already() && o.flights().stream().noneMatch(f -> flights.maySee(f, viewer))) {
            throw new ApiConfig.ConflictException(
                    "log.already", "this file is on file already, brought in by somebody else; nothing was stored");
        }
        List<FlightOut> out = o.flights().stream().map(id -> flight(id, viewer)).toList();
        Flights.LogView log = flights.flight(o.flights().get(0), viewer).log();
        LogOut body = new LogOut(
                o.logId(), log.fileName(), log.sha256(), log.format(), o.already(), log.truncated(), log.notes(), out);
        return ResponseEntity.status(o.already() ? HttpStatus.OK : HttpStatus.CREATED)
                .body(body);
    }

    @Operation(summary = "What the columns of a delimited file would be read as; nothing is stored")
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping(value = "/logs/plan", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    PlanOut plan(@RequestPart("file") MultipartFile file) throws IOException, BrokenFileException {
        CsvSheet sheet = CsvSheet.look(file.getBytes());
        ReadingPlan suggested = PlanSuggester.suggest(sheet);
        return new PlanOut(sheet.headers(), suggested, suggested.gaps());
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/{id}")
    FlightOut flight(@PathVariable("id") UUID id) {
        return flight(id, Viewer.current());
    }

    private FlightOut flight(UUID id, Viewer viewer) {
        Flights.FlightView f = flights.flight(id, viewer);
        return new FlightOut(f.id(), f.figures(), f.equivalentCycles(), f.assessment());
    }
}
