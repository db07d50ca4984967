package yarrek.core.rulebook;

import java.util.Optional;
import yarrek.core.time.Validity;

/**
 * A paper as a fact.
 *
 * @param role whose it is: operator, pilot, observer, aircraft, job
 * @param jurisdiction where it counts, such as "EU" or "EU-XX", several with spaces between; empty when bound to none
 * @param endKnown false when nobody has said whether or when it ends
 */
public record PaperHeld(
        String kind,
        Optional<String> level,
        String role,
        String number,
        String jurisdiction,
        Validity validity,
        boolean endKnown) {
    /** Whether it is known when it ends, or that it does not. */
    boolean isEndSettled() {
        return endKnown || validity.validThrough().isPresent();
    }

    /** The same, as somebody else's. */
    public PaperHeld of(String otherRole) {
        return new PaperHeld(kind, level, otherRole, number, jurisdiction, validity, endKnown);
    }

    /** Whether it counts under a law: its own, that of the union it is part of, or any when it is bound to none. */
    public boolean countsIn(Optional<String> law) {
        if (law.isEmpty() || jurisdiction.isBlank()) {
            return true;
        }
        for (String own : jurisdiction.split(" ")) {
            if (own.equals(law.get())
                    || own.startsWith(law.get() + "-")
                    || law.get().startsWith(own + "-")) {
                return true;
            }
        }
        return false;
    }

    /**
     * Whether its territory names a place: the place itself, all of its state, or the union that the state is a member of;
     * or it is bound to none. A union does not stand for states that only follow its rules by agreement.
     */
    public boolean namesPlace(String place) {
        if (jurisdiction.isBlank()) {
            return true;
        }
        for (String own : jurisdiction.split(" ")) {
            if (own.equals(place) || (place.startsWith(own + "-") && !Places.isAssociated(place))) {
                return true;
            }
        }
        return false;
    }
}
