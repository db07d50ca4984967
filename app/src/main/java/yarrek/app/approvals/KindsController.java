package yarrek.app.approvals;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.Form;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.Lead;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Vocabulary;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.rules.ApprovalKindReader;

/** Kinds of approval as a list and a form, how chains are planned, and the plans that applications quote. */
@Controller
class KindsController {
    private static final List<String> PROCEDURES = List.of("normal", "emergency", "lostLink", "flyAway");

    private final Kinds kinds;
    private final Rulebook rulebook;

    KindsController(Kinds kinds, Rulebook rulebook) {
        this.kinds = kinds;
        this.rulebook = rulebook;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/kinds")
    String list(@RequestParam(value = "in", defaultValue = "") String in, Model model) {
        model.addAttribute(
                "kinds",
                kinds.rows().stream()
                        .filter(k -> in.isEmpty() || k.kind().holdsIn(in))
                        .toList());
        model.addAttribute("places", List.copyOf(rulebook.jurisdictions().keySet()));
        model.addAttribute("in", in);
        model.addAttribute("settings", kinds.settings());
        return "chains/kinds";
    }

    private Form form(String title, String action) {
        return new Form(title, action, "/approvals/kinds")
                .group("What it is")
                .text("code", "Code", "letters, figures and hyphens, such as pierPermit; it never changes")
                .text("title", "Title", "")
                .text("granter", "Who grants it", "")
                .text("in", "Asked for in", "codes such as EU GB; empty: everywhere")
                .select("active", "In use", "", List.of(new Form.Option("yes", "yes"), new Form.Option("no", "no")))
                .text("source", "Written where", "law or letter, and how sure it is")
                .group("When it is needed: any of these")
                .area("answers", "When one of these rules is breached without it", "rule ids with spaces between")
                .ticks(
                        "zones",
                        "For zones of these kinds",
                        "",
                        Arrays.stream(ZoneKind.values())
                                .filter(z -> z != ZoneKind.MAKER)
                                .map(z -> new Form.Option(z.name(), z.words()))
                                .toList())
                .select("makersMap", "When the maker's map blocks", "", Form.words("no", "yes"))
                .text(
                        "when",
                        "When this holds of the job",
                        "as a rule writes it, such as {fact: event, isOneOf: [advertised]}")
                .group("What comes before it")
                .text("needs", "Needs", "codes of kinds that are always needed with it, and granted first")
                .text("after", "Comes after", "codes of kinds that are granted first where they are needed at all")
                .text("quotes", "Quotes the number of", "codes of kinds")
                .group("Work and time")
                .text("hours", "Hours of work", "for the first of a job, such as 12")
                .text("copyHours", "Hours of each copy", "for further days, such as 0.25")
                .text("usual", "Takes as a rule", "such as 10 days or 20 working days")
                .text("worst", "Takes at worst", "such as 30 days")
                .text("earliestDays", "May be sent at the earliest", "days before; 0: any time")
                .text("longestDays", "Covers at most", "days in one request; 0: any number")
                .text("fee", "Fee", "such as 120.00 EUR; empty: none or not known")
                .group("What holding it means")
                .text("paper", "Becomes a paper of the kind", "such as approval, unlock, landownerPermission")
                .text("level", "Level", "")
                .area(
                        "settles",
                        "Facts it settles",
                        "one on a line, such as airspace.authorised = yes; “ceiling” stands for the ceiling granted")
                .select("unlock", "It is a maker's unlock", "", Form.words("no", "yes"))
                .select(
                        "desk",
                        "Desk that takes it over HTTP",
                        "simulated",
                        List.of(
                                new Form.Option("", "none"),
                                new Form.Option("air", "air-navigation desk"),
                                new Form.Option("unlock", "unlock desk")))
                .group("Questions")
                .area(
                        "questions",
                        "One on a line",
                        "number | section | question | answered from; a star before a question that is weighed most");
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/kinds/new")
    String blank(Model model) {
        return form("New kind of approval", "/approvals/kinds/new")
                .set("active", "yes")
                .set("hours", "1")
                .set("copyHours", "0.5")
                .set("usual", "5 days")
                .set("worst", "14 days")
                .set("earliestDays", "0")
                .set("longestDays", "0")
                .set("paper", "approval")
                .page(model, "form");
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/kinds/{code}")
    String edit(@PathVariable("code") String code, Model model) {
        model.addAttribute("row", kinds.row(code));
        return filled(code).page(model, "chains/kind");
    }

    private Form filled(String code) {
        Kinds.Row r = kinds.row(code);
        ApprovalKind k = r.kind();
        return form(k.title(), "/approvals/kinds/" + code)
                .version(r.version())
                .set("code", k.code())
                .set("title", k.title())
                .set("granter", k.granter())
                .set("in", spaced(k.jurisdictions()))
                .set("active", r.active() ? "yes" : "no")
                .set("source", k.source())
                .set("answers", spaced(k.trigger().answers()))
                .setAll("zones", k.trigger().zones().stream().map(Enum::name).toList())
                .set("makersMap", k.trigger().makersMap() ? "yes" : "")
                .set("when", r.when())
                .set("needs", spaced(k.needs()))
                .set("after", spaced(k.after()))
                .set("quotes", spaced(k.quotes()))
                .set("hours", yarrek.core.units.Finite.format(k.prepareHours()))
                .set("copyHours", yarrek.core.units.Finite.format(k.copyHours()))
                .set("usual", k.usual().words())
                .set("worst", k.worst().words())
                .set("earliestDays", k.earliestDays())
                .set("longestDays", k.longestDays())
                .set("fee", k.fee().map(Object::toString).orElse(""))
                .set("paper", k.gives().paper())
                .set("level", k.gives().level())
                .set(
                        "settles",
                        k.gives().facts().entrySet().stream()
                                .sorted(Map.Entry.comparingByKey())
                                .map(e -> e.getKey() + " = " + e.getValue())
                                .collect(Collectors.joining("\n")))
                .set("unlock", k.unlock() ? "yes" : "")
                .set("desk", k.desk())
                .set(
                        "questions",
                        k.questions().stream()
                                .map(q -> q.number() + " | " + q.section() + " | " + (q.weighty() ? "* " : "") + q.ask()
                                        + " | " + q.from())
                                .collect(Collectors.joining("\n")));
    }

    private static String spaced(Set<String> codes) {
        return codes.stream().sorted().collect(Collectors.joining(" "));
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/kinds/new")
    String create(@RequestParam MultiValueMap<String, String> params, Model model) {
        Form form = form("New kind of approval", "/approvals/kinds/new").bind(params);
        if (kinds.find(form.raw("code").strip()).isPresent()) {
            form.error("code", "there is a kind with this code already; open it from the list");
        }
        return store(form, () -> form, model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/kinds/{code}")
    String change(@PathVariable("code") String code, @RequestParam MultiValueMap<String, String> params, Model model) {
        Kinds.Row r = kinds.row(code);
        Form form = form(r.kind().title(), "/approvals/kinds/" + code).bind(params);
        if (!form.raw("code").strip().equals(code)) {
            form.error("code", "the code of a kind never changes; make a new kind");
        }
        model.addAttribute("row", r);
        return store(form, () -> filled(code), model, "chains/kind");
    }

    private String store(Form form, Supplier<Form> now, Model model, String template) {
        Optional<ApprovalKind> kind = read(form);
        return form.store(
                        () -> {
                            try {
                                kinds.save(
                                        kind.orElseThrow(),
                                        form.raw("when"),
                                        !form.raw("active").equals("no"),
                                        form.getVersion(),
                                        Viewer.current().name());
                            } catch (BrokenFileException e) {
                                throw new IllegalArgumentException(e.getMessage(), e);
                            }
                            return "redirect:/approvals/kinds";
                        },
                        now)
                .orElseGet(() -> form.page(model, template));
    }

    private Optional<ApprovalKind> read(Form form) {
        String code = form.requiredText("code", 40);
        String title = form.requiredText("title", 160);
        String granter = form.requiredText("granter", 160);
        String source = form.requiredText("source", 400);
        Set<String> answers = codes(form.optionalText("answers", 2000));
        answers.stream()
                .filter(id -> rulebook.rule(id).isEmpty())
                .findFirst()
                .ifPresent(id -> form.error("answers", "there is no rule “" + id + "” in the packs of today"));
        Double hours = form.number("hours", "h", 0, 10_000, true);
        Double copy = form.number("copyHours", "h", 0, 10_000, true);
        if (hours != null && copy != null && copy > hours) {
            form.error("copyHours", "a copy takes no more than the first");
        }
        Lead usual = lead(form, "usual");
        Lead worst = lead(form, "worst");
        Integer earliest = form.whole("earliestDays", 0, 1000, true);
        Integer longest = form.whole("longestDays", 0, 1000, true);
        Optional<ApprovalKind.Fee> fee = fee(form);
        Map<String, String> settles = settles(form);
        List<ApprovalKind.Question> questions = questions(form);
        if (form.hasErrors()) {
            return Optional.empty();
        }
        Set<ZoneKind> zones = form.all("zones").stream()
                .filter(z ->
                        Arrays.stream(ZoneKind.values()).anyMatch(k -> k.name().equals(z)))
                .map(ZoneKind::valueOf)
                .collect(Collectors.toSet());
        return Optional.of(new ApprovalKind(
                code,
                title,
                codes(form.raw("in").toUpperCase(java.util.Locale.ROOT)),
                granter,
                new ApprovalKind.Trigger(answers, zones, form.raw("makersMap").equals("yes"), Condition.never()),
                codes(form.raw("needs")),
                codes(form.raw("after")),
                hours,
                copy,
                usual,
                worst,
                earliest,
                longest,
                fee,
                codes(form.raw("quotes")),
                new ApprovalKind.Gives(
                        form.raw("paper").isBlank()
                                ? "approval"
                                : form.raw("paper").strip(),
                        form.raw("level").strip(),
                        settles),
                form.raw("unlock").equals("yes"),
                form.raw("desk"),
                questions,
                source));
    }

    private static Set<String> codes(String typed) {
        return Arrays.stream(typed.strip().split("[\\s,;]+"))
                .filter(c -> !c.isEmpty())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    private static Lead lead(Form form, String name) {
        try {
            return ApprovalKindReader.lead(form.raw(name).strip());
        } catch (IllegalArgumentException e) {
            form.error(name, e.getMessage());
            return Lead.ofDays(0);
        }
    }

    private static Optional<ApprovalKind.Fee> fee(Form form) {
        String t = form.raw("fee").strip();
        try {
            return t.isEmpty() ? Optional.empty() : Optional.of(ApprovalKindReader.fee(t));
        } catch (IllegalArgumentException e) {
            form.error("fee", e.getMessage());
            return Optional.empty();
        }
    }

    private static Map<String, String> settles(Form form) {
        Map<String, String> facts = new LinkedHashMap<>();
        for (String line : form.raw("settles").split("\\R")) {
            String[] p = line.split("=", 2);
            if (line.isBlank()) {
                continue;
            }
            if (p.length != 2 || !Vocabulary.knows(p[0].strip()) || p[1].isBlank()) {
                form.error("settles", "“" + line.strip() + "” is not a fact = value; such as park.permit = yes");
            } else {
                facts.put(p[0].strip(), p[1].strip());
            }
        }
        return facts;
    }

    private static List<ApprovalKind.Question> questions(Form form) {
        List<ApprovalKind.Question> all = new ArrayList<>();
        Set<String> numbers = new LinkedHashSet<>();
        int n = 0;
        for (String line : form.raw("questions").split("\\R")) {
            n++;
            if (line.isBlank()) {
                continue;
            }
            try {
                ApprovalKind.Question q = ApprovalKindReader.question(line);
                if (numbers.add(q.number())) {
                    all.add(q);
                } else {
                    form.error("questions", "line " + n + ": question " + q.number() + " stands there twice");
                }
            } catch (IllegalArgumentException e) {
                form.error("questions", "line " + n + ": " + e.getMessage());
            }
        }
        return all;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/kinds/{code}/revert")
    String revert(@PathVariable("code") String code, RedirectAttributes flash) {
        try {
            kinds.revert(code);
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/approvals/kinds";
    }

    // --- settings ----------------------------------------------------------------------------------------------------

    private static Form settingsForm() {
        return new Form("How chains are planned", "/approvals/settings", "/approvals/kinds")
                .group("Work")
                .text("hoursADay", "Hours of paper work in a working day", "such as 6")
                .text("marginDays", "Days between the last grant and the job", "")
                .text("nudgeDays", "Days from one nudge to the next", "")
                .group("Unlocks")
                .text("toleranceDays", "Dates may differ from the approval's by", "days; 0: not at all")
                .text("toleranceM", "Area may differ by", "such as 25 m")
                .text("rehearsalDays", "Rehearsed at base before the job", "days")
                .text("confirmMinutes", "To confirm at power-on", "minutes, such as 3")
                .group("Days on which granters do not work, beside those that ship")
                .area(
                        "holidays",
                        "One on a line",
                        "12-25 Christmas; easter+1; 09-mon-1; 05-mon-last; 06-20+sat; 12-26 lieu; 2027-04-30 bridge day");
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/settings")
    String settings(Model model) {
        return filledSettings().page(model, "form");
    }

    private Form filledSettings() {
        Kinds.Settings s = kinds.settings();
        return settingsForm()
                .version(s.version())
                .set("hoursADay", yarrek.core.units.Finite.format(s.hoursADay()))
                .set("marginDays", s.marginDays())
                .set("nudgeDays", s.nudgeDays())
                .set("toleranceDays", s.toleranceDays())
                .set("toleranceM", yarrek.core.units.Finite.format(s.toleranceM()))
                .set("rehearsalDays", s.rehearsalDays())
                .set("confirmMinutes", yarrek.core.units.Finite.format(s.confirmMinutes()))
                .set("holidays", s.holidays());
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/settings")
    String saveSettings(@RequestParam MultiValueMap<String, String> params, Model model) {
        Form f = settingsForm().bind(params);
        Double hours = f.number("hoursADay", "h", 0.5, 24, true);
        Integer margin = f.whole("marginDays", 0, 365, true);
        Integer nudge = f.whole("nudgeDays", 1, 365, true);
        Integer days = f.whole("toleranceDays", 0, 30, true);
        Double metres = f.metres("toleranceM", 0, 10_000);
        Integer rehearsal = f.whole("rehearsalDays", 0, 365, true);
        Double minutes = f.number("confirmMinutes", "min", 0, 120, true);
        String holidays = f.optionalText("holidays", 20_000);
        if (metres == null) {
            f.error("toleranceM", "this is needed");
        }
        return f.store(
                        () -> {
                            kinds.save(new Kinds.Settings(
                                    f.getVersion(), hours, margin, days, metres, rehearsal, nudge, minutes, holidays));
                            return "redirect:/approvals/kinds";
                        },
                        this::filledSettings)
                .orElseGet(() -> f.page(model, "form"));
    }

    // --- plans -------------------------------------------------------------------------------------------------------

    private static Form plansForm() {
        return new Form("Procedures and risks that applications quote", "/approvals/plans", "/approvals/kinds")
                .group("Procedures of the house")
                .area("normal", "Normal", "")
                .area("emergency", "Emergency", "")
                .area("lostLink", "Loss of the link", "")
                .area("flyAway", "Fly-away", "")
                .group("Risk register")
                .area("risks", "One on a line", "risk | who is exposed | what is done | what is left");
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/plans")
    String plans(Model model) {
        return filledPlans().page(model, "form");
    }

    private Form filledPlans() {
        Form f = plansForm().version(kinds.settings().version());
        kinds.procedures().forEach(f::set);
        f.set(
                "risks",
                kinds.risks().stream()
                        .map(r -> String.join(" | ", r.risk(), r.who(), r.mitigation(), r.left()))
                        .collect(Collectors.joining("\n")));
        return f;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/plans")
    String savePlans(@RequestParam MultiValueMap<String, String> params, Model model, RedirectAttributes flash) {
        Form f = plansForm().bind(params);
        Map<String, String> procedures = new LinkedHashMap<>();
        PROCEDURES.forEach(p -> procedures.put(p, f.optionalText(p, 20_000)));
        List<Kinds.Risk> risks = new ArrayList<>();
        int n = 0;
        for (String line : f.optionalText("risks", 40_000).split("\\R")) {
            n++;
            String[] p = line.split("\\|", -1);
            if (line.isBlank()) {
                continue;
            }
            if (p.length != 4) {
                f.error("risks", "line " + n + ": written risk | who is exposed | what is done | what is left");
            } else {
                risks.add(new Kinds.Risk(p[0].strip(), p[1].strip(), p[2].strip(), p[3].strip()));
            }
        }
        return f.store(
                        () -> {
                            kinds.savePlans(f.getVersion(), procedures, risks);
                            flash.addFlashAttribute("told", "Kept.");
                            return "redirect:/approvals/kinds";
                        },
                        this::filledPlans)
                .orElseGet(() -> f.page(model, "form"));
    }
}
