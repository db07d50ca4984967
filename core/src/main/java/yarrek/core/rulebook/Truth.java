package yarrek.core.rulebook;

/** Three-valued logic (Kleene): what is not known stays not known unless the rest decides. */
public enum Truth {
    NO,
    UNKNOWN,
    YES;

    static Truth of(boolean value) {
        return value ? YES : NO;
    }

    Truth not() {
        return this == YES ? NO : this == NO ? YES : UNKNOWN;
    }

    Truth and(Truth other) {
        return compareTo(other) <= 0 ? this : other;
    }

    Truth or(Truth other) {
        return compareTo(other) >= 0 ? this : other;
    }
}
