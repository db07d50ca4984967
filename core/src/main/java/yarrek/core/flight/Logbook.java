package yarrek.core.flight;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yarrek.core.geo.Position;
import yarrek.core.time.Light;
import yarrek.core.units.Finite;

/**
 * Flights counted up.
 *
 * @param entries the newest first
 */
public record Logbook(List<Entry> entries) {
    private static final double HOUR_S = 3600;
    private static final String NOT_SAID = "not said";

    /** By what flights are counted up. */
    public enum By {
        PILOT("pilot"),
        AIRCRAFT("aircraft"),
        PLACE("place"),
        JOB("job"),
        MONTH("month");

        private final String words;

        By(String words) {
            this.words = words;
        }

        private String of(Entry e) {
            return switch (this) {
                case PILOT -> e.pilot();
                case AIRCRAFT -> e.aircraft();
                case PLACE -> e.place();
                case JOB -> e.job();
                case MONTH -> e.month();
            };
        }

        public String words() {
            return words;
        }
    }

    /**
     * A flight.
     *
     * @param zone of its place
     * @param where it took off; empty when the log does not say
     * @param landed whether the log saw it land
     * @param pilot, aircraft, place, job their names; empty while nobody has said
     */
    public record Entry(
            String id,
            Instant takeoff,
            Instant landing,
            ZoneId zone,
            Optional<Position> where,
            boolean landed,
            String pilot,
            String aircraft,
            String place,
            String job) {
        public double seconds() {
            return java.time.Duration.between(takeoff, landing).toMillis() / 1000.0;
        }

        /** "2026-11", by the clock of its place. */
        public String month() {
            return takeoff.atZone(zone).toLocalDate().toString().substring(0, "2026-11".length());
        }

        /**
         * Whether it was night at take-off or landing: the sun's middle more than 6° below the horizon, the end of evening civil
         * twilight (Regulation (EU) 923/2012 Art 2 (97)). Empty when the place is not known. The law of a place may count night otherwise.
         */
        public Optional<Boolean> night() {
            return where.map(p -> Light.sunAltitudeDeg(takeoff, p) < Light.CIVIL_TWILIGHT_DEG
                    || Light.sunAltitudeDeg(landing, p) < Light.CIVIL_TWILIGHT_DEG);
        }
    }

    /**
     * Some flights together.
     *
     * @param seconds in the air; {@code nightSeconds} of flights by night, whole
     * @param lightNotKnown flights of which it is not known whether they were by night
     */
    public record Total(
            String name, int flights, double seconds, int landings, double nightSeconds, int lightNotKnown) {
        private Total with(Entry e) {
            Optional<Boolean> night = e.night();
            return new Total(
                    name,
                    flights + 1,
                    seconds + e.seconds(),
                    landings + (e.landed() ? 1 : 0),
                    nightSeconds + (night.orElse(false) ? e.seconds() : 0),
                    lightNotKnown + (night.isEmpty() ? 1 : 0));
        }

        /** "1.25 h". */
        public String hours() {
            return hours(seconds);
        }

        /** "12 flights, 3.5 h, 12 landings". */
        public String says() {
            return flights + (flights == 1 ? " flight, " : " flights, ") + hours() + ", " + landings
                    + (landings == 1 ? " landing" : " landings");
        }

        public String nightHours() {
            return hours(nightSeconds) + (lightNotKnown == 0 ? "" : ", not known of " + lightNotKnown);
        }

        private static String hours(double s) {
            return Finite.format(Math.round(s / HOUR_S * 100) / 100.0) + " h";
        }
    }

    public Logbook {
        entries = entries.stream()
                .sorted(Comparator.comparing(Entry::takeoff).reversed())
                .toList();
    }

    /** By one thing: the most hours first; months the newest first. */
    public List<Total> totals(By by) {
        Map<String, Total> totals = new HashMap<>();
        for (Entry e : entries) {
            String name = by.of(e).isEmpty() ? NOT_SAID : by.of(e);
            totals.put(
                    name,
                    totals.getOrDefault(name, new Total(name, 0, 0, 0, 0, 0)).with(e));
        }
        List<Total> sorted = new ArrayList<>(totals.values());
        sorted.sort(
                by == By.MONTH
                        ? Comparator.comparing(Total::name).reversed()
                        : Comparator.comparing(Total::seconds).reversed().thenComparing(Total::name));
        return sorted;
    }

    /** Of all of them. */
    public Total all() {
        Total t = new Total("all", 0, 0, 0, 0, 0);
        for (Entry e : entries) {
            t = t.with(e);
        }
        return t;
    }
}
