package yarrek.app.api;

/** Figures of a request that have to be there. */
final class Said {
    private Said() {}

    /** @throws IllegalArgumentException with its name when it is not there: nothing usual stands for it */
    static <T> T said(String name, T value) {
        if (value == null) {
            throw new IllegalArgumentException(name + " is missing: it is not known, and nothing usual stands for it");
        }
        return value;
    }
}
