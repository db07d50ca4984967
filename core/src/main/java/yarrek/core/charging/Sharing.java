package yarrek.core.charging;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/** Packs at one charger, or chargers at one supply, that share its watts: each gets what it asks as far as there is enough. */
public final class Sharing {
    private static final int MINUTES = 60;
    private static final double DONE = 1e-9;

    private Sharing() {}

    /**
     * A pack at the charger.
     *
     * @param from charge now
     * @param to charge wanted, both 0 to 1
     */
    public record Taker(Filling filling, double from, double to) {}

    /**
     * When each has what it wants, in minutes from now; all begin now. What one no longer asks the others get.
     *
     * @param total W that there are, above 0
     * @param most W of one place, above 0
     */
    public static List<Double> minutes(List<Taker> takers, double total, double most) {
        if (!(total > 0 && most > 0)) {
            throw new IllegalArgumentException("a charger gives more than 0 W, got " + total + " and " + most);
        }
        double[] charge = takers.stream().mapToDouble(Taker::from).toArray();
        double[] done = new double[takers.size()];
        List<Integer> open = new ArrayList<>(IntStream.range(0, charge.length)
                .filter(i -> charge[i] < takers.get(i).to() - DONE)
                .boxed()
                .toList());
        double hours = 0;
        while (!open.isEmpty()) {
            double[] asks = open.stream()
                    .mapToDouble(i -> Math.min(most, takers.get(i).filling().asks(charge[i])))
                    .toArray();
            double[] given = shares(asks, total);
            double[] rate = new double[charge.length];
            double step = Double.POSITIVE_INFINITY;
            for (int k = 0; k < given.length; k++) {
                int i = open.get(k);
                Filling f = takers.get(i).filling();
                rate[i] = given[k] * f.efficiency() / f.wh();
                step = Math.min(step, (next(takers.get(i), charge[i]) - charge[i]) / rate[i]);
            }
            hours += step;
            for (int i : List.copyOf(open)) {
                double corner = next(takers.get(i), charge[i]);
                charge[i] += rate[i] * step;
                if (charge[i] > corner - DONE) {
                    charge[i] = corner;
                }
                if (charge[i] >= takers.get(i).to() - DONE) {
                    done[i] = hours * MINUTES;
                    open.remove((Integer) i);
                }
            }
        }
        return Arrays.stream(done).boxed().toList();
    }

    private static double next(Taker t, double charge) {
        double corner = t.filling().corner();
        return charge < corner ? Math.min(corner, t.to()) : t.to();
    }

    /** Those that ask little get it, the rest is parted evenly among the others. */
    static double[] shares(double[] asks, double total) {
        List<Integer> by = IntStream.range(0, asks.length)
                .boxed()
                .sorted(Comparator.comparingDouble((Integer i) -> asks[i]))
                .toList();
        double[] given = new double[asks.length];
        double rest = total;
        for (int k = 0; k < by.size(); k++) {
            int i = by.get(k);
            given[i] = Math.min(asks[i], rest / (by.size() - k));
            rest -= given[i];
        }
        return given;
    }
}
