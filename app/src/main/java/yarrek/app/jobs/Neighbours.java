package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Sites;
import yarrek.core.time.TimeWindow;

/** What other planned jobs say about one: emergencies at its site, pilots and aircraft planned elsewhere. */
@Component
class Neighbours {
    private final EntityManager em;
    private final Sites sites;
    private final Clock clock;

    Neighbours(EntityManager em, Sites sites, Clock clock) {
        this.em = em;
        this.sites = sites;
        this.clock = clock;
    }

    /** Name of another open job that declares an emergency response at the site; empty when none does. */
    Optional<String> emergencyAt(UUID siteId, UUID jobId) {
        return em.createQuery(
                        "select j.name from JobEntity j where j.siteId = :s and j.emergency = true and j.state = :p"
                                + " and j.lastDay >= :today and j.id <> :id order by j.name",
                        String.class)
                .setParameter("s", siteId)
                .setParameter("p", JobEntity.PLANNED)
                .setParameter(
                        "today", LocalDate.now(clock.withZone(ZoneOffset.UTC)).minusDays(1))
                .setParameter("id", other(jobId))
                .getResultStream()
                .findFirst();
    }

    /** Name of another planned job of the pilot in these hours. */
    Optional<String> ofPilot(UUID pilotId, UUID jobId, List<TimeWindow> windows) {
        return overlapping(near("j.pilotId in :what", List.of(pilotId), jobId, windows), windows);
    }

    /** Name of another planned job with one of these builds in these hours. */
    Optional<String> ofBuilds(Collection<UUID> buildIds, UUID jobId, List<TimeWindow> windows) {
        return overlapping(near("j.buildId in :what", buildIds, jobId, windows), windows);
    }

    private List<JobEntity> near(String which, Collection<UUID> what, UUID jobId, List<TimeWindow> windows) {
        if (windows.isEmpty()) {
            return List.of();
        }
        // a day more on both sides, since the days of other sites are those of their own zones
        return em.createQuery(
                        "from JobEntity j where " + which + " and j.state = :p and j.id <> :id"
                                + " and j.firstDay <= :last and j.lastDay >= :first order by j.name",
                        JobEntity.class)
                .setParameter("what", what)
                .setParameter("p", JobEntity.PLANNED)
                .setParameter("id", other(jobId))
                .setParameter(
                        "first",
                        LocalDate.ofInstant(windows.get(0).start(), ZoneOffset.UTC)
                                .minusDays(1))
                .setParameter(
                        "last",
                        LocalDate.ofInstant(windows.get(windows.size() - 1).end(), ZoneOffset.UTC)
                                .plusDays(1))
                .getResultList();
    }

    private Optional<String> overlapping(List<JobEntity> jobs, List<TimeWindow> windows) {
        return jobs.stream()
                .filter(j -> JobEntity.windows(j.draft(), sites.site(j.siteId).zone()).stream()
                        .anyMatch(o -> windows.stream()
                                .anyMatch(w ->
                                        o.start().isBefore(w.end()) && w.start().isBefore(o.end()))))
                .map(j -> j.name)
                .findFirst();
    }

    private static UUID other(UUID jobId) {
        return jobId == null ? new UUID(0, 0) : jobId;
    }
}
