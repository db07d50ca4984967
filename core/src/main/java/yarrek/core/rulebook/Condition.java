package yarrek.core.rulebook;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntFunction;
import java.util.stream.Collectors;

/**
 * When a rule applies. Facts that are not known make it not known unless the rest decides. Each kind is a class with its
 * {@link Kind}, and an entry of {@link Reading#CONDITIONS}; nothing else knows which kinds there are.
 */
public interface Condition {
    Truth test(Facts facts);

    /** Names of every fact it speaks of. */
    Set<String> factNames();

    /** As a sentence of its own. */
    default String words() {
        return when();
    }

    /** In words, after "when". */
    default String when() {
        return Outcome.lower(words());
    }

    /** The same as {@link #test} at each moment of a flight over which some of its facts change. */
    default IntFunction<Truth> truthOverTime(Moments m) {
        return OverTime.each(this, m);
    }

    /**
     * What leaves a condition open.
     *
     * @param fact the fact that would settle it; empty when the fact is there and only its uncertainty is too great
     */
    record Undecided(String fact, String words) {}

    /** What leaves it open, each once: facts that nobody has said, and quantities whose uncertainty reaches over a limit. */
    default List<Undecided> undecided(Facts facts) {
        return factNames().stream()
                .filter(f -> facts.get(f).isEmpty())
                .map(f -> new Undecided(f, Outcome.lower(Vocabulary.define(f).label())))
                .toList();
    }

    /** Ways in which it could hold, each a list of single conditions that must hold together; an empty one is always possible. */
    default List<List<Condition>> branches() {
        return List.of(List.of(this));
    }

    /** Narrows what is left for its fact; whether nothing is left. */
    default boolean clashes(Contradiction.Left left) {
        return false;
    }

    /** Offers the single changes of a plan that might make it true. */
    default void offerTrue(Offers to) {}

    /** Offers the single changes of a plan that might make it false. */
    default void offerFalse(Offers to) {}

    /** As lines of the editor; empty when it says more than lines can. */
    default Optional<RuleLines> lines() {
        return Optional.empty();
    }

    /** Applies to everything. */
    static Condition always() {
        return new All(List.of());
    }

    /** Applies to nothing. */
    static Condition never() {
        return new Any(List.of());
    }

    static Set<String> names(Collection<Condition> of) {
        return of.stream().flatMap(c -> c.factNames().stream()).collect(Collectors.toCollection(TreeSet::new));
    }

    static List<Undecided> undecidedOf(List<Condition> of, Facts facts) {
        return of.stream()
                .filter(c -> c.test(facts) == Truth.UNKNOWN)
                .flatMap(c -> c.undecided(facts).stream())
                .distinct()
                .toList();
    }

    static String join(List<Condition> of, String with) {
        return of.stream().map(Condition::when).collect(Collectors.joining(with));
    }
}
