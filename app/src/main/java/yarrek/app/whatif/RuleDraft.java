package yarrek.app.whatif;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.util.MultiValueMap;
import yarrek.app.forms.TypedInput;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.Kind;
import yarrek.core.rulebook.Reading;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RuleLines;
import yarrek.core.rulebook.Vocabulary;

/** A rule as it is put together on the screen, word by word: lines of fact, comparison and value. */
public record RuleDraft(
        String id,
        String title,
        String layer,
        String severity,
        String phase,
        String from,
        String to,
        String cite,
        String remedy,
        boolean onTheDay,
        String whenJoin,
        List<Line> when,
        List<Line> requires) {

    /** One comparison. */
    public record Line(String fact, String op, String value) {
        static final Line EMPTY = new Line("", "", "");

        public FactDefinition definition() {
            return Vocabulary.knows(fact) ? Vocabulary.define(fact) : null;
        }

        /** What may be typed beside it. */
        public String example() {
            FactDefinition d = definition();
            return d == null
                    ? ""
                    : switch (d.type()) {
                        case QUANTITY -> "a figure in " + d.unit();
                        case DATE -> "a date, or months";
                        default -> d.example();
                    };
        }
    }

    public static List<Kind.Op> ops(FactDefinition d, boolean requirement) {
        return d == null ? List.of() : Reading.ops(d.type(), requirement);
    }

    static RuleDraft blank(String id) {
        return new RuleDraft(
                id,
                "",
                "house",
                "act",
                "conduct",
                "",
                "",
                "",
                "",
                false,
                "all",
                List.of(Line.EMPTY),
                List.of(Line.EMPTY));
    }

    static RuleDraft of(MultiValueMap<String, String> p) {
        return new RuleDraft(
                text(p, "id").toUpperCase(Locale.ROOT),
                text(p, "title"),
                text(p, "layer"),
                text(p, "severity"),
                text(p, "phase"),
                text(p, "from"),
                text(p, "to"),
                text(p, "cite"),
                text(p, "remedy"),
                p.containsKey("onTheDay"),
                text(p, "whenJoin").equals("any") ? "any" : "all",
                lines(p, "w"),
                lines(p, "r"));
    }

    private static String text(MultiValueMap<String, String> p, String name) {
        String v = p.getFirst(name);
        return v == null ? "" : v.strip();
    }

    private static List<Line> lines(MultiValueMap<String, String> p, String part) {
        List<String> facts = p.getOrDefault(part + ".fact", List.of());
        List<String> ops = p.getOrDefault(part + ".op", List.of());
        List<String> values = p.getOrDefault(part + ".value", List.of());
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < facts.size(); i++) {
            lines.add(new Line(
                    facts.get(i),
                    i < ops.size() ? ops.get(i) : "",
                    i < values.size() ? values.get(i).strip() : ""));
        }
        return lines.isEmpty() ? List.of(Line.EMPTY) : lines;
    }

    /**
     * The rule as a pack writes it, ready to be put into text.
     *
     * @throws IllegalArgumentException in words when something is missing or not understood
     */
    Map<String, Object> toPack(LocalDate today) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("id", needed(id, "an id, such as HOUSE-WIND-COAST"));
        if (!id.matches("[A-Z0-9][A-Z0-9-]{2,58}")) {
            throw new IllegalArgumentException(
                    "an id has capital letters, figures and hyphens, such as HOUSE-WIND-COAST");
        }
        m.put("title", needed(title, "a title"));
        m.put("layer", layer);
        m.put("severity", severity);
        m.put("phase", phase);
        List<Map<String, Object>> conditions = when.stream()
                .filter(l -> !l.fact().isEmpty())
                .map(l -> line(l, today, false))
                .toList();
        if (conditions.size() == 1) {
            m.put("appliesWhen", conditions.get(0));
        } else if (!conditions.isEmpty()) {
            m.put("appliesWhen", Map.of(whenJoin, conditions));
        }
        List<Map<String, Object>> requirements = requires.stream()
                .filter(l -> !l.fact().isEmpty())
                .map(l -> line(l, today, true))
                .toList();
        if (requirements.isEmpty()) {
            throw new IllegalArgumentException("say what must hold: choose a fact under “Requires”");
        }
        m.put("requires", requirements.size() == 1 ? requirements.get(0) : Map.of("allOf", requirements));
        m.put("cite", needed(cite, "a source, such as House limit 12 or Letter of 3 May 2026"));
        m.put("from", (from.isEmpty() ? today : TypedInput.date(from, today)).toString());
        if (!to.isEmpty()) {
            m.put("to", TypedInput.date(to, today).toString());
        }
        m.put("confidence", "high");
        m.put("remedy", needed(remedy, "what to do when it is not met"));
        if (onTheDay) {
            m.put("onTheDay", true);
        }
        return m;
    }

    private static String needed(String v, String what) {
        if (v.isEmpty()) {
            throw new IllegalArgumentException("the rule needs " + what);
        }
        return v;
    }

    private static Map<String, Object> line(Line l, LocalDate today, boolean requirement) {
        FactDefinition d = l.definition();
        if (d == null) {
            throw new IllegalArgumentException("there is no fact called “" + l.fact() + "”");
        }
        if (l.op().isEmpty() || l.value().isEmpty()) {
            throw new IllegalArgumentException(d.label() + ": say how it is compared, and with what");
        }
        Kind.Op op = ops(d, requirement).stream()
                .filter(o -> o.code().equals(l.op()))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(d.label() + " cannot be compared so"));
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("fact", d.name());
        m.put(
                op.code(),
                switch (op.takes()) {
                    case FIGURE, WORD, NUMBER -> l.value();
                    case YES_NO -> l.value().equals("yes");
                    case WORDS -> List.of(l.value().split("[ ,]+"));
                    case DATE -> TypedInput.date(l.value(), today).toString();
                });
        m.putAll(op.beside());
        return m;
    }

    /** A stored rule back on the screen; empty when it says more than lines can. */
    static Optional<RuleDraft> from(Rule r) {
        Optional<RuleLines> when = r.appliesWhen().lines();
        Optional<RuleLines> requires = r.requires().lines();
        boolean plain = when.isPresent()
                && requires.isPresent()
                && r.exceptWhen().factNames().isEmpty()
                && r.overrides().isEmpty()
                && r.coveredBy().isEmpty()
                && r.source().ask().isEmpty()
                && r.scope() == Rule.Scope.BOTH;
        return plain
                ? Optional.of(new RuleDraft(
                        r.id(),
                        r.title(),
                        r.layer().words(),
                        r.severity().name().toLowerCase(Locale.ROOT),
                        r.phase(),
                        r.inForceFrom().toString(),
                        r.inForceThrough().map(LocalDate::toString).orElse(""),
                        r.source().citation(),
                        r.remedy(),
                        r.onTheDay(),
                        when.get().any() ? "any" : "all",
                        lines(when.get()),
                        lines(requires.get())))
                : Optional.empty();
    }

    private static List<Line> lines(RuleLines of) {
        return of.lines().isEmpty()
                ? List.of(Line.EMPTY)
                : of.lines().stream()
                        .map(l -> new Line(l.fact(), l.op(), l.value()))
                        .toList();
    }

    /** Facts that a rule may speak of, grouped as they are asked. */
    static List<FactDefinition> facts() {
        return Vocabulary.all().stream()
                .filter(d -> d.type() != FactType.INSTANT && !d.group().equals("occurrence"))
                .sorted(java.util.Comparator.comparing(FactDefinition::group).thenComparing(FactDefinition::label))
                .toList();
    }
}
