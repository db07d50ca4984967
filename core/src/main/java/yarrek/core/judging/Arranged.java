package yarrek.core.judging;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;

/**
 * What a job has besides its flights: hours of days that differ from the others, people who fly nothing, and why each build goes.
 *
 * @param hours of days that have hours of their own
 * @param crew beside those who fly and watch in its flights
 * @param reasons by build, in words
 */
public record Arranged(Map<LocalDate, Hours> hours, List<Helper> crew, Map<UUID, String> reasons) {
    /** Nothing of the kind. */
    public static final Arranged NOTHING = new Arranged(Map.of(), List.of(), Map.of());

    /** More people than these are no crew of one job. */
    public static final int MOST_CREW = 60;

    /**
     * Hours of a day, local to the place.
     *
     * @param to at or before {@code from} means past midnight
     */
    public record Hours(LocalTime from, LocalTime to) {
        /** Whether they end on the day after. */
        public boolean isPastMidnight() {
            return !to.isAfter(from);
        }
    }

    /**
     * Somebody of the crew who is named for no flight.
     *
     * @param day null for every day of the job
     */
    public record Helper(UUID personId, FlightsPlanned.Role role, LocalDate day) {
        /** Whether they are there on a day. */
        public boolean isThere(LocalDate on) {
            return day == null || day.equals(on);
        }
    }

    public Arranged {
        hours = Map.copyOf(hours);
        crew = List.copyOf(crew);
        reasons = Map.copyOf(reasons);
    }

    /** The same of a job so many days later. */
    public Arranged later(long days) {
        Map<LocalDate, Hours> moved = new HashMap<>();
        hours.forEach((day, h) -> moved.put(day.plusDays(days), h));
        return new Arranged(
                moved,
                crew.stream()
                        .map(c -> c.day() == null
                                ? c
                                : new Helper(c.personId(), c.role(), c.day().plusDays(days)))
                        .toList(),
                reasons);
    }

    /** What of it is for some days. */
    public Arranged within(LocalDate first, LocalDate last) {
        return new Arranged(
                hours.entrySet().stream()
                        .filter(e -> !e.getKey().isBefore(first) && !e.getKey().isAfter(last))
                        .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue)),
                crew.stream()
                        .filter(c -> c.day() == null
                                || (!c.day().isBefore(first) && !c.day().isAfter(last)))
                        .toList(),
                reasons);
    }

    /** Whether somebody watches on each of these days who is named for no flight. */
    public boolean isWatched(LocalDate first, LocalDate last) {
        return first.datesUntil(last.plusDays(1))
                .allMatch(
                        day -> crew.stream().anyMatch(c -> c.role() == FlightsPlanned.Role.OBSERVER && c.isThere(day)));
    }

    /** What is wrong with it for a job of these days; empty when nothing is. */
    public Optional<String> wrong(LocalDate first, LocalDate last) {
        Optional<LocalDate> stray = hours.keySet().stream()
                .filter(d -> d.isBefore(first) || d.isAfter(last))
                .min(Comparator.naturalOrder());
        if (stray.isPresent()) {
            return Optional.of("hours are said for " + stray.get() + ", which is none of the job's days");
        }
        if (crew.size() > MOST_CREW) {
            return Optional.of(crew.size() + " people are named besides the flights; a job has at most " + MOST_CREW);
        }
        return crew.stream()
                .filter(c ->
                        c.day() != null && (c.day().isBefore(first) || c.day().isAfter(last)))
                .findFirst()
                .map(c -> "somebody of the crew is named for " + c.day() + ", which is none of the job's days");
    }
}
