package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;

public record All(List<Condition> of) implements Condition {
    static final Kind<All> KIND =
            Kind.of("all", (n, reading) -> new All(reading.several(n, "all", "a condition", reading::condition)));

    public All {
        of = List.copyOf(of);
    }

    @Override
    public IntFunction<Truth> truthOverTime(Moments m) {
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
        return Condition.undecidedOf(of, facts);
    }

    @Override
    public Set<String> factNames() {
        return Condition.names(of);
    }

    @Override
    public String when() {
        return of.isEmpty() ? "always" : Condition.join(of, " and ");
    }

    /** Every way of one part with every way of the next. */
    @Override
    public List<List<Condition>> branches() {
        List<List<Condition>> out = new ArrayList<>(List.of(List.of()));
        for (Condition part : of) {
            List<List<Condition>> next = new ArrayList<>();
            for (List<Condition> a : out) {
                for (List<Condition> b : part.branches()) {
                    List<Condition> both = new ArrayList<>(a);
                    both.addAll(b);
                    next.add(both);
                }
            }
            out = next.size() > Contradiction.MOST_BRANCHES ? List.of(List.of()) : next;
        }
        return out;
    }

    @Override
    public void offerTrue(Offers to) {
        List<Condition> open =
                of.stream().filter(c -> c.test(to.facts()) != Truth.YES).toList();
        if (open.size() == 1) {
            open.get(0).offerTrue(to);
        }
    }

    @Override
    public void offerFalse(Offers to) {
        of.forEach(c -> c.offerFalse(to));
    }

    @Override
    public Optional<RuleLines> lines() {
        return RuleLines.together(of.stream().map(Condition::lines).toList());
    }
}
