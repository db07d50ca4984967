package yarrek.core.judging;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.UUID;

/**
 * A flight as it is planned within a job. A null is as the job has it for all its flights.
 *
 * @param day of the job, local to its place
 * @param startsAt local to its place; null when only the order counts
 * @param pilotId who is in command
 * @param supervisedId who is at the controls beside whoever is in command; null when that is the pilot in command
 * @param heightM greatest height in metres, counted as {@code aboveTakeoff} says
 * @param aboveTakeoff whether from take-off, or else from the ground; null exactly when the height is
 * @param distanceM greatest distance from the pilot, in metres
 * @param subcategory of the open category
 * @param minutes in the air; null when nobody has said
 * @param mode null when nobody has said
 * @param purpose what it is for, in words; empty for none
 */
public record PlannedFlight(
        LocalDate day,
        LocalTime startsAt,
        UUID buildId,
        UUID pilotId,
        UUID supervisedId,
        UUID observerId,
        Double heightM,
        Boolean aboveTakeoff,
        Double distanceM,
        String subcategory,
        Double minutes,
        Mode mode,
        String purpose) {
    /** How it is flown. */
    public enum Mode {
        HAND("by hand"),
        WAYPOINTS("waypoints"),
        GRID("grid"),
        ORBIT("orbit"),
        FOLLOW("follow");

        private final String words;

        Mode(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public PlannedFlight {
        purpose = purpose == null ? "" : purpose.strip();
    }

    /** A flight of a day, everything else as the job has it. */
    public static PlannedFlight on(LocalDate day) {
        return new PlannedFlight(day, null, null, null, null, null, null, null, null, null, null, null, "");
    }

    /** The same so many days later. */
    public PlannedFlight later(long days) {
        return new PlannedFlight(
                day.plusDays(days),
                startsAt,
                buildId,
                pilotId,
                supervisedId,
                observerId,
                heightM,
                aboveTakeoff,
                distanceM,
                subcategory,
                minutes,
                mode,
                purpose);
    }
}
