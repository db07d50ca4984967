package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import yarrek.core.units.Finite;

/** The limit of a quantity: a constant, a table by another fact's word, or another quantity scaled and shifted. */
public sealed interface Limit {
    /**
     * A limit and how far off it may be, since what it depends on may be measured.
     *
     * @param least the least it can be, at most {@code at}
     * @param greatest the greatest it can be, at least {@code at}; infinite when nothing says how great
     */
    record Span(double least, double at, double greatest) {
        static Span exactly(double at) {
            return new Span(at, at, at);
        }
    }

    /** The limit for these facts; empty when what it depends on is not known. */
    default OptionalDouble of(Facts facts) {
        return span(facts).map(s -> OptionalDouble.of(s.at())).orElseGet(OptionalDouble::empty);
    }

    /** The limit for these facts with what their uncertainty leaves open; empty when what it depends on is not known. */
    Optional<Span> span(Facts facts);

    /** The same at each moment of a flight. */
    default IntFunction<Optional<Span>> overTime(Moments m) {
        if (m.moves(factNames())) {
            return i -> span(m.at(i));
        }
        Optional<Span> always = span(m.constant());
        return i -> always;
    }

    Set<String> factNames();

    String words(String unit);

    /** The limit as the law prints it, such as "400 ft"; empty when it prints the unit of the fact. */
    default String stated() {
        return "";
    }

    /** The figure, where it is always the same. */
    default OptionalDouble constant() {
        return OptionalDouble.empty();
    }

    /** The figure as it is typed, where it is always the same. */
    default Optional<String> figure() {
        return Optional.empty();
    }

    /** Offers changes of what it depends on, so that a quantity of a plan would stand on it. */
    default void offer(String quantity, Offers to) {}

    /** @throws Written.Wrong unless it is a figure, a table or another fact scaled and shifted */
    static Limit read(Written n, FactDefinition of) {
        if (n.has("byWord")) {
            return ByWord.read(n, of);
        }
        if (n.has("steps")) {
            return Steps.read(n, of);
        }
        return n.has("ofFact") ? OfFact.read(n, of) : Measures.of(n, of.unit());
    }

    /** @param stated as the law prints it, when in another unit than the fact's: "400 ft"; else empty */
    record Constant(double value, String stated) implements Limit {
        public Constant(double value) {
            this(value, "");
        }

        @Override
        public OptionalDouble constant() {
            return OptionalDouble.of(value);
        }

        @Override
        public Optional<String> figure() {
            return Optional.of(stated.isEmpty() ? Finite.format(value) : stated);
        }

        @Override
        public Optional<Span> span(Facts facts) {
            return Optional.of(Span.exactly(value));
        }

        @Override
        public Set<String> factNames() {
            return Set.of();
        }

        @Override
        public String words(String unit) {
            return (stated.isEmpty() ? "" : stated + " = ") + (Finite.words(value) + " " + unit).strip();
        }
    }

    /** A word that has no entry in the table has no limit and counts as not known. */
    record ByWord(String fact, Map<String, Double> table) implements Limit {
        public ByWord {
            table = new TreeMap<>(table);
        }

        private static ByWord read(Written n, FactDefinition of) {
            n.only(Set.of("byWord", "table"), "a table by word");
            FactDefinition by = Reading.define(n.get("byWord"));
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
            return new ByWord(by.name(), table);
        }

        @Override
        public Optional<Span> span(Facts facts) {
            return facts.get(fact)
                    .map(k -> table.get(((FactValue.Word) k.value()).value()))
                    .map(Span::exactly);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words(String unit) {
            StringBuilder s = new StringBuilder("by " + Vocabulary.define(fact).label() + ":");
            table.forEach((w, v) -> s.append(' ')
                    .append(w)
                    .append(' ')
                    .append(Finite.words(v))
                    .append(' ')
                    .append(unit)
                    .append(';'));
            return s.toString();
        }
    }

    /**
     * {@code times} x fact + {@code plus}.
     *
     * @param plusStated what is added as the law prints it, when in another unit; else empty
     */
    record OfFact(String fact, double times, double plus, String plusStated) implements Limit {
        public OfFact(String fact, double times, double plus) {
            this(fact, times, plus, "");
        }

        private static OfFact read(Written n, FactDefinition of) {
            n.only(Set.of("ofFact", "times", "plus"), "a limit by another fact");
            FactDefinition by = Reading.define(n.get("ofFact"));
            if (by.type() != FactType.QUANTITY) {
                throw n.wrong(by.name() + " is no quantity");
            }
            Constant plus = n.has("plus") ? Measures.of(n.get("plus"), of.unit()) : new Constant(0);
            return new OfFact(
                    by.name(), n.has("times") ? n.get("times").number().doubleValue() : 1, plus.value(), plus.stated());
        }

        @Override
        public void offer(String quantity, Offers to) {
            FactValue.Quantity q = to.facts().quantity(quantity);
            if (q != null && times != 0) {
                to.quantity(fact, (q.value() - plus) / times);
            }
        }

        @Override
        public Optional<Span> span(Facts facts) {
            return span(facts.quantity(fact));
        }

        @Override
        public IntFunction<Optional<Span>> overTime(Moments m) {
            IntFunction<FactValue.Quantity> quantity = m.quantities(fact);
            return i -> span(quantity.apply(i));
        }

        private Optional<Span> span(FactValue.Quantity q) {
            if (q == null) {
                return Optional.empty();
            }
            double a = q.low() * times + plus;
            double b = q.high() * times + plus;
            return Optional.of(new Span(Math.min(a, b), q.value() * times + plus, Math.max(a, b)));
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words(String unit) {
            FactDefinition d = Vocabulary.define(fact);
            return Outcome.lower(d.label())
                    + (times == 1 ? "" : " × " + Finite.format(times))
                    + (plus == 0
                            ? ""
                            : (plus > 0 ? " + " : " − ")
                                    + (plusStated.isEmpty() ? "" : plusStated + " = ")
                                    + Finite.format(Math.abs(plus)) + " " + unit);
        }
    }

    /**
     * A table by another quantity: the first step that the quantity does not exceed decides; beyond the last there is no
     * limit and it counts as not known.
     */
    record Steps(String fact, List<Step> steps) implements Limit {
        /** @param atMost greatest value of the quantity for this step, included */
        public record Step(double atMost, Limit limit) {}

        public Steps {
            steps = List.copyOf(steps);
        }

        private static Steps read(Written n, FactDefinition of) {
            n.only(Set.of("steps", "table"), "a table by steps");
            FactDefinition by = Reading.define(n.get("steps"));
            List<Step> steps = new ArrayList<>();
            for (Written s : n.get("table").items()) {
                s.only(Set.of("upTo", "limit"), "a step");
                steps.add(new Step(Measures.of(s.get("upTo"), by.unit()).value(), Limit.read(s.get("limit"), of)));
            }
            return new Steps(by.name(), steps);
        }

        @Override
        public Optional<Span> span(Facts facts) {
            FactValue.Quantity q = facts.quantity(fact);
            Optional<Span> at = q == null ? Optional.empty() : step(q.value(), facts);
            if (at.isEmpty()) {
                return at;
            }
            double least = at.get().least();
            double greatest = at.get().greatest();
            double from = Double.NEGATIVE_INFINITY;
            for (Step s : steps) {
                if (q.high() > from && q.low() <= s.atMost()) {
                    Optional<Span> its = s.limit().span(facts);
                    if (its.isEmpty()) {
                        return its;
                    }
                    least = Math.min(least, its.get().least());
                    greatest = Math.max(greatest, its.get().greatest());
                }
                from = s.atMost();
            }
            // where the quantity may reach beyond the last step there may be no limit at all
            return q.high() > from
                    ? Optional.empty()
                    : Optional.of(new Span(least, at.get().at(), greatest));
        }

        private Optional<Span> step(double value, Facts facts) {
            return steps.stream()
                    .filter(s -> value <= s.atMost())
                    .findFirst()
                    .flatMap(s -> s.limit().span(facts));
        }

        @Override
        public Set<String> factNames() {
            Set<String> names = new TreeSet<>(Set.of(fact));
            steps.forEach(s -> names.addAll(s.limit().factNames()));
            return names;
        }

        @Override
        public String words(String unit) {
            FactDefinition d = Vocabulary.define(fact);
            return steps.stream()
                    .map(s -> "up to " + Finite.format(s.atMost()) + " " + d.unit() + ": "
                            + s.limit().words(unit))
                    .collect(Collectors.joining("; ", "by " + Outcome.lower(d.label()) + " (", ")"));
        }
    }
}
