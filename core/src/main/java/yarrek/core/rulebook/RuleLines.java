package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;

/**
 * A requirement or condition as the editor shows it: lines of fact, comparison and value.
 *
 * @param any whether any line will do, not every one; never with a single line
 */
public record RuleLines(boolean any, List<RuleLine> lines) {
    /** One comparison as it is typed. */
    public record RuleLine(String fact, String op, String value) {}

    static RuleLines of(String fact, String op, String value) {
        return new RuleLines(false, List.of(new RuleLine(fact, op, value)));
    }

    /** Every line of every part. */
    static Optional<RuleLines> together(List<Optional<RuleLines>> parts) {
        return joined(parts, false);
    }

    /** Any of parts of one line each. */
    static Optional<RuleLines> alternatives(List<Optional<RuleLines>> parts) {
        return parts.stream().flatMap(Optional::stream).allMatch(p -> p.lines().size() == 1)
                ? joined(parts, parts.size() > 1)
                : Optional.empty();
    }

    private static Optional<RuleLines> joined(List<Optional<RuleLines>> parts, boolean any) {
        boolean plain = parts.stream().allMatch(p -> p.isPresent() && !p.get().any());
        return plain
                ? Optional.of(new RuleLines(
                        any,
                        parts.stream()
                                .flatMap(p -> p.orElseThrow().lines().stream())
                                .toList()))
                : Optional.empty();
    }
}
