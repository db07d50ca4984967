package yarrek.core.judging;

import yarrek.core.rulebook.Facts;

/** Puts what is known; a null stays out. */
final class Put {
    private Put() {}

    static void quantity(Facts.Builder b, String name, Double value, String source) {
        if (value != null) {
            b.quantity(name, value, 0, source);
        }
    }

    static void yesNo(Facts.Builder b, String name, Boolean value, String source) {
        if (value != null) {
            b.yesNo(name, value, source);
        }
    }
}
