package yarrek.core.judging;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Whether the planned flights of a day fit its hours: setting up, the flights with a change of pack between them, breaks,
 * packing up, and a share kept free. Flights of different pilots may go on at the same time, those of one may not.
 *
 * @param day local to the place
 * @param needed minutes
 * @param hours minutes that the job has
 * @param steps the arithmetic, line by line
 */
public record DayClock(LocalDate day, double needed, double hours, List<String> steps) {
    /**
     * What a house reckons with, in minutes.
     *
     * @param turnRound between two flights of one pilot: landing, another pack, ready again
     * @param reconfirm more for each flight after the first where an unlock has to be confirmed again
     * @param breakEvery at the latest after so long at work
     * @param keepFree share of the sum kept free for what comes up, 0 to 1
     */
    public record House(
            double setUp,
            double turnRound,
            double reconfirm,
            double breakEvery,
            double breakFor,
            double packUp,
            double keepFree) {}

    /** Minutes that are too few; 0 when it fits. */
    public double shortBy() {
        return Math.max(0, needed - hours);
    }

    /**
     * Each day with flights.
     *
     * @param unlock whether a maker's unlock is needed there
     * @return empty when the minutes of a flight are not known
     */
    public static Optional<List<DayClock>> of(FlightsPlanned flights, House house, boolean unlock) {
        if (flights.all().stream().anyMatch(f -> f.minutes() == null)) {
            return Optional.empty();
        }
        Map<LocalDate, List<PlannedFlight>> byDay = flights.all().stream()
                .map(flights::whole)
                .collect(Collectors.groupingBy(PlannedFlight::day, TreeMap::new, Collectors.toList()));
        List<DayClock> days = new ArrayList<>();
        byDay.forEach(
                (day, its) -> days.add(of(day, its, house, unlock, flights.job().minutes(day))));
        return Optional.of(days);
    }

    private static DayClock of(LocalDate day, List<PlannedFlight> its, House h, boolean unlock, double hours) {
        double change = h.turnRound() + (unlock ? h.reconfirm() : 0);
        double air = 0;
        double changes = 0;
        // no pilot and no aircraft flies twice at once; what lies between them may go on at the same time
        for (Function<PlannedFlight, UUID> of :
                List.<Function<PlannedFlight, UUID>>of(PlannedFlight::pilotId, PlannedFlight::buildId)) {
            for (List<PlannedFlight> flights : apart(its, of)) {
                double inAir =
                        flights.stream().mapToDouble(PlannedFlight::minutes).sum();
                double between = (flights.size() - 1) * change;
                if (inAir + between > air + changes) {
                    air = inAir;
                    changes = between;
                }
            }
        }
        double all = its.stream().mapToDouble(PlannedFlight::minutes).sum();
        double work = h.setUp() + air + changes + h.packUp();
        double breaks = Math.floor((work - 1e-9) / h.breakEvery()) * h.breakFor();
        double free = (work + breaks) * h.keepFree();
        return new DayClock(
                day,
                work + breaks + free,
                hours,
                List.of(
                        "setting up " + minutes(h.setUp()),
                        "in the air " + minutes(air)
                                + (air < all ? ", of who or what flies longest; the others fly meanwhile" : ""),
                        "changes of pack " + minutes(changes)
                                + (unlock ? ", with the unlock confirmed again each time" : ""),
                        "breaks " + minutes(breaks) + ", one of " + minutes(h.breakFor()) + " within each "
                                + minutes(h.breakEvery()),
                        "packing up " + minutes(h.packUp()),
                        "kept free " + minutes(free) + ", " + Math.round(h.keepFree() * 100) + " % of the sum"));
    }

    /** Flights by who or what flies them; nobody named yet is one and the same. */
    private static Collection<List<PlannedFlight>> apart(List<PlannedFlight> its, Function<PlannedFlight, UUID> of) {
        return its.stream()
                .collect(Collectors.groupingBy(f -> Optional.ofNullable(of.apply(f))))
                .values();
    }

    private static String minutes(double m) {
        return Math.round(m) + " min";
    }
}
