package yarrek.core.pack;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * A pack from its first flight to its end: health on each day that shows it, where it goes, and when it is to be retired.
 *
 * @param measured each flight that might have shown it, by day
 * @param days health of each day that does, by day
 * @param trend over all days; empty when fewer than two do
 * @param knee from when it lost faster
 * @param retirement by the house's ends
 */
public record PackLife(
        List<Measured> measured,
        List<Day> days,
        Optional<Trend> trend,
        Optional<Trend.Knee> knee,
        Retirement retirement) {
    private static final int MOST_MONTHS = 6;
    private static final int MONTH_DAYS = 30;

    /**
     * A flight.
     *
     * @param mah drawn; null when its log has none
     * @param before state of charge at take-off, 0 to 1; null when its log has none
     * @param after state of charge at landing, 0 to 1; null when its log has none
     */
    public record Flown(LocalDate on, Double mah, Double before, Double after) {}

    /** A flight and what it shows. */
    public record Measured(LocalDate on, Health.Answer answer) {}

    /**
     * Health of a day.
     *
     * @param farOff from the trend, so that it ought to be looked at
     */
    public record Day(LocalDate on, Health health, boolean farOff) {}

    public PackLife {
        measured = List.copyOf(measured);
        days = List.copyOf(days);
    }

    /**
     * @param designMah of the model, above 0
     * @param cycles equivalent full cycles so far, 0 or more
     * @param firstUse or bought; null when not known
     */
    public static PackLife of(
            List<Flown> flights,
            double designMah,
            double cycles,
            LocalDate firstUse,
            LocalDate today,
            Retirement.Ends ends) {
        List<Flown> byDay =
                flights.stream().sorted(Comparator.comparing(Flown::on)).toList();
        List<Measured> measured = new ArrayList<>();
        for (Flown f : byDay) {
            if (f.mah() != null && f.before() != null && f.after() != null) {
                measured.add(new Measured(
                        f.on(),
                        Health.counted(f.mah(), f.before(), f.after(), designMah, Health.GAUGE, Health.Way.GAUGE)));
            }
        }
        return of(measured, monthly(byDay, designMah, today), cycles, firstUse, today, ends);
    }

    /** @param monthly cycles of each of the last months, the newest last */
    public static PackLife of(
            List<Measured> measured,
            List<Double> monthly,
            double cycles,
            LocalDate firstUse,
            LocalDate today,
            Retirement.Ends ends) {
        Map<LocalDate, List<Health>> byDay = measured.stream()
                .filter(m -> m.answer().health().isPresent())
                .collect(Collectors.groupingBy(
                        Measured::on,
                        TreeMap::new,
                        Collectors.mapping(m -> m.answer().health().orElseThrow(), Collectors.toList())));
        List<Trend.Point> points = new ArrayList<>();
        byDay.forEach((on, all) ->
                points.add(new Trend.Point(on.toEpochDay(), Health.pooled(all).value())));
        Optional<Trend> trend = Trend.of(points);
        Optional<Trend.Knee> knee = Trend.knee(points);
        List<Trend.Point> far = trend.map(t -> t.farOff(points)).orElse(List.of());
        List<Day> days = new ArrayList<>();
        byDay.forEach((on, all) ->
                days.add(new Day(on, Health.pooled(all), far.stream().anyMatch(p -> p.day() == on.toEpochDay()))));
        Retirement r = Retirement.of(
                new Retirement.OnFile(
                        cycles,
                        monthly,
                        knee.map(Trend.Knee::after).or(() -> trend).orElse(null),
                        null,
                        null,
                        firstUse,
                        days.size()),
                today,
                ends);
        return new PackLife(measured, days, trend, knee, r);
    }

    /** The line that the date follows from: after the knee where there is one. */
    public Optional<Trend> goesOn() {
        return knee.map(Trend.Knee::after).or(() -> trend);
    }

    /** Cycles of the last months of thirty days, as many whole ones as there were since the first flight. */
    private static List<Double> monthly(List<Flown> byDay, double designMah, LocalDate today) {
        List<Double> months = new ArrayList<>();
        if (byDay.isEmpty()) {
            return months;
        }
        LocalDate first = byDay.get(0).on();
        for (int m = MOST_MONTHS; m >= 1; m--) {
            LocalDate from = today.minusDays((long) m * MONTH_DAYS);
            LocalDate to = from.plusDays(MONTH_DAYS);
            if (!first.isAfter(from)) {
                months.add(byDay.stream()
                        .filter(f -> f.mah() != null && f.on().isAfter(from) && !f.on().isAfter(to))
                        .mapToDouble(f -> f.mah() / designMah)
                        .sum());
            }
        }
        return months;
    }
}
