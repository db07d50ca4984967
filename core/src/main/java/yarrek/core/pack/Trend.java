package yarrek.core.pack;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * A straight line through measurements that one gross error hardly moves: the median of the slopes of all pairs (Theil 1950),
 * with the interval of Sen (1968) that holds nine in ten.
 *
 * @param middleDay median of the days
 * @param middle median of the values
 * @param perDay median slope
 * @param low lower end of the slope's interval; empty with fewer than four measurements
 * @param high upper end
 * @param pairs of different days
 * @param measured how many measurements it stands on
 */
public record Trend(
        double middleDay,
        double middle,
        double perDay,
        OptionalDouble low,
        OptionalDouble high,
        int pairs,
        int measured) {
    /**
     * A measurement.
     *
     * @param day in days since any one day
     * @param value in any unit
     */
    public record Point(double day, double value) {}

    public static final double DAYS_A_YEAR = 365.25;

    private static final double OUTSIDE = 0.05;
    private static final double Z = 1.6449;
    /** Up to this many measurements without ties the exact law of the order of pairs is used. */
    private static final int EXACT_UP_TO = 10;

    /** With three even the widest interval holds the truth only two times in three. */
    public static final int FEWEST = 4;

    private static final int THINNED_FROM = 300;
    private static final int DAYS_A_WEEK = 7;
    private static final double FAR_OFF = 4 * 1.4826;
    private static final int KNEE_FEWEST = 12;
    private static final int KNEE_SIDE = 5;
    private static final double KNEE_GAIN = 0.60;

    /**
     * The order of the points does not matter.
     *
     * @return empty when all are of one day
     * @throws IllegalArgumentException for a value that is no number
     */
    public static Optional<Trend> of(List<Point> points) {
        if (points.stream().anyMatch(p -> !Double.isFinite(p.day()) || !Double.isFinite(p.value()))) {
            throw new IllegalArgumentException("a measurement that is no number has no trend");
        }
        List<Point> used = points.size() > THINNED_FROM ? weekly(points) : points;
        double[] slopes = slopes(used);
        if (slopes.length == 0) {
            return Optional.empty();
        }
        int[] ends = ends(used, slopes.length);
        return Optional.of(new Trend(
                median(used.stream().mapToDouble(Point::day).toArray()),
                median(used.stream().mapToDouble(Point::value).toArray()),
                median(slopes),
                ends.length == 0 ? OptionalDouble.empty() : OptionalDouble.of(slopes[ends[0]]),
                ends.length == 0 ? OptionalDouble.empty() : OptionalDouble.of(slopes[ends[1]]),
                slopes.length,
                used.size()));
    }

    /** The value of the line on a day. */
    public double at(double day) {
        return middle + perDay * (day - middleDay);
    }

    /**
     * The day on which a line through the medians meets a limit.
     *
     * @param slope {@link #perDay} or an end of its interval
     * @return empty when a line with this slope never does, going on from the middle day
     */
    public OptionalDouble meets(double limit, double slope) {
        double days = (limit - middle) / slope;
        return Double.isFinite(days) && days >= 0 ? OptionalDouble.of(middleDay + days) : OptionalDouble.empty();
    }

    /** Those so far off the line that they ought to be looked at; they stay in the trend, which bears them. */
    public List<Point> farOff(List<Point> points) {
        double[] off = points.stream()
                .mapToDouble(p -> Math.abs(p.value() - at(p.day())))
                .toArray();
        double allowed = FAR_OFF * median(off.clone());
        return points.stream()
                .filter(p -> allowed > 0 && Math.abs(p.value() - at(p.day())) > allowed)
                .toList();
    }

    /**
     * Where a pack began to lose faster.
     *
     * @param from the first day of the faster part
     * @param after its trend, from which a date is reckoned
     */
    public record Knee(double from, Trend after) {
        /** When days are epoch days. */
        public LocalDate since() {
            return LocalDate.ofEpochDay((long) from);
        }
    }

    /**
     * The knee, when two lines fit far better than one and the second surely falls faster; three in a hundred of straight
     * series of twelve show one by chance, of twenty none did.
     *
     * @return empty with fewer than twelve measurements
     */
    public static Optional<Knee> knee(List<Point> points) {
        List<Point> by = points.stream()
                .sorted((a, b) -> Double.compare(a.day(), b.day()))
                .toList();
        if (by.size() < KNEE_FEWEST) {
            return Optional.empty();
        }
        int best = -1;
        double least = Double.MAX_VALUE;
        for (int i = KNEE_SIDE; i <= by.size() - KNEE_SIDE; i++) {
            double both = off(by.subList(0, i)) + off(by.subList(i, by.size()));
            if (by.get(i).day() > by.get(i - 1).day() && both < least) {
                least = both;
                best = i;
            }
        }
        if (best < 0 || !(least < KNEE_GAIN * off(by))) {
            return Optional.empty();
        }
        Optional<Trend> left = of(by.subList(0, best));
        Optional<Trend> right = of(by.subList(best, by.size()));
        double from = by.get(best).day();
        return left.isPresent()
                        && right.isPresent()
                        && right.get().high().isPresent()
                        && right.get().high().getAsDouble()
                                < Math.min(0, left.get().perDay())
                ? Optional.of(new Knee(from, right.get()))
                : Optional.empty();
    }

    private static double off(List<Point> points) {
        return of(points)
                .map(t -> points.stream()
                        .mapToDouble(p -> Math.abs(p.value() - t.at(p.day())))
                        .sum())
                .orElse(Double.MAX_VALUE / 4);
    }

    /** @return sorted */
    private static double[] slopes(List<Point> p) {
        double[] all = new double[p.size() * (p.size() - 1) / 2];
        int n = 0;
        for (int i = 0; i < p.size(); i++) {
            for (int j = i + 1; j < p.size(); j++) {
                double days = p.get(j).day() - p.get(i).day();
                if (days != 0) {
                    all[n++] = (p.get(j).value() - p.get(i).value()) / days;
                }
            }
        }
        double[] slopes = Arrays.copyOf(all, n);
        Arrays.sort(slopes);
        return slopes;
    }

    /** @return places of the interval's ends among the sorted slopes, or none */
    private static int[] ends(List<Point> p, int pairs) {
        int n = p.size();
        if (n < FEWEST) {
            return new int[0];
        }
        List<Integer> tiedDays = ties(p.stream().mapToDouble(Point::day).toArray());
        List<Integer> tiedValues = ties(p.stream().mapToDouble(Point::value).toArray());
        int from;
        int to;
        if (n <= EXACT_UP_TO && tiedDays.isEmpty() && tiedValues.isEmpty()) {
            from = inversions(n);
            to = pairs - 1 - from;
        } else {
            double c = Z * Math.sqrt(variance(n, tiedDays, tiedValues));
            from = (int) Math.floor((pairs - c) / 2) - 1;
            to = (int) Math.ceil((pairs + c) / 2);
        }
        return from < 0 || to >= pairs ? new int[0] : new int[] {from, to};
    }

    /** The largest number of inversions that at most one order in twenty has fewer of or as many. */
    private static int inversions(int n) {
        double[] counts = {1};
        double orders = 1;
        for (int size = 2; size <= n; size++) {
            double[] next = new double[counts.length + size - 1];
            for (int i = 0; i < counts.length; i++) {
                for (int k = 0; k < size; k++) {
                    next[i + k] += counts[i];
                }
            }
            counts = next;
            orders *= size;
        }
        int k = -1;
        double below = counts[0];
        while (below / orders <= OUTSIDE) {
            k++;
            below += counts[k + 1];
        }
        return k;
    }

    private static double variance(int n, List<Integer> x, List<Integer> y) {
        double all = (double) n * (n - 1) * (2 * n + 5) - whole(x) - whole(y);
        double second = 2.0 * n * (n - 1);
        double third = 9.0 * n * (n - 1) * (n - 2);
        return all / 18 + threes(x) * threes(y) / third + twos(x) * twos(y) / second;
    }

    private static double whole(List<Integer> ties) {
        return ties.stream()
                .mapToDouble(t -> (double) t * (t - 1) * (2 * t + 5))
                .sum();
    }

    private static double twos(List<Integer> ties) {
        return ties.stream().mapToDouble(t -> (double) t * (t - 1)).sum();
    }

    private static double threes(List<Integer> ties) {
        return ties.stream().mapToDouble(t -> (double) t * (t - 1) * (t - 2)).sum();
    }

    /** @return how many share a value, for each value that several share */
    private static List<Integer> ties(double[] values) {
        return Arrays.stream(values)
                .boxed()
                .collect(Collectors.groupingBy(v -> v, TreeMap::new, Collectors.summingInt(v -> 1)))
                .values()
                .stream()
                .filter(n -> n > 1)
                .toList();
    }

    private static List<Point> weekly(List<Point> points) {
        Map<Long, List<Point>> weeks = points.stream()
                .collect(Collectors.groupingBy(
                        p -> (long) Math.floor(p.day() / DAYS_A_WEEK), TreeMap::new, Collectors.toList()));
        List<Point> thin = new ArrayList<>();
        weeks.values()
                .forEach(w -> thin.add(new Point(
                        median(w.stream().mapToDouble(Point::day).toArray()),
                        median(w.stream().mapToDouble(Point::value).toArray()))));
        return thin;
    }

    /** Sorts what it is given. */
    static double median(double[] values) {
        Arrays.sort(values);
        int half = values.length / 2;
        return values.length % 2 == 1 ? values[half] : (values[half - 1] + values[half]) / 2;
    }
}
