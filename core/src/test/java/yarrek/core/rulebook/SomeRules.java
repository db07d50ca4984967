package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Rules and packs of which a test says only what it is about. */
public final class SomeRules {
    private SomeRules() {}

    public static Rule law(String id, Condition when, Requirement requires) {
        return rule(id, Severity.STOP, Layer.LAW, when, requires);
    }

    public static Rule rule(String id, Severity severity, Layer layer, Condition when, Requirement requires) {
        return rule(id, severity, layer, when, Condition.never(), requires);
    }

    public static Rule rule(
            String id, Severity severity, Layer layer, Condition when, Condition except, Requirement requires) {
        return new Rule(
                id,
                id,
                layer,
                layer == Layer.LAW ? Optional.of("EU") : Optional.empty(),
                LocalDate.EPOCH,
                Optional.empty(),
                when,
                except,
                requires,
                severity,
                "do it",
                new Source("c", LocalDate.EPOCH, "high", "", ""),
                Rule.Scope.BOTH,
                false,
                "conduct",
                "",
                "");
    }

    public static RulePack pack(Rule... rules) {
        return new RulePack(
                "EU",
                "t",
                Optional.of("EU"),
                Optional.empty(),
                false,
                "1",
                LocalDate.EPOCH,
                "h",
                List.of(),
                Optional.empty(),
                Optional.empty(),
                List.of(),
                List.of(rules));
    }

    public static QuantityWithin atMost(String fact, double limit) {
        return new QuantityWithin(fact, Bound.AT_MOST, new Limit.Constant(limit), Closeness.USUAL);
    }

    public static HoldsPaper holds(String role, String kind, String... levels) {
        return new HoldsPaper(kind, kind, Set.of(levels), role, Optional.empty(), false);
    }
}
