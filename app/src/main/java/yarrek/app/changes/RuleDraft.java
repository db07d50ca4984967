package yarrek.app.changes;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.util.MultiValueMap;
import yarrek.app.web.TypedInput;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.Limit;
import yarrek.core.rulebook.Requirement;
import yarrek.core.rulebook.Rule;
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
    }

    /** A comparison that a kind of fact can have, as the pack writes it and as people say it. */
    public record Op(String code, String words) {}

    public static List<Op> ops(FactDefinition d, boolean requirement) {
        if (d == null) {
            return List.of();
        }
        return switch (d.type()) {
            case QUANTITY ->
                List.of(
                        new Op("atMost", "at most"),
                        new Op("below", "below"),
                        new Op("atLeast", "at least"),
                        new Op("above", "above"));
            case YES_NO -> List.of(new Op("is", "is"));
            case WORD -> List.of(new Op("isOneOf", "is one of"));
            case WORDS -> List.of(new Op("contains", "include"));
            case DATE ->
                requirement
                        ? List.of(
                                new Op("withinMonths", "within so many months"),
                                new Op("before", "before"),
                                new Op("onOrAfter", "on or after"))
                        : List.of(new Op("before", "before"), new Op("onOrAfter", "on or after"));
            case INSTANT -> List.of();
        };
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
                .map(l -> line(l, today))
                .toList();
        if (conditions.size() == 1) {
            m.put("appliesWhen", conditions.get(0));
        } else if (!conditions.isEmpty()) {
            m.put("appliesWhen", Map.of(whenJoin, conditions));
        }
        List<Map<String, Object>> requirements = requires.stream()
                .filter(l -> !l.fact().isEmpty())
                .map(l -> line(l, today))
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

    private static Map<String, Object> line(Line l, LocalDate today) {
        FactDefinition d = l.definition();
        if (d == null) {
            throw new IllegalArgumentException("there is no fact called “" + l.fact() + "”");
        }
        if (l.op().isEmpty() || l.value().isEmpty()) {
            throw new IllegalArgumentException(d.label() + ": say how it is compared, and with what");
        }
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("fact", d.name());
        m.put(
                l.op(),
                switch (d.type()) {
                    case QUANTITY -> l.value();
                    case YES_NO -> l.value().equals("yes");
                    case WORD -> List.of(l.value().split("[ ,]+"));
                    case WORDS, INSTANT -> l.value();
                    case DATE ->
                        l.op().equals("withinMonths")
                                ? (Object) l.value()
                                : TypedInput.date(l.value(), today).toString();
                });
        if (l.op().equals("withinMonths")) {
            m.put("counting", "sameDay");
        }
        return m;
    }

    /** A stored rule back on the screen; empty when it says more than lines can. */
    static Optional<RuleDraft> from(Rule r) {
        boolean any = r.appliesWhen() instanceof Condition.Any;
        Optional<List<Line>> when = conditions(r.appliesWhen());
        Optional<List<Line>> requires = requirements(r.requires());
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
                        any ? "any" : "all",
                        when.get().isEmpty() ? List.of(Line.EMPTY) : when.get(),
                        requires.get()))
                : Optional.empty();
    }

    private static Optional<List<Line>> conditions(Condition c) {
        List<Condition> of =
                c instanceof Condition.All all ? all.of() : c instanceof Condition.Any any ? any.of() : List.of(c);
        List<Line> lines = new ArrayList<>();
        for (Condition x : of) {
            if (x instanceof Condition.QuantityIs q && q.limit() instanceof Limit.Constant k) {
                lines.add(new Line(q.fact(), op(q.bound()), figure(k)));
            } else if (x instanceof Condition.YesNoIs y) {
                lines.add(new Line(y.fact(), "is", y.value() ? "yes" : "no"));
            } else if (x instanceof Condition.WordIsOneOf w) {
                lines.add(new Line(w.fact(), "isOneOf", String.join(" ", w.values())));
            } else if (x instanceof Condition.WordsContain w) {
                lines.add(new Line(w.fact(), "contains", w.value()));
            } else if (x instanceof Condition.DateIs d) {
                lines.add(new Line(
                        d.fact(), d.before() ? "before" : "onOrAfter", d.day().toString()));
            } else {
                return Optional.empty();
            }
        }
        return Optional.of(lines);
    }

    private static Optional<List<Line>> requirements(Requirement r) {
        List<Requirement> of = r instanceof Requirement.AllOf all ? all.of() : List.of(r);
        List<Line> lines = new ArrayList<>();
        for (Requirement x : of) {
            if (x instanceof Requirement.QuantityWithin q
                    && q.limit() instanceof Limit.Constant k
                    && q.closeness().equals(Requirement.Closeness.USUAL)) {
                lines.add(new Line(q.fact(), op(q.bound()), figure(k)));
            } else if (x instanceof Requirement.YesNoIs y) {
                lines.add(new Line(y.fact(), "is", y.value() ? "yes" : "no"));
            } else if (x instanceof Requirement.WordIsOneOf w) {
                lines.add(new Line(w.fact(), "isOneOf", String.join(" ", w.allowed())));
            } else if (x instanceof Requirement.WordsContain w) {
                lines.add(new Line(w.fact(), "contains", w.value()));
            } else if (x instanceof Requirement.DateIs d) {
                lines.add(new Line(
                        d.fact(), d.before() ? "before" : "onOrAfter", d.day().toString()));
            } else if (x instanceof Requirement.RecentWithin d
                    && d.counting() == yarrek.core.rulebook.Days.Counting.SAME_DAY) {
                lines.add(new Line(d.fact(), "withinMonths", String.valueOf(d.months())));
            } else {
                return Optional.empty();
            }
        }
        return Optional.of(lines);
    }

    private static String op(yarrek.core.rulebook.Bound b) {
        return switch (b) {
            case AT_MOST -> "atMost";
            case BELOW -> "below";
            case AT_LEAST -> "atLeast";
            case ABOVE -> "above";
        };
    }

    private static String figure(Limit.Constant k) {
        return k.stated().isEmpty() ? yarrek.core.units.Finite.format(k.value()) : k.stated();
    }

    /** Facts that a rule may speak of, grouped as they are asked. */
    static List<FactDefinition> facts() {
        return Vocabulary.all().stream()
                .filter(d -> d.type() != FactType.INSTANT && !d.group().equals("occurrence"))
                .sorted(java.util.Comparator.comparing(FactDefinition::group).thenComparing(FactDefinition::label))
                .toList();
    }
}
