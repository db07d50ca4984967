package yarrek.core.airspace;

/** What a zone is. The words are those of the screens; the code is the constant's name in lower camel case. */
public enum ZoneKind {
    CONTROL_ZONE("control zone"),
    RESTRICTED("restricted area"),
    PROHIBITED("prohibited area"),
    DANGER("danger area"),
    TEMPORARY("temporary restriction"),
    PARK("park or reserve"),
    AERODROME("aerodrome surroundings"),
    HELIPORT("heliport"),
    SEAPLANE("seaplane area"),
    BUILT_UP("built-up area"),
    HARBOUR("harbour"),
    EVENT("event"),
    EMERGENCY("emergency or fire"),
    ROUTE("air route"),
    CAUTION("caution area"),
    MAKER("maker's geofence"),
    OWN("operator's own"),
    OTHER("other");

    private final String words;

    ZoneKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** By code or words, in any case and with any of the usual separators; {@link #OTHER} when it is none of them. */
    public static ZoneKind of(String text) {
        String t = bare(text);
        for (ZoneKind k : values()) {
            if (bare(k.name()).equals(t) || bare(k.words).equals(t)) {
                return k;
            }
        }
        return switch (t) {
            case "controlled", "ctr", "controlledairspace" -> CONTROL_ZONE;
            case "reserve", "nationalpark", "naturereserve" -> PARK;
            case "hospitalpad", "helipad" -> HELIPORT;
            case "airport", "airfield", "strip" -> AERODROME;
            case "fire", "wildfire" -> EMERGENCY;
            case "tra", "tsa", "notam" -> TEMPORARY;
            default -> OTHER;
        };
    }

    private static String bare(String s) {
        return s.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z]", "");
    }

    /** Kinds that make an area one of caution for aircraft below the lightest class (house rule). */
    public boolean isCaution() {
        return this == CONTROL_ZONE || this == CAUTION || this == AERODROME || this == ROUTE;
    }

    /** The maker's map of the aircraft is never law. */
    public boolean isLaw() {
        return this != MAKER;
    }
}
