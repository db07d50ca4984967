package yarrek.core.judging;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import yarrek.core.time.TimeWindow;

/** Other planned jobs that have the same pilot, aircraft or site: who is booked elsewhere, where an emergency is said. */
public final class Neighbours {
    /**
     * A planned job as its neighbours see it.
     *
     * @param pilotId null while none is named
     * @param buildId null while none is chosen
     */
    public record Planned(
            UUID id,
            String name,
            UUID siteId,
            UUID pilotId,
            UUID buildId,
            boolean emergency,
            LocalDate lastDay,
            List<TimeWindow> windows) {}

    private final List<Planned> jobs;
    private final Map<UUID, List<Planned>> byPilot;
    private final Map<UUID, List<Planned>> byBuild;
    private final LocalDate today;

    public Neighbours(List<Planned> planned, Instant now) {
        jobs = planned.stream().sorted(Comparator.comparing(Planned::name)).toList();
        byPilot = jobs.stream().filter(j -> j.pilotId() != null).collect(Collectors.groupingBy(Planned::pilotId));
        byBuild = jobs.stream().filter(j -> j.buildId() != null).collect(Collectors.groupingBy(Planned::buildId));
        today = LocalDate.ofInstant(now, ZoneOffset.UTC);
    }

    /**
     * What the others say of a job.
     *
     * @param jobId null while it is not stored
     * @param pilotId null while none is named
     * @param builds every build of its aircraft; empty while none is chosen
     */
    public Elsewhere of(UUID jobId, UUID siteId, UUID pilotId, Collection<UUID> builds, List<TimeWindow> windows) {
        return new Elsewhere(
                emergencyAt(siteId, jobId),
                pilotId == null ? Optional.empty() : ofPilot(pilotId, jobId, windows),
                ofBuilds(builds, jobId, windows));
    }

    /** Name of another open job that declares an emergency response at the site; empty when none does. */
    private Optional<String> emergencyAt(UUID siteId, UUID jobId) {
        return jobs.stream()
                .filter(j -> j.emergency()
                        && siteId.equals(j.siteId())
                        && !j.id().equals(jobId)
                        && !j.lastDay().isBefore(today.minusDays(1)))
                .map(Planned::name)
                .findFirst();
    }

    /** Name of another planned job of the pilot in these hours. */
    private Optional<String> ofPilot(UUID pilotId, UUID jobId, List<TimeWindow> windows) {
        return overlapping(byPilot, Set.of(pilotId), jobId, windows);
    }

    /** Name of another planned job with one of these builds in these hours. */
    private Optional<String> ofBuilds(Collection<UUID> buildIds, UUID jobId, List<TimeWindow> windows) {
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
