package yarrek.core.time;

import java.time.Instant;

/**
 * A stretch of time.
 *
 * @param start first instant, included
 * @param end last instant, included; not before the start
 */
public record TimeWindow(Instant start, Instant end) {
    /** @throws IllegalArgumentException if the end is before the start */
    public TimeWindow {
        if (end.isBefore(start)) {
            throw new IllegalArgumentException("end " + end + " is before start " + start);
        }
    }

    public boolean meets(TimeWindow other) {
        return !start.isAfter(other.end) && !other.start.isAfter(end);
    }
}
