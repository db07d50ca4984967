package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** A list of words with any of several in it, such as one of three kinds of lights. */
public record ContainsAnyOf(String fact, Set<String> values) implements Requirement, Condition {
    static final Kind<ContainsAnyOf> KIND = Kind.comparing(
            FactType.WORDS,
            "containsAnyOf: [words]",
            List.of(new Kind.Op("containsAnyOf", "include any of", Kind.Takes.WORDS)),
            ContainsAnyOf::read);

    public ContainsAnyOf {
        values = Set.copyOf(values);
    }

    private static ContainsAnyOf read(Written n, Reading reading) {
        FactDefinition d = reading.fact(n, FactType.WORDS);
        n.only(Set.of("fact", "containsAnyOf"), reading.what());
        return new ContainsAnyOf(d.name(), reading.words(n.get("containsAnyOf"), d));
    }

    @Override
    public Outcome judge(Facts facts) {
        Optional<Facts.Known> known = facts.get(fact);
        if (known.isEmpty()) {
            return Outcome.unknown(fact);
        }
        Set<String> are = ((FactValue.Words) known.get().value()).values();
        String says = Vocabulary.define(fact).label() + ": " + (are.isEmpty() ? "none" : Words.list(are)) + " (needed: "
                + Words.list(values) + ")";
        return are.stream().anyMatch(values::contains) ? Outcome.met(says) : Outcome.breached(says);
    }

    @Override
    public Truth test(Facts facts) {
        return facts.get(fact)
                .map(k ->
                        Truth.of(((FactValue.Words) k.value()).values().stream().anyMatch(values::contains)))
                .orElse(Truth.UNKNOWN);
    }

    @Override
    public void offer(Offers to) {
        values.stream().sorted().forEach(v -> new WordsContain(fact, v).offer(to));
    }

    @Override
    public Set<String> factNames() {
        return Set.of(fact);
    }

    @Override
    public Optional<RuleLines> lines() {
        return Optional.of(RuleLines.of(fact, "containsAnyOf", String.join(" ", new TreeSet<>(values))));
    }

    @Override
    public String words() {
        return Vocabulary.define(fact).label() + " include " + Words.list(values);
    }
}
