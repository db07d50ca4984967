package yarrek.core.rulebook;

import java.util.Set;

/**
 * A granted approval in force for the whole of the job.
 *
 * @param lifts ids of the rules it lifts
 */
public record ApprovalHeld(String reference, Set<String> lifts) {
    public ApprovalHeld {
        lifts = Set.copyOf(lifts);
    }
}
