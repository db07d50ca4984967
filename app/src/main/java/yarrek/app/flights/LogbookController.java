package yarrek.app.flights;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.print.Pdf;
import yarrek.core.flight.Logbook;
import yarrek.core.time.Days;
import yarrek.formats.table.Table;
import yarrek.formats.table.Tables;

/** The logbook on a page, as a table and as sheets to be signed. */
@Controller
class LogbookController {
    private static final int MOST_SHOWN = 300;
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm:ss", Locale.UK);
    private static final Map<String, String> TYPES = Map.of(
            "csv",
            "text/csv;charset=UTF-8",
            "xlsx",
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            "pdf",
            "application/pdf");

    private final Logbooks logbooks;
    private final Crew crew;
    private final Fleet fleet;
    private final Office office;
    private final Pdf pdf;
    private final Clock clock;

    LogbookController(Logbooks logbooks, Crew crew, Fleet fleet, Office office, Pdf pdf, Clock clock) {
        this.logbooks = logbooks;
        this.crew = crew;
        this.fleet = fleet;
        this.office = office;
        this.pdf = pdf;
        this.clock = clock;
    }

    /** A flight as a line. */
    public record Line(
            String id,
            String day,
            String takeoff,
            String landing,
            String time,
            String aircraft,
            String pilot,
            String place,
            String job,
            String light,
            String landed) {
        static Line of(Logbook.Entry e) {
            ZoneId zone = e.zone();
            long s = Math.round(e.seconds());
            return new Line(
                    e.id(),
                    Days.show(e.takeoff().atZone(zone).toLocalDate()),
                    CLOCK.format(e.takeoff().atZone(ZoneOffset.UTC)) + " UTC",
                    CLOCK.format(e.landing().atZone(ZoneOffset.UTC)) + " UTC",
                    String.format(Locale.ROOT, "%d:%02d:%02d", s / 3600, s / 60 % 60, s % 60),
                    e.aircraft(),
                    e.pilot(),
                    e.place(),
                    e.job(),
                    e.night().map(n -> n ? "night" : "day").orElse("not known"),
                    e.landed() ? "1" : "0");
        }

        public List<String> cells() {
            return List.of(day, takeoff, landing, time, aircraft, pilot, place, job, light, landed);
        }
    }

    private static final List<String> HEADER =
            List.of("day", "take-off", "landing", "time", "aircraft", "pilot", "place", "job", "light", "landings");

    /** What was asked for. */
    private record Asked(LocalDate from, LocalDate through, UUID pilot, UUID aircraft) {}

    private Asked asked(LocalDate from, LocalDate through, UUID pilot, UUID aircraft) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        LocalDate last = through == null ? today : through;
        return new Asked(from == null ? last.minusYears(1).plusDays(1) : from, last, pilot, aircraft);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/logbook")
    String logbook(
            @RequestParam(value = "from", required = false) LocalDate from,
            @RequestParam(value = "through", required = false) LocalDate through,
            @RequestParam(value = "pilot", required = false) UUID pilot,
            @RequestParam(value = "aircraft", required = false) UUID aircraft,
            @RequestParam(value = "by", defaultValue = "PILOT") Logbook.By by,
            Model model) {
        Viewer viewer = Viewer.current();
        Asked a = asked(from, through, pilot, aircraft);
        model.addAttribute("from", a.from());
        model.addAttribute("through", a.through());
        model.addAttribute("pilot", pilot);
        model.addAttribute("aircraft", aircraft);
        model.addAttribute("by", by);
        model.addAttribute("ways", Logbook.By.values());
        model.addAttribute("people", viewer.isPilot() ? Map.of() : crew.names());
        model.addAttribute("craft", fleet.aircraftNames());
        try {
            Logbook book = logbooks.book(viewer, a.from(), a.through(), pilot, aircraft);
            model.addAttribute("totals", book.totals(by));
            model.addAttribute("all", book.all());
            model.addAttribute(
                    "lines",
                    book.entries().stream().limit(MOST_SHOWN).map(Line::of).toList());
            model.addAttribute("left", Math.max(0, book.entries().size() - MOST_SHOWN));
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
        }
        return "flights/logbook";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/flights/logbook.{format}")
    ResponseEntity<byte[]> out(
            @PathVariable("format") String format,
            @RequestParam(value = "from", required = false) LocalDate from,
            @RequestParam(value = "through", required = false) LocalDate through,
            @RequestParam(value = "pilot", required = false) UUID pilot,
            @RequestParam(value = "aircraft", required = false) UUID aircraft) {
        if (!Set.of("csv", "xlsx", "pdf").contains(format)) {
            throw new NotFoundException("format");
        }
        Asked a = asked(from, through, pilot, aircraft);
        Logbook book;
        try {
            book = logbooks.book(Viewer.current(), a.from(), a.through(), pilot, aircraft);
        } catch (IllegalArgumentException e) {
            return ResponseEntity.badRequest()
                    .contentType(MediaType.TEXT_PLAIN)
                    .body(e.getMessage().getBytes(StandardCharsets.UTF_8));
        }
        List<Line> lines = book.entries().stream().map(Line::of).toList();
        Table table = Table.of(HEADER, lines.stream().map(Line::cells).toList());
        byte[] content = switch (format) {
            case "csv" -> Tables.csv(table);
            case "xlsx" -> Tables.xlsx(table, "logbook");
            default -> sheets(a, book, lines);
        };
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(TYPES.get(format)))
                .header(
                        "Content-Disposition",
                        ContentDisposition.attachment()
                                .filename("logbook " + a.from() + " to " + a.through() + "." + format)
                                .build()
                                .toString())
                .body(content);
    }

    private byte[] sheets(Asked a, Logbook book, List<Line> lines) {
        Map<String, Object> m = new HashMap<>();
        m.put("size", Pdf.Sheet.A4.landscape());
        m.put("operator", office.operator().name());
        m.put("span", Days.show(a.from(), a.through()));
        m.put("lines", lines);
        m.put("all", book.all());
        m.put("totals", book.totals(Logbook.By.PILOT));
        return pdf.render("flights/logbook-pdf", m);
    }
}
