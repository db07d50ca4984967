package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntFunction;
import java.util.stream.Collectors;

/** When a rule applies. A typed tree; facts that are not known make it not known unless the rest decides. */
public sealed interface Condition {
    /** Applies to everything. */
    Condition ALWAYS = new All(List.of());

    /** Applies to nothing. */
    Condition NEVER = new Any(List.of());

    Truth test(Facts facts);

    /** The same as {@link #test} at each moment of a flight over which some of its facts change. */
    IntFunction<Truth> overTime(Moments m);

    /** Names of every fact it speaks of. */
    Set<String> factNames();

    /**
     * What leaves a condition open.
     *
     * @param fact the fact that would settle it; empty when the fact is there and only its uncertainty is too great
     */
    record Undecided(String fact, String words) {}

    /** What leaves it open, each once: facts that nobody has said, and quantities whose uncertainty reaches over a limit. */
    List<Undecided> undecided(Facts facts);

    private static List<Undecided> absent(Condition c, Facts facts) {
        return c.factNames().stream()
                .filter(f -> facts.get(f).isEmpty())
                .map(f -> new Undecided(f, Outcome.lower(Vocabulary.define(f).label())))
                .toList();
    }

    /** In words, for the screen. */
    String words();

    record All(List<Condition> of) implements Condition {
        public All {
            of = List.copyOf(of);
        }

        @Override
        public IntFunction<Truth> overTime(Moments m) {
            return OverTime.folded(of, m, Truth.YES, Truth::and);
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
        public List<Undecided> undecided(Facts facts) {
            return undecidedOf(of, facts);
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
        public IntFunction<Truth> overTime(Moments m) {
            return OverTime.folded(of, m, Truth.NO, Truth::or);
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
        public List<Undecided> undecided(Facts facts) {
            return undecidedOf(of, facts);
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
        public IntFunction<Truth> overTime(Moments m) {
            return OverTime.not(of, m);
        }

        @Override
        public List<Undecided> undecided(Facts facts) {
            return of.undecided(facts);
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
            return test(facts.quantity(fact), limit.span(facts));
        }

        private Truth test(FactValue.Quantity q, Optional<Limit.Span> at) {
            if (q == null || at.isEmpty()) {
                return Truth.UNKNOWN;
            }
            return bound.surely(q, at.get()) ? Truth.YES : bound.possibly(q, at.get()) ? Truth.UNKNOWN : Truth.NO;
        }

        @Override
        public IntFunction<Truth> overTime(Moments m) {
            IntFunction<FactValue.Quantity> quantity = m.quantities(fact);
            IntFunction<Optional<Limit.Span>> limits = limit.overTime(m);
            return i -> test(quantity.apply(i), limits.apply(i));
        }

        @Override
        public List<Undecided> undecided(Facts facts) {
            List<Undecided> open = absent(this, facts);
            if (!open.isEmpty() || test(facts) != Truth.UNKNOWN) {
                return open;
            }
            FactDefinition d = Vocabulary.define(fact);
            FactValue.Quantity q = facts.quantity(fact);
            String words = Outcome.lower(d.label()) + " " + q.show(d) + ", which leaves open whether it is "
                    + bound.words() + " " + limit.words(d.unit());
            return q.isOpen()
                    ? List.of(new Undecided(Facts.settles(fact), words))
                    : List.of(new Undecided("", words + ": measure it"));
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
        public IntFunction<Truth> overTime(Moments m) {
            return OverTime.each(this, m);
        }

        @Override
        public List<Undecided> undecided(Facts facts) {
            return absent(this, facts);
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
        public IntFunction<Truth> overTime(Moments m) {
            return OverTime.each(this, m);
        }

        @Override
        public List<Undecided> undecided(Facts facts) {
            return absent(this, facts);
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
        public IntFunction<Truth> overTime(Moments m) {
            return OverTime.each(this, m);
        }

        @Override
        public List<Undecided> undecided(Facts facts) {
            return absent(this, facts);
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
        public IntFunction<Truth> overTime(Moments m) {
            return OverTime.each(this, m);
        }

        @Override
        public List<Undecided> undecided(Facts facts) {
            return absent(this, facts);
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

    /** Whether a fact is on file at all: for rules about something that need not exist, such as terms of approvals held. */
    record IsKnown(String fact) implements Condition {
        @Override
        public Truth test(Facts facts) {
            return Truth.of(facts.get(fact).isPresent());
        }

        @Override
        public IntFunction<Truth> overTime(Moments m) {
            return OverTime.each(this, m);
        }

        @Override
        public List<Undecided> undecided(Facts facts) {
            return List.of();
        }

        @Override
        public Set<String> factNames() {
            return Set.of(fact);
        }

        @Override
        public String words() {
            return Outcome.lower(Vocabulary.define(fact).label()) + " is on file";
        }
    }

    private static List<Undecided> undecidedOf(List<Condition> of, Facts facts) {
        return of.stream()
                .filter(c -> c.test(facts) == Truth.UNKNOWN)
                .flatMap(c -> c.undecided(facts).stream())
                .distinct()
                .toList();
    }

    private static String join(List<Condition> of, String with) {
        return of.stream().map(Condition::words).collect(Collectors.joining(with));
    }
}
