package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;

/**
 * What must hold where a rule applies. Missing facts are never met. Each kind is a class with its {@link Kind}, and an entry
 * of {@link Reading#REQUIREMENTS}; nothing else knows which kinds there are.
 */
public interface Requirement {
    Outcome judge(Facts facts);

    Set<String> factNames();

    /** The verdict alone, without the words: the same as that of {@link #judge}, for looking at every moment of a flight. */
    default Verdict verdict(Facts facts) {
        return judge(facts).verdict();
    }

    /** Distance left to the nearest limit, for finding the worst moment; infinite where nothing is measured. */
    default double margin(Facts facts) {
        return Double.POSITIVE_INFINITY;
    }

    /** The same as {@link #verdict} and {@link #margin} at each moment of a flight over which some of its facts change. */
    default OverTime overTime(Moments m) {
        return new OverTime(i -> verdict(m.at(i)), i -> margin(m.at(i)));
    }

    /** How many of its single parts do not comply. */
    default int failing(Facts facts) {
        return verdict(facts).isFine() ? 0 : 1;
    }

    /** Papers that it asks for in every case; those of alternatives are left out, since another may do. */
    default List<HoldsPaper> papers() {
        return List.of();
    }

    /** The restriction of zones that it is about. */
    default Optional<ZoneMet.Restriction> zones() {
        return Optional.empty();
    }

    /** Itself, where it is one quantity on one side of a limit. */
    default Optional<QuantityWithin> quantity() {
        return Optional.empty();
    }

    /** Words that it asks a list of words to contain in every case, such as documents to carry. */
    default Set<String> contained(String fact) {
        return Set.of();
    }

    /** Whether it is something to do, keep or remember. */
    default boolean isDuty() {
        return false;
    }

    /** Whether it only asks: a matter that the pack cannot settle. */
    default boolean isQuestion() {
        return false;
    }

    /** Whether another day or hour may change what it says, beyond what its facts say of time. */
    default boolean heldAtAnotherTime(Facts facts) {
        return false;
    }

    /** The least that a quantity must be whatever the case; empty where this asks for none. */
    default OptionalDouble least(String quantity) {
        return OptionalDouble.empty();
    }

    /** Offers the single changes of a plan that might make it hold; none where no planner can. */
    default void offer(Offers to) {}

    /** As lines of the editor, every one of which must hold; empty when it says more than lines can. */
    default Optional<RuleLines> lines() {
        return Optional.empty();
    }

    /** In words, for the screen. */
    String words();
}
