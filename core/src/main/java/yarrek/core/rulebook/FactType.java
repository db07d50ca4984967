package yarrek.core.rulebook;

/** The kinds of value a fact can have. */
public enum FactType {
    QUANTITY,
    YES_NO,
    WORD,
    WORDS,
    DATE,
    INSTANT
}
