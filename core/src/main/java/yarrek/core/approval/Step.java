package yarrek.core.approval;

import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;

/**
 * One thing to be granted.
 *
 * @param id its identity in the chain
 * @param needs ids of the steps that must be granted before it can be sent
 * @param prepareHours work left before it can be sent, zero or more
 * @param lead what its granter takes at worst
 * @param usual what its granter usually takes, not above the worst
 * @param neededOn the day on which it must be held: the first day of the job, or its own day
 * @param earliestSend the first day on which it may be sent; empty for any
 * @param sentOn when it was sent; empty when it was not
 * @param grantedOn when it was granted; empty when it was not
 * @param granter days on which its granter works; empty to go by the calendar of the place
 */
public record Step(
        String id,
        String name,
        Set<String> needs,
        double prepareHours,
        Lead lead,
        Lead usual,
        LocalDate neededOn,
        Optional<LocalDate> earliestSend,
        Optional<LocalDate> sentOn,
        Optional<LocalDate> grantedOn,
        Optional<WorkDays> granter) {
    public Step {
        needs = Set.copyOf(needs);
        if (!(prepareHours >= 0 && prepareHours <= 10_000)) {
            throw new IllegalArgumentException("hours of work must be 0 to 10,000, got " + prepareHours);
        }
    }

    /** The same, not yet begun, with nothing known of when it may be sent. */
    public static Step open(
            String id, String name, Set<String> needs, double prepareHours, Lead worst, LocalDate neededOn) {
        return new Step(
                id,
                name,
                needs,
                prepareHours,
                worst,
                worst,
                neededOn,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty());
    }

    /** "3 – 10 working days": as a rule and at worst, or one where they are the same. */
    public String takes() {
        return (usual.days() == lead.days() ? "" : usual.days() + " – ") + lead.words();
    }
}
