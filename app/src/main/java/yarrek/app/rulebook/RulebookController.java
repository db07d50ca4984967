package yarrek.app.rulebook;

import java.time.Clock;
import java.time.LocalDate;
import java.time.Period;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.TypedInput;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Vocabulary;

/** Pages of the rulebook: packs, rules by whatever one looks for, laws beside each other, words. */
@Controller
class RulebookController {
    /** A rule not compared with its source for so long is stale (house default). */
    private static final Period STALE = Period.ofMonths(6);

    private static final int PAGE = 50;

    /** A rule as listed, with what marks it. */
    public record Row(Rule rule, String pack, boolean inForce, boolean stale) {}

    /** A quantity or question, and what each law says of it. */
    public record Compared(FactDefinition fact, Map<String, List<Rule>> byLaw) {}

    private final Rulebook rulebook;
    private final Clock clock;

    RulebookController(Rulebook rulebook, Clock clock) {
        this.rulebook = rulebook;
        this.clock = clock;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook")
    String rules(
            @RequestParam(value = "q", defaultValue = "") String q,
            @RequestParam(value = "pack", defaultValue = "") String pack,
            @RequestParam(value = "phase", defaultValue = "") String phase,
            @RequestParam(value = "fact", defaultValue = "") String fact,
            @RequestParam(value = "show", defaultValue = "") String show,
            @RequestParam(value = "from", defaultValue = "0") int from,
            Model model) {
        LocalDate today = LocalDate.now(clock);
        List<RulePack> packs = rulebook.packs();
        List<Row> all = Stream.concat(
                        packs.stream().flatMap(p -> p.rules().stream().map(r -> row(r, p.id(), today))),
                        rulebook.ownRules().stream()
                                .filter(OwnRules.Row::active)
                                .map(r -> row(r.rule(), "OWN", today)))
                .toList();
        List<String> words = List.of(q.toLowerCase(Locale.ROOT).strip().split("\\s+"));
        List<Row> found = all.stream()
                .filter(r -> pack.isEmpty() || r.pack().equals(pack))
                .filter(r -> phase.isEmpty() || r.rule().phase().equals(phase))
                .filter(r -> fact.isEmpty() || r.rule().requires().factNames().contains(fact))
                .filter(r -> switch (show) {
                    case "stale" -> r.stale();
                    case "ask" -> !r.rule().source().ask().isEmpty();
                    case "past" -> !r.inForce();
                    default -> true;
                })
                .filter(r -> words.stream().allMatch(text(r.rule())::contains))
                .toList();
        model.addAttribute("packs", packs);
        model.addAttribute("versions", rulebook.versions());
        int first = Math.max(0, Math.min(from, found.size()));
        model.addAttribute("rows", found.stream().skip(first).limit(PAGE).toList());
        model.addAttribute("from", first);
        model.addAttribute("page", PAGE);
        model.addAttribute("found", found.size());
        model.addAttribute("all", all.size());
        model.addAttribute("stale", all.stream().filter(Row::stale).count());
        model.addAttribute(
                "asking",
                all.stream().filter(r -> !r.rule().source().ask().isEmpty()).count());
        model.addAttribute(
                "phases", all.stream().map(r -> r.rule().phase()).collect(Collectors.toCollection(TreeSet::new)));
        model.addAttribute("facts", facts(all));
        model.addAttribute("q", q);
        model.addAttribute("pack", pack);
        model.addAttribute("phase", phase);
        model.addAttribute("fact", fact);
        model.addAttribute("show", show);
        return "rulebook/rules";
    }

    private static Row row(Rule r, String pack, LocalDate today) {
        boolean inForce = !r.inForceFrom().isAfter(today)
                && r.inForceThrough().map(t -> !t.isBefore(today)).orElse(true);
        return new Row(r, pack, inForce, r.source().readOn().plus(STALE).isBefore(today));
    }

    private static String text(Rule r) {
        return (r.id() + " " + r.title() + " " + r.requires().words() + " "
                        + r.appliesWhen().when() + " " + r.source().citation() + " " + r.remedy() + " "
                        + r.source().notes())
                .toLowerCase(Locale.ROOT);
    }

    /** Facts that a rule limits, by label. */
    private static List<FactDefinition> facts(List<Row> rows) {
        return rows.stream()
                .flatMap(r -> r.rule().requires().factNames().stream())
                .distinct()
                .map(Vocabulary::define)
                .sorted(Comparator.comparing(FactDefinition::label))
                .toList();
    }

    /** Overlays of states: what they do not hold stays not known until somebody has read the state's own text. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/states")
    String states(Model model) {
        model.addAttribute("readings", rulebook.readings());
        model.addAttribute("today", LocalDate.now(clock));
        return "rulebook/states";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/rulebook/states")
    String read(
            @RequestParam("jurisdiction") String jurisdiction,
            @RequestParam("readOn") String readOn,
            @RequestParam("note") String note,
            RedirectAttributes flash) {
        try {
            rulebook.sayRead(
                    jurisdiction,
                    TypedInput.date(readOn, LocalDate.now(clock)),
                    note,
                    Viewer.current().name());
            flash.addFlashAttribute("told", "Said; open jobs there are judged again.");
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/rulebook/states";
    }

    /** Two or more laws line by line: what each says of the same quantity or question. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/compare")
    String compare(@RequestParam(value = "law", required = false) List<String> laws, Model model) {
        LocalDate today = LocalDate.now(clock);
        Map<String, String> titles = rulebook.jurisdictions();
        List<String> chosen = laws == null || laws.isEmpty()
                ? titles.keySet().stream().limit(2).toList()
                : laws.stream().filter(titles::containsKey).toList();
        Map<String, Map<String, List<Rule>>> byFact = new TreeMap<>();
        for (String law : chosen) {
            rulebook.packOf(law).map(RulePack::rules).orElse(List.of()).stream()
                    .filter(r -> row(r, law, today).inForce())
                    .forEach(r -> r.requires()
                            .factNames()
                            .forEach(f -> byFact.computeIfAbsent(f, k -> new LinkedHashMap<>())
                                    .computeIfAbsent(law, k -> new java.util.ArrayList<>())
                                    .add(r)));
        }
        model.addAttribute("titles", titles);
        model.addAttribute("chosen", chosen);
        model.addAttribute(
                "rows",
                byFact.entrySet().stream()
                        .map(e -> new Compared(Vocabulary.define(e.getKey()), e.getValue()))
                        .sorted(Comparator.comparing((Compared c) -> c.fact().group())
                                .thenComparing(c -> c.fact().label()))
                        .toList());
        return "rulebook/compare";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/words")
    String words(Model model) {
        model.addAttribute("words", Vocabulary.all());
        return "rulebook/words";
    }
}
