package yarrek.core.airspace;

import java.util.Optional;

/** Law against the maker's geofence: four cases, and what follows in each; a fifth when one of the maps is not known. */
public enum MapComparison {
    BOTH_CLEAR(
            "neither the law's zones nor the maker's map bind here",
            "Nothing is asked by either map on file. Look at the authority's current source on the day: an empty map is not a permission."),
    LAW_ONLY(
            "the law binds, the maker's map does not",
            "The aircraft will take off without complaint; the law still forbids or asks. Apply to the zone's authority and brief the pilot that the aircraft will not warn."),
    MAKER_ONLY(
            "the maker's map binds, the law does not",
            "No authority need be asked, but the motors may refuse. Apply for the unlock for each aircraft, a light one too, load and switch it on, and rehearse it; an unlock is not a permission of the law."),
    BOTH(
            "both bind",
            "First the authority's permission, then the unlock, which must equal it in dates and area; load it, switch it on, and rehearse. An unlock never gives legal authority."),
    NOT_KNOWN(
            "whether both maps bind is not known",
            "One of the two maps is not on file here, or is out of date. Bring the current one in, or look it up and write down what it said; until then neither counts as clear.");

    private final String words;
    private final String follows;

    MapComparison(String words, String follows) {
        this.words = words;
        this.follows = follows;
    }

    /**
     * @param law whether a zone of law binds; empty when the zones on file do not tell
     * @param maker whether the maker's map binds; empty when it is not on file or out of date
     */
    public static MapComparison of(Optional<Boolean> law, Optional<Boolean> maker) {
        if (law.isEmpty() || maker.isEmpty()) {
            return NOT_KNOWN;
        }
        return law.get() ? maker.get() ? BOTH : LAW_ONLY : maker.get() ? MAKER_ONLY : BOTH_CLEAR;
    }

    public String words() {
        return words;
    }

    public String follows() {
        return follows;
    }
}
