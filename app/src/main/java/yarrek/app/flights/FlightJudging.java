package yarrek.app.flights;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import yarrek.app.jobs.JobJudging;
import yarrek.app.judging.FactSources;
import yarrek.app.judging.Judging;
import yarrek.app.judging.Wanted;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.core.flight.FlightJudge;
import yarrek.core.geo.Position;
import yarrek.core.judging.FlightInput;
import yarrek.core.judging.PlanInput;
import yarrek.core.rulebook.FlightFacts;
import yarrek.core.rulebook.Tally;
import yarrek.core.time.TimeWindow;
import yarrek.core.trace.Trace;

/** Judges flights by what was measured. */
@Component
class FlightJudging {
    private static final int MOST_WORST = 590;

    private final EntityManager em;
    private final Clock clock;
    private final JobJudging jobs;
    private final Judging judging;

    FlightJudging(EntityManager em, Clock clock, JobJudging jobs, Judging judging) {
        this.em = em;
        this.clock = clock;
        this.jobs = jobs;
        this.judging = judging;
    }

    /** What judging some flights needs, read once for all of them. */
    Reading read(Collection<FlightEntity> flights) {
        Set<UUID> ids =
                flights.stream().map(f -> f.jobId).filter(Objects::nonNull).collect(Collectors.toSet());
        Map<UUID, List<Wanted>> planned = ids.isEmpty() ? Map.of() : jobs.wanted(ids);
        List<Wanted> parts = planned.values().stream().flatMap(List::stream).toList();
        List<Wanted> flown = flights.stream()
                .map(f -> flown(f, f.jobId == null ? null : planned.get(f.jobId).get(0), null))
                .toList();
        List<TimeWindow> hours =
                flights.stream().map(f -> new TimeWindow(f.takeoff, f.landing)).toList();
        return new Reading(
                planned, jobs.load(Stream.concat(parts.stream(), flown.stream()).toList(), hours));
    }

    /** The job of a flight as it was flown; without a job what is known of who flew. */
    private static Wanted flown(FlightEntity f, Wanted planned, UUID build) {
        return f.jobId == null
                ? new Wanted(null, null, f.pilotId, null, f.aircraftId, day(f), zone -> null, List.of(), Set.of())
                : planned.flownWith(f.pilotId, build, f.aircraftId);
    }

    private static LocalDate day(FlightEntity f) {
        return f.takeoff.atZone(ZoneId.of(f.zone)).toLocalDate();
    }

    /** What judging some flights needs, and judging each of them by it. */
    final class Reading {
        private final Map<UUID, List<Wanted>> planned;
        private final FactSources sources;

        private Reading(Map<UUID, List<Wanted>> planned, FactSources sources) {
            this.planned = planned;
            this.sources = sources;
        }

        /**
         * Judges by the flight's own trace; intervals are in seconds of it.
         *
         * @param firstTakeoff of its log, where the pilot is taken to stand; empty when it has no position
         */
        void judge(FlightEntity f, Trace trace, Optional<Position> firstTakeoff) {
            Wanted as = plannedAs(f);
            Wanted w = flown(f, as, buildOf(f, as));
            FlightFacts facts = FlightJudge.facts(trace, Flights.span(trace, f), context(f, w, as, firstTakeoff));
            AssessmentRow a = judging.flight(f.id, facts, sources.setting(w));
            Tally tally = a.tally();
            f.breached = tally.breached();
            f.notKnown = tally.notKnown();
            f.closeCount = tally.close();
            f.worst = a.open().isEmpty()
                    ? ""
                    : cut(a.open().get(0).title() + ": " + a.open().get(0).says());
            f.assessedAt = clock.instant();
        }

        /** The log does not say which build flew: the planned one when its aircraft did. */
        private UUID buildOf(FlightEntity f, Wanted as) {
            UUID build = as == null ? null : as.buildId();
            return build != null && craftOf(build).equals(f.aircraftId) ? build : null;
        }

        private UUID craftOf(UUID build) {
            return sources.build(build).aircraft().id();
        }

        /** Of the flights planned those that it was most likely: by day, aircraft and pilot, in this order; null without a job. */
        private Wanted plannedAs(FlightEntity f) {
            return f.jobId == null
                    ? null
                    : planned.get(f.jobId).stream()
                            .max(Comparator.comparing((Wanted w) -> isOn(w, f))
                                    .thenComparing(w -> w.buildId() != null
                                            && craftOf(w.buildId()).equals(f.aircraftId))
                                    .thenComparing(w -> Objects.equals(w.pilotId(), f.pilotId)))
                            .orElseThrow();
        }

        private boolean isOn(Wanted w, FlightEntity f) {
            ZoneId zone = sources.sites().get(w.siteId()).zone();
            LocalDate day = f.takeoff.atZone(zone).toLocalDate();
            return !day.isBefore(w.plan().apply(zone).firstDay()) && !day.isAfter(w.through());
        }

        private FlightJudge.Context context(FlightEntity f, Wanted w, Wanted as, Optional<Position> firstTakeoff) {
            TimeWindow flown = new TimeWindow(f.takeoff, f.landing);
            LocalDate before = lastFlightBefore(f);
            OptionalDouble height = f.heightM == null ? OptionalDouble.empty() : OptionalDouble.of(f.heightM);
            Optional<PlanInput> job = Optional.empty();
            FlightInput.Home home = null;
            if (f.jobId == null) {
                home = sources.home(f.aircraftId, f.pilotId, day(f), before);
            } else {
                boolean asPlanned = Objects.equals(as.pilotId(), f.pilotId);
                job = Optional.of(sources.flown(w, flown, before, asPlanned));
            }
            return new FlightInput(flown, height, firstTakeoff, job, home).context();
        }

        /** The pilot's newest day in the logbook before this flight; null for none. */
        private LocalDate lastFlightBefore(FlightEntity f) {
            if (f.pilotId == null) {
                return null;
            }
            ZoneId zone = ZoneId.of(f.zone);
            Instant last = em.createQuery(
                            "select max(x.takeoff) from FlightEntity x where x.pilotId = :p and x.counted and x.takeoff < :t",
                            Instant.class)
                    .setParameter("p", f.pilotId)
                    .setParameter("t", f.takeoff)
                    .getSingleResult();
            LocalDate logged = last == null ? null : last.atZone(zone).toLocalDate();
            // a day said by hand counts when it lies before the flight and after those on file
            LocalDate said = sources.people().get(f.pilotId).lastFlightOn();
            boolean later = said != null
                    && said.isBefore(f.takeoff.atZone(zone).toLocalDate())
                    && (logged == null || said.isAfter(logged));
            return later ? said : logged;
        }
    }

    private static String cut(String s) {
        return s.length() > MOST_WORST ? s.substring(0, MOST_WORST) + "…" : s;
    }
}
