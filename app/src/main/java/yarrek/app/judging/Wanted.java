package yarrek.app.judging;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.UUID;
import java.util.function.Function;
import yarrek.core.judging.Plan;

/**
 * A plan, or the plan of a flight, whose facts are wanted. Identities are null while nothing is chosen or stored.
 *
 * @param craftId the aircraft, when its build is not known; else null
 * @param through its last day
 * @param plan what is planned, once the clock of the place is known
 */
public record Wanted(
        UUID jobId,
        UUID siteId,
        UUID pilotId,
        UUID buildId,
        UUID craftId,
        LocalDate through,
        Function<ZoneId, Plan> plan) {
    /** The same job, flown by others than planned. */
    public Wanted flownWith(UUID pilot, UUID build, UUID craft) {
        return new Wanted(jobId, siteId, pilot, build, craft, through, plan);
    }
}
