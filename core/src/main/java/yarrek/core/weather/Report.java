package yarrek.core.weather;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import yarrek.core.time.TimeWindow;

/**
 * A report or forecast on file for a place.
 *
 * @param raw as it came; empty when it was typed figure by figure
 */
public record Report(
        UUID id,
        Instant at,
        Kind kind,
        String raw,
        Observation observation,
        String source,
        String enteredBy,
        Instant enteredAt) {
    /** An observation counts for this long after it; a forecast hour for half an hour around it (house figures). */
    public static final Duration HOLDS = Duration.ofMinutes(75);

    public static final Duration FORECAST_HOLDS = Duration.ofMinutes(30);

    /** Where a report comes from. */
    public enum Kind {
        METAR("report read"),
        TYPED("typed"),
        FORECAST("forecast");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Whether the report speaks for an instant. */
    public boolean speaksFor(Instant t) {
        Duration after = Duration.between(at, t);
        return kind == Kind.FORECAST
                ? after.abs().compareTo(FORECAST_HOLDS) <= 0
                : !after.isNegative() && after.compareTo(HOLDS) <= 0;
    }

    /** The instant that stands for an hour: a second before half past, for at half past the next forecast is as near. */
    public static Instant middleOfHour(Instant start) {
        return start.plusSeconds(1799);
    }

    /** The report that speaks for an instant: an observation before a forecast, the newest first. */
    public static Optional<Report> at(List<Report> reports, Instant t) {
        return reports.stream()
                .filter(r -> r.speaksFor(t))
                .max(Comparator.<Report, Boolean>comparing(r -> r.kind() != Kind.FORECAST)
                        .thenComparing(r -> r.at)
                        .thenComparing(Report::enteredAt));
    }

    /** Reports that together speak for every half hour of the windows; empty when some of it has none. */
    public static Optional<List<Report>> covering(List<Report> reports, List<TimeWindow> windows) {
        List<Report> used = new ArrayList<>();
        for (TimeWindow w : windows) {
            for (Instant t = w.start(); !t.isAfter(w.end()); t = t.plus(FORECAST_HOLDS)) {
                Optional<Report> r = at(reports, t);
                if (r.isEmpty()) {
                    return Optional.empty();
                }
                if (!used.contains(r.get())) {
                    used.add(r.get());
                }
            }
        }
        return used.isEmpty() ? Optional.empty() : Optional.of(used);
    }
}
