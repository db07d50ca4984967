package yarrek.core.time;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Optional;

/** Local times on the nights when the clocks change. */
public final class LocalClock {
    private LocalClock() {}

    /** What is wrong with a local time where the clocks skip it or show it twice; empty for any other. */
    public static Optional<String> fault(LocalDateTime local, ZoneId zone) {
        int offsets = zone.getRules().getValidOffsets(local).size();
        return offsets == 1
                ? Optional.empty()
                : Optional.of("the clocks change that night and " + local.toLocalTime()
                        + (offsets == 0 ? " does not exist" : " comes twice"));
    }

    /** Whether the clocks skip a local time. */
    public static boolean isSkipped(LocalDateTime local, ZoneId zone) {
        return zone.getRules().getValidOffsets(local).isEmpty();
    }
}
