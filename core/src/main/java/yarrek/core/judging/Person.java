package yarrek.core.judging;

import java.time.LocalDate;

/**
 * Who flies. A null is not known.
 *
 * @param lastFlightOn the newest day in the logbook before what is judged
 */
public record Person(String name, LocalDate bornOn, LocalDate lastFlightOn) {}
