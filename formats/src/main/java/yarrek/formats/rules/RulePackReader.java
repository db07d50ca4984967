package yarrek.formats.rules;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.dataformat.yaml.YAMLMapper;
import yarrek.core.mass.MassClass;
import yarrek.core.rulebook.Bound;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Limit;
import yarrek.core.rulebook.Requirement;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Mass;
import yarrek.formats.log.BrokenFileException;

/** Reads rule packs in YAML. Nothing is guessed: a missing or unknown word is refused with the rule's id. */
public final class RulePackReader {
    private static final Map<String, Bound> BOUNDS =
            Map.of("atMost", Bound.AT_MOST, "below", Bound.BELOW, "atLeast", Bound.AT_LEAST, "above", Bound.ABOVE);
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
            "remedy",
            "readOn",
            "notes",
            "onTheDay",
            "judges");
    private static final Map<String, ZoneMet.Restriction> RESTRICTIONS = Map.of(
            "prohibited", ZoneMet.Restriction.PROHIBITED,
            "needsAuthorisation", ZoneMet.Restriction.NEEDS_AUTHORISATION,
            "conditional", ZoneMet.Restriction.CONDITIONAL);

    private RulePackReader() {}

    /** A pack that ships with the core, by file name such as "eu.yaml". */
    public static RulePack shipped(String name) {
        try (InputStream in = RulePack.class.getResourceAsStream("/rulebook/" + name)) {
            if (in == null) {
                throw new IllegalArgumentException("no rule pack called " + name);
            }
            return read(name, in.readAllBytes());
        } catch (IOException e) {
            throw new UncheckedIOException("reading " + name, e);
        } catch (BrokenFileException e) {
            throw new IllegalStateException(e.getMessage(), e);
        }
    }

    /** @throws BrokenFileException with file, rule and word when something is missing, unknown or out of type */
    public static RulePack read(String file, byte[] yaml) throws BrokenFileException {
        JsonNode root;
        try {
            root = YAMLMapper.shared().readTree(yaml);
        } catch (JacksonException e) {
            throw new BrokenFileException("rules.yaml", file + ": not well-formed YAML: " + e.getOriginalMessage(), e);
        }
        String where = "head";
        try {
            Optional<String> jurisdiction = optional(root, "jurisdiction");
            List<MassClass> classes = new ArrayList<>();
            for (JsonNode c : list(root, "massClasses")) {
                classes.add(new MassClass(
                        text(c, "name"),
                        Mass.ofGrams(number(c, "from")),
                        c.has("below") ? Optional.of(Mass.ofGrams(number(c, "below"))) : Optional.empty(),
                        text(c, "means"),
                        text(c, "cite")));
            }
            List<Rule> rules = new ArrayList<>();
            Set<String> ids = new HashSet<>();
            for (JsonNode r : list(root, "rules")) {
                where = "rule " + text(r, "id");
                Rule rule = rule(r, jurisdiction);
                if (!ids.add(rule.id() + rule.inForceFrom())) {
                    throw new IllegalArgumentException("the id is used twice for the same date");
                }
                rules.add(rule);
            }
            return new RulePack(
                    text(root, "pack"),
                    text(root, "title"),
                    jurisdiction,
                    text(root, "version"),
                    date(root, "readOn"),
                    text(root, "head"),
                    classes,
                    rules);
        } catch (IllegalArgumentException | java.time.DateTimeException e) {
            throw new BrokenFileException("rules.word", file + ", " + where + ": " + e.getMessage(), e);
        }
    }

    private static Rule rule(JsonNode r, Optional<String> jurisdiction) {
        for (String word : r.propertyNames()) {
            if (!RULE_WORDS.contains(word)) {
                throw new IllegalArgumentException("unknown word '" + word + "'");
            }
        }
        Layer layer = optional(r, "layer")
                .map(l -> Layer.valueOf(l.toUpperCase(Locale.ROOT).replace('-', '_')))
                .orElse(Layer.LAW);
        return new Rule(
                text(r, "id"),
                text(r, "title"),
                layer,
                jurisdiction,
                date(r, "from"),
                optional(r, "to").map(LocalDate::parse),
                r.has("appliesWhen") ? condition(r.get("appliesWhen")) : Condition.ALWAYS,
                r.has("exceptWhen") ? condition(r.get("exceptWhen")) : Condition.NEVER,
                requirement(r.get("requires")),
                text(r, "cite"),
                Severity.valueOf(text(r, "severity").toUpperCase(Locale.ROOT)),
                text(r, "remedy"),
                date(r, "readOn"),
                text(r, "confidence"),
                optional(r, "notes").orElse(""),
                optional(r, "judges")
                        .map(s -> Rule.Scope.valueOf(s.toUpperCase(Locale.ROOT)))
                        .orElse(Rule.Scope.BOTH),
                r.has("onTheDay") && r.get("onTheDay").asBoolean());
    }

    private static Condition condition(JsonNode n) {
        if (n.has("all") || n.has("any")) {
            List<Condition> of = new ArrayList<>();
            for (JsonNode c : list(n, n.has("all") ? "all" : "any")) {
                of.add(condition(c));
            }
            return n.has("all") ? new Condition.All(of) : new Condition.Any(of);
        }
        if (n.has("not")) {
            return new Condition.Not(condition(n.get("not")));
        }
        String fact = text(n, "fact");
        FactType type = Vocabulary.define(fact).type();
        for (Map.Entry<String, Bound> b : BOUNDS.entrySet()) {
            if (n.has(b.getKey())) {
                expect(fact, type, FactType.QUANTITY);
                return new Condition.QuantityIs(
                        fact, b.getValue(), number(n, b.getKey()).doubleValue());
            }
        }
        if (n.has("isOneOf")) {
            expect(fact, type, FactType.WORD);
            return new Condition.WordIsOneOf(fact, words(n, fact));
        }
        if (n.has("is")) {
            expect(fact, type, FactType.YES_NO);
            return new Condition.YesNoIs(fact, n.get("is").asBoolean());
        }
        if (n.has("contains")) {
            expect(fact, type, FactType.WORDS);
            return new Condition.WordsContain(fact, text(n, "contains"));
        }
        throw new IllegalArgumentException("a condition on " + fact + " says nothing: " + n);
    }

    private static Requirement requirement(JsonNode n) {
        if (n == null || !n.isObject()) {
            throw new IllegalArgumentException("'requires' is missing");
        }
        if (n.has("allOf") || n.has("anyOf")) {
            List<Requirement> of = new ArrayList<>();
            for (JsonNode c : list(n, n.has("allOf") ? "allOf" : "anyOf")) {
                of.add(requirement(c));
            }
            return n.has("allOf") ? new Requirement.AllOf(of) : new Requirement.AnyOf(of);
        }
        if (n.has("paper")) {
            Set<String> levels = new HashSet<>();
            if (n.has("levels")) {
                list(n, "levels").forEach(l -> levels.add(l.asString()));
            }
            return new Requirement.HoldsPaper(text(n, "paper"), text(n, "name"), levels, text(n, "of"));
        }
        if (n.has("noZone")) {
            ZoneMet.Restriction restriction = RESTRICTIONS.get(text(n, "noZone"));
            if (restriction == null) {
                throw new IllegalArgumentException("noZone must be one of " + RESTRICTIONS.keySet());
            }
            return new Requirement.NoZone(restriction);
        }
        if (n.has("ask")) {
            return new Requirement.Ask(text(n, "ask"));
        }
        String fact = text(n, "fact");
        FactType type = Vocabulary.define(fact).type();
        for (Map.Entry<String, Bound> b : BOUNDS.entrySet()) {
            if (n.has(b.getKey())) {
                expect(fact, type, FactType.QUANTITY);
                return new Requirement.QuantityWithin(fact, b.getValue(), limit(n.get(b.getKey())), closeness(n));
            }
        }
        if (n.has("isOneOf")) {
            expect(fact, type, FactType.WORD);
            return new Requirement.WordIsOneOf(fact, words(n, fact));
        }
        if (n.has("is")) {
            expect(fact, type, FactType.YES_NO);
            return new Requirement.YesNoIs(fact, n.get("is").asBoolean());
        }
        if (n.has("contains")) {
            expect(fact, type, FactType.WORDS);
            return new Requirement.WordsContain(fact, text(n, "contains"));
        }
        throw new IllegalArgumentException("a requirement on " + fact + " says nothing: " + n);
    }

    private static Requirement.Closeness closeness(JsonNode n) {
        if (n.has("closeness")) {
            if (!text(n, "closeness").equals("uncertainty")) {
                throw new IllegalArgumentException("closeness must be 'uncertainty'");
            }
            return Requirement.Closeness.UNCERTAINTY;
        }
        return n.has("closePercent")
                ? new Requirement.Closeness(number(n, "closePercent").doubleValue(), false)
                : Requirement.Closeness.USUAL;
    }

    private static Limit limit(JsonNode n) {
        if (n.isNumber()) {
            return new Limit.Constant(n.doubleValue());
        }
        if (n.has("byWord")) {
            Map<String, Double> table = new LinkedHashMap<>();
            n.get("table")
                    .properties()
                    .forEach(e -> table.put(e.getKey(), e.getValue().doubleValue()));
            String fact = text(n, "byWord");
            expect(fact, Vocabulary.define(fact).type(), FactType.WORD);
            return new Limit.ByWord(fact, table);
        }
        String fact = text(n, "ofFact");
        expect(fact, Vocabulary.define(fact).type(), FactType.QUANTITY);
        return new Limit.OfFact(
                fact, number(n, "times").doubleValue(), number(n, "plus").doubleValue());
    }

    private static Set<String> words(JsonNode n, String fact) {
        Set<String> words = new HashSet<>();
        Set<String> allowed = Vocabulary.define(fact).words();
        for (JsonNode w : list(n, "isOneOf")) {
            if (!allowed.isEmpty() && !allowed.contains(w.asString())) {
                throw new IllegalArgumentException(fact + " cannot be '" + w.asString() + "'; it is one of " + allowed);
            }
            words.add(w.asString());
        }
        return words;
    }

    private static void expect(String fact, FactType is, FactType wanted) {
        if (is != wanted) {
            throw new IllegalArgumentException(fact + " is a " + is + " and cannot be compared so");
        }
    }

    private static Iterable<JsonNode> list(JsonNode n, String word) {
        JsonNode l = n.get(word);
        if (l == null || !l.isArray()) {
            throw new IllegalArgumentException("'" + word + "' must be a list");
        }
        return l;
    }

    private static String text(JsonNode n, String word) {
        return optional(n, word).orElseThrow(() -> new IllegalArgumentException("'" + word + "' is missing"));
    }

    private static Optional<String> optional(JsonNode n, String word) {
        JsonNode v = n.get(word);
        return v == null || v.isNull() || v.isContainer() ? Optional.empty() : Optional.of(v.asString());
    }

    private static BigDecimal number(JsonNode n, String word) {
        JsonNode v = n.get(word);
        if (v == null || !v.isNumber()) {
            throw new IllegalArgumentException("'" + word + "' must be a number");
        }
        return v.decimalValue();
    }

    private static LocalDate date(JsonNode n, String word) {
        return LocalDate.parse(text(n, word));
    }
}
