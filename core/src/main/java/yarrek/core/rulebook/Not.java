package yarrek.core.rulebook;

import java.util.List;
import java.util.Set;
import java.util.function.IntFunction;

public record Not(Condition of) implements Condition {
    static final Kind<Not> KIND = Kind.of(
            "not",
            (n, reading) -> new Not(
                    reading.condition(n.only(Set.of("not"), "a condition").get("not"))));

    @Override
    public Truth test(Facts facts) {
        return of.test(facts).not();
    }

    @Override
    public IntFunction<Truth> truthOverTime(Moments m) {
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
    public String when() {
        return "not (" + of.when() + ")";
    }

    /** What would have to fail is taken as possible. */
    @Override
    public List<List<Condition>> branches() {
        return List.of(List.of());
    }

    @Override
    public void offerFalse(Offers to) {
        of.offerTrue(to);
    }
}
