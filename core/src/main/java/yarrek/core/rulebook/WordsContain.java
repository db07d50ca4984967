package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

public record WordsContain(String fact, String value) implements Requirement, Condition {
    static final Kind<WordsContain> KIND = Kind.comparing(
            FactType.WORDS,
            "contains: a word",
            List.of(new Kind.Op("contains", "include", Kind.Takes.WORD)),
            WordsContain::read);

    private static WordsContain read(Written n, Reading reading) {
        FactDefinition d = reading.fact(n, FactType.WORDS);
        n.only(Set.of("fact", "contains"), reading.what());
        return new WordsContain(d.name(), reading.word(n.get("contains"), d));
    }

    @Override
    public Outcome judge(Facts facts) {
        Optional<Facts.Known> known = facts.get(fact);
        if (known.isEmpty()) {
            return Outcome.unknown(fact);
        }
        Set<String> are = ((FactValue.Words) known.get().value()).values();
        String says = Vocabulary.define(fact).label() + ": " + (are.isEmpty() ? "none" : Words.list(are)) + " (needed: "
                + Words.word(value) + ")";
        return are.contains(value) ? Outcome.met(says) : Outcome.breached(says);
    }

    @Override
    public Set<String> factNames() {
        return Set.of(fact);
    }

    @Override
    public String words() {
        return Vocabulary.define(fact).label() + " include " + Words.word(value);
    }

    @Override
    public Truth test(Facts facts) {
        return facts.get(fact)
                .map(k -> Truth.of(((FactValue.Words) k.value()).values().contains(value)))
                .orElse(Truth.UNKNOWN);
    }

    @Override
    public Set<String> contained(String words) {
        return fact.equals(words) ? Set.of(value) : Set.of();
    }

    @Override
    public void offer(Offers to) {
        Set<String> all = new TreeSet<>(Set.of(value));
        to.facts().get(fact).ifPresent(k -> all.addAll(((FactValue.Words) k.value()).values()));
        to.value(fact, new FactValue.Words(all));
    }

    @Override
    public Optional<RuleLines> lines() {
        return Optional.of(RuleLines.of(fact, "contains", value));
    }
}
