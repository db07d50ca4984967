package yarrek.core.rulebook;

import java.util.List;
import java.util.Set;

/** A matter that the pack cannot settle: always not known, with the question to ask. */
public record Ask(String question) implements Requirement {
    static final Kind<Ask> KIND = Kind.of(
            "ask",
            (n, reading) -> new Ask(n.only(Set.of("ask"), "a requirement").text("ask")));

    @Override
    public Outcome judge(Facts facts) {
        return Outcome.unknown(question, List.of());
    }

    @Override
    public Set<String> factNames() {
        return Set.of();
    }

    @Override
    public String words() {
        return "to be asked: " + question;
    }

    @Override
    public boolean isQuestion() {
        return true;
    }
}
