package yarrek.core.rulebook;

/**
 * How a finding stands, fresh from judging or as it was stored. What that means for going ahead is decided here and nowhere
 * else.
 */
public interface Standing {
    Verdict verdict();

    Severity severity();

    /** Whether it is a matter of law, or of house, maker and guidance. */
    boolean law();

    /** Whether the manager has recorded a departure from it. */
    boolean departed();

    /** Whether a stricter rule beside it binds. */
    boolean beaten();

    /** Whether what is not known can only be said on the day. */
    boolean onTheDay();

    /** Whether it needs a hand: breached and not departed from, not known or close and no stricter rule beside it. */
    default boolean isOpen() {
        return !departed()
                && (verdict() == Verdict.BREACHED
                        || (!beaten() && (verdict() == Verdict.NOT_KNOWN || verdict() == Verdict.CLOSE)));
    }

    /**
     * Whether it may not go ahead until something changes: any breach of law or of a binding condition, whatever its weight,
     * a breach of a stop rule that nobody has departed from, and a stop rule that is not known and could be said now.
     */
    default boolean blocks() {
        return !departed()
                && ((verdict() == Verdict.BREACHED && (law() || severity() == Severity.STOP))
                        || (verdict() == Verdict.NOT_KNOWN && severity() == Severity.STOP && !onTheDay()));
    }

    /** Whether it waits for what can only be said on the day, and would stop the job then. */
    default boolean waitsForTheDay() {
        return verdict() == Verdict.NOT_KNOWN && severity() == Severity.STOP && onTheDay();
    }
}
