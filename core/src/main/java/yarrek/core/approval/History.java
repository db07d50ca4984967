package yarrek.core.approval;

import java.util.List;
import java.util.Optional;

/**
 * How long a granter took before, in days from sent to decided.
 *
 * @param median of the middle two when there is an even number
 * @param ninetieth 90th percentile by nearest rank: nine of ten took no longer
 * @param n how many
 */
public record History(double median, int ninetieth, int n) {
    /** Empty when there is none. */
    public static Optional<History> of(List<Integer> days) {
        if (days.isEmpty()) {
            return Optional.empty();
        }
        List<Integer> d = days.stream().sorted().toList();
        int n = d.size();
        double median = n % 2 == 1 ? d.get(n / 2) : (d.get(n / 2 - 1) + d.get(n / 2)) / 2.0;
        return Optional.of(new History(median, d.get((int) Math.ceil(0.9 * n) - 1), n));
    }
}
