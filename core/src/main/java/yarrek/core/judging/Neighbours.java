package yarrek.core.judging;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;

/**
 * Other planned jobs that have the same people, aircraft or site: who is booked elsewhere, who comes too late from there, where
 * an emergency is said.
 */
public final class Neighbours {
    /**
     * A planned job as its neighbours see it.
     *
     * @param launch null when it is not known
     * @param emergency whether one is declared at its site
     * @param uses when it has whom and what: hours by person or build
     */
    public record Planned(
            UUID id,
            String name,
            UUID siteId,
            Position launch,
            boolean emergency,
            LocalDate lastDay,
            Map<UUID, List<TimeWindow>> uses) {}

    /**
     * Who and what a plan has.
     *
     * @param pilotId null while none is named
     * @param crew others of its crew
     * @param builds every build of its aircraft; empty while none is chosen
     * @param launch null when it is not known
     */
    public record Uses(UUID pilotId, Set<UUID> crew, Collection<UUID> builds, Position launch) {}

    /**
     * How a house reckons the way from one job to the next.
     *
     * @param kmh over the straight line, since roads are longer
     * @param settle minutes besides, for loading, parking and a rest
     * @param sameM nearer than this is the same place, and no way
     * @param apartH hours after which the night lies between
     */
    public record Way(double kmh, double settle, double sameM, double apartH) {
        /** Choices of a house. */
        public static final Way USUAL = new Way(45, 30, 500, 10);

        /** Minutes from one place to another. */
        double minutes(Position from, Position to) {
            double m = Geodesy.distanceM(from, to);
            return m <= sameM ? 0 : m / 1000 / kmh * 60 + settle;
        }
    }

    /** The hours of some jobs in order of their beginnings, so that those which overlap others are found without asking all. */
    private static final class Hours {
        private record Stretch(TimeWindow window, Planned job) {}

        private final List<Stretch> stretches;

        /** The latest end of this stretch and of all before it. */
        private final Instant[] latestEnd;

        Hours(List<Stretch> all) {
            stretches = all.stream()
                    .sorted(Comparator.comparing(s -> s.window().start()))
                    .toList();
            latestEnd = new Instant[stretches.size()];
            for (int i = 0; i < latestEnd.length; i++) {
                Instant end = stretches.get(i).window().end();
                latestEnd[i] = i > 0 && latestEnd[i - 1].isAfter(end) ? latestEnd[i - 1] : end;
            }
        }

        /** Stretches of others that share more than an instant with this one. */
        List<Stretch> meeting(TimeWindow w, UUID but) {
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
            List<Stretch> met = new ArrayList<>();
            for (int i = from - 1; i >= 0 && latestEnd[i].isAfter(w.start()); i--) {
                Stretch s = stretches.get(i);
                if (s.window().end().isAfter(w.start()) && !s.job().id().equals(but)) {
                    met.add(s);
                }
            }
            return met;
        }
    }

    private final List<Planned> emergencies;
    private final Map<UUID, Hours> byUsed;
    private final LocalDate today;
    private final Way way;

    public Neighbours(List<Planned> planned, Instant now) {
        this(planned, now, Way.USUAL);
    }

    public Neighbours(List<Planned> planned, Instant now, Way way) {
        emergencies = planned.stream()
                .filter(Planned::emergency)
                .sorted(Comparator.comparing(Planned::name))
                .toList();
        Map<UUID, List<Hours.Stretch>> used = new HashMap<>();
        planned.forEach(j -> j.uses()
                .forEach((who, windows) -> windows.forEach(
                        w -> used.computeIfAbsent(who, k -> new ArrayList<>()).add(new Hours.Stretch(w, j)))));
        byUsed = used.entrySet().stream().collect(Collectors.toMap(Map.Entry::getKey, e -> new Hours(e.getValue())));
        today = LocalDate.ofInstant(now, ZoneOffset.UTC);
        this.way = way;
    }

    /**
     * What the others say of a job.
     *
     * @param jobId null while it is not stored
     */
    public Elsewhere of(UUID jobId, UUID siteId, Uses uses, List<TimeWindow> windows) {
        Set<UUID> pilot = uses.pilotId() == null ? Set.of() : Set.of(uses.pilotId());
        Set<UUID> people = Stream.concat(pilot.stream(), uses.crew().stream()).collect(Collectors.toSet());
        return new Elsewhere(
                emergencyAt(siteId, jobId),
                overlapping(pilot, jobId, windows),
                overlapping(uses.builds(), jobId, windows),
                overlapping(uses.crew(), jobId, windows),
                uses.launch() == null ? Optional.empty() : late(people, jobId, uses.launch(), windows));
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

    /** Name of another planned job that has one of these in these hours, the first by the alphabet. */
    private Optional<String> overlapping(Collection<UUID> whose, UUID jobId, List<TimeWindow> windows) {
        TreeSet<String> names = new TreeSet<>();
        for (UUID id : whose) {
            Hours hours = byUsed.get(id);
            if (hours != null) {
                windows.forEach(w ->
                        hours.meeting(w, jobId).forEach(s -> names.add(s.job().name())));
            }
        }
        return names.isEmpty() ? Optional.empty() : Optional.of(names.first());
    }

    /** The job before or after on the same day to or from which the way of one of these is too long, the worst. */
    private Optional<Elsewhere.Late> late(Set<UUID> people, UUID jobId, Position launch, List<TimeWindow> windows) {
        Elsewhere.Late worst = null;
        Duration night = Duration.ofMinutes(Math.round(way.apartH() * 60));
        for (UUID id : people) {
            Hours hours = byUsed.get(id);
            for (TimeWindow w : hours == null ? List.<TimeWindow>of() : windows) {
                TimeWindow wide = new TimeWindow(w.start().minus(night), w.end().plus(night));
                for (Hours.Stretch s : hours.meeting(wide, jobId)) {
                    boolean before = !s.window().end().isAfter(w.start());
                    boolean after = !s.window().start().isBefore(w.end());
                    if (s.job().launch() == null || (!before && !after)) {
                        continue; // one in the same hours is told of as such
                    }
                    double gap = before
                            ? minutes(s.window().end(), w.start())
                            : minutes(w.end(), s.window().start());
                    double needs = way.minutes(s.job().launch(), launch);
                    if (needs > gap && (worst == null || needs - gap > worst.shortMin())) {
                        worst = new Elsewhere.Late(s.job().name(), gap, needs);
                    }
                }
            }
        }
        return Optional.ofNullable(worst);
    }

    private static double minutes(Instant from, Instant to) {
        return Duration.between(from, to).toSeconds() / 60.0;
    }
}
