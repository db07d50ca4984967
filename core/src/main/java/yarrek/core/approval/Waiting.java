package yarrek.core.approval;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;

/**
 * The clock of a request that is out.
 *
 * @param days waited since it was sent, the day of sending not counted
 * @param usualBy the day by which it usually comes, {@code worstBy} at worst
 * @param nudgeOn the next day on which to ask after it: the first working day after it usually comes, and every so many
 *     days from then on or from the last nudge
 */
public record Waiting(long days, LocalDate usualBy, LocalDate worstBy, LocalDate nudgeOn) {
    /**
     * @param lastNudge when it was last asked after; null when never
     * @param everyDays from one nudge to the next, one or more
     */
    public static Waiting of(
            LocalDate sent,
            LocalDate today,
            Lead usual,
            Lead worst,
            LocalDate lastNudge,
            int everyDays,
            WorkDays calendar) {
        if (everyDays < 1) {
            throw new IllegalArgumentException("days between nudges must be 1 or more, got " + everyDays);
        }
        LocalDate usualBy = usual.grantedIfSent(sent, calendar);
        LocalDate next =
                lastNudge == null || lastNudge.isBefore(usualBy) ? usualBy.plusDays(1) : lastNudge.plusDays(everyDays);
        return new Waiting(
                ChronoUnit.DAYS.between(sent, today),
                usualBy,
                worst.grantedIfSent(sent, calendar),
                calendar.onOrAfter(next));
    }
}
