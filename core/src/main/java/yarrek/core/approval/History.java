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

    /** Decisions from which on the median goes before what the kind says, and the 90th percentile likewise (house figures). */
    private static final int ENOUGH_FOR_USUAL = 3;

    private static final int ENOUGH_FOR_WORST = 10;

    /** How long a granter takes, as a rule and at worst. */
    public record Leads(Lead usual, Lead worst) {}

    /** By its own history where there is enough of it, else by the kind; the usual time is never above the worst. */
    public static Leads leads(ApprovalKind kind, Optional<History> history) {
        Lead usual = history.filter(h -> h.n >= ENOUGH_FOR_USUAL)
                .map(h -> Lead.ofDays((int) Math.ceil(h.median)))
                .orElse(kind.usual());
        Lead worst = history.filter(h -> h.n >= ENOUGH_FOR_WORST)
                .map(h -> Lead.ofDays(h.ninetieth))
                .orElse(kind.worst());
        return new Leads(usual, usual.days() > worst.days() ? usual : worst);
    }
}
