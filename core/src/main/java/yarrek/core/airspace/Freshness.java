package yarrek.core.airspace;

/** How far the sources whose zones lie near an area can be trusted. */
public enum Freshness {
    /** Nobody has brought zones of law in. */
    NONE("No zones are on file: which zones the area meets is not known."),
    STALE("Zones out of date: whether they still hold is not known."),
    CURRENT("");

    private final String warning;

    Freshness(String warning) {
        this.warning = warning;
    }

    /** What is not known because of it; empty when nothing is. */
    public String warning() {
        return warning;
    }
}
