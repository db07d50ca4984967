package yarrek.app.begin;

import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.airspace.Sites;
import yarrek.app.crew.Crew;
import yarrek.app.demo.Sample;
import yarrek.app.fleet.Fleet;
import yarrek.app.fleet.FleetRegisters;
import yarrek.app.forms.Form;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.Vocabulary;

/** One path in the order of the work; each step leads to the next. */
@Controller
class BeginController {
    private static final String PACKS = "packs";

    private final Begin begin;
    private final Office office;
    private final Rulebook rulebook;
    private final Papers papers;
    private final Fleet fleet;
    private final Crew crew;
    private final Sites sites;
    private final Sample sample;

    BeginController(
            Begin begin,
            Office office,
            Rulebook rulebook,
            Papers papers,
            Fleet fleet,
            Crew crew,
            Sites sites,
            Sample sample) {
        this.sample = sample;
        this.begin = begin;
        this.office = office;
        this.rulebook = rulebook;
        this.papers = papers;
        this.fleet = fleet;
        this.crew = crew;
        this.sites = sites;
    }

    /** The way, or straight to the first step of which nothing is on file. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/begin")
    String begin(Model model) {
        List<Begin.Standing> steps = begin.steps();
        model.addAttribute("steps", steps);
        model.addAttribute("next", Begin.next(steps).orElse(null));
        model.addAttribute("sampleIn", sample.isIn());
        model.addAttribute("sampleFits", sample.fits());
        return "begin/begin";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/begin/{step}")
    String step(@PathVariable("step") String path, Model model) {
        Begin.Step step = step(path);
        return step == Begin.Step.LOG ? log(model) : show(step, form(step), model);
    }

    private static Begin.Step step(String path) {
        return Begin.Step.of(path).orElseThrow(() -> new NotFoundException("step"));
    }

    private String log(Model model) {
        model.addAttribute("steps", begin.steps());
        model.addAttribute("step", Begin.Step.LOG);
        return "begin/log";
    }

    private String show(Begin.Step step, Form form, Model model) {
        model.addAttribute("steps", begin.steps());
        model.addAttribute("step", step);
        return form.page(model, "begin/step");
    }

    private String next() {
        return Begin.next(begin.steps()).map(s -> "redirect:/begin/" + s.path()).orElse("redirect:/");
    }

    private Form form(Begin.Step step) {
        Form form = new Form(step.words(), "/begin/" + step.path(), "/begin");
        return switch (step) {
            case OPERATOR -> operator(form);
            case AIRCRAFT -> aircraft(form);
            case PILOT -> pilot(form);
            case SITE -> site(form);
            case JOB -> job(form);
            case LOG -> throw new NotFoundException("form");
        };
    }

    private Form operator(Form form) {
        form.text("name", "Name", "as the registration says it")
                .select(
                        "jurisdiction",
                        "Law at home",
                        "the state where it is in a union",
                        Form.choices("choose", rulebook.places()))
                .text("zone", "Time zone", "such as Atlantic/Azores");
        Office.OperatorView o = office.operator();
        if (office.isSetUp()) {
            form.set("name", o.name()).set("jurisdiction", o.jurisdiction());
        }
        return form.version(o.version()).set("zone", o.zone().getId());
    }

    private static Form aircraft(Form form) {
        return form.group("The aircraft")
                .text("model", "Maker and model", "the first word is the maker, such as Vosmere Ledge Pro")
                .text("serial", "Serial number", "of the airframe")
                .text("airframeMass", "Mass without pack", "such as 166.2 g; weigh it, or take the maker's figure")
                .select("classMark", "Class mark", "as on the label", FleetRegisters.classMarks())
                .text("name", "Called", "as the crew says it; empty: as the model")
                .group("Its packs")
                .text("packMass", "Mass of one pack", "such as 82.5 g")
                .text("capacity", "Capacity", "mAh, as printed")
                .text("nominal", "Nominal voltage", "V, of the whole pack, as printed")
                .text("cells", "Cells in series", "empty: reckoned from the voltage")
                .text(PACKS, "How many there are", "")
                .group("Look through: taken as they stand unless changed")
                .fields(FleetRegisters::whatItIs)
                // on the strict side: each of these asks for more than its opposite
                .set("remoteId", "none")
                .set("hasCamera", "yes")
                .set("privatelyBuilt", "no")
                .set("isToy", "no")
                .set(PACKS, "1");
    }

    private Form pilot(Form form) {
        List<Form.Option> kinds = new ArrayList<>(List.of(new Form.Option("", "none yet")));
        papers.kinds().stream().filter(k -> k.holder().equals("pilot")).forEach(k -> {
            if (k.levels().isEmpty()) {
                kinds.add(new Form.Option(k.code(), k.words()));
            }
            k.levels().forEach(l -> kinds.add(new Form.Option(k.code() + "/" + l, k.words() + " " + l)));
        });
        return form.text("name", "Name", "")
                .text("phone", "Telephone", "in international form; may be empty")
                .group("A certificate")
                .select("kind", "Kind", "", kinds)
                .text("number", "Number", "as printed")
                .text("issuer", "Issued by", "")
                .text("validTo", "Valid to", "last day; empty: not known")
                .set("issuer", "not said");
    }

    private static Form site(Form form) {
        return form.text("name", "Name", "")
                .text("launch", "Launch point", "such as 46.6123, -17.8934, as most maps copy it")
                .text("radius", "Flown within", "of the launch point; drawn exactly later under Airspace")
                .set("radius", "200 m");
    }

    private Form job(Form form) {
        return form.text("name", "What for", "")
                .select("siteId", "Site", "", options(sites.names()))
                .text("firstDay", "Day", "a date such as 14 Mar 2027 or tomorrow")
                .text("from", "From", "local time")
                .text("to", "To", "local time")
                .text("height", "Greatest height", "above ground, such as 60 m")
                .select("category", "Category", "", words("category"))
                .select("purpose", "Purpose", "", words("purpose"))
                .select("pilotId", "Pilot in command", "", options(people()))
                .select("buildId", "Build", "", options(builds()))
                .set("name", sites.names().values().stream().findFirst().orElse("") + ", first job")
                .set("siteId", first(sites.names()))
                .set("firstDay", begin.today())
                .set("from", "10:00")
                .set("to", "12:00")
                .set("height", "60 m")
                .set("category", "open")
                .set("purpose", "work")
                .set("pilotId", first(people()))
                .set("buildId", first(builds()));
    }

    private Map<java.util.UUID, String> people() {
        Map<java.util.UUID, String> people = new LinkedHashMap<>();
        crew.all().forEach(p -> people.put(p.id(), p.name()));
        return people;
    }

    private Map<java.util.UUID, String> builds() {
        Map<java.util.UUID, String> builds = new LinkedHashMap<>();
        fleet.builds().forEach(b -> builds.put(b.id(), b.aircraft().name() + ", " + b.name()));
        return builds;
    }

    /** The words of a question of the plan, as the vocabulary has them. */
    private static List<Form.Option> words(String fact) {
        return Form.words("not known", Vocabulary.define(fact).words().toArray(String[]::new));
    }

    private static Object first(Map<java.util.UUID, String> of) {
        return of.size() == 1 ? of.keySet().iterator().next() : "";
    }

    private static List<Form.Option> options(Map<java.util.UUID, String> of) {
        List<Form.Option> all = new ArrayList<>(List.of(new Form.Option("", "not yet")));
        of.forEach((id, name) -> all.add(new Form.Option(id.toString(), name)));
        return all;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/begin/{step}")
    String store(@PathVariable("step") String path, @RequestParam MultiValueMap<String, String> params, Model model) {
        Begin.Step step = step(path);
        Form form = form(step).bind(params);
        Map<String, String> typed = new LinkedHashMap<>();
        form.fields().forEach(f -> typed.put(f.name(), form.raw(f.name()).strip()));
        Consumer<Map<String, String>> work = switch (step) {
            case OPERATOR -> {
                operatorWrong(form);
                yield t -> office.saveOperator(
                        form.getVersion(),
                        t.get("name"),
                        t.get("jurisdiction"),
                        ZoneId.of(t.get("zone")),
                        office.operator().phone());
            }
            case AIRCRAFT -> {
                String called = form.requiredText("model", 120);
                if (called != null && !called.isEmpty() && !called.contains(" ")) {
                    form.error("model", "write the maker and the model, with a blank between");
                }
                form.whole(PACKS, 0, 50, true);
                yield begin::aircraft;
            }
            case PILOT -> {
                form.requiredText("name", 120);
                yield begin::pilot;
            }
            case SITE -> {
                form.requiredText("launch", 80);
                form.metres("radius", 5, 50_000);
                yield begin::site;
            }
            case JOB -> begin::job;
            case LOG -> throw new NotFoundException("form");
        };
        return form.store(() -> {
                    try {
                        work.accept(typed);
                        return next();
                    } catch (Begin.WrongException e) {
                        e.fields().forEach((field, words) -> {
                            if (form.fields().stream().anyMatch(f -> f.name().equals(field))) {
                                form.error(field, words);
                            } else {
                                form.problem(field + ": " + words);
                            }
                        });
                        return "";
                    }
                })
                .filter(led -> !led.isEmpty())
                .orElseGet(() -> show(step, form, model));
    }

    private void operatorWrong(Form form) {
        form.requiredText("name", 160);
        form.choice("jurisdiction", true);
        String zone = form.requiredText("zone", 64);
        try {
            ZoneId.of(zone == null || zone.isEmpty() ? "UTC" : zone);
        } catch (DateTimeException e) {
            form.error("zone", "“" + zone + "” is no time zone; write Europe/Lisbon or UTC");
        }
    }
}
