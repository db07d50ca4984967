package yarrek.formats.rules;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import yarrek.core.mass.MassClass;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Contradiction;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Measures;
import yarrek.core.rulebook.Operation;
import yarrek.core.rulebook.Reading;
import yarrek.core.rulebook.Recency;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Source;
import yarrek.core.rulebook.Written;
import yarrek.core.time.Days;
import yarrek.core.units.Mass;
import yarrek.formats.log.BrokenFileException;

/**
 * Reads rule packs in YAML. Nothing is guessed: whatever is missing, unknown, contradictory or of the wrong kind is refused
 * with its line, its rule and what was expected.
 */
public final class RulePackReader {
    private static final Set<String> PACK_WORDS = Set.of(
            "pack",
            "title",
            "jurisdiction",
            "overlays",
            "asksForOverlay",
            "version",
            "readOn",
            "head",
            "massClasses",
            "recency",
            "category",
            "operations",
            "rules");
    private static final Set<String> RULE_WORDS = Set.of(
            "id",
            "title",
            "layer",
            "severity",
            "appliesWhen",
            "exceptWhen",
            "requires",
            "cite",
            "from",
            "to",
            "confidence",
            "ask",
            "remedy",
            "readOn",
            "notes",
            "onTheDay",
            "judges",
            "phase",
            "coveredBy",
            "overrides");
    private static final Set<String> PHASES = Set.of(
            "papers",
            "aircraft",
            "people",
            "height",
            "sight",
            "airspace",
            "place",
            "time",
            "weather",
            "equipment",
            "records",
            "reporting",
            "conduct");
    private static final Map<String, Layer> LAYERS = Map.of(
            "law", Layer.LAW,
            "by-law", Layer.BY_LAW,
            "landowner", Layer.LANDOWNER,
            "approval", Layer.APPROVAL,
            "maker", Layer.MAKER,
            "house", Layer.HOUSE);
    private static final Map<String, Severity> SEVERITIES =
            Map.of("stop", Severity.STOP, "act", Severity.ACT, "caution", Severity.CAUTION);
    private static final Map<String, Rule.Scope> SCOPES = Map.of(
            "both", Rule.Scope.BOTH,
            "plan", Rule.Scope.PLAN,
            "flight", Rule.Scope.FLIGHT,
            "occurrence", Rule.Scope.OCCURRENCE);
    private static final Map<String, String> CONFIDENCES = Map.of("high", "high", "medium", "medium", "low", "low");

    /** The head of the pack that a rule stands in. */
    private record Head(Optional<String> jurisdiction, LocalDate readOn) {}

    private RulePackReader() {}

    /** A pack that ships with the core, by file name such as "eu.yaml". */
    public static RulePack shipped(String name) {
        try {
            return read(name, shippedText(name).getBytes(StandardCharsets.UTF_8));
        } catch (BrokenFileException e) {
            throw new IllegalStateException(e.getMessage(), e);
        }
    }

    /** File names of every pack that ships with the core, in the order in which they are shown. */
    public static List<String> shippedNames() {
        return resource("/rulebook/packs.txt")
                .lines()
                .filter(l -> !l.isBlank() && !l.startsWith("#"))
                .toList();
    }

    /** The text of a pack that ships with the core. */
    public static String shippedText(String name) {
        return resource("/rulebook/" + name);
    }

    /** The text of one rule of a pack that ships, as it would be written alone; empty when the pack has none of this id. */
    public static Optional<String> shippedRule(String name, String id) {
        List<String> rule = new ArrayList<>();
        for (String line : shippedText(name).lines().toList()) {
            if (line.startsWith("  - id: ")) {
                if (!rule.isEmpty()) {
                    break;
                }
                if (line.equals("  - id: " + id)) {
                    rule.add(line.substring(4));
                }
            } else if (!rule.isEmpty()) {
                rule.add(line.substring(Math.min(4, line.length())));
            }
        }
        return rule.isEmpty() ? Optional.empty() : Optional.of(String.join("\n", rule) + "\n");
    }

    /** A text that ships with the core. */
    static String resource(String path) {
        try (InputStream in = RulePack.class.getResourceAsStream(path)) {
            if (in == null) {
                throw new IllegalArgumentException("nothing ships at " + path);
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException("reading " + path, e);
        }
    }

    /** @throws BrokenFileException with file, line, rule and what was expected */
    public static RulePack read(String file, byte[] yaml) throws BrokenFileException {
        String[] where = {""};
        try {
            return pack(YamlText.read(file, yaml).only(PACK_WORDS, "the head of a pack"), where);
        } catch (Written.Wrong e) {
            throw new BrokenFileException(
                    "rules.word", file + ", line " + e.line() + where[0] + ": " + e.getMessage(), e);
        } catch (IllegalArgumentException e) {
            throw new BrokenFileException("rules.pack", file + where[0] + ": " + e.getMessage(), e);
        }
    }

    /**
     * One rule of the operator's own, written as in a pack.
     *
     * @throws BrokenFileException with line and what was expected
     */
    public static Rule rule(String yaml, Optional<String> jurisdiction, LocalDate readOn) throws BrokenFileException {
        try {
            Written n = YamlText.read("rule", yaml.getBytes(StandardCharsets.UTF_8));
            return rule(n, new Head(jurisdiction, readOn));
        } catch (Written.Wrong e) {
            throw new BrokenFileException("rules.word", "line " + e.line() + ": " + e.getMessage(), e);
        }
    }

    private static RulePack pack(Written root, String[] where) {
        Optional<String> jurisdiction = root.optional("jurisdiction");
        Head head = new Head(jurisdiction, root.get("readOn").date());
        List<MassClass> classes = new ArrayList<>();
        for (Written c : root.items("massClasses")) {
            classes.add(massClass(c));
        }
        List<Operation> operations = new ArrayList<>();
        for (Written o : root.items("operations")) {
            where[0] = ", operation " + o.text("id");
            operations.add(operation(o, jurisdiction));
        }
        where[0] = "";
        List<Rule> rules = new ArrayList<>();
        Set<String> ids = new HashSet<>();
        for (Written r : root.get("rules").items()) {
            where[0] = ", rule " + r.text("id");
            Rule rule = rule(r, head);
            if (!ids.add(rule.id() + rule.inForceFrom())) {
                throw r.wrong("the id is used twice for the same first day");
            }
            rules.add(rule);
        }
        where[0] = "";
        return new RulePack(
                root.text("pack"),
                root.text("title"),
                jurisdiction,
                root.optional("overlays"),
                root.has("asksForOverlay") && root.get("asksForOverlay").yesNo(),
                root.text("version"),
                head.readOn(),
                root.text("head"),
                classes,
                root.has("recency") ? Optional.of(recency(root.get("recency"))) : Optional.empty(),
                root.optional("category"),
                operations,
                rules);
    }

    /** A class from a mass, included unless it follows one "up to", to below a mass or up to one, included. */
    private static MassClass massClass(Written c) {
        c.only(Set.of("name", "from", "above", "below", "upTo", "means", "cite"), "a mass class");
        Mass milligram = Mass.ofGrams(0.001); // the step in which masses are held
        Mass from = c.has("above") ? grams(c, "above").plus(milligram) : grams(c, "from");
        Optional<Mass> below = c.has("upTo")
                ? Optional.of(grams(c, "upTo").plus(milligram))
                : c.has("below") ? Optional.of(grams(c, "below")) : Optional.empty();
        return new MassClass(c.text("name"), from, below, c.text("means"), c.text("cite"));
    }

    private static Mass grams(Written c, String word) {
        return Mass.ofGrams(Measures.of(c.get(word), "g").value());
    }

    private static Recency recency(Written n) {
        n.only(Set.of("months", "counting", "activities", "least", "cite"), "recency");
        Set<String> kinds = new LinkedHashSet<>();
        n.get("activities").items().forEach(a -> kinds.add(a.text()));
        return new Recency(
                n.get("months").number().intValueExact(),
                n.get("counting").oneOf(Days.COUNTINGS),
                kinds,
                n.text("least"),
                n.text("cite"));
    }

    private static Operation operation(Written o, Optional<String> jurisdiction) {
        o.only(Set.of("id", "title", "gives", "when", "aircraft", "pilot", "operator", "cite"), "an operation");
        Reading read = Reading.of(jurisdiction);
        return new Operation(
                o.text("id"),
                o.text("title"),
                o.text("gives"),
                o.has("when") ? read.condition(o.get("when")) : Condition.always(),
                read.requirement(o.get("aircraft")),
                read.requirement(o.get("pilot")),
                read.requirement(o.get("operator")),
                o.text("cite"));
    }

    private static Rule rule(Written r, Head head) {
        r.only(RULE_WORDS, "a rule");
        Reading read = Reading.of(head.jurisdiction());
        Condition appliesWhen = r.has("appliesWhen") ? read.condition(r.get("appliesWhen")) : Condition.always();
        Contradiction.of(appliesWhen).ifPresent(why -> {
            throw r.get("appliesWhen").wrong("the rule can never apply: " + why);
        });
        LocalDate from = r.get("from").date();
        Optional<LocalDate> through = r.has("to") ? Optional.of(r.get("to").date()) : Optional.empty();
        if (through.isPresent() && through.get().isBefore(from)) {
            throw r.get("to")
                    .wrong("the rule can never apply: its last day " + through.get() + " is before its first, " + from);
        }
        String confidence = r.get("confidence").oneOf(CONFIDENCES);
        if (confidence.equals("low") && !r.has("ask")) {
            throw r.get("confidence").wrong("a rule of low confidence needs 'ask', the question to settle it");
        }
        String phase = r.optional("phase").orElse("conduct");
        if (!PHASES.contains(phase)) {
            throw r.get("phase")
                    .wrong("one of " + new java.util.TreeSet<>(PHASES) + " was expected, got '" + phase + "'");
        }
        return new Rule(
                r.text("id"),
                r.text("title"),
                r.has("layer") ? r.get("layer").oneOf(LAYERS) : Layer.LAW,
                head.jurisdiction(),
                from,
                through,
                appliesWhen,
                r.has("exceptWhen") ? read.condition(r.get("exceptWhen")) : Condition.never(),
                read.requirement(r.get("requires")),
                r.get("severity").oneOf(SEVERITIES),
                r.text("remedy"),
                new Source(
                        r.text("cite"),
                        r.has("readOn") ? r.get("readOn").date() : head.readOn(),
                        confidence,
                        r.optional("ask").orElse(""),
                        r.optional("notes").orElse("")),
                r.has("judges") ? r.get("judges").oneOf(SCOPES) : Rule.Scope.BOTH,
                r.has("onTheDay") && r.get("onTheDay").yesNo(),
                phase,
                r.optional("coveredBy").orElse(""),
                r.optional("overrides").orElse(""));
    }
}
