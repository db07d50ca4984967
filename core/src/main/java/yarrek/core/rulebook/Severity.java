package yarrek.core.rulebook;

/** How much a breach weighs: a breach of a stop rule blocks the job until something changes. */
public enum Severity {
    STOP,
    ACT,
    CAUTION
}
