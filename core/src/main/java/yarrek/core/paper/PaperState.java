package yarrek.core.paper;

/** The state of a paper on a day. The words are shown as they stand. */
public enum PaperState {
    IN_FORCE("in force"),
    ACT_SOON("act soon"),
    GAP("gap"),
    RUN_OUT("run out"),
    NOT_YET_VALID("not yet valid"),
    UNKNOWN("not known");

    private final String words;

    PaperState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
