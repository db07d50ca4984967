package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;
import java.util.Set;

public record YesNoIs(String fact, boolean value) implements Requirement, Condition {
    static final Kind<YesNoIs> KIND = Kind.comparing(
            FactType.YES_NO,
            "is: true or is: false",
            List.of(new Kind.Op("is", "is", Kind.Takes.YES_NO)),
            YesNoIs::read);

    private static YesNoIs read(Written n, Reading reading) {
        FactDefinition d = reading.fact(n, FactType.YES_NO);
        n.only(Set.of("fact", "is"), reading.what());
        return new YesNoIs(d.name(), n.get("is").yesNo());
    }

    @Override
    public Outcome judge(Facts facts) {
        Optional<Facts.Known> known = facts.get(fact);
        if (known.isEmpty()) {
            return Outcome.unknown(fact);
        }
        boolean is = ((FactValue.YesNo) known.get().value()).value();
        String says = Vocabulary.define(fact).label() + ": " + (is ? "yes" : "no");
        return is == value ? Outcome.met(says) : Outcome.breached(says);
    }

    @Override
    public Set<String> factNames() {
        return Set.of(fact);
    }

    @Override
    public String words() {
        return Vocabulary.define(fact).label() + ": " + (value ? "yes" : "no");
    }

    @Override
    public Truth test(Facts facts) {
        return facts.get(fact)
                .map(k -> Truth.of(((FactValue.YesNo) k.value()).value() == value))
                .orElse(Truth.UNKNOWN);
    }

    @Override
    public boolean clashes(Contradiction.Left left) {
        return left.yesNo(fact, value);
    }

    @Override
    public void offer(Offers to) {
        to.value(fact, new FactValue.YesNo(value));
    }

    @Override
    public void offerTrue(Offers to) {
        offer(to);
    }

    @Override
    public void offerFalse(Offers to) {
        to.value(fact, new FactValue.YesNo(!value));
    }

    @Override
    public Optional<RuleLines> lines() {
        return Optional.of(RuleLines.of(fact, "is", value ? "yes" : "no"));
    }
}
