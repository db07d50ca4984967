package yarrek.core.judging;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import yarrek.core.time.Days;
import yarrek.core.units.Finite;

/**
 * A flight as it was planned against what was flown, line by line.
 *
 * @param number of the flight planned within its job, from 1; 0 where the job plans none by itself
 */
public record PlannedFlown(int number, List<Line> lines) {
    private static final String UNSAID = "not said";
    private static final String UNKNOWN = "not known";
    private static final double MINUTE_S = 60;

    /**
     * @param differs in words; empty where nothing does, or where one of the two is not known
     */
    public record Line(String what, String planned, String flown, String differs) {}

    /**
     * A flight of a job as it was flown. A null is not known.
     *
     * @param heightM greatest above take-off
     * @param distanceM greatest from where its log first took off, where the pilot is taken to stand
     */
    public record Flown(
            UUID id,
            Instant takeoff,
            Instant landing,
            UUID aircraftId,
            UUID pilotId,
            Double heightM,
            Double distanceM) {}

    /**
     * Which of the flights planned each was: one of the same day, then of the same aircraft, then of the same pilot, then the one
     * nearest in time and order; each planned flight once.
     *
     * @param flown of one job, in the order of their take-offs
     * @param aircraftOf the aircraft of a build
     * @return numbers of the flights planned by identity; one that is none of them is left out
     */
    public static Map<UUID, Integer> match(
            List<Flown> flown, FlightsPlanned planned, UnaryOperator<UUID> aircraftOf, ZoneId zone) {
        Map<UUID, Integer> matched = new HashMap<>();
        Set<Integer> taken = new HashSet<>();
        for (Flown f : flown) {
            LocalDate day = f.takeoff().atZone(zone).toLocalDate();
            Optional<Integer> best = IntStream.range(0, planned.all().size())
                    .boxed()
                    .filter(i ->
                            !taken.contains(i) && planned.all().get(i).day().equals(day))
                    .min(Comparator.comparing((Integer i) -> !sameCraft(planned, i, f, aircraftOf))
                            .thenComparing(i -> !Objects.equals(
                                    planned.whole(planned.all().get(i)).pilotId(), f.pilotId()))
                            .thenComparing(i -> apart(planned.all().get(i), f, zone))
                            .thenComparing(Comparator.naturalOrder()));
            best.ifPresent(i -> {
                taken.add(i);
                matched.put(f.id(), i + 1);
            });
        }
        return matched;
    }

    private static boolean sameCraft(FlightsPlanned planned, int i, Flown f, UnaryOperator<UUID> aircraftOf) {
        UUID build = planned.whole(planned.all().get(i)).buildId();
        return build != null && aircraftOf.apply(build).equals(f.aircraftId());
    }

    /** Seconds between the hours; none where the plan says none. */
    private static long apart(PlannedFlight p, Flown f, ZoneId zone) {
        return p.startsAt() == null
                ? 0
                : Math.abs(Duration.between(
                                p.day().atTime(p.startsAt()).atZone(zone),
                                f.takeoff().atZone(zone))
                        .toSeconds());
    }

    /**
     * @param as with what the job has for all put in, its greatest height and distance among them
     * @param aircraftOf the aircraft of a build
     * @param names of people and aircraft
     */
    public static PlannedFlown of(
            int number,
            PlannedFlight as,
            LocalDate lastDay,
            Flown f,
            UnaryOperator<UUID> aircraftOf,
            Map<UUID, String> names,
            ZoneId zone) {
        List<Line> lines = new ArrayList<>();
        LocalDate day = f.takeoff().atZone(zone).toLocalDate();
        boolean in = !day.isBefore(as.day()) && !day.isAfter(lastDay);
        lines.add(new Line(
                "Day",
                Days.stretch(as.day(), lastDay, " to "),
                Days.show(day),
                in ? "" : days(as.day(), lastDay, day)));
        if (as.startsAt() != null) {
            long late = Duration.between(
                            as.day().atTime(as.startsAt()).atZone(zone),
                            f.takeoff().atZone(zone))
                    .toMinutes();
            lines.add(new Line(
                    "Take-off",
                    as.startsAt().toString(),
                    f.takeoff()
                            .atZone(zone)
                            .toLocalTime()
                            .truncatedTo(ChronoUnit.MINUTES)
                            .toString(),
                    late == 0 || !in ? "" : Math.abs(late) + " min " + (late > 0 ? "later" : "earlier")));
        }
        double minutes = Duration.between(f.takeoff(), f.landing()).toSeconds() / MINUTE_S;
        lines.add(figure("In the air", "min", as.minutes(), minutes, "longer", "shorter"));
        lines.add(height(as, f));
        lines.add(figure("From the pilot", "m", as.distanceM(), f.distanceM(), "farther", "nearer"));
        UUID craft = as.buildId() == null ? null : aircraftOf.apply(as.buildId());
        lines.add(who("Aircraft", craft, f.aircraftId(), names, "another aircraft"));
        UUID controls = as.supervisedId() == null ? as.pilotId() : as.supervisedId();
        boolean supervisor = f.pilotId() != null && f.pilotId().equals(as.pilotId());
        lines.add(who("Pilot", supervisor ? as.pilotId() : controls, f.pilotId(), names, "another pilot"));
        return new PlannedFlown(number, lines);
    }

    /** Whether anything was flown otherwise than planned, as far as both are known. */
    public boolean differs() {
        return lines.stream().anyMatch(l -> !l.differs().isEmpty());
    }

    private static String days(LocalDate first, LocalDate last, LocalDate flown) {
        long days =
                flown.isBefore(first) ? ChronoUnit.DAYS.between(flown, first) : ChronoUnit.DAYS.between(last, flown);
        return days + (days == 1 ? " day " : " days ") + (flown.isBefore(first) ? "earlier" : "later");
    }

    private static Line height(PlannedFlight as, Flown f) {
        if (as.heightM() != null && !as.aboveTakeoff()) {
            return new Line(
                    "Greatest height",
                    figure(as.heightM(), "m") + " above ground",
                    f.heightM() == null ? UNKNOWN : figure(f.heightM(), "m") + " above take-off",
                    "");
        }
        return figure("Greatest height, above take-off", "m", as.heightM(), f.heightM(), "higher", "lower");
    }

    private static String figure(double value, String unit) {
        return Finite.words((double) Math.round(value)) + " " + unit;
    }

    private static Line figure(String what, String unit, Double planned, Double flown, String more, String less) {
        double apart = planned == null || flown == null ? 0 : (double) (Math.round(flown) - Math.round(planned));
        return new Line(
                what,
                planned == null ? UNSAID : figure(planned, unit),
                flown == null ? UNKNOWN : figure(flown, unit),
                apart == 0 ? "" : figure(Math.abs(apart), unit) + " " + (apart > 0 ? more : less));
    }

    private static Line who(String what, UUID planned, UUID flown, Map<UUID, String> names, String another) {
        return new Line(
                what,
                planned == null ? UNSAID : names.getOrDefault(planned, UNKNOWN),
                flown == null ? UNKNOWN : names.getOrDefault(flown, UNKNOWN),
                planned == null || flown == null || planned.equals(flown) ? "" : another);
    }
}
