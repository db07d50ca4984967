package yarrek.core.paper;

/** The state of a paper on a day. The words are shown as they stand. */
public enum PaperState {
    IN_FORCE("in force", "full"),
    ACT_SOON("act soon", "cut"),
    GAP("gap", "notch"),
    RUN_OUT("run out", "notch"),
    NOT_YET_VALID("not yet valid", "dots"),
    UNKNOWN("not known", "dots");

    private final String words;
    private final String shape;

    PaperState(String words, String shape) {
        this.words = words;
        this.shape = shape;
    }

    public String words() {
        return words;
    }

    /** Name of the status shape: full, cut, notch or dots. */
    public String shape() {
        return shape;
    }
}
