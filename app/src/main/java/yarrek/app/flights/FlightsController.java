package yarrek.app.flights;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.core.trace.Trace;
import yarrek.formats.csv.ColumnPlan;
import yarrek.formats.csv.ColumnRole;
import yarrek.formats.csv.ReadingPlan;
import yarrek.formats.csv.Unit;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.logs.LogArchive;
import yarrek.formats.logs.LogFormat;
import yarrek.formats.tracks.TraceWriter;

/** Pages of the flights: bringing in, matching, looking. */
@Controller
class FlightsController {
    private static final int PAGE = 60;

    private final Flights flights;
    private final Logs logs;
    private final Whose whose;
    private final AsPlanned asPlanned;
    private final Fleet fleet;
    private final Crew crew;
    private final Jobs jobs;

    FlightsController(Flights flights, Logs logs, Whose whose, AsPlanned asPlanned, Fleet fleet, Crew crew, Jobs jobs) {
        this.flights = flights;
        this.logs = logs;
        this.whose = whose;
        this.asPlanned = asPlanned;
        this.fleet = fleet;
        this.crew = crew;
        this.jobs = jobs;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights")
    String flights(@RequestParam(value = "from", defaultValue = "0") int from, Model model) {
        int start = Math.max(0, from);
        model.addAttribute("flights", flights.newest(Viewer.current(), start, PAGE));
        model.addAttribute("from", start);
        model.addAttribute("page", PAGE);
        model.addAttribute("total", flights.count(Viewer.current()));
        model.addAttribute(
                "formats",
                Arrays.stream(LogFormat.values()).map(LogFormat::words).collect(Collectors.joining(", ")));
        return "flights/flights";
    }

    /** Of a moment as it is written: its date, hour and minute. */
    private static final int MINUTES = 16;

    /** Bytes of all files of one archive. */
    private static final long MOST_UNFOLDED = 200L << 20;

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/flights/logs")
    String bringIn(@RequestParam("files") List<MultipartFile> files, RedirectAttributes flash) throws IOException {
        List<String> told = new ArrayList<>();
        List<String> problems = new ArrayList<>();
        UUID single = null;
        UUID waiting = null;
        Viewer viewer = Viewer.current();
        viewer.requirePerson();
        Flights.Attribution mine =
                new Flights.Attribution(null, null, viewer.isPilot() ? viewer.personId() : null, null);
        Map<String, byte[]> all = unfolded(files, problems);
        for (Map.Entry<String, byte[]> file : all.entrySet()) {
            String name = file.getKey();
            try {
                Logs.Outcome o = logs.bringIn(name, file.getValue(), mine, viewer);
                if (o.uploadId() != null) {
                    waiting = o.uploadId();
                    told.add(name + ": its columns have to be matched first");
                } else if (o.already()) {
                    single = o.flights().stream()
                            .filter(f -> flights.maySee(f, viewer))
                            .findFirst()
                            .orElse(null);
                    told.add(name + " was brought in before, byte for byte the same; nothing was stored again");
                } else {
                    single = o.flights().get(0);
                    told.add(name + ": " + o.flights().size() + (o.flights().size() == 1 ? " flight" : " flights"));
                }
            } catch (BrokenFileException e) {
                problems.add(name + ": " + e.getMessage());
            }
        }
        flash.addFlashAttribute("told", told);
        flash.addFlashAttribute("problems", problems);
        if (waiting != null && problems.isEmpty()) {
            return "redirect:/flights/match/" + waiting;
        }
        return single != null && problems.isEmpty() && all.size() == 1
                ? "redirect:/flights/" + single
                : "redirect:/flights";
    }

    /** Files by name, those of an archive one by one; an archive that cannot be opened is told. */
    private static Map<String, byte[]> unfolded(List<MultipartFile> files, List<String> problems) throws IOException {
        Map<String, byte[]> all = new LinkedHashMap<>();
        for (MultipartFile file : files) {
            String name = String.valueOf(file.getOriginalFilename());
            byte[] content = file.getBytes();
            try {
                if (LogArchive.begins(content)) {
                    LogArchive.files(content, MOST_UNFOLDED)
                            .forEach((path, bytes) -> all.put(name + ": " + path, bytes));
                } else {
                    all.put(all.containsKey(name) ? name + " (" + all.size() + ")" : name, content);
                }
            } catch (BrokenFileException e) {
                problems.add(name + ": " + e.getMessage());
            }
        }
        return all;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/match/{id}")
    String match(@PathVariable("id") UUID id, Model model, RedirectAttributes flash) {
        try {
            Logs.Matching m = logs.matching(id, Viewer.current());
            fillMatching(m, m.plan(), m.gaps(), model);
            return "flights/match";
        } catch (BrokenFileException e) {
            flash.addFlashAttribute("problems", List.of(e.getMessage()));
            return "redirect:/flights";
        }
    }

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/flights/match/{id}")
    String matched(
            @PathVariable("id") UUID id,
            @RequestParam MultiValueMap<String, String> params,
            Model model,
            RedirectAttributes flash) {
        Logs.Matching m;
        try {
            m = logs.matching(id, Viewer.current());
        } catch (BrokenFileException e) {
            flash.addFlashAttribute("problems", List.of(e.getMessage()));
            return "redirect:/flights";
        }
        List<String> problems = new ArrayList<>();
        ReadingPlan plan = plan(m, params, problems);
        problems.addAll(plan.gaps());
        if (problems.isEmpty()) {
            try {
                Viewer viewer = Viewer.current();
                Flights.Attribution mine =
                        new Flights.Attribution(null, null, viewer.isPilot() ? viewer.personId() : null, null);
                String name = params.getFirst("planName");
                Logs.Outcome o = logs.match(id, plan, name == null ? "" : name.strip(), mine, viewer);
                flash.addFlashAttribute(
                        "told",
                        List.of(m.fileName() + ": " + o.flights().size()
                                + (o.flights().size() == 1 ? " flight" : " flights")
                                + "; files with these headers are read the same way from now on"));
                return "redirect:/flights/" + o.flights().get(0);
            } catch (BrokenFileException e) {
                problems.add(e.getMessage());
            }
        }
        fillMatching(m, plan, problems, model);
        return "flights/match";
    }

    private static ReadingPlan plan(Logs.Matching m, MultiValueMap<String, String> params, List<String> problems) {
        List<ColumnPlan> columns = new ArrayList<>();
        for (int i = 0; i < m.sheet().headers().size(); i++) {
            String header = m.sheet().headers().get(i);
            try {
                ColumnRole role = ColumnRole.valueOf(String.valueOf(params.getFirst("role" + i)));
                String typed = params.getFirst("unit" + i);
                Unit unit =
                        typed == null || typed.isEmpty() ? Unit.of(role.kind()).get(0) : Unit.valueOf(typed);
                columns.add(new ColumnPlan(
                        header,
                        role,
                        unit.kind() == role.kind() ? unit : Unit.of(role.kind()).get(0),
                        false));
            } catch (IllegalArgumentException e) {
                problems.add("column '" + header + "': choose what it means from the list");
                columns.add(new ColumnPlan(header, ColumnRole.IGNORE, Unit.TEXT, false));
            }
        }
        Optional<ZoneId> zone = Optional.empty();
        String typedZone = params.getFirst("zone");
        if (typedZone != null && !typedZone.isBlank()) {
            try {
                zone = Optional.of(ZoneId.of(typedZone.strip()));
            } catch (DateTimeException e) {
                problems.add("“" + typedZone + "” is not a time zone; type UTC, +02:00 or one such as Atlantic/Azores");
            }
        }
        Optional<Instant> start = m.plan().start();
        String typedStart = params.getFirst("start");
        if (typedStart != null && !typedStart.isBlank()) {
            try {
                start = Optional.of(Instant.parse(typedStart.strip()));
            } catch (DateTimeException e) {
                problems.add("“" + typedStart + "” is not a moment; type it in UTC as 2026-09-18T08:10:00Z");
            }
        }
        ReadingPlan.DateOrder order = java.util.Arrays.stream(ReadingPlan.DateOrder.values())
                .filter(o -> o.name().equals(params.getFirst("dateOrder")))
                .findFirst()
                .orElse(ReadingPlan.DateOrder.NOT_SAID);
        return new ReadingPlan(columns, "comma".equals(params.getFirst("decimal")), zone, order, start);
    }

    private void fillMatching(Logs.Matching m, ReadingPlan plan, List<String> gaps, Model model) {
        model.addAttribute("matching", m);
        model.addAttribute("plan", plan);
        model.addAttribute("gaps", gaps);
        model.addAttribute("roles", ColumnRole.values());
        model.addAttribute(
                "unitsByKind",
                java.util.Arrays.stream(Unit.values())
                        .collect(java.util.stream.Collectors.groupingBy(
                                u -> u.kind().name())));
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/{id}")
    String flight(@PathVariable("id") UUID id, Model model) {
        Viewer viewer = Viewer.current();
        Flights.FlightView f = flights.flight(id, viewer);
        model.addAttribute("flight", f);
        model.addAttribute("compared", flights.besides(f, viewer));
        model.addAttribute("guess", whose.guess(f, viewer));
        model.addAttribute("asPlanned", asPlanned.of(id).orElse(null));
        model.addAttribute("aircraft", fleet.aircraft());
        model.addAttribute("packs", fleet.packs());
        model.addAttribute(
                "people", crew.all().stream().filter(p -> viewer.maySee(p.id())).toList());
        model.addAttribute("jobNames", jobs.namesFor(viewer));
        return "flights/flight";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/{id}/log")
    ResponseEntity<byte[]> original(@PathVariable("id") UUID id) {
        Map.Entry<String, byte[]> file = flights.original(id, Viewer.current());
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(file.getKey(), StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .body(file.getValue());
    }

    /** The trace of a flight in an open format, as it was read and not as it came. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/{id}/trace.{format}")
    void trace(@PathVariable("id") UUID id, @PathVariable("format") String format, HttpServletResponse response)
            throws IOException {
        TraceWriter writer = TraceWriter.of(format).orElseThrow(() -> new NotFoundException("format"));
        Trace trace = flights.trace(id, Viewer.current());
        String name = "flight " + trace.start().toString().substring(0, MINUTES).replace(":", "");
        response.setContentType(writer.type());
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment()
                        .filename(name + "." + writer.ending(), StandardCharsets.UTF_8)
                        .build()
                        .toString());
        writer.write(trace, name, response.getOutputStream());
    }

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/flights/{id}/attribution")
    String attribute(
            @PathVariable("id") UUID id,
            @RequestParam("version") long version,
            @RequestParam(value = "aircraftId", required = false) UUID aircraftId,
            @RequestParam(value = "packId", required = false) UUID packId,
            @RequestParam(value = "pilotId", required = false) UUID pilotId,
            @RequestParam(value = "jobId", required = false) UUID jobId,
            RedirectAttributes flash) {
        Viewer viewer = Viewer.current();
        Flights.FlightView now = flights.flight(id, viewer);
        UUID pilot = viewer.isPilot() ? viewer.personId() : pilotId;
        if (jobId != null && !jobId.equals(now.attribution().jobId())) {
            jobs.job(jobId, viewer); // a flight is counted to no job that the viewer may not see
        }
        try {
            flights.change(id, version, new Flights.Attribution(aircraftId, packId, pilot, jobId));
        } catch (LostUpdateException e) {
            flash.addFlashAttribute(
                    "problems",
                    List.of(
                            "Somebody else changed this flight while you had it open. It is shown as it stands now; make your change again if it is still wanted."));
        }
        return "redirect:/flights/" + id;
    }

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/flights/{id}/looked-at")
    String lookedAt(@PathVariable("id") UUID id) {
        flights.flight(id, Viewer.current());
        flights.lookedAt(id);
        return "redirect:/flights/" + id;
    }

    /** The flights of a job, for the job's page. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/of-job/{jobId}")
    String ofJob(@PathVariable("jobId") UUID jobId, Model model) {
        Viewer viewer = Viewer.current();
        model.addAttribute(
                "flights",
                flights.ofJob(jobId).stream()
                        .filter(f -> viewer.maySee(f.pilotId()))
                        .toList());
        return "flights/of-job";
    }
}
