package yarrek.core.judging;

import java.util.Map;
import java.util.Set;
import java.util.UUID;
import yarrek.core.rulebook.FactValue;
import yarrek.core.time.Validity;

/**
 * A paper granted for one job.
 *
 * @param lifts ids of the rules and zones that it lifts, and facts that it settles as "fact=value"
 * @param settles the values of those facts, by the same text
 */
public record JobPaper(UUID id, String number, Set<String> lifts, Map<String, FactValue> settles, Validity validity) {
    /** The fact of "fact=value"; the text itself when it is none. */
    static String factOf(String lift) {
        int at = lift.indexOf('=');
        return at < 0 ? lift : lift.substring(0, at);
    }
}
