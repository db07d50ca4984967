package yarrek.core.approval;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Days on which somebody works.
 *
 * @param holidays days on which nobody does
 * @param off days of the week on which nobody ever does, not all seven
 */
public record WorkDays(Set<LocalDate> holidays, Set<DayOfWeek> off) {
    private static final Set<DayOfWeek> WEEKEND = Set.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY);

    public WorkDays {
        holidays = Set.copyOf(holidays);
        off = Set.copyOf(off);
        if (off.size() == DayOfWeek.values().length) {
            throw new IllegalArgumentException("somebody who never works grants nothing");
        }
    }

    /** Monday to Friday without holidays. */
    public WorkDays(Set<LocalDate> holidays) {
        this(holidays, WEEKEND);
    }

    public boolean isWorkDay(LocalDate day) {
        return !off.contains(day.getDayOfWeek()) && !holidays.contains(day);
    }

    /** The last day on or before a day on which both work; empty when there is none within a year. */
    public Optional<LocalDate> onOrBefore(LocalDate day, WorkDays other) {
        return Stream.iterate(day, d -> d.minusDays(1))
                .limit(366)
                .filter(d -> isWorkDay(d) && other.isWorkDay(d))
                .findFirst();
    }

    /** The day by which so many working days after a day have passed; the day itself for none. */
    public LocalDate after(LocalDate day, int workDays) {
        return walk(day, workDays, 1);
    }

    /** The latest day from which so many working days pass until a day. */
    public LocalDate before(LocalDate day, int workDays) {
        // what ends on a day off has ended on the working day before it
        return workDays == 0 ? day : walk(onOrBefore(day), workDays, -1);
    }

    private LocalDate walk(LocalDate day, int workDays, int step) {
        if (workDays < 0) {
            throw new IllegalArgumentException("working days must be 0 or more, got " + workDays);
        }
        LocalDate d = day;
        for (int left = workDays; left > 0; ) {
            d = d.plusDays(step);
            if (isWorkDay(d)) {
                left--;
            }
        }
        return d;
    }

    /** The day itself when it is one, else the next working day. */
    public LocalDate onOrAfter(LocalDate day) {
        return isWorkDay(day) ? day : after(day, 1);
    }

    /** The day itself when it is one, else the working day before it. */
    public LocalDate onOrBefore(LocalDate day) {
        return isWorkDay(day) ? day : walk(day, 1, -1);
    }
}
