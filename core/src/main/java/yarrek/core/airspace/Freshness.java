package yarrek.core.airspace;

/** How far the sources whose zones lie near an area can be trusted. */
public enum Freshness {
    /** Nobody has brought zones of law in. */
    NONE,
    STALE,
    CURRENT
}
