package yarrek.app.jobs;

import java.time.Clock;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.answers.Answers;
import yarrek.app.approvals.Approvals;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.Form;
import yarrek.app.forms.TypedInput;
import yarrek.app.history.History;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.Days;

/** Pages of the jobs. Translates between HTTP and {@link Jobs}; decides nothing itself. */
@Controller
class JobsController {
    /** What may be made of a job on its page, and what is told of it. */
    private static final Map<String, String> STATES = Map.of(
            "PLANNED", "The job stands as planned again.",
            "FLOWN", "The job stands as flown.",
            "CANCELLED", "The job is cancelled.");

    private static final int WEAVE_DAYS_BEFORE = 7;
    private static final int WEAVE_DAYS_AFTER = 90;
    private static final int MOST_WEAVE_HOLDERS = 60;

    private final Jobs jobs;
    private final JobPapers jobPapers;
    private final JobJudging jobJudging;
    private final JobLists jobLists;
    private final JobRegister register;
    private final Crew crew;
    private final Fleet fleet;
    private final Papers papers;
    private final Approvals approvals;
    private final Office office;
    private final Answers answers;
    private final Rulebook rulebook;
    private final Clock clock;
    private final History history;

    JobsController(
            Jobs jobs,
            JobPapers jobPapers,
            JobJudging jobJudging,
            JobLists jobLists,
            JobRegister register,
            Crew crew,
            Fleet fleet,
            Papers papers,
            Approvals approvals,
            Office office,
            Answers answers,
            Rulebook rulebook,
            Clock clock,
            History history) {
        this.history = history;
        this.answers = answers;
        this.rulebook = rulebook;
        this.jobs = jobs;
        this.jobPapers = jobPapers;
        this.jobJudging = jobJudging;
        this.jobLists = jobLists;
        this.register = register;
        this.crew = crew;
        this.fleet = fleet;
        this.papers = papers;
        this.approvals = approvals;
        this.office = office;
        this.clock = clock;
    }

    private static final int PAGE = 100;

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs")
    String jobs(
            @RequestParam(value = "q", defaultValue = "") String words,
            @RequestParam(value = "ahead", defaultValue = "0") int ahead,
            @RequestParam(value = "past", defaultValue = "0") int past,
            Model model) {
        Viewer viewer = Viewer.current();
        model.addAttribute("q", words);
        model.addAttribute("page", PAGE);
        model.addAttribute("from", Map.of("ahead", Math.max(0, ahead), "past", Math.max(0, past)));
        model.addAttribute(
                "found",
                Map.of(
                        "ahead", jobLists.find(viewer, words, true, Math.max(0, ahead), PAGE),
                        "past", jobLists.find(viewer, words, false, Math.max(0, past), PAGE)));
        return "jobs/jobs";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}")
    String job(@PathVariable("id") UUID id, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        model.addAttribute("job", job);
        List<Papers.Row> own = papers.of(List.of(id));
        model.addAttribute("papers", own);
        model.addAttribute(
                "spine",
                JobSpine.of(
                                job,
                                approvals.of(id),
                                approvals.toSend(
                                        id,
                                        LocalDate.now(clock.withZone(job.site().zone()))),
                                own.size())
                        .parts());
        model.addAttribute("waivers", rulebook.waivers(id));
        model.addAttribute("paperDays", jobPapers.paperDays(job));
        model.addAttribute("planned", FlightLine.of(job, crew.names()));
        Map<UUID, Fleet.Weighed> weighed = new LinkedHashMap<>();
        job.builds().forEach(b -> fleet.weighed(b, job.site().jurisdiction()).ifPresent(w -> weighed.put(b.id(), w)));
        model.addAttribute("weighed", weighed);
        return "jobs/job";
    }

    /** A question that is open, what it may be answered for, and what it usually is about. */
    public record Question(FactDefinition definition, List<Answers.About> about, Answers.About usual) {}

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/questions")
    String questions(@PathVariable("id") UUID id, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        Map<Answers.About, UUID> about = jobJudging.about(id);
        List<Answers.About> may = List.copyOf(about.keySet());
        model.addAttribute("job", job);
        model.addAttribute(
                "questions",
                job.assessment().missingFacts().stream()
                        .filter(Vocabulary::knows)
                        .filter(f -> !Viewer.current().isPilot() || isOfTheDay(f))
                        .map(Vocabulary::define)
                        .map(d -> new Question(
                                d,
                                may,
                                about.containsKey(Answers.About.usual(d)) ? Answers.About.usual(d) : Answers.About.JOB))
                        .toList());
        model.addAttribute("answers", answers.of(about.values()));
        return "jobs/questions";
    }

    @OpenTo(OpenTo.Whom.CREW)
    @PostMapping("/jobs/{id}/answers")
    String answer(
            @PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, RedirectAttributes flash) {
        jobs.job(id, Viewer.current());
        Map<Answers.About, UUID> about = jobJudging.about(id);
        Map<Answers.About, Map<String, String>> said = new java.util.EnumMap<>(Answers.About.class);
        params.forEach((name, values) -> {
            String fact = name.startsWith("f.") ? name.substring(2) : "";
            boolean taken = params.containsKey("take." + fact);
            if (Vocabulary.knows(fact) && (taken || !values.get(0).isBlank())) {
                // a pilot speaks for the day of a job and for nothing that lasts
                Answers.About a = Viewer.current().isPilot()
                        ? Answers.About.JOB
                        : Answers.About.valueOf(params.getFirst("a." + fact));
                if (Viewer.current().isPilot() && !isOfTheDay(fact)) {
                    throw new org.springframework.security.access.AccessDeniedException(
                            "a pilot says what can only be said on the day");
                }
                said.computeIfAbsent(a, k -> new java.util.LinkedHashMap<>()).put(fact, values.get(0));
            }
        });
        try {
            said.forEach((a, typed) ->
                    answers.say(a, about.get(a), typed, Viewer.current().name()));
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/jobs/" + id + "#questions";
    }

    private static boolean isOfTheDay(String fact) {
        return Vocabulary.define(fact).group().equals("day");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/waivers")
    String waive(
            @PathVariable("id") UUID id,
            @RequestParam("rule") String rule,
            @RequestParam("reason") String reason,
            @RequestParam("until") String until,
            RedirectAttributes flash) {
        try {
            if (reason.isBlank()) {
                throw new IllegalArgumentException("a departure needs its reason");
            }
            rulebook.waive(
                    id,
                    rule,
                    reason.strip().substring(0, Math.min(1000, reason.strip().length())),
                    TypedInput.date(
                            until,
                            LocalDate.now(clock.withZone(office.operator().zone()))),
                    Viewer.current().name());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/jobs/" + id + "#findings";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/waivers/{id}/end")
    String endWaiver(@PathVariable("id") UUID id) {
        return "redirect:/jobs/" + rulebook.endWaiver(id, Viewer.current().name()) + "#findings";
    }

    /** The jobs that use a build, for the weighing page. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/of-build/{buildId}")
    String ofBuild(@PathVariable("buildId") UUID buildId, Model model) {
        Viewer viewer = Viewer.current();
        model.addAttribute(
                "jobs",
                jobLists.usingBuild(buildId).stream()
                        .filter(j -> j.seenBy(viewer))
                        .toList());
        return "jobs/of-build";
    }

    /** The validity weave of all pilots or aircraft, or of one, with the jobs across it; a fragment for their pages. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/weave")
    String weave(@RequestParam("of") String of, @RequestParam(value = "id", required = false) UUID id, Model model) {
        Viewer viewer = Viewer.current();
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        LocalDate from = today.minusDays(WEAVE_DAYS_BEFORE);
        LocalDate through = today.plusDays(WEAVE_DAYS_AFTER);
        List<Papers.Holder> holders = of.equals("pilot")
                ? crew.all().stream()
                        .filter(p -> viewer.maySee(p.id()))
                        .map(p -> new Papers.Holder("pilot", p.id(), p.name()))
                        .toList()
                : fleet.aircraftNames().entrySet().stream()
                        .sorted(java.util.Map.Entry.comparingByValue())
                        .map(a -> new Papers.Holder("aircraft", a.getKey(), a.getValue()))
                        .toList();
        List<Papers.Holder> shown = holders.stream()
                .filter(h -> id == null || h.id().equals(id))
                .limit(MOST_WEAVE_HOLDERS)
                .toList();
        model.addAttribute(
                "weave",
                papers.weave(
                        from,
                        through,
                        office.operator().zone(),
                        shown,
                        viewer.isPilot() ? List.of() : jobPapers.spans(from, through)));
        return "jobs/weave";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/new")
    String newJob(Model model) {
        Form form = register.jobs()
                .form("New job", "/jobs/new", "/jobs", null)
                .set("category", "open")
                .set("purpose", "work")
                .set("heightReference", "GROUND");
        return form.page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/new")
    String create(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(register.jobs().form("New job", "/jobs/new", "/jobs", null), params, null, model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/edit")
    String edit(@PathVariable("id") UUID id, Model model) {
        return form(id).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/edit")
    String change(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(form(id), params, id, model);
    }

    /** The same job on other days; what was said for those days alone is asked again. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/jobs/{id}/repeat")
    String repeat(@PathVariable("id") UUID id, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        return repeatForm(job).page(model, "form");
    }

    private static Form repeatForm(Jobs.JobView job) {
        return new Form("Repeat: " + job.draft().name(), "/jobs/" + job.id() + "/repeat", "/jobs/" + job.id())
                .text("firstDay", "First day", "a date such as 14 Mar 2027 or tomorrow; it lasts as long as this one")
                .text("name", "Name", "empty: as this one, with the day");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/repeat")
    String repeated(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        Form form = repeatForm(job).bind(params);
        LocalDate first = form.date(
                "firstDay", true, LocalDate.now(clock.withZone(job.site().zone())));
        String typed = form.optionalText("name", 120);
        String name = typed.isEmpty() && first != null ? job.draft().name() + ", " + Days.show(first) : typed;
        return form.store(() -> "redirect:/jobs/" + jobs.repeat(id, job.draft().repeated(name, first)))
                .orElseGet(() -> form.page(model, "form"));
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/state")
    String state(@PathVariable("id") UUID id, @RequestParam("value") String value, RedirectAttributes flash) {
        if (STATES.containsKey(value) && jobs.setState(id, value)) {
            history.undo("job", id).tell(flash, STATES.get(value));
        }
        return "redirect:/jobs/" + id;
    }

    private Form form(UUID id) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        return register.jobs()
                .form(
                        job.draft().name(),
                        "/jobs/" + id + "/edit",
                        "/jobs/" + id,
                        new Jobs.Stored(id, job.version(), job.draft()));
    }

    private String store(Form form, MultiValueMap<String, String> params, UUID id, Model model) {
        Supplier<UUID> saving = register.jobs().read().apply(form.bind(params), id);
        return form.store(() -> "redirect:/jobs/" + saving.get(), () -> form(id))
                .orElseGet(() -> form.page(model, "form"));
    }
}
