package yarrek.core.time;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;

/**
 * From when to when something holds. A date means through the end of that day in the issuer's time zone. An end left
 * empty is open; a start left empty means it has held as far back as anyone asks.
 *
 * @param validFrom first day in force, included
 * @param validThrough last day in force, included to its end
 * @param zone the issuer's civil time
 */
public record Validity(Optional<LocalDate> validFrom, Optional<LocalDate> validThrough, ZoneId zone) {
    /** @throws IllegalArgumentException if the end is before the start */
    public Validity {
        if (validFrom.isPresent()
                && validThrough.isPresent()
                && validThrough.get().isBefore(validFrom.get())) {
            throw new IllegalArgumentException(
                    "valid to " + validThrough.get() + " is before valid from " + validFrom.get());
        }
    }

    public static Validity between(LocalDate validFrom, LocalDate validThrough, ZoneId zone) {
        return new Validity(Optional.of(validFrom), Optional.of(validThrough), zone);
    }

    /** The first instant in force, included. */
    public Optional<Instant> start() {
        return validFrom.map(d -> d.atStartOfDay(zone).toInstant());
    }

    /** The first instant no longer in force: the start of the day after the last one. */
    public Optional<Instant> endExclusive() {
        return validThrough.map(d -> d.plusDays(1).atStartOfDay(zone).toInstant());
    }

    public boolean holdsAt(Instant instant) {
        return start().map(s -> !instant.isBefore(s)).orElse(true)
                && endExclusive().map(instant::isBefore).orElse(true);
    }

    /** Whether it holds at every instant of the window, both ends included. */
    public boolean covers(TimeWindow window) {
        return holdsAt(window.start()) && holdsAt(window.end());
    }
}
