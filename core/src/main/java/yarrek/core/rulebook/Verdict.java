package yarrek.core.rulebook;

/** What a rule says of the facts, the most pressing first. */
public enum Verdict {
    BREACHED("breached", "notch"),
    NOT_KNOWN("not known", "dots"),
    CLOSE("close", "cut"),
    MET("met", "full"),
    /** Nothing measured: something to do, keep or remember where it applies; listed apart from limits. */
    DUTY("duty", "full"),
    NOT_APPLICABLE("not applicable", "dots");

    private final String words;
    private final String shape;

    Verdict(String words, String shape) {
        this.words = words;
        this.shape = shape;
    }

    /** Whether nothing speaks against it: met, close, a duty to keep, or not applicable. */
    public boolean isFine() {
        return this == MET || this == CLOSE || this == DUTY || this == NOT_APPLICABLE;
    }

    public String words() {
        return words;
    }

    /** Name of the status shape: full, cut, notch or dots. */
    public String shape() {
        return shape;
    }
}
