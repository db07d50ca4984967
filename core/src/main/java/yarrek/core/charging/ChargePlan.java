package yarrek.core.charging;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import yarrek.core.pack.Assignment;

/**
 * Which pack charges where and when, so that all are ready by their hour and none stands full for longer than it must.
 *
 * @param places one for each pack, in their order
 */
public record ChargePlan(List<Place> places) {
    /** Up to this many packs all orders are tried; beyond, longest first is within a third of the best. */
    private static final int SEARCHED_UP_TO = 10;

    /**
     * @param slot from 0
     * @param start minutes, in the time of the deadline
     * @param end minutes
     */
    public record Place(int slot, double start, double end) {}

    public ChargePlan {
        places = List.copyOf(places);
    }

    /** Minutes that packs stand full before their hour, in all. */
    public double waiting(double deadline) {
        return places.stream().mapToDouble(p -> deadline - p.end()).sum();
    }

    /** Minutes from the first start to the last end. */
    public double span() {
        return places.stream().mapToDouble(Place::end).max().orElse(0)
                - places.stream().mapToDouble(Place::start).min().orElse(0);
    }

    public double earliest() {
        return places.stream().mapToDouble(Place::start).min().orElse(Double.POSITIVE_INFINITY);
    }

    /**
     * All ready at one hour, on equal places: backwards, the shortest next to the hour. The least waiting there is
     * (Conway, Maxwell, Miller 1967).
     *
     * @param minutes of each pack, 0 or more
     */
    public static ChargePlan evenly(List<Double> minutes, int slots, double deadline) {
        return backwards(
                IntStream.range(0, minutes.size())
                        .boxed()
                        .sorted(Comparator.comparingDouble(minutes::get))
                        .toList(),
                minutes,
                constant(minutes.size(), deadline),
                slots);
    }

    /**
     * Several hours to be ready by, on equal places: backwards, the latest hour first. On one place no plan is less late
     * (Jackson 1955); on m places it is so within 1 − 1/m of the longest charge.
     */
    public static ChargePlan byHour(List<Double> minutes, List<Double> deadlines, int slots) {
        return backwards(
                IntStream.range(0, minutes.size())
                        .boxed()
                        .sorted(Comparator.<Integer>comparingDouble(i -> -deadlines.get(i)))
                        .toList(),
                minutes,
                deadlines,
                slots);
    }

    private static ChargePlan backwards(List<Integer> order, List<Double> minutes, List<Double> deadlines, int slots) {
        places(slots);
        double[] free = new double[slots];
        Arrays.fill(free, Double.POSITIVE_INFINITY);
        Place[] at = new Place[minutes.size()];
        for (int i : order) {
            int slot = 0;
            for (int s = 1; s < slots; s++) {
                if (free[s] > free[slot]) {
                    slot = s;
                }
            }
            double end = Math.min(deadlines.get(i), free[slot]);
            free[slot] = end - minutes.get(i);
            at[i] = new Place(slot, free[slot], end);
        }
        return new ChargePlan(List.of(at));
    }

    /**
     * All ready at one hour, on places that differ: an assignment of packs to places in the row of each charger, exact
     * (Horn 1973; Bruno, Coffman, Sethi 1974).
     *
     * @param minutes of each pack at each charger; infinite where it cannot charge there
     */
    public static ChargePlan unevenly(List<List<Double>> minutes, double deadline) {
        int n = minutes.size();
        if (n == 0) {
            return new ChargePlan(List.of());
        }
        int slots = minutes.get(0).size();
        places(slots);
        double[][] cost = new double[n][n * slots];
        for (int i = 0; i < n; i++) {
            for (int s = 0; s < slots; s++) {
                for (int q = 0; q < n; q++) {
                    // the pack q places before the last of its charger keeps q others of them waiting full
                    double m = minutes.get(i).get(s);
                    cost[i][s * n + q] = Double.isInfinite(m) ? 1e9 : q * m;
                }
            }
        }
        int[] chosen = Assignment.least(cost);
        double[] free = constant(slots, deadline).stream().mapToDouble(d -> d).toArray();
        Place[] at = new Place[n];
        IntStream.range(0, n)
                .boxed()
                .sorted(Comparator.<Integer>comparingInt(i -> -(chosen[i] % n)))
                .forEach(i -> {
                    int slot = chosen[i] / n;
                    double end = free[slot];
                    free[slot] = end - minutes.get(i).get(slot);
                    at[i] = new Place(slot, free[slot], end);
                });
        return new ChargePlan(List.of(at));
    }

    /**
     * From now on with the least lateness, for when the plan that waits least begins too early; with one hour for all it is
     * the shortest there is. Up to ten packs exact, beyond by {@link #listed}.
     */
    public static ChargePlan soonest(List<Double> minutes, List<Double> deadlines, int slots, double now) {
        places(slots);
        List<Integer> order = urgent(minutes, deadlines);
        ChargePlan list = listed(minutes, deadlines, slots, now);
        if (minutes.size() > SEARCHED_UP_TO) {
            return list;
        }
        Search search = new Search(minutes, deadlines, order, list.lateness(deadlines));
        double[] free = new double[slots];
        Arrays.fill(free, now);
        search.go(0, free, new int[minutes.size()], Double.NEGATIVE_INFINITY);
        return search.best == null ? list : placed(order, minutes, search.best, slots, now);
    }

    /** By hour and the longest first, each to the place free first: at most 4/3 − 1/(3m) of the shortest (Graham 1969). */
    public static ChargePlan listed(List<Double> minutes, List<Double> deadlines, int slots, double now) {
        double[] free = new double[slots];
        int[] at = new int[minutes.size()];
        for (int i : urgent(minutes, deadlines)) {
            int slot = 0;
            for (int s = 1; s < slots; s++) {
                if (free[s] < free[slot]) {
                    slot = s;
                }
            }
            at[i] = slot;
            free[slot] += minutes.get(i);
        }
        return placed(urgent(minutes, deadlines), minutes, at, slots, now);
    }

    private static List<Integer> urgent(List<Double> minutes, List<Double> deadlines) {
        return IntStream.range(0, minutes.size())
                .boxed()
                .sorted(Comparator.<Integer>comparingDouble(deadlines::get).thenComparingDouble(i -> -minutes.get(i)))
                .toList();
    }

    private static ChargePlan placed(List<Integer> order, List<Double> minutes, int[] slotOf, int slots, double now) {
        double[] free = new double[slots];
        Arrays.fill(free, now);
        Place[] at = new Place[minutes.size()];
        for (int i : order) {
            double start = free[slotOf[i]];
            free[slotOf[i]] = start + minutes.get(i);
            at[i] = new Place(slotOf[i], start, free[slotOf[i]]);
        }
        return new ChargePlan(List.of(at));
    }

    /** All ways to part the packs over the places, each place by hour; what is no better than the best so far is left. */
    private static final class Search {
        private final List<Double> minutes;
        private final List<Double> deadlines;
        private final List<Integer> order;
        private double least;
        private int[] best;

        Search(List<Double> minutes, List<Double> deadlines, List<Integer> order, double least) {
            this.minutes = minutes;
            this.deadlines = deadlines;
            this.order = order;
            this.least = least;
        }

        void go(int k, double[] free, int[] at, double late) {
            if (late >= least) {
                return;
            }
            if (k == order.size()) {
                least = late;
                best = at.clone();
                return;
            }
            int i = order.get(k);
            for (int s = 0; s < free.length; s++) {
                boolean like = false;
                for (int before = 0; before < s; before++) {
                    like |= free[before] == free[s];
                }
                if (!like) { // places free at the same time are alike
                    double was = free[s];
                    at[i] = s;
                    free[s] += minutes.get(i);
                    go(k + 1, free, at, Math.max(late, free[s] - deadlines.get(i)));
                    free[s] = was;
                }
            }
        }
    }

    private static void places(int slots) {
        if (slots < 1) {
            throw new IllegalArgumentException("without a place to charge there is no plan");
        }
    }

    private static List<Double> constant(int n, double value) {
        return IntStream.range(0, n).mapToObj(i -> value).toList();
    }

    /** How late the latest is; 0 or less when none is. */
    public double lateness(List<Double> deadlines) {
        return IntStream.range(0, places.size())
                .mapToDouble(i -> places.get(i).end() - deadlines.get(i))
                .max()
                .orElse(0);
    }
}
