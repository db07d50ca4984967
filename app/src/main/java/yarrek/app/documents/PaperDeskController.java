package yarrek.app.documents;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.Form;
import yarrek.app.forms.TypedInput;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.print.Pdf;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.PaperKind;
import yarrek.core.rulebook.Vocabulary;

/** Pages of the papers together: the weave, the register, cover, recency, costs, kinds. */
@Controller
class PaperDeskController {
    private final PaperDesk desk;
    private final Papers papers;
    private final Jobs jobs;
    private final JobLists jobLists;
    private final Crew crew;
    private final Fleet fleet;
    private final Office office;
    private final Rulebook rulebook;
    private final Pdf pdf;

    PaperDeskController(
            PaperDesk desk,
            Papers papers,
            Jobs jobs,
            JobLists jobLists,
            Crew crew,
            Fleet fleet,
            Office office,
            Rulebook rulebook,
            Pdf pdf) {
        this.desk = desk;
        this.papers = papers;
        this.jobs = jobs;
        this.jobLists = jobLists;
        this.crew = crew;
        this.fleet = fleet;
        this.office = office;
        this.rulebook = rulebook;
        this.pdf = pdf;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers")
    String papers(
            @RequestParam(value = "zoom", defaultValue = "quarter") String zoom,
            @RequestParam(value = "at", defaultValue = "") String at,
            @RequestParam(value = "law", defaultValue = "") String law,
            @RequestParam(value = "holder", defaultValue = "") String holder,
            @RequestParam(value = "job", defaultValue = "") String job,
            @RequestParam(value = "year", defaultValue = "0") int year,
            @RequestParam(value = "q", defaultValue = "") String q,
            @RequestParam(value = "first", defaultValue = "0") int first,
            Model model) {
        Viewer viewer = Viewer.current();
        PaperDesk.Page page = desk.page(
                viewer,
                new PaperDesk.Asked(zoom, day(at), law, holder, job),
                year == 0 ? desk.today().getYear() : year,
                MOST_ROWS);
        fillWeave(page.weave(), model);
        model.addAttribute("holders", page.holders());
        model.addAttribute("laws", rulebook.jurisdictions());
        Map<UUID, String> soon =
                new LinkedHashMap<>(viewer.isPilot() ? Map.of() : jobLists.openNames(viewer, MOST_JOBS));
        if (!viewer.isPilot()) {
            identity(job).ifPresent(id -> soon.putAll(jobs.names(List.of(id))));
        }
        model.addAttribute("jobs", soon);
        Map<UUID, String> names = names(page.papers());
        model.addAttribute("names", names);
        List<Papers.Row> found = page.papers().stream()
                .filter(p -> names.containsKey(p.holderId()))
                .filter(p -> has(q, p.kindWords(), p.number(), names.get(p.holderId())))
                .toList();
        model.addAttribute("q", q);
        model.addAttribute("found", found.size());
        model.addAttribute(
                "rows", found.stream().skip(Math.max(0, first)).limit(PAGE).toList());
        model.addAttribute("first", Math.max(0, first));
        model.addAttribute("page", PAGE);
        model.addAttribute("recency", page.recency());
        page.covers().ifPresent(c -> model.addAttribute("covers", c));
        page.costs().ifPresent(c -> model.addAttribute("costs", c));
        return "documents/papers";
    }

    private static Optional<UUID> identity(String job) {
        try {
            return job.isEmpty() ? Optional.empty() : Optional.of(UUID.fromString(job));
        } catch (IllegalArgumentException e) {
            return Optional.empty(); // an address somebody changed by hand
        }
    }

    private LocalDate day(String at) {
        try {
            return at.isBlank() ? null : TypedInput.date(at, desk.today());
        } catch (IllegalArgumentException e) {
            return null; // an address somebody changed by hand; today is shown
        }
    }

    private static void fillWeave(PaperDesk.WeaveView v, Model model) {
        long step = PaperDesk.days(v.zoom()) / 2;
        model.addAttribute("view", v);
        model.addAttribute("earlier", v.from().minusDays(step));
        model.addAttribute("later", v.from().plusDays(step));
    }

    private static final int PAGE = 50;

    /** Rows of the weave on a page; the sheets hold all. */
    private static final int MOST_ROWS = 40;

    /** So many of the coming jobs are offered to look at; another is reached from its own page. */
    private static final int MOST_JOBS = 100;

    private static boolean has(String words, String... texts) {
        String w = words.strip().toLowerCase(Locale.ROOT);
        return w.isEmpty()
                || java.util.Arrays.stream(texts)
                        .anyMatch(t -> t != null && t.toLowerCase(Locale.ROOT).contains(w));
    }

    private Map<UUID, String> names(List<Papers.Row> rows) {
        Map<UUID, String> names = new HashMap<>(fleet.aircraftNames());
        crew.all().forEach(p -> names.put(p.id(), p.name()));
        names.put(office.operator().id(), "the operator");
        Set<UUID> granted = rows.stream()
                .filter(p -> p.holderKind().equals("job"))
                .map(Papers.Row::holderId)
                .collect(Collectors.toSet());
        jobs.names(granted).forEach((id, n) -> names.put(id, "job " + n));
        return names;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/weave.pdf")
    ResponseEntity<byte[]> weavePdf(
            @RequestParam(value = "zoom", defaultValue = "quarter") String zoom,
            @RequestParam(value = "at", defaultValue = "") String at,
            @RequestParam(value = "law", defaultValue = "") String law,
            @RequestParam(value = "holder", defaultValue = "") String holder,
            @RequestParam(value = "job", defaultValue = "") String job,
            @RequestParam(value = "sheet", defaultValue = "a4") String sheet) {
        PaperDesk.WeaveView v =
                desk.weave(Viewer.current(), new PaperDesk.Asked(zoom, day(at), law, holder, job), Integer.MAX_VALUE);
        Pdf.Sheet s = Pdf.Sheet.of(sheet);
        // units of the drawing on the sheet less its edges; rows are cut into as many drawings as sheets are needed
        int rows = s == Pdf.Sheet.A3 ? 44 : 28;
        return file(
                "validity-weave.pdf",
                pdf.render(
                        "documents/weave-pdf",
                        Map.of(
                                "view", v,
                                "size", s.landscape(),
                                "rowsPerSheet", rows,
                                "operator", office.operator(),
                                "today", desk.today())));
    }

    static ResponseEntity<byte[]> file(String name, byte[] content) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header("Content-Disposition", "inline; filename=\"" + name + "\"")
                .body(content);
    }

    /** From purchase to first flight; a fragment for the aircraft's page. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/purchase/{aircraftId}")
    String purchase(@PathVariable("aircraftId") UUID aircraftId, Model model) {
        model.addAttribute("purchase", desk.purchase(aircraftId));
        return "documents/purchase";
    }

    // --- kinds
    // ---------------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/kinds")
    String kinds(Model model) {
        model.addAttribute("kinds", papers.kinds());
        return "documents/kinds";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/kinds/new")
    String newKind(Model model) {
        return kindForm("New kind of paper", "/papers/kinds/new", true)
                .set("leadDays", 14)
                .set("shown", "no")
                .set("house", "no")
                .page(model, "form");
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers/kinds/edit/{code}")
    String editKind(@PathVariable("code") String code, Model model) {
        return filledKind(code).page(model, "form");
    }

    private Form filledKind(String code) {
        Papers.Kind k = kind(code);
        return kindForm(k.words(), "/papers/kinds/edit/" + code, false)
                .set("words", k.words())
                .set("levels", String.join("; ", k.levels()))
                .set("leadDays", k.leadDays())
                .set("renewEarly", k.renewEarlyDays())
                .set("cost", k.cost())
                .set("currency", k.currency())
                .set("needs", k.needs())
                .set("insures", k.insures())
                .set("settles", k.meaning().settles().orElse(""))
                .set("noneIsNo", k.meaning().noneIsNo() ? "yes" : "no")
                .set("alsoForJob", k.meaning().alsoForJob() ? "yes" : "no")
                .set("home", k.meaning().home().map(Enum::name).orElse(""))
                .set("opensCategory", k.meaning().opensCategory() ? "yes" : "no")
                .set("answers", k.meaning().answers().orElse(""))
                .set("shown", k.shown() ? "yes" : "no")
                .set("house", rulebook.houseNeeds(code) ? "yes" : "no")
                .version(k.version())
                .history("paper-kind", code);
    }

    private Papers.Kind kind(String code) {
        return papers.kinds().stream()
                .filter(k -> k.code().equals(code))
                .findFirst()
                .orElseThrow(() -> new NotFoundException("kind of paper"));
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/papers/kinds/new")
    String createKind(@RequestParam MultiValueMap<String, String> params, Model model) {
        return storeKind(
                kindForm("New kind of paper", "/papers/kinds/new", true).bind(params), null, model);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/papers/kinds/edit/{code}")
    String changeKind(
            @PathVariable("code") String code, @RequestParam MultiValueMap<String, String> params, Model model) {
        return storeKind(filledKind(code).bind(params), kind(code), model);
    }

    private String storeKind(Form form, Papers.Kind of, Model model) {
        String words = form.requiredText("words", 80);
        String code = of != null ? of.code() : form.requiredText("code", 60);
        if (of == null && !code.matches("[a-z][A-Za-z0-9]{1,58}|")) {
            form.error("code", "letters and figures that begin with a small letter, such as customsPaper");
        }
        String holder = of != null ? of.holder() : form.choice("holder", true);
        Double cost = form.number("cost", "", 0, 1e9, false);
        String currency = form.optionalText("currency", 3).toUpperCase(java.util.Locale.ROOT);
        if (cost != null && !currency.matches("[A-Z]{3}")) {
            form.error("currency", "three letters such as EUR");
        }
        Integer lead = form.whole("leadDays", 0, 1000, true);
        Integer early = form.whole("renewEarly", 0, 3650, false);
        String insures = form.choice("insures", false);
        String settles = form.choice("settles", false);
        String home = form.choice("home", false);
        String answers = form.choice("answers", false);
        String needs = form.optionalText("needs", 400);
        java.util.List<String> levels = java.util.Arrays.stream(
                        form.optionalText("levels", 400).split(";"))
                .map(String::strip)
                .filter(l -> !l.isEmpty())
                .toList();
        return form.store(
                        () -> {
                            papers.saveKind(
                                    new Papers.Kind(
                                            code,
                                            form.getVersion(),
                                            words,
                                            holder,
                                            levels,
                                            lead,
                                            early,
                                            cost == null ? null : java.math.BigDecimal.valueOf(cost),
                                            currency.isEmpty() ? null : currency,
                                            needs,
                                            form.raw("shown").equals("yes"),
                                            new PaperKind(
                                                    code,
                                                    words,
                                                    holder,
                                                    Optional.ofNullable(settles),
                                                    form.raw("noneIsNo").equals("yes"),
                                                    form.raw("alsoForJob").equals("yes"),
                                                    Optional.ofNullable(home).map(PaperKind.Home::valueOf),
                                                    form.raw("opensCategory").equals("yes"),
                                                    Optional.ofNullable(answers),
                                                    Optional.ofNullable(insures))),
                                    of == null);
                            rulebook.houseNeeds(
                                    code,
                                    words,
                                    holder,
                                    form.raw("house").equals("yes"),
                                    Viewer.current().name());
                            return "redirect:/papers/kinds";
                        },
                        () -> filledKind(code))
                .orElseGet(() -> form.page(model, "form"));
    }

    private static Form kindForm(String title, String action, boolean isNew) {
        Form form = new Form(title, action, "/papers/kinds").text("words", "Name", "as people say it");
        if (isNew) {
            form.text("code", "Code", "never changes; rules name it, such as customsPaper")
                    .select("holder", "Held by", "", Form.words("choose", "operator", "pilot", "aircraft", "job"));
        }
        return form.text("levels", "Levels", "with semicolons between, such as A1/A3; A2")
                .text("leadDays", "Lead time", "days")
                .text("renewEarly", "May be renewed", "days before its end at the earliest")
                .text("cost", "Usual cost", "")
                .text("currency", "Currency", "such as EUR")
                .text("needs", "Needs", "what must be at hand")
                .select("insures", "Insures", "", Form.words("nothing", "liability", "hull", "trip"))
                .select("shown", "An official may ask for it", "", Form.words("choose", "yes", "no"))
                .select(
                        "house",
                        "The house needs it for every job",
                        "then a job without one in force does not go",
                        Form.words("no answer", "yes", "no"))
                .group("What follows from it")
                .select("settles", "Settles", "the fact that one in force answers: yes, or the levels held", settled())
                .select("noneIsNo", "None in force means no", "else it stays not known", Form.words("no", "yes"))
                .select(
                        "alsoForJob",
                        "May be granted for one job",
                        "and counts as its holder's for it",
                        Form.words("no", "yes"))
                .select(
                        "home",
                        "Shows where its holder is at home",
                        "decides whether pilot or aircraft are foreign",
                        List.of(
                                new Form.Option("", "no"),
                                new Form.Option("CERTIFICATE", "as the pilot's certificate"),
                                new Form.Option("REGISTRATION", "as a registration")))
                .select(
                        "opensCategory",
                        "Opens another category",
                        "with one on file, a flight of no job may be of it",
                        Form.words("no", "yes"))
                .select(
                        "answers",
                        "Answers in an application",
                        "and its scans go into the annex",
                        Form.words("nothing", PaperKind.QUESTIONS.toArray(String[]::new)));
    }

    /** Facts that a paper may settle: a yes or no, or a list of words. */
    private static List<Form.Option> settled() {
        List<Form.Option> options = new ArrayList<>(List.of(new Form.Option("", "nothing")));
        Vocabulary.all().stream()
                .filter(d -> (d.type() == FactType.YES_NO || d.type() == FactType.WORDS)
                        && !d.group().equals("occurrence"))
                .sorted(Comparator.comparing(FactDefinition::label))
                .forEach(d -> options.add(new Form.Option(d.name(), d.label())));
        return options;
    }
}
