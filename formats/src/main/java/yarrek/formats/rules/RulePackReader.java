package yarrek.formats.rules;

import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.Node;
import yarrek.core.mass.MassClass;
import yarrek.core.rulebook.Bound;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Contradiction;
import yarrek.core.rulebook.Days;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Limit;
import yarrek.core.rulebook.Operation;
import yarrek.core.rulebook.Recency;
import yarrek.core.rulebook.Requirement;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Source;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Mass;
import yarrek.formats.log.BrokenFileException;

/**
 * Reads rule packs in YAML. Nothing is guessed: whatever is missing, unknown, contradictory or of the wrong kind is refused
 * with its line, its rule and what was expected.
 */
public final class RulePackReader {
    /** Largest file taken; the shipped packs are a tenth of it. */
    private static final int MOST_BYTES = 2 * 1024 * 1024;

    private static final Map<String, Bound> BOUNDS =
            Map.of("atMost", Bound.AT_MOST, "below", Bound.BELOW, "atLeast", Bound.AT_LEAST, "above", Bound.ABOVE);
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
    private static final Map<String, ZoneMet.Restriction> RESTRICTIONS = Map.of(
            "prohibited", ZoneMet.Restriction.PROHIBITED,
            "needsAuthorisation", ZoneMet.Restriction.NEEDS_AUTHORISATION,
            "conditional", ZoneMet.Restriction.CONDITIONAL);
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
    private static final Map<String, Days.Counting> COUNTINGS =
            Map.of("sameDay", Days.Counting.SAME_DAY, "calendarMonths", Days.Counting.CALENDAR_MONTHS);
    private static final Map<String, Requirement.Closeness> CLOSENESSES =
            Map.of("uncertainty", Requirement.Closeness.UNCERTAINTY, "none", Requirement.Closeness.NONE);
    private static final Map<String, String> CONFIDENCES = Map.of("high", "high", "medium", "medium", "low", "low");
    private static final Map<String, String> ROLES = Map.of(
            "operator", "operator", "pilot", "pilot", "observer", "observer", "aircraft", "aircraft", "job", "job");

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
            return pack(new YamlNode(compose(file, yaml)).only(PACK_WORDS, "the head of a pack"), where);
        } catch (YamlNode.Wrong e) {
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
            YamlNode n = new YamlNode(compose("rule", yaml.getBytes(StandardCharsets.UTF_8)));
            return rule(n, new Head(jurisdiction, readOn));
        } catch (YamlNode.Wrong e) {
            throw new BrokenFileException("rules.word", "line " + e.line() + ": " + e.getMessage(), e);
        }
    }

    static Node compose(String file, byte[] yaml) throws BrokenFileException {
        if (yaml.length > MOST_BYTES) {
            throw new BrokenFileException("rules.size", file + ": larger than 2 MB, which no pack is");
        }
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(yaml))
                    .toString();
            LoaderOptions options = new LoaderOptions();
            options.setMaxAliasesForCollections(0);
            options.setNestingDepthLimit(40);
            options.setCodePointLimit(MOST_BYTES);
            Node node = new Yaml(options).compose(new StringReader(text));
            if (node == null) {
                throw new BrokenFileException("rules.yaml", file + ": the file is empty");
            }
            return node;
        } catch (CharacterCodingException e) {
            throw new BrokenFileException("rules.encoding", file + ": not UTF-8 text; save it as UTF-8", e);
        } catch (MarkedYAMLException e) {
            int line = e.getProblemMark() == null ? 1 : e.getProblemMark().getLine() + 1;
            throw new BrokenFileException(
                    "rules.yaml", file + ", line " + line + ": not well-formed YAML: " + e.getProblem(), e);
        } catch (YAMLException e) {
            throw new BrokenFileException("rules.yaml", file + ": not well-formed YAML: " + e.getMessage(), e);
        }
    }

    private static RulePack pack(YamlNode root, String[] where) {
        Optional<String> jurisdiction = root.optional("jurisdiction");
        Head head = new Head(jurisdiction, root.get("readOn").date());
        List<MassClass> classes = new ArrayList<>();
        for (YamlNode c : root.items("massClasses")) {
            classes.add(massClass(c));
        }
        List<Operation> operations = new ArrayList<>();
        for (YamlNode o : root.items("operations")) {
            where[0] = ", operation " + o.text("id");
            operations.add(operation(o, jurisdiction));
        }
        where[0] = "";
        List<Rule> rules = new ArrayList<>();
        Set<String> ids = new HashSet<>();
        for (YamlNode r : root.get("rules").items()) {
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
    private static MassClass massClass(YamlNode c) {
        c.only(Set.of("name", "from", "above", "below", "upTo", "means", "cite"), "a mass class");
        Mass milligram = Mass.ofGrams(0.001); // the step in which masses are held
        Mass from = c.has("above") ? grams(c, "above").plus(milligram) : grams(c, "from");
        Optional<Mass> below = c.has("upTo")
                ? Optional.of(grams(c, "upTo").plus(milligram))
                : c.has("below") ? Optional.of(grams(c, "below")) : Optional.empty();
        return new MassClass(c.text("name"), from, below, c.text("means"), c.text("cite"));
    }

    private static Mass grams(YamlNode c, String word) {
        return Mass.ofGrams(Measures.of(c.get(word), "g").value());
    }

    private static Recency recency(YamlNode n) {
        n.only(Set.of("months", "counting", "activities", "least", "cite"), "recency");
        Set<String> kinds = new LinkedHashSet<>();
        n.get("activities").items().forEach(a -> kinds.add(a.text()));
        return new Recency(
                n.get("months").number().intValueExact(),
                n.get("counting").oneOf(COUNTINGS),
                kinds,
                n.text("least"),
                n.text("cite"));
    }

    private static Operation operation(YamlNode o, Optional<String> jurisdiction) {
        o.only(Set.of("id", "title", "gives", "when", "aircraft", "pilot", "operator", "cite"), "an operation");
        return new Operation(
                o.text("id"),
                o.text("title"),
                o.text("gives"),
                o.has("when") ? condition(o.get("when")) : Condition.ALWAYS,
                requirement(o.get("aircraft"), jurisdiction),
                requirement(o.get("pilot"), jurisdiction),
                requirement(o.get("operator"), jurisdiction),
                o.text("cite"));
    }

    private static Rule rule(YamlNode r, Head head) {
        r.only(RULE_WORDS, "a rule");
        Condition appliesWhen = r.has("appliesWhen") ? condition(r.get("appliesWhen")) : Condition.ALWAYS;
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
                r.has("exceptWhen") ? condition(r.get("exceptWhen")) : Condition.NEVER,
                requirement(r.get("requires"), head.jurisdiction()),
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

    static Condition condition(YamlNode n) {
        if (n.has("all") || n.has("any")) {
            n.only(Set.of("all", "any"), "a condition");
            List<Condition> of = new ArrayList<>();
            n.get(n.has("all") ? "all" : "any").items().forEach(c -> of.add(condition(c)));
            return n.has("all") ? new Condition.All(of) : new Condition.Any(of);
        }
        if (n.has("not")) {
            return new Condition.Not(
                    condition(n.only(Set.of("not"), "a condition").get("not")));
        }
        if (n.has("known")) {
            return new Condition.IsKnown(
                    define(n.only(Set.of("known"), "a condition").get("known")).name());
        }
        FactDefinition d = fact(n);
        for (Map.Entry<String, Bound> b : BOUNDS.entrySet()) {
            if (n.has(b.getKey())) {
                expect(n, d, FactType.QUANTITY).only(Set.of("fact", b.getKey()), "a condition");
                return new Condition.QuantityIs(d.name(), b.getValue(), limit(n.get(b.getKey()), d));
            }
        }
        if (n.has("isOneOf")) {
            expect(n, d, FactType.WORD).only(Set.of("fact", "isOneOf"), "a condition");
            return new Condition.WordIsOneOf(d.name(), words(n.get("isOneOf"), d));
        }
        if (n.has("is")) {
            expect(n, d, FactType.YES_NO).only(Set.of("fact", "is"), "a condition");
            return new Condition.YesNoIs(d.name(), n.get("is").yesNo());
        }
        if (n.has("contains")) {
            expect(n, d, FactType.WORDS).only(Set.of("fact", "contains"), "a condition");
            return new Condition.WordsContain(d.name(), word(n.get("contains"), d));
        }
        if (n.has("before") || n.has("onOrAfter")) {
            String side = n.has("before") ? "before" : "onOrAfter";
            expect(n, d, FactType.DATE).only(Set.of("fact", side), "a condition");
            return new Condition.DateIs(d.name(), n.has("before"), n.get(side).date());
        }
        throw n.wrong("a condition on " + d.name() + " must say " + sides(d.type()));
    }

    private static String sides(FactType type) {
        return switch (type) {
            case QUANTITY -> "atMost, below, atLeast or above a figure";
            case YES_NO -> "is: true or is: false";
            case WORD -> "isOneOf: [words]";
            case WORDS -> "contains: a word";
            case DATE -> "before or onOrAfter a date";
            case INSTANT -> "nothing: instants only start the clock of duties";
        };
    }

    private static Requirement requirement(YamlNode n, Optional<String> jurisdiction) {
        if (n.has("allOf") || n.has("anyOf")) {
            n.only(Set.of("allOf", "anyOf"), "a requirement");
            List<Requirement> of = new ArrayList<>();
            n.get(n.has("allOf") ? "allOf" : "anyOf").items().forEach(c -> of.add(requirement(c, jurisdiction)));
            if (of.isEmpty()) {
                throw n.wrong("an empty list of requirements asks for nothing");
            }
            return n.has("allOf") ? new Requirement.AllOf(of) : new Requirement.AnyOf(of);
        }
        if (n.has("main")) {
            n.only(Set.of("main", "closeWhile", "note"), "a requirement with a second reading");
            return new Requirement.OrClose(
                    requirement(n.get("main"), jurisdiction),
                    requirement(n.get("closeWhile"), jurisdiction),
                    n.text("note"));
        }
        if (n.has("paper")) {
            n.only(Set.of("paper", "name", "levels", "of", "namesPlace"), "a required paper");
            Set<String> levels = new LinkedHashSet<>();
            n.items("levels").forEach(l -> levels.add(l.text()));
            return new Requirement.HoldsPaper(
                    n.text("paper"),
                    n.text("name"),
                    levels,
                    n.get("of").oneOf(ROLES),
                    jurisdiction,
                    n.has("namesPlace") && n.get("namesPlace").yesNo());
        }
        if (n.has("noZone")) {
            return new Requirement.NoZone(
                    n.only(Set.of("noZone"), "a requirement").get("noZone").oneOf(RESTRICTIONS));
        }
        if (n.has("ask")) {
            return new Requirement.Ask(n.only(Set.of("ask"), "a requirement").text("ask"));
        }
        if (n.has("duty")) {
            return duty(n);
        }
        return factRequirement(n);
    }

    private static Requirement duty(YamlNode n) {
        n.only(Set.of("duty", "withinHours", "withinDays", "from"), "a duty");
        String from = "occurrence.awareAt";
        if (n.has("from")) {
            FactDefinition d = define(n.get("from"));
            if (d.type() != FactType.INSTANT) {
                throw n.get("from").wrong(d.name() + " is no instant, so no time can be counted from it");
            }
            from = d.name();
        }
        int hours = n.has("withinHours") ? n.get("withinHours").number().intValueExact() : 0;
        int days = n.has("withinDays") ? n.get("withinDays").number().intValueExact() : 0;
        return new Requirement.Duty(
                n.text("duty"), hours > 0 ? hours : days, hours > 0 ? ChronoUnit.HOURS : ChronoUnit.DAYS, from);
    }

    private static Requirement factRequirement(YamlNode n) {
        FactDefinition d = fact(n);
        for (Map.Entry<String, Bound> b : BOUNDS.entrySet()) {
            if (n.has(b.getKey())) {
                expect(n, d, FactType.QUANTITY)
                        .only(Set.of("fact", b.getKey(), "closeness", "closePercent"), "a requirement");
                return new Requirement.QuantityWithin(
                        d.name(), b.getValue(), limit(n.get(b.getKey()), d), closeness(n));
            }
        }
        if (n.has("isOneOf")) {
            expect(n, d, FactType.WORD).only(Set.of("fact", "isOneOf"), "a requirement");
            return new Requirement.WordIsOneOf(d.name(), words(n.get("isOneOf"), d));
        }
        if (n.has("is")) {
            expect(n, d, FactType.YES_NO).only(Set.of("fact", "is"), "a requirement");
            return new Requirement.YesNoIs(d.name(), n.get("is").yesNo());
        }
        if (n.has("contains")) {
            expect(n, d, FactType.WORDS).only(Set.of("fact", "contains"), "a requirement");
            return new Requirement.WordsContain(d.name(), word(n.get("contains"), d));
        }
        if (n.has("withinMonths")) {
            expect(n, d, FactType.DATE).only(Set.of("fact", "withinMonths", "counting"), "a requirement");
            return new Requirement.RecentWithin(
                    d.name(),
                    n.get("withinMonths").number().intValueExact(),
                    n.get("counting").oneOf(COUNTINGS));
        }
        if (n.has("before") || n.has("onOrAfter")) {
            String side = n.has("before") ? "before" : "onOrAfter";
            expect(n, d, FactType.DATE).only(Set.of("fact", side), "a requirement");
            return new Requirement.DateIs(d.name(), n.has("before"), n.get(side).date());
        }
        throw n.wrong("a requirement on " + d.name() + " must say " + sides(d.type()));
    }

    private static Requirement.Closeness closeness(YamlNode n) {
        if (n.has("closeness")) {
            return n.get("closeness").oneOf(CLOSENESSES);
        }
        return n.has("closePercent")
                ? new Requirement.Closeness(n.get("closePercent").number().doubleValue(), false)
                : Requirement.Closeness.USUAL;
    }

    private static Limit limit(YamlNode n, FactDefinition of) {
        if (n.has("byWord")) {
            n.only(Set.of("byWord", "table"), "a table by word");
            FactDefinition by = define(n.get("byWord"));
            if (by.type() != FactType.WORD) {
                throw n.wrong(by.name() + " is no word");
            }
            Map<String, Double> table = new LinkedHashMap<>();
            n.get("table").children().forEach((w, v) -> {
                if (!by.words().contains(w)) {
                    throw v.wrong(by.name() + " cannot be '" + w + "'; it is one of " + by.words());
                }
                table.put(w, Measures.of(v, of.unit()).value());
            });
            return new Limit.ByWord(by.name(), table);
        }
        if (n.has("steps")) {
            n.only(Set.of("steps", "table"), "a table by steps");
            FactDefinition by = define(n.get("steps"));
            List<Limit.Steps.Step> steps = new ArrayList<>();
            for (YamlNode s : n.get("table").items()) {
                s.only(Set.of("upTo", "limit"), "a step");
                steps.add(new Limit.Steps.Step(
                        Measures.of(s.get("upTo"), by.unit()).value(), limit(s.get("limit"), of)));
            }
            return new Limit.Steps(by.name(), steps);
        }
        if (n.has("ofFact")) {
            n.only(Set.of("ofFact", "times", "plus"), "a limit by another fact");
            FactDefinition by = define(n.get("ofFact"));
            if (by.type() != FactType.QUANTITY) {
                throw n.wrong(by.name() + " is no quantity");
            }
            Limit.Constant plus = n.has("plus") ? Measures.of(n.get("plus"), of.unit()) : new Limit.Constant(0);
            return new Limit.OfFact(
                    by.name(), n.has("times") ? n.get("times").number().doubleValue() : 1, plus.value(), plus.stated());
        }
        return Measures.of(n, of.unit());
    }

    private static Set<String> words(YamlNode list, FactDefinition d) {
        Set<String> words = new LinkedHashSet<>();
        list.items().forEach(w -> words.add(word(w, d)));
        if (words.isEmpty()) {
            throw list.wrong("an empty list of words allows nothing");
        }
        return words;
    }

    private static String word(YamlNode w, FactDefinition d) {
        if (!d.words().isEmpty() && !d.words().contains(w.text())) {
            throw w.wrong(d.name() + " cannot be '" + w.text() + "'; it is one of " + d.words());
        }
        return w.text();
    }

    private static FactDefinition fact(YamlNode n) {
        if (!n.has("fact")) {
            throw n.wrong("'fact' is missing");
        }
        return define(n.get("fact"));
    }

    private static FactDefinition define(YamlNode name) {
        if (!Vocabulary.knows(name.text())) {
            throw name.wrong("there is no fact called '" + name.text() + "'; the words are listed under Rulebook");
        }
        return Vocabulary.define(name.text());
    }

    private static YamlNode expect(YamlNode n, FactDefinition d, FactType wanted) {
        if (d.type() != wanted) {
            throw n.wrong(d.name() + " cannot be compared so; it must say " + sides(d.type()));
        }
        return n;
    }
}
