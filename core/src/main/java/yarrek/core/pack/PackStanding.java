package yarrek.core.pack;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yarrek.core.time.Days;

/**
 * How a pack stands by what is counted of it: charge drawn, age, when it was last flown. What only a look or a measurement
 * tells (swelling, a drop, health, spread of the cells) is not in it.
 *
 * @param keep the most pressing of the reasons
 * @param reasons in words, the most pressing first; why it is kept where nothing presses
 */
public record PackStanding(Keep keep, List<String> reasons) {
    /** What to do with it, the most pressing last. */
    public enum Keep {
        IN_SERVICE("in service", "full"),
        EXERCISE("to be exercised", "cut"),
        NOT_KNOWN("not known", "dots"),
        WATCH("watch", "cut"),
        RETIRE("retire", "notch");

        private final String words;
        private final String shape;

        Keep(String words, String shape) {
            this.words = words;
            this.shape = shape;
        }

        public String words() {
            return words;
        }

        /** Which of the four shapes stands beside the words. */
        public String shape() {
            return shape;
        }
    }

    /**
     * From when a pack is watched, retired or exercised.
     *
     * @param watchCycles equivalent full cycles
     * @param retireCycles equivalent full cycles, above {@code watchCycles}
     * @param retireYears since it was bought
     * @param idleDays without a flight
     */
    public record Limits(double watchCycles, double retireCycles, int retireYears, int idleDays) {
        /** Choices of a house, not facts of the cells: makers give other figures, and theirs go before these. */
        public static final Limits HOUSE = new Limits(200, 400, 5, 60);
    }

    /**
     * What is on file of a pack.
     *
     * @param cycles equivalent full cycles, 0 or more
     * @param flightsWithoutCharge flights that count nothing to the cycles, so that they are "at least"
     * @param bought null when not known
     * @param lastFlown null when no flight is on file
     */
    public record OnFile(double cycles, int flightsWithoutCharge, LocalDate bought, LocalDate lastFlown) {}

    private record Reason(Keep keep, String words) {}

    public PackStanding {
        reasons = List.copyOf(reasons);
    }

    /** @return on this day, by these limits; exactly on a limit the limit is reached */
    public static PackStanding of(OnFile r, LocalDate day, Limits limits) {
        List<Reason> found = new ArrayList<>();
        cycles(r, limits).ifPresent(found::add);
        age(r, day, limits).ifPresent(found::add);
        idle(r, day, limits).ifPresent(found::add);
        if (found.isEmpty()) {
            found.add(new Reason(
                    Keep.IN_SERVICE,
                    count(r) + ", watched from " + whole(limits.watchCycles()) + "; no measurement of its health"));
        }
        found.sort(Comparator.comparing(Reason::keep).reversed());
        return new PackStanding(
                found.get(0).keep(), found.stream().map(Reason::words).toList());
    }

    private static Optional<Reason> cycles(OnFile r, Limits limits) {
        if (r.cycles() >= limits.retireCycles()) {
            return Optional.of(
                    new Reason(Keep.RETIRE, count(r) + ", to be retired at " + whole(limits.retireCycles())));
        }
        if (r.cycles() >= limits.watchCycles()) {
            return Optional.of(new Reason(Keep.WATCH, count(r) + ", watched from " + whole(limits.watchCycles())));
        }
        // one flight draws at most one full charge
        return r.flightsWithoutCharge() > 0 && r.cycles() + r.flightsWithoutCharge() >= limits.watchCycles()
                ? Optional.of(new Reason(
                        Keep.NOT_KNOWN,
                        count(r) + "; with the flights without a figure it may be over " + whole(limits.watchCycles())))
                : Optional.empty();
    }

    private static Optional<Reason> age(OnFile r, LocalDate day, Limits limits) {
        if (r.bought() == null) {
            return Optional.of(new Reason(Keep.NOT_KNOWN, "its age is not known: say when it was bought"));
        }
        LocalDate end = r.bought().plusYears(limits.retireYears());
        return day.isBefore(end)
                ? Optional.empty()
                : Optional.of(new Reason(
                        Keep.RETIRE,
                        limits.retireYears() + " years old since " + Days.show(end) + ", the house's limit"));
    }

    private static Optional<Reason> idle(OnFile r, LocalDate day, Limits limits) {
        LocalDate since = r.lastFlown() != null ? r.lastFlown() : r.bought();
        if (since == null) {
            return Optional.empty();
        }
        long days = ChronoUnit.DAYS.between(since, day);
        return days < limits.idleDays()
                ? Optional.empty()
                : Optional.of(new Reason(
                        Keep.EXERCISE,
                        (r.lastFlown() == null ? "no flight on file since it was bought, " : "not flown for ") + days
                                + " days; exercised every " + limits.idleDays()));
    }

    private static String count(OnFile r) {
        return (r.flightsWithoutCharge() > 0 ? "at least " : "") + String.format(Locale.ROOT, "%.1f", r.cycles())
                + " cycles"
                + (r.flightsWithoutCharge() > 0
                        ? " (" + r.flightsWithoutCharge() + (r.flightsWithoutCharge() == 1 ? " flight" : " flights")
                                + " without a figure)"
                        : "");
    }

    private static String whole(double v) {
        return String.format(Locale.ROOT, "%.0f", v);
    }
}
