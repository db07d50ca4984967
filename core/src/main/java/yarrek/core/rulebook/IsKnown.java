package yarrek.core.rulebook;

import java.util.List;
import java.util.Set;

/** Whether a fact is on file at all: for rules about something that need not exist, such as terms of approvals held. */
public record IsKnown(String fact) implements Condition {
    static final Kind<IsKnown> KIND = Kind.of(
            "known",
            (n, reading) -> new IsKnown(
                    Reading.define(n.only(Set.of("known"), "a condition").get("known"))
                            .name()));

    @Override
    public Truth test(Facts facts) {
        return Truth.of(facts.get(fact).isPresent());
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
    public String when() {
        return Outcome.lower(Vocabulary.define(fact).label()) + " is on file";
    }
}
