package yarrek.app.judging;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import yarrek.core.judging.Plan;

/**
 * A plan, or the plan of a flight, whose facts are wanted. Identities are null while nothing is chosen or stored.
 *
 * @param craftId the aircraft, when its build is not known; else null
 * @param through its last day
 * @param plan what is planned, once the clock of the place is known
 * @param flights numbers of the flights of the job that it is of; empty for the whole of it
 * @param crew who else is needed
 */
public record Wanted(
        UUID jobId,
        UUID siteId,
        UUID pilotId,
        UUID buildId,
        UUID craftId,
        LocalDate through,
        Function<ZoneId, Plan> plan,
        List<Integer> flights,
        Set<UUID> crew) {
    /** The same job, flown by others than planned. */
    public Wanted flownWith(UUID pilot, UUID build, UUID craft) {
        return new Wanted(jobId, siteId, pilot, build, craft, through, plan, flights, crew);
    }
}
