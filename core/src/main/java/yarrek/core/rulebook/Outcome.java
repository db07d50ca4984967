package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;

/**
 * What a requirement says of the facts.
 *
 * @param says one plain sentence
 * @param missing facts that would settle it
 * @param liftedBy the approval without which it would be breached; empty for most
 */
public record Outcome(
        Verdict verdict, String says, Optional<Gauge> gauge, List<String> missing, Optional<String> liftedBy) {
    /** Begins what is said where nothing else is than that something is not known. */
    static final String NOT_KNOWN = "not known: ";

    public Outcome {
        missing = List.copyOf(missing);
    }

    public Outcome(Verdict verdict, String says, Optional<Gauge> gauge, List<String> missing) {
        this(verdict, says, gauge, missing, Optional.empty());
    }

    static Outcome met(String says) {
        return new Outcome(Verdict.MET, says, Optional.empty(), List.of());
    }

    static Outcome breached(String says) {
        return new Outcome(Verdict.BREACHED, says, Optional.empty(), List.of());
    }

    static Outcome close(String says) {
        return new Outcome(Verdict.CLOSE, says, Optional.empty(), List.of());
    }

    static Outcome unknown(String says, List<String> missing) {
        return new Outcome(Verdict.NOT_KNOWN, says, Optional.empty(), missing);
    }

    static Outcome unknown(String fact) {
        FactDefinition d = Vocabulary.define(fact);
        return unknown(NOT_KNOWN + lower(d.label()), List.of(fact));
    }

    static String lower(String label) {
        return Character.toLowerCase(label.charAt(0)) + label.substring(1);
    }
}
