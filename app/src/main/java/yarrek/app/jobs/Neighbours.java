package yarrek.app.jobs;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import yarrek.core.time.TimeWindow;

/** Other planned jobs that have the same pilot, aircraft or site: who is booked elsewhere, where an emergency is said. */
final class Neighbours {
    /** A planned job as its neighbours see it. */
    private record Planned(UUID id, String name, JobDraft draft, List<TimeWindow> windows) {}

    private final List<Planned> jobs;
    private final Map<UUID, List<Planned>> byPilot;
    private final Map<UUID, List<Planned>> byBuild;
    private final LocalDate today;

    /**
     * @param planned jobs not flown or cancelled
     * @param zones of their sites
     */
    Neighbours(List<JobEntity> planned, Map<UUID, ZoneId> zones, Instant now) {
        jobs = planned.stream()
                .sorted(Comparator.comparing((JobEntity j) -> j.name))
                .map(j -> {
                    JobDraft d = j.draft();
                    return new Planned(j.id, j.name, d, JobEntity.windows(d, zones.get(d.siteId())));
                })
                .toList();
        byPilot = jobs.stream()
                .filter(j -> j.draft().pilotId() != null)
                .collect(java.util.stream.Collectors.groupingBy(j -> j.draft().pilotId()));
        byBuild = jobs.stream()
                .filter(j -> j.draft().buildId() != null)
                .collect(java.util.stream.Collectors.groupingBy(j -> j.draft().buildId()));
        today = LocalDate.ofInstant(now, ZoneOffset.UTC);
    }

    /** Name of another open job that declares an emergency response at the site; empty when none does. */
    Optional<String> emergencyAt(UUID siteId, UUID jobId) {
        return jobs.stream()
                .filter(j -> Boolean.TRUE.equals(j.draft().emergency())
                        && siteId.equals(j.draft().siteId())
                        && !j.id().equals(jobId)
                        && !j.draft().lastDay().isBefore(today.minusDays(1)))
                .map(Planned::name)
                .findFirst();
    }

    /** Name of another planned job of the pilot in these hours. */
    Optional<String> ofPilot(UUID pilotId, UUID jobId, List<TimeWindow> windows) {
        return overlapping(byPilot, Set.of(pilotId), jobId, windows);
    }

    /** Name of another planned job with one of these builds in these hours. */
    Optional<String> ofBuilds(Collection<UUID> buildIds, UUID jobId, List<TimeWindow> windows) {
        return overlapping(byBuild, buildIds, jobId, windows);
    }

    private static Optional<String> overlapping(
            Map<UUID, List<Planned>> by, Collection<UUID> whose, UUID jobId, List<TimeWindow> windows) {
        return whose.stream()
                .flatMap(w -> by.getOrDefault(w, List.of()).stream())
                .filter(j -> !j.id().equals(jobId)
                        && j.windows().stream()
                                .anyMatch(o -> windows.stream()
                                        .anyMatch(w -> o.start().isBefore(w.end())
                                                && w.start().isBefore(o.end()))))
                .map(Planned::name)
                .min(Comparator.naturalOrder());
    }
}
