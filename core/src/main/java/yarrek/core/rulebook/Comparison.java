package yarrek.core.rulebook;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Two assessments of one plan beside each other: what would newly need a hand, what would no longer, and what would weigh
 * differently. A finding that only changes its words is none of these.
 */
public record Comparison(List<Finding> appear, List<Finding> vanish, List<Shift> shifted) {
    /** One rule with two answers that both need a hand. */
    public record Shift(Finding before, Finding after) {}

    public Comparison {
        appear = List.copyOf(appear);
        vanish = List.copyOf(vanish);
        shifted = List.copyOf(shifted);
    }

    public static Comparison of(Assessment before, Assessment after) {
        Map<String, Finding> was = open(before);
        Map<String, Finding> is = open(after);
        return new Comparison(
                after.findings().stream()
                        .filter(f -> is.containsKey(f.rule().id())
                                && !was.containsKey(f.rule().id()))
                        .toList(),
                before.findings().stream()
                        .filter(f -> was.containsKey(f.rule().id())
                                && !is.containsKey(f.rule().id()))
                        .toList(),
                after.findings().stream()
                        .filter(f -> is.containsKey(f.rule().id())
                                && was.containsKey(f.rule().id()))
                        .filter(f -> was.get(f.rule().id()).verdict() != f.verdict())
                        .map(f -> new Shift(was.get(f.rule().id()), f))
                        .toList());
    }

    public boolean isEmpty() {
        return appear.isEmpty() && vanish.isEmpty() && shifted.isEmpty();
    }

    private static Map<String, Finding> open(Assessment a) {
        return a.findings().stream()
                .filter(Standing::isOpen)
                .collect(Collectors.toMap(f -> f.rule().id(), Function.identity(), (x, y) -> x));
    }
}
