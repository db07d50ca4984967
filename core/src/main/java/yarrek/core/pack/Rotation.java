package yarrek.core.pack;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Which pack flies which flight of a job, and how many packs a list of flights needs. */
public final class Rotation {
    private static final double FORBIDDEN = 1_000_000;
    private static final double MARGIN = 1.15;
    private static final double REST_COUNTS_UP_TO = 60;
    private static final double WATCHED = 0.5;
    private static final int FLIGHTS_A_SPARE = 5;

    private Rotation() {}

    /**
     * What counts when a pack is chosen. House figures.
     *
     * @param thinMargin for each part by which a pack misses the flight's minutes and 15 %
     * @param evenness for each growth of the sum of squared cycles
     * @param rest for sixty days of rest
     * @param reserve share of the charge that stays in
     */
    public record Weights(double thinMargin, double evenness, double rest, double reserve) {
        /** @param reserve that the house keeps, 0 to 1 */
        public static Weights house(double reserve) {
            return new Weights(10, 1 / 400.0, 0.01, reserve);
        }
    }

    /**
     * A pack that might fly.
     *
     * @param cycles equivalent full cycles
     * @param minutes that it lasts today, after the reserve, carefully reckoned
     * @param daysRested since it last flew
     * @param watched flown only where others do not do
     * @param barred why it must not fly, null when nothing speaks against it
     */
    public record Candidate(
            String label, double cycles, double minutes, double daysRested, boolean watched, String barred) {
        /** Labels that a hand takes for each other. */
        String folded() {
            return label.strip().toUpperCase(Locale.ROOT).replace('O', '0').replace('I', '1');
        }
    }

    /**
     * A choice for every flight.
     *
     * @param packs one for each flight, in their order
     * @param cost the smaller the better; only to be compared
     * @param refused why there is no choice, empty when there is one
     */
    public record Choice(List<Candidate> packs, double cost, List<String> refused) {
        public Choice {
            packs = List.copyOf(packs);
            refused = List.copyOf(refused);
        }
    }

    /**
     * The best pack for every flight: margins first, then even wear, then rest. Of packs with labels that a hand takes for
     * each other one flies. The answer does not depend on the order in which packs are handed in.
     *
     * @param minutes of each flight, above 0
     */
    public static Choice choose(List<Double> minutes, List<Candidate> packs, Weights w) {
        List<Candidate> ordered = packs.stream()
                .sorted(Comparator.comparing(Candidate::label)
                        .thenComparing(Candidate::cycles)
                        .thenComparing(Candidate::minutes))
                .toList();
        Map<String, List<Integer>> labels = new LinkedHashMap<>();
        for (int p = 0; p < ordered.size(); p++) {
            labels.computeIfAbsent(ordered.get(p).folded(), k -> new ArrayList<>())
                    .add(p);
        }
        // one column a label: of its packs the one that suits a flight best
        List<List<Integer>> columns = List.copyOf(labels.values());
        double[][] cost = new double[minutes.size()][Math.max(columns.size(), minutes.size())];
        int[][] of = new int[minutes.size()][cost.length == 0 ? 0 : cost[0].length];
        for (int f = 0; f < minutes.size(); f++) {
            for (int c = 0; c < cost[f].length; c++) {
                cost[f][c] = FORBIDDEN;
                of[f][c] = -1;
                for (int p : c < columns.size() ? columns.get(c) : List.<Integer>of()) {
                    double here = cost(minutes.get(f), ordered.get(p), p + 1, w);
                    if (here < cost[f][c]) {
                        cost[f][c] = here;
                        of[f][c] = p;
                    }
                }
            }
        }
        int[] chosen = Assignment.least(cost);
        List<Candidate> flown = new ArrayList<>();
        double sum = 0;
        for (int f = 0; f < chosen.length; f++) {
            int p = of[f][chosen[f]];
            if (p < 0) {
                return new Choice(List.of(), Double.NaN, refused(minutes, ordered));
            }
            flown.add(ordered.get(p));
            sum += cost[f][chosen[f]];
        }
        return new Choice(flown, sum, List.of());
    }

    private static List<String> refused(List<Double> minutes, List<Candidate> packs) {
        List<String> why = new ArrayList<>();
        for (int f = 0; f < minutes.size(); f++) {
            double need = minutes.get(f);
            long able = packs.stream()
                    .filter(p -> p.barred() == null && p.minutes() >= need)
                    .count();
            if (able < minutes.size()) {
                why.add("flight " + (f + 1) + " of " + Math.round(need) + " min: "
                        + (able == 0 ? "no pack lasts" : able == 1 ? "one pack lasts" : able + " packs last")
                        + " so long");
            }
        }
        packs.stream().filter(p -> p.barred() != null).forEach(p -> why.add(p.label() + ": " + p.barred()));
        return why;
    }

    private static double cost(double minutes, Candidate p, int rank, Weights w) {
        if (p.barred() != null || !(p.minutes() >= minutes)) {
            return FORBIDDEN;
        }
        double d = (1 - w.reserve()) * minutes / p.minutes();
        return w.thinMargin() * Math.max(0, MARGIN * minutes - p.minutes()) / minutes
                + (2 * p.cycles() * d + d * d) * w.evenness()
                - w.rest() * Math.min(REST_COUNTS_UP_TO, p.daysRested()) / REST_COUNTS_UP_TO
                + (p.watched() ? WATCHED : 0)
                + 1e-6 * rank;
    }

    /**
     * Packs for flights in their order, none charged between: the next pack when the next flight does not fit what is left.
     *
     * @param atLeast that no order needs fewer than
     */
    public record Needed(int packs, int atLeast) {}

    /** @return empty when a flight is longer than a pack lasts */
    public static Optional<Needed> inOrder(List<Double> minutes, double lasts) {
        if (minutes.stream().anyMatch(m -> !(m <= lasts))) {
            return Optional.empty();
        }
        int packs = 0;
        double left = 0;
        for (double m : minutes) {
            if (m > left) {
                packs++;
                left = lasts;
            }
            left -= m;
        }
        double sum = minutes.stream().mapToDouble(m -> m).sum();
        return Optional.of(new Needed(packs, (int) Math.ceil(sum / lasts - 1e-9)));
    }

    /**
     * The times around a flight, in minutes.
     *
     * @param turn between landing and the next
     * @param unlock at each power-on where it must be asked for
     * @param cool before it may be charged
     * @param charge from the landing level to full
     */
    public record Times(double turn, double unlock, double cool, double charge) {}

    /**
     * @param minutes of the job
     * @param waiting for a pack, of these
     */
    public record Day(double minutes, double waiting) {}

    /** Flight by flight, with so many packs and places to charge: the pack ready first flies. */
    public static Day onSite(List<Double> flights, Times t, int packs, int slots) {
        double[] ready = new double[packs];
        double[] slot = new double[Math.max(1, slots)];
        double now = 0;
        double waiting = 0;
        for (int i = 0; i < flights.size(); i++) {
            int k = least(ready);
            double could = now + t.unlock() + (i > 0 ? t.turn() : 0);
            double start = Math.max(could, ready[k]);
            waiting += start - could;
            now = start + flights.get(i);
            if (slots > 0) {
                int q = least(slot);
                double begins = Math.max(now + t.cool(), slot[q]);
                slot[q] = begins + t.charge();
                ready[k] = slot[q];
            } else {
                ready[k] = Double.POSITIVE_INFINITY;
            }
        }
        return new Day(now, waiting);
    }

    /** The fewest packs that nobody waits for longer than {@code slack} minutes, at most one a flight. */
    public static int fewest(List<Double> flights, Times t, int slots, double slack) {
        for (int n = 1; n < flights.size(); n++) {
            if (onSite(flights, t, n, slots).waiting() <= slack) {
                return n;
            }
        }
        return Math.max(1, flights.size());
    }

    /** Packs and places for flights without end. */
    public record Steady(int packs, int slots) {}

    public static Steady steady(double flight, Times t) {
        double round = flight + t.turn() + t.unlock();
        return new Steady(up((round + t.cool() + t.charge()) / round), up(t.charge() / round));
    }

    /** Minutes of a job whose packs are all full: flights, the turns between them, unlocking. */
    public static double minutes(List<Double> flights, double turn, double unlock) {
        return flights.stream().mapToDouble(m -> m).sum()
                + Math.max(0, flights.size() - 1) * turn
                + flights.size() * unlock;
    }

    /** With spares: one for every five begun. */
    public static int withSpares(int needed) {
        return needed + up(needed / (double) FLIGHTS_A_SPARE);
    }

    private static int up(double v) {
        return (int) Math.ceil(v - 1e-9);
    }

    private static int least(double[] of) {
        int at = 0;
        for (int i = 1; i < of.length; i++) {
            if (of[i] < of[at]) {
                at = i;
            }
        }
        return at;
    }
}
