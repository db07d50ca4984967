package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;

public record Any(List<Condition> of) implements Condition {
    static final Kind<Any> KIND =
            Kind.of("any", (n, reading) -> new Any(reading.several(n, "any", "a condition", reading::condition)));

    public Any {
        of = List.copyOf(of);
    }

    @Override
    public IntFunction<Truth> truthOverTime(Moments m) {
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
        return Condition.undecidedOf(of, facts);
    }

    @Override
    public Set<String> factNames() {
        return Condition.names(of);
    }

    @Override
    public String when() {
        return "(" + Condition.join(of, " or ") + ")";
    }

    @Override
    public List<List<Condition>> branches() {
        return of.stream().flatMap(c -> c.branches().stream()).toList();
    }

    @Override
    public void offerTrue(Offers to) {
        of.forEach(c -> c.offerTrue(to));
    }

    @Override
    public void offerFalse(Offers to) {
        List<Condition> open =
                of.stream().filter(c -> c.test(to.facts()) != Truth.NO).toList();
        if (open.size() == 1) {
            open.get(0).offerFalse(to);
        }
    }

    @Override
    public Optional<RuleLines> lines() {
        return RuleLines.alternatives(of.stream().map(Condition::lines).toList());
    }
}
