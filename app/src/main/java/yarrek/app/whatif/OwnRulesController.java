package yarrek.app.whatif;

import java.time.Clock;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.airspace.Sites;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.history.History;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.Rule;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.rules.RulePackReader;

/** The operator's own rules: house, maker, by-law, landowner, approval; written word by word with a live example. */
@Controller
class OwnRulesController {
    private static final List<String> LAYERS = List.of("house", "maker", "by-law", "landowner", "approval");
    private static final List<String> WEIGHTS = List.of("stop", "act", "caution");
    private static final List<String> PHASES = List.of(
            "conduct",
            "height",
            "people",
            "place",
            "airspace",
            "time",
            "weather",
            "sight",
            "aircraft",
            "equipment",
            "papers",
            "records");

    private final Rulebook rulebook;
    private final Changes changes;
    private final Sites sites;
    private final Fleet fleet;
    private final Jobs jobs;
    private final Office office;
    private final JsonMapper json;
    private final Clock clock;
    private final History history;

    OwnRulesController(
            Rulebook rulebook,
            Changes changes,
            Sites sites,
            Fleet fleet,
            Jobs jobs,
            Office office,
            JsonMapper json,
            Clock clock,
            History history) {
        this.history = history;
        this.rulebook = rulebook;
        this.changes = changes;
        this.sites = sites;
        this.fleet = fleet;
        this.jobs = jobs;
        this.office = office;
        this.json = json;
        this.clock = clock;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/own")
    String list(Model model) {
        model.addAttribute("own", rulebook.ownRules());
        model.addAttribute("names", names());
        model.addAttribute("shipped", rulebook.shippedHouseRules());
        return "whatif/own";
    }

    /** What rules may be bound to, by id. */
    private Map<UUID, String> names() {
        Map<UUID, String> names = new LinkedHashMap<>();
        sites.sites().forEach(s -> names.put(s.id(), "site " + s.name()));
        fleet.models().forEach(m -> names.put(m.id(), "model " + m.fullName()));
        jobs.namesFor(Viewer.current()).forEach((id, n) -> names.put(id, "job " + n));
        return names;
    }

    /** A new rule, or one that begins from a shipped rule of house or maker and stands in for it. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/own/new")
    String blank(
            @RequestParam(value = "instead", required = false) String instead,
            @RequestParam(value = "bound", required = false) UUID bound,
            Model model) {
        Optional<Rule> rule = instead == null
                ? Optional.empty()
                : rulebook.shippedHouseRules().stream()
                        .filter(r -> r.id().equals(instead))
                        .findFirst();
        Optional<RuleDraft> lines = rule.flatMap(RuleDraft::from);
        if (rule.isPresent() && lines.isEmpty()) {
            // it says more than lines can: it is changed as the text that it is
            model.addAttribute(
                    "yaml",
                    RulePackReader.shippedRule("house.yaml", rule.get().id()).orElse(""));
        }
        RuleDraft draft = lines.orElseGet(() -> RuleDraft.blank(instead == null ? "" : instead));
        return editor(model, null, -1, draft, bound, true, null);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/own/{id}")
    String edit(@PathVariable("id") UUID id, Model model) {
        OwnRules.Row row = row(id);
        Optional<RuleDraft> draft = RuleDraft.from(row.rule());
        if (draft.isEmpty()) {
            model.addAttribute("yaml", row.yaml());
        }
        return editor(
                model,
                row.id(),
                row.version(),
                draft.orElseGet(() -> RuleDraft.blank(row.rule().id())),
                row.boundId(),
                row.active(),
                null);
    }

    private OwnRules.Row row(UUID id) {
        return rulebook.ownRules().stream()
                .filter(r -> r.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new NotFoundException("rule"));
    }

    private String editor(
            Model model, UUID id, long version, RuleDraft draft, UUID bound, boolean active, String problem) {
        model.addAttribute("id", id);
        model.addAttribute("version", version);
        model.addAttribute("draft", draft);
        model.addAttribute("bound", bound);
        model.addAttribute("active", active);
        model.addAttribute("names", names());
        model.addAttribute("layers", LAYERS);
        model.addAttribute("weights", WEIGHTS);
        model.addAttribute("phases", PHASES);
        model.addAttribute("facts", RuleDraft.facts());
        model.addAttribute("refused", problem);
        return "whatif/own-rule";
    }

    /** One line of the editor for a fact: the comparisons and the value that fit it. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/own/line")
    String line(@RequestParam("part") String part, @RequestParam MultiValueMap<String, String> p, Model model) {
        String fact = p.getFirst(part + ".fact");
        model.addAttribute("part", part.equals("r") ? "r" : "w");
        model.addAttribute("line", new RuleDraft.Line(fact == null ? "" : fact, "", ""));
        model.addAttribute("facts", RuleDraft.facts());
        return "whatif/own-line";
    }

    /** What the rule says so far and what it would have flagged; nothing is stored. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/rulebook/own/preview")
    String preview(@RequestParam MultiValueMap<String, String> p, Model model) {
        try {
            UUID bound = bound(p);
            model.addAttribute("preview", changes.preview(yaml(p), boundTo(bound), bound));
        } catch (IllegalArgumentException | BrokenFileException e) {
            model.addAttribute("unfinished", e.getMessage());
        }
        return "whatif/own-preview";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/rulebook/own")
    String save(@RequestParam MultiValueMap<String, String> p, Model model) {
        String typedId = p.getFirst("ruleId");
        UUID id = typedId == null || typedId.isBlank() ? null : UUID.fromString(typedId);
        long version = id == null ? -1 : Long.parseLong(String.valueOf(p.getFirst("version")));
        boolean active = p.containsKey("active");
        UUID bound = bound(p);
        try {
            rulebook.saveOwnRule(
                    id,
                    version,
                    yaml(p),
                    boundTo(bound),
                    bound,
                    active,
                    Viewer.current().name());
            return "redirect:/rulebook/own";
        } catch (LostUpdateException e) {
            return again(
                    p,
                    model,
                    id,
                    e.version(),
                    bound,
                    active,
                    "Somebody else saved this rule while you had it open. Save again to put yours in its place.");
        } catch (IllegalArgumentException | BrokenFileException e) {
            return again(p, model, id, version, bound, active, e.getMessage());
        }
    }

    private String again(
            MultiValueMap<String, String> p,
            Model model,
            UUID id,
            long version,
            UUID bound,
            boolean active,
            String problem) {
        if (p.containsKey("yaml")) {
            model.addAttribute("yaml", p.getFirst("yaml"));
        }
        return editor(model, id, version, RuleDraft.of(p), bound, active, problem);
    }

    private String yaml(MultiValueMap<String, String> p) {
        String typed = p.getFirst("yaml");
        return typed != null && !typed.isBlank()
                ? typed
                : json.writeValueAsString(RuleDraft.of(p).toPack(today()));
    }

    private static UUID bound(MultiValueMap<String, String> p) {
        String b = p.getFirst("bound");
        return b == null || b.isBlank() ? null : UUID.fromString(b);
    }

    private OwnRules.BoundTo boundTo(UUID bound) {
        if (bound == null) {
            return OwnRules.BoundTo.EVERYTHING;
        }
        String name = names().getOrDefault(bound, "");
        return name.startsWith("site ")
                ? OwnRules.BoundTo.SITE
                : name.startsWith("model ") ? OwnRules.BoundTo.MODEL : OwnRules.BoundTo.JOB;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/rulebook/own/{id}/delete")
    String delete(@PathVariable("id") UUID id, RedirectAttributes flash) {
        rulebook.deleteOwnRule(id);
        history.undo("rule", id).tell(flash, "The rule is taken away; jobs are judged without it.");
        return "redirect:/rulebook/own";
    }
}
