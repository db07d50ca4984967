package yarrek.core.rulebook;

/** What a rule says of the facts, the most pressing first. */
public enum Verdict {
    BREACHED("breached"),
    NOT_KNOWN("not known"),
    CLOSE("close"),
    MET("met"),
    /** Nothing measured: something to do, keep or remember where it applies; listed apart from limits. */
    DUTY("duty"),
    NOT_APPLICABLE("not applicable");

    private final String words;

    Verdict(String words) {
        this.words = words;
    }

    /** Whether nothing speaks against it: met, close, a duty to keep, or not applicable. */
    public boolean isFine() {
        return this == MET || this == CLOSE || this == DUTY || this == NOT_APPLICABLE;
    }

    public String words() {
        return words;
    }
}
