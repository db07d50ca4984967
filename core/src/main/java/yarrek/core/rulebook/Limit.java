package yarrek.core.rulebook;

import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import yarrek.core.units.Finite;

/** The limit of a quantity: a constant, a table by another fact's word, or another quantity scaled and shifted. */
public sealed interface Limit {
    /** The limit for these facts; empty when what it depends on is not known. */
    OptionalDouble of(Facts facts);

    Set<String> factNames();

    String words(String unit);

    record Constant(double value) implements Limit {
        @Override
        public OptionalDouble of(Facts facts) {
            return OptionalDouble.of(value);
        }

        @Override
        public Set<String> factNames() {
            return Set.of();
        }

        @Override
        public String words(String unit) {
            return (Finite.format(value) + " " + unit).strip();
        }
    }

    /** A word that has no entry in the table has no limit and counts as not known. */
    record ByWord(String fact, Map<String, Double> table) implements Limit {
        public ByWord {
            table = new TreeMap<>(table);
        }

        @Override
        public OptionalDouble of(Facts facts) {
            Double found = facts.get(fact)
                    .map(k -> table.get(((FactValue.Word) k.value()).value()))
                    .orElse(null);
            return found == null ? OptionalDouble.empty() : OptionalDouble.of(found);
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
                    .append(Finite.format(v))
                    .append(' ')
                    .append(unit)
                    .append(';'));
            return s.toString();
        }
    }

    /** {@code times} x fact + {@code plus}. */
    record OfFact(String fact, double times, double plus) implements Limit {
        @Override
        public OptionalDouble of(Facts facts) {
            FactValue.Quantity q = facts.quantity(fact);
            return q == null ? OptionalDouble.empty() : OptionalDouble.of(q.value() * times + plus);
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
                    + (plus == 0 ? "" : (plus > 0 ? " + " : " − ") + Finite.format(Math.abs(plus)) + " " + unit);
        }
    }
}
