package yarrek.core.rulebook;

import java.util.Optional;
import yarrek.core.time.Validity;

/**
 * A paper as a fact.
 *
 * @param role whose it is: operator, pilot, observer, aircraft, job
 * @param endKnown false when nobody has said whether or when it ends
 */
public record PaperHeld(
        String kind, Optional<String> level, String role, String number, Validity validity, boolean endKnown) {}
