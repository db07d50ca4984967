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
import java.util.function.UnaryOperator;
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
        /** Minutes from one place to another. */
        double minutes(Position from, Position to) {
            double m = Geodesy.distanceM(from, to);
            return m <= sameM ? 0 : m / 1000 / kmh * 60 + settle;
        }

        /** After so long nobody is late from one place at another. */
        public Duration night() {
            return Duration.ofMinutes(Math.round(apartH * 60));
        }

        /** Minutes between two stretches; less than 0 where they share more than an instant. */
        private static double gap(TimeWindow a, TimeWindow b) {
            boolean swapped = a.start().isAfter(b.start());
            TimeWindow first = swapped ? b : a;
            TimeWindow then = swapped ? a : b;
            return Duration.between(first.end(), then.start()).toSeconds() / 60.0;
        }

        /** Whether whoever is at both would be in two places at once, or late at one from the other. */
        boolean tooNear(TimeWindow a, Position at, TimeWindow b, Position other) {
            double gap = gap(a, b);
            return gap < 0 || (at != null && other != null && gap < apartH * 60 && minutes(at, other) > gap);
        }
    }

    /**
     * Where somebody or something is needed, and when.
     *
     * @param launch null when it is not known: then only the same hours are in the way
     * @param uses hours by person or aircraft
     */
    public record Stay(Position launch, Map<UUID, List<TimeWindow>> uses) {
        /** The same by what stands for each of whom and what it has. */
        public Stay as(UnaryOperator<UUID> as) {
            Map<UUID, List<TimeWindow>> by = new HashMap<>();
            uses.forEach((who, hours) ->
                    by.computeIfAbsent(as.apply(who), k -> new ArrayList<>()).addAll(hours));
            return new Stay(launch, by);
        }

        /** Whether anyone or anything would be needed at both at once, or be late at one from the other. */
        public boolean isInTheWayOf(Stay other, Way way) {
            return uses.entrySet().stream()
                    .anyMatch(e -> other.uses.getOrDefault(e.getKey(), List.of()).stream()
                            .anyMatch(
                                    b -> e.getValue().stream().anyMatch(a -> way.tooNear(a, launch, b, other.launch))));
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
    private final List<Planned> planned;
    private final Instant now;
    private final LocalDate today;
    private final Way way;

    /** The same as if some of them were not there. */
    public Neighbours without(Set<UUID> jobs) {
        return new Neighbours(
                planned.stream().filter(j -> !jobs.contains(j.id())).toList(), now, way);
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
        this.planned = List.copyOf(planned);
        this.now = now;
        today = LocalDate.ofInstant(now, ZoneOffset.UTC);
        this.way = way;
    }

    /**
     * Where all of them are, and when.
     *
     * @param as what stands for a person or build, such as the aircraft for its builds
     */
    public List<Map.Entry<String, Stay>> stays(UnaryOperator<UUID> as) {
        return planned.stream()
                .map(j -> Map.entry(j.name(), new Stay(j.launch(), j.uses())))
                .map(e -> Map.entry(e.getKey(), e.getValue().as(as)))
                .toList();
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
        Duration night = way.night();
        for (UUID id : people) {
            Hours hours = byUsed.get(id);
            for (TimeWindow w : hours == null ? List.<TimeWindow>of() : windows) {
                TimeWindow wide = new TimeWindow(w.start().minus(night), w.end().plus(night));
                for (Hours.Stretch s : hours.meeting(wide, jobId)) {
                    double gap = Way.gap(s.window(), w);
                    if (s.job().launch() == null || gap < 0) {
                        continue; // one in the same hours is told of as such
                    }
                    double needs = way.minutes(s.job().launch(), launch);
                    if (needs > gap && (worst == null || needs - gap > worst.shortMin())) {
                        worst = new Elsewhere.Late(s.job().name(), gap, needs);
                    }
                }
            }
        }
        return Optional.ofNullable(worst);
    }
}
