package yarrek.core.approval;

import java.util.Set;

/** How far a request has come. */
public enum ApprovalState {
    PREPARING("preparing"),
    SENT("sent"),
    ASKED_BACK("asked back"),
    GRANTED("granted"),
    AMENDED("amended"),
    REFUSED("refused"),
    WITHDRAWN("withdrawn"),
    RUN_OUT("run out");

    private final String words;

    ApprovalState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Whether it may be said to have come to another state from this one; run out is never said, the days say it. */
    public boolean may(ApprovalState next) {
        return switch (this) {
            case PREPARING -> Set.of(SENT, GRANTED, WITHDRAWN).contains(next);
            case SENT -> Set.of(ASKED_BACK, GRANTED, REFUSED, WITHDRAWN).contains(next);
            case ASKED_BACK -> Set.of(SENT, GRANTED, REFUSED, WITHDRAWN).contains(next);
            case GRANTED, AMENDED -> Set.of(AMENDED, WITHDRAWN).contains(next);
            case REFUSED, WITHDRAWN -> next == PREPARING;
            case RUN_OUT -> false;
        };
    }

    /** Whether it is with the granter. */
    public boolean isOut() {
        return this == SENT || this == ASKED_BACK;
    }

    /** Whether it is held. */
    public boolean isHeld() {
        return this == GRANTED || this == AMENDED;
    }

    /** Name of the status shape. */
    public String shape() {
        return switch (this) {
            case GRANTED, AMENDED -> "full";
            case SENT -> "cut";
            case REFUSED, WITHDRAWN, RUN_OUT, ASKED_BACK -> "notch";
            case PREPARING -> "dots";
        };
    }
}
