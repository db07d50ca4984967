package yarrek.app.incidents;

import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.Form;
import yarrek.app.jobs.JobLists;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.time.Days;

/** Pages of the incidents. */
@Controller
class IncidentsController {
    private final Incidents incidents;
    private final Duties duties;
    private final Office office;
    private final Clock clock;
    private final Rulebook rulebook;
    private final JobLists jobLists;
    private final Fleet fleet;
    private final Crew crew;

    IncidentsController(
            Incidents incidents,
            Duties duties,
            Office office,
            Clock clock,
            Rulebook rulebook,
            JobLists jobLists,
            Fleet fleet,
            Crew crew) {
        this.rulebook = rulebook;
        this.jobLists = jobLists;
        this.fleet = fleet;
        this.crew = crew;
        this.incidents = incidents;
        this.duties = duties;
        this.office = office;
        this.clock = clock;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/incidents")
    String incidents(Model model) {
        model.addAttribute("incidents", incidents.all(Viewer.current()));
        model.addAttribute("zone", office.operator().zone());
        return "incidents/incidents";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/incidents/{id}")
    String incident(@PathVariable("id") UUID id, Model model) {
        Incidents.View incident = incidents.incident(id, Viewer.current());
        String law = incident.about().jurisdiction();
        model.addAttribute("incident", incident);
        model.addAttribute(
                "place", law == null ? "not known" : rulebook.places().getOrDefault(law, law));
        model.addAttribute("zone", office.operator().zone());
        model.addAttribute("duties", duties.of(id, Viewer.current()));
        return "incidents/incident";
    }

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/incidents/{id}/answers")
    String answer(
            @PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, RedirectAttributes flash) {
        try {
            duties.say(id, params.toSingleValueMap(), Viewer.current());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage() + ". Nothing was stored.");
        }
        return "redirect:/incidents/" + id + "#duties";
    }

    /** A duty is done, or is not due, in somebody's words. */
    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/incidents/{id}/duties")
    String settle(
            @PathVariable("id") UUID id,
            @RequestParam("rule") String rule,
            @RequestParam("note") String note,
            RedirectAttributes flash) {
        try {
            incidents.settle(id, rule, note, Viewer.current());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage() + ". Nothing was stored.");
        }
        return "redirect:/incidents/" + id + "#duties";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/incidents/new")
    String open(
            @RequestParam(value = "flight", required = false) UUID flight,
            @RequestParam(value = "rule", required = false) String rule,
            @RequestParam(value = "interval", defaultValue = "0") int interval,
            Model model) {
        model.addAttribute(
                "form",
                flight == null || rule == null
                        ? blank()
                        : filled(incidents.fromBreach(flight, rule, interval, Viewer.current()), interval));
        return "form";
    }

    /** The same in one hand and without a connection: a page of its own that the phone keeps. */
    @OpenTo(OpenTo.Whom.CREW)
    @GetMapping("/field/report")
    String report(Model model) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        model.addAttribute("kinds", Incidents.KINDS);
        model.addAttribute("notSorted", Incidents.NOT_SORTED);
        model.addAttribute("home", office.operator().jurisdiction());
        model.addAttribute("zone", office.operator().zone().getId());
        model.addAttribute(
                "jobs",
                jobLists.all(Viewer.current()).stream()
                        .filter(j -> !j.firstDay().isAfter(today.plusDays(1))
                                && !j.lastDay().isBefore(today.minusDays(1)))
                        .toList());
        return "incidents/report";
    }

    private Form blank() {
        ZoneId zone = office.operator().zone();
        return form("Open an incident", "/incidents/new", "/incidents")
                .set("day", LocalDate.now(clock.withZone(zone)))
                .set("time", LocalTime.now(clock.withZone(zone)).withNano(0).withSecond(0))
                .set("jurisdiction", office.operator().jurisdiction())
                .set("harm", "none known yet")
                .set("state", "OPEN");
    }

    private Form filled(Incidents.View v, int interval) {
        String action = "/incidents/new?flight=" + v.flightId() + "&rule=" + v.ruleId() + "&interval=" + interval;
        return fill(form("Open an incident from a breach", action, "/flights/" + v.flightId()), v)
                .set("state", "OPEN");
    }

    private Form fill(Form form, Incidents.View v) {
        ZoneId zone = office.operator().zone();
        return form.set("kind", v.kind())
                .set("statement", v.statement())
                .set("day", v.happenedAt().atZone(zone).toLocalDate())
                .set("time", v.happenedAt().atZone(zone).toLocalTime().withNano(0))
                .set(
                        "place",
                        v.lat() == null ? "" : String.format(java.util.Locale.ROOT, "%.6f, %.6f", v.lat(), v.lon()))
                .set("harm", v.harm())
                .set("jurisdiction", v.about().jurisdiction())
                .set("job", v.about().jobId())
                .set("aircraft", v.about().aircraftId())
                .set("pilot", v.about().pilotId())
                .set("state", v.state());
    }

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/incidents/new")
    String create(
            @RequestParam(value = "flight", required = false) UUID flight,
            @RequestParam(value = "rule", required = false) String rule,
            @RequestParam(value = "interval", defaultValue = "0") int interval,
            @RequestParam MultiValueMap<String, String> params,
            Model model) {
        Incidents.View from =
                flight == null || rule == null ? null : incidents.fromBreach(flight, rule, interval, Viewer.current());
        String action = from == null
                ? "/incidents/new"
                : "/incidents/new?flight=" + flight + "&rule=" + rule + "&interval=" + interval;
        Form form = form("Open an incident", action, from == null ? "/incidents" : "/flights/" + flight)
                .bind(params);
        return store(form, null, from, model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/incidents/{id}/edit")
    String edit(@PathVariable("id") UUID id, Model model) {
        return form(id).page(model, "form");
    }

    private Form form(UUID id) {
        Incidents.View v = incidents.incident(id, Viewer.current());
        return fill(form("Incident", "/incidents/" + id + "/edit", "/incidents/" + id), v)
                .version(v.version());
    }

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/incidents/{id}/edit")
    String change(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(form(id).bind(params), id, incidents.incident(id, Viewer.current()), model);
    }

    private Form form(String title, String action, String back) {
        Map<String, String> ofJobs = new LinkedHashMap<>();
        jobLists.all(Viewer.current())
                .forEach(j -> ofJobs.put(
                        j.id().toString(),
                        j.name() + ", " + Days.show(j.start().atZone(j.zone()).toLocalDate())));
        Map<String, String> craft = new LinkedHashMap<>();
        fleet.aircraft().forEach(a -> craft.put(a.id().toString(), a.name()));
        Map<String, String> people = new LinkedHashMap<>();
        crew.all().forEach(p -> people.put(p.id().toString(), p.name()));
        List<Form.Option> kinds = new ArrayList<>(List.of(new Form.Option("", "choose")));
        Incidents.KINDS.forEach(k -> kinds.add(new Form.Option(k, k)));
        return new Form(title, action, back)
                .group("What, when and where")
                .select("kind", "Kind", "", kinds)
                .text("harm", "Harm", "to people or things; “none” when there was none")
                .text("day", "Day", "local date")
                .text("time", "Time", "local, such as 14:05")
                .text("place", "Place", "latitude, longitude")
                .select(
                        "jurisdiction",
                        "Law of the place",
                        "where it happened; it says what has to be reported",
                        Form.choices("not known: the operator's home law is taken", rulebook.places()))
                .select("job", "Job", "", Form.choices("none, or not known", ofJobs))
                .select("aircraft", "Aircraft", "", Form.choices("not known", craft))
                .select("pilot", "Pilot", "", Form.choices("not known", people))
                .select(
                        "state",
                        "State",
                        "",
                        List.of(new Form.Option("OPEN", "open"), new Form.Option("CLOSED", "closed")))
                .area(
                        "statement",
                        "Statement",
                        "what happened, in your own words; what you saw, not whose fault it was");
    }

    private String store(Form form, UUID id, Incidents.View from, Model model) {
        ZoneId zone = office.operator().zone();
        String kind = form.choice("kind", true);
        String harm = form.requiredText("harm", 400);
        LocalDate day = form.date("day", true, LocalDate.now(clock.withZone(zone)));
        LocalTime time = time(form);
        String statement = form.requiredText("statement", 8000);
        String state = form.choice("state", true);
        Double lat = null;
        Double lon = null;
        Incidents.About about = new Incidents.About(
                form.choice("jurisdiction", false),
                form.id("job", false),
                form.id("aircraft", false),
                form.id("pilot", false));
        String place = form.optionalText("place", 60);
        if (!place.isEmpty()) {
            try {
                String[] parts = place.split("\\s*,\\s*");
                if (parts.length != 2) {
                    throw new IllegalArgumentException("type latitude, longitude, such as 46.6123, -17.8934");
                }
                yarrek.core.geo.Position p = new yarrek.core.geo.Position(
                        yarrek.formats.log.Numbers.parse(parts[0], false),
                        yarrek.formats.log.Numbers.parse(parts[1], false));
                lat = p.latitudeDeg();
                lon = p.longitudeDeg();
            } catch (IllegalArgumentException e) {
                form.error("place", e.getMessage());
            }
        }
        Double north = lat;
        Double east = lon;
        return form.store(
                        () -> {
                            if (id != null && state.equals("CLOSED")) {
                                duties.requireSettled(id, Viewer.current());
                            } else if (state.equals("CLOSED")) {
                                throw new IllegalArgumentException(
                                        "open it first: what has to be reported is not yet known");
                            }
                            return "redirect:/incidents/"
                                    + incidents.save(
                                            new Incidents.View(
                                                    id,
                                                    form.getVersion(),
                                                    kind,
                                                    statement,
                                                    day.atTime(time)
                                                            .atZone(zone)
                                                            .toInstant(),
                                                    north,
                                                    east,
                                                    from == null ? null : from.flightId(),
                                                    from == null ? null : from.ruleId(),
                                                    from == null ? "" : from.breach(),
                                                    harm,
                                                    state,
                                                    null,
                                                    null,
                                                    about),
                                            Viewer.current());
                        },
                        () -> form(id))
                .orElseGet(() -> form.page(model, "form"));
    }

    /** With seconds when they were filled in from a trace. */
    private static LocalTime time(Form form) {
        String typed = form.raw("time").strip();
        if (typed.matches("\\d{2}:\\d{2}:\\d{2}")) {
            try {
                return LocalTime.parse(typed);
            } catch (java.time.DateTimeException e) {
                form.error("time", "“" + typed + "” is not a time of day");
                return null;
            }
        }
        return form.time("time", true);
    }
}
