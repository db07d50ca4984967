package yarrek.core.flight;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Predicate;
import yarrek.core.trace.Trace;

/**
 * What happened in a flight, in its order: what the eye finds on the strips, in words.
 *
 * @param all by time, those of one moment in the order of {@link Kind}
 * @param left how many messages are not among them
 */
public record FlightEvents(List<Event> all, int left) {
    /** More messages than these are not told one by one: those that warn come first. */
    public static final int MOST_MESSAGES = 300;

    /** What an event is. */
    public enum Kind {
        TAKE_OFF("take-off"),
        MODE("mode"),
        BREACH("breach begins"),
        BREACH_ENDS("breach ends"),
        WARNING("warning"),
        MESSAGE("message"),
        LANDING("landing");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Whether the eye should stop at it. */
        public boolean presses() {
            return this == BREACH || this == WARNING;
        }
    }

    /** @param atS seconds of the log */
    public record Event(double atS, Kind kind, String words) {}

    /**
     * A breach over a stretch of the log.
     *
     * @param fromS seconds of the log, up to {@code toS}
     */
    public record Stretch(String title, double fromS, double toS) {}

    public FlightEvents {
        all = List.copyOf(all);
    }

    /**
     * @param takeoffS seconds of the log, before {@code landingS}
     * @return of this flight: messages and modes before or after it are another's, except the mode it takes off in
     */
    public static FlightEvents of(Trace trace, double takeoffS, double landingS, List<Stretch> breaches) {
        Predicate<Double> within = s -> s >= takeoffS && s <= landingS;
        List<Event> events = new ArrayList<>();
        events.add(new Event(takeoffS, Kind.TAKE_OFF, ""));
        events.add(new Event(landingS, Kind.LANDING, ""));
        trace.modes().stream()
                .filter(m -> m.atS() <= takeoffS)
                .max(Comparator.comparingDouble(Trace.ModeChange::atS))
                .ifPresent(m -> events.add(new Event(takeoffS, Kind.MODE, m.mode())));
        trace.modes().stream()
                .filter(m -> within.test(m.atS()) && m.atS() > takeoffS)
                .forEach(m -> events.add(new Event(m.atS(), Kind.MODE, m.mode())));
        breaches.forEach(b -> {
            events.add(new Event(b.fromS(), Kind.BREACH, b.title()));
            events.add(new Event(b.toS(), Kind.BREACH_ENDS, b.title()));
        });
        List<Event> messages = trace.messages().stream()
                .filter(m -> within.test(m.atS()))
                .map(m -> new Event(m.atS(), warns(m.level()) ? Kind.WARNING : Kind.MESSAGE, m.text()))
                .sorted(Comparator.comparing(Event::kind))
                .toList();
        messages.stream().limit(MOST_MESSAGES).forEach(events::add);
        events.sort(Comparator.comparingDouble(Event::atS).thenComparing(Event::kind));
        return new FlightEvents(events, Math.max(0, messages.size() - MOST_MESSAGES));
    }

    /** Whether a level of a message, in the words of its log, asks for attention. */
    public static boolean warns(String level) {
        String l = level.toLowerCase(Locale.ROOT);
        return List.of("warn", "err", "crit", "alert", "emerg").stream().anyMatch(l::contains);
    }
}
