package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

public record WordIsOneOf(String fact, Set<String> values) implements Requirement, Condition {
    static final Kind<WordIsOneOf> KIND = Kind.comparing(
            FactType.WORD,
            "isOneOf: [words]",
            List.of(new Kind.Op("isOneOf", "is one of", Kind.Takes.WORDS)),
            WordIsOneOf::read);

    private static WordIsOneOf read(Written n, Reading reading) {
        FactDefinition d = reading.fact(n, FactType.WORD);
        n.only(Set.of("fact", "isOneOf"), reading.what());
        return new WordIsOneOf(d.name(), reading.words(n.get("isOneOf"), d));
    }

    public WordIsOneOf {
        values = Set.copyOf(values);
    }

    @Override
    public Outcome judge(Facts facts) {
        Optional<Facts.Known> known = facts.get(fact);
        if (known.isEmpty()) {
            return Outcome.unknown(fact);
        }
        String is = ((FactValue.Word) known.get().value()).value();
        String says =
                Vocabulary.define(fact).label() + ": " + Words.word(is) + " (allowed: " + Words.list(values) + ")";
        return values.contains(is) ? Outcome.met(says) : Outcome.breached(says);
    }

    @Override
    public Set<String> factNames() {
        return Set.of(fact);
    }

    @Override
    public String words() {
        return Vocabulary.define(fact).label() + " is " + Words.list(values);
    }

    @Override
    public Truth test(Facts facts) {
        return facts.get(fact)
                .map(k -> Truth.of(values.contains(((FactValue.Word) k.value()).value())))
                .orElse(Truth.UNKNOWN);
    }

    @Override
    public String when() {
        return Outcome.lower(Vocabulary.define(fact).label()) + " is " + Words.list(values);
    }

    @Override
    public boolean clashes(Contradiction.Left left) {
        return left.word(fact, values);
    }

    @Override
    public void offer(Offers to) {
        values.stream().sorted().forEach(v -> to.value(fact, new FactValue.Word(v)));
    }

    @Override
    public void offerTrue(Offers to) {
        offer(to);
    }

    @Override
    public void offerFalse(Offers to) {
        Vocabulary.define(fact).words().stream()
                .filter(v -> !values.contains(v))
                .forEach(v -> to.value(fact, new FactValue.Word(v)));
    }

    @Override
    public Optional<RuleLines> lines() {
        return Optional.of(RuleLines.of(fact, "isOneOf", String.join(" ", new TreeSet<>(values))));
    }
}
