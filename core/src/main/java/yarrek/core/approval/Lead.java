package yarrek.core.approval;

import java.time.LocalDate;

/**
 * How long a granter takes.
 *
 * @param days zero or more
 * @param working in working days, not calendar days
 */
public record Lead(int days, boolean working) {
    public Lead {
        if (days < 0) {
            throw new IllegalArgumentException("a lead time must be 0 days or more, got " + days);
        }
    }

    public static Lead ofDays(int days) {
        return new Lead(days, false);
    }

    public static Lead ofWorkDays(int days) {
        return new Lead(days, true);
    }

    /** The day on which it is granted when sent on a day; a calendar is asked for working days only. */
    public LocalDate grantedIfSent(LocalDate sent, WorkDays calendar) {
        return working ? calendar.after(sent, days) : sent.plusDays(days);
    }

    LocalDate sentToBeGranted(LocalDate granted, WorkDays calendar) {
        return working ? calendar.before(granted, days) : granted.minusDays(days);
    }

    public String words() {
        return days + (working ? " working day" : " day") + (days == 1 ? "" : "s");
    }
}
