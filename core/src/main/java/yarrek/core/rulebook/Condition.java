package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** When a rule applies. A typed tree; facts that are not known make it not known unless the rest decides. */
public sealed interface Condition {
    /** Applies to everything. */
    Condition ALWAYS = new All(List.of());

    /** Applies to nothing. */
    Condition NEVER = new Any(List.of());

    Truth test(Facts facts);

    /** Names of every fact it speaks of. */
    Set<String> factNames();

    /** In words, for the screen. */
    String words();

    record All(List<Condition> of) implements Condition {
        public All {
            of = List.copyOf(of);
        }

        @Override
        public Truth test(Facts facts) {
            Truth truth = Truth.YES;
            for (Condition c : of) {
                truth = truth.and(c.test(facts));
            }
            return truth;
        }

        @Override
        public Set<String> factNames() {
            return names(of);
        }

        @Override
        public String words() {
            return of.isEmpty() ? "always" : join(of, " and ");
        }
    }

    record Any(List<Condition> of) implements Condition {
        public Any {
            of = List.copyOf(of);
        }

        @Override
        public Truth test(Facts facts) {
            Truth truth = Truth.NO;
            for (Condition c : of) {
                truth = truth.or(c.test(facts));
            }
            return truth;
        }

        @Override
        public Set<String> factNames() {
            return names(of);
        }

        @Override
        public String words() {
            return "(" + join(of, " or ") + ")";
        }
    }

    record Not(Condition of) implements Condition {
        @Override
        public Truth test(Facts facts) {
            return of.test(facts).not();
        }

        @Override
        public Set<String> factNames() {
            return of.factNames();
        }

        @Override
        public String words() {
            return "not (" + of.words() + ")";
        }
    }

    /** A quantity on one side of a limit; not known when either is not. */
    record QuantityIs(String fact, Bound bound, Limit limit) implements Condition {
        @Override
        public Truth test(Facts facts) {
            FactValue.Quantity q = facts.quantity(fact);
            OptionalDouble at = limit.of(facts);
            return q == null || at.isEmpty() ? Truth.UNKNOWN : Truth.of(bound.holds(q.value(), at.getAsDouble()));
        }

        @Override
        public Set<String> factNames() {
            Set<String> names = new TreeSet<>(limit.factNames());
            names.add(fact);
            return names;
        }

        @Override
        public String words() {
            FactDefinition d = Vocabulary.define(fact);
            return Outcome.lower(d.label()) + " " + bound.words() + " " + limit.words(d.unit());
        }
    }

    /** A date before a day, or on or after it. */
    record DateIs(String fact, boolean before, LocalDate day) implements Condition {
        @Override
        public Truth test(Facts facts) {
            return facts.get(fact)
                    .map(k -> Truth.of(((FactValue.Date) k.value()).value().isBefore(day) == before))
                    .orElse(Truth.UNKNOWN);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Outcome.lower(Vocabulary.define(fact).label())
                    + (before ? " before " : " on or after ")
                    + Days.show(day);
        }
    }

    record WordIsOneOf(String fact, Set<String> values) implements Condition {
        public WordIsOneOf {
            values = Set.copyOf(values);
        }

        @Override
        public Truth test(Facts facts) {
            return facts.get(fact)
                    .map(k -> Truth.of(values.contains(((FactValue.Word) k.value()).value())))
                    .orElse(Truth.UNKNOWN);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Outcome.lower(Vocabulary.define(fact).label()) + " is " + String.join(" or ", new TreeSet<>(values));
        }
    }

    record YesNoIs(String fact, boolean value) implements Condition {
        @Override
        public Truth test(Facts facts) {
            return facts.get(fact)
                    .map(k -> Truth.of(((FactValue.YesNo) k.value()).value() == value))
                    .orElse(Truth.UNKNOWN);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Outcome.lower(Vocabulary.define(fact).label()) + ": " + (value ? "yes" : "no");
        }
    }

    record WordsContain(String fact, String value) implements Condition {
        @Override
        public Truth test(Facts facts) {
            return facts.get(fact)
                    .map(k -> Truth.of(((FactValue.Words) k.value()).values().contains(value)))
                    .orElse(Truth.UNKNOWN);
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Outcome.lower(Vocabulary.define(fact).label()) + " include " + value;
        }
    }

    private static Set<String> names(List<Condition> of) {
        return of.stream().flatMap(c -> c.factNames().stream()).collect(Collectors.toCollection(TreeSet::new));
    }

    private static String join(List<Condition> of, String with) {
        return of.stream().map(Condition::words).collect(Collectors.joining(with));
    }
}
