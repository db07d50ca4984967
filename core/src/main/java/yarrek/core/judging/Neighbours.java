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
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.Function;
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

    /** The hours of some jobs in order of their beginnings, so that those which overlap others are found without asking all. */
    private static final class Hours {
        private record Stretch(TimeWindow window, Planned job) {}

        private final List<Stretch> stretches;

        /** The latest end of this stretch and of all before it. */
        private final Instant[] latestEnd;

        Hours(List<Planned> jobs) {
            stretches = jobs.stream()
                    .flatMap(j -> j.windows().stream().map(w -> new Stretch(w, j)))
                    .sorted(Comparator.comparing(s -> s.window().start()))
                    .toList();
            latestEnd = new Instant[stretches.size()];
            for (int i = 0; i < latestEnd.length; i++) {
                Instant end = stretches.get(i).window().end();
                latestEnd[i] = i > 0 && latestEnd[i - 1].isAfter(end) ? latestEnd[i - 1] : end;
            }
        }

        /** Names of others with a stretch that shares more than an instant with this one. */
        void meet(TimeWindow w, UUID but, Set<String> names) {
            int from = 0;
            int to = stretches.size();
            while (from < to) {
                int middle = (from + to) >>> 1;
                if (stretches.get(middle).window().start().isBefore(w.end())) {
                    from = middle + 1;
                } else {
                    to = middle;
                }
            }
            for (int i = from - 1; i >= 0 && latestEnd[i].isAfter(w.start()); i--) {
                Stretch s = stretches.get(i);
                if (s.window().end().isAfter(w.start()) && !s.job().id().equals(but)) {
                    names.add(s.job().name());
                }
            }
        }
    }

    private final List<Planned> emergencies;
    private final Map<UUID, Hours> byPilot;
    private final Map<UUID, Hours> byBuild;
    private final LocalDate today;

    public Neighbours(List<Planned> planned, Instant now) {
        emergencies = planned.stream()
                .filter(Planned::emergency)
                .sorted(Comparator.comparing(Planned::name))
                .toList();
        byPilot = hours(planned, Planned::pilotId);
        byBuild = hours(planned, Planned::buildId);
        today = LocalDate.ofInstant(now, ZoneOffset.UTC);
    }

    private static Map<UUID, Hours> hours(List<Planned> planned, Function<Planned, UUID> of) {
        return planned.stream()
                .filter(j -> of.apply(j) != null)
                .collect(Collectors.groupingBy(of, Collectors.collectingAndThen(Collectors.toList(), Hours::new)));
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
                overlapping(byPilot, pilotId == null ? Set.of() : Set.of(pilotId), jobId, windows),
                overlapping(byBuild, builds, jobId, windows));
    }

    /** Name of another open job that declares an emergency response at the site; empty when none does. */
    private Optional<String> emergencyAt(UUID siteId, UUID jobId) {
        return emergencies.stream()
                .filter(j -> siteId.equals(j.siteId())
                        && !j.id().equals(jobId)
                        && !j.lastDay().isBefore(today.minusDays(1)))
                .map(Planned::name)
                .findFirst();
    }

    /** Name of another planned job of one of these in these hours, the first by the alphabet. */
    private static Optional<String> overlapping(
            Map<UUID, Hours> by, Collection<UUID> whose, UUID jobId, List<TimeWindow> windows) {
        TreeSet<String> names = new TreeSet<>();
        for (UUID id : whose) {
            Hours hours = by.get(id);
            if (hours != null) {
                windows.forEach(w -> hours.meet(w, jobId, names));
            }
        }
        return names.isEmpty() ? Optional.empty() : Optional.of(names.first());
    }
}
