package yarrek.core.approval;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Set;

/**
 * Monday to Friday without holidays.
 *
 * @param holidays days on which no granter works
 */
public record WorkDays(Set<LocalDate> holidays) {
    public WorkDays {
        holidays = Set.copyOf(holidays);
    }

    public boolean isWorkDay(LocalDate day) {
        return day.getDayOfWeek() != DayOfWeek.SATURDAY
                && day.getDayOfWeek() != DayOfWeek.SUNDAY
                && !holidays.contains(day);
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
