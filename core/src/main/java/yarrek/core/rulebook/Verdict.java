package yarrek.core.rulebook;

/** What a rule says of the facts, the most pressing first. */
public enum Verdict {
    BREACHED("breached"),
    NOT_KNOWN("not known"),
    CLOSE("close"),
    MET("met"),
    NOT_APPLICABLE("not applicable");

    private final String words;

    Verdict(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
