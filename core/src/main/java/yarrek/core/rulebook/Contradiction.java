package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Finds conditions that no facts can meet. Alternatives are tried one by one; a quantity compared with another fact, and
 * the inside of a "not", are taken as possible. So what is found is certain, but not everything impossible is found.
 */
public final class Contradiction {
    /** Beyond so many combinations of alternatives a condition is taken as possible. */
    private static final int MOST_BRANCHES = 2000;

    private Contradiction() {}

    /** Why the condition can never hold; empty when nothing speaks against it. */
    public static Optional<String> of(Condition condition) {
        List<List<Condition>> branches = branches(condition);
        if (branches.isEmpty()) {
            return Optional.of("it has no alternative left that could hold");
        }
        String why = null;
        for (List<Condition> branch : branches) {
            why = clash(branch);
            if (why == null) {
                return Optional.empty();
            }
        }
        return Optional.of(why);
    }

    /** Ways in which the condition could hold, each a list of single conditions that must hold together. */
    private static List<List<Condition>> branches(Condition c) {
        if (c instanceof Condition.All all) {
            List<List<Condition>> out = new ArrayList<>(List.of(List.of()));
            for (Condition part : all.of()) {
                List<List<Condition>> next = new ArrayList<>();
                for (List<Condition> a : out) {
                    for (List<Condition> b : branches(part)) {
                        List<Condition> both = new ArrayList<>(a);
                        both.addAll(b);
                        next.add(both);
                    }
                }
                out = next.size() > MOST_BRANCHES ? List.of(List.of()) : next;
            }
            return out;
        }
        if (c instanceof Condition.Any any) {
            return any.of().stream().flatMap(p -> branches(p).stream()).toList();
        }
        return c instanceof Condition.Not ? List.of(List.of()) : List.of(List.of(c));
    }

    private static String clash(List<Condition> together) {
        Map<String, Set<String>> words = new HashMap<>();
        Map<String, Boolean> yesNo = new HashMap<>();
        Map<String, double[]> ranges = new HashMap<>();
        Map<String, LocalDate[]> dates = new HashMap<>();
        for (Condition c : together) {
            String label = null;
            boolean clash = false;
            if (c instanceof Condition.WordIsOneOf w) {
                label = w.fact();
                Set<String> left = words.computeIfAbsent(w.fact(), k -> new HashSet<>(w.values()));
                left.retainAll(w.values());
                clash = left.isEmpty();
            } else if (c instanceof Condition.YesNoIs y) {
                label = y.fact();
                Boolean before = yesNo.putIfAbsent(y.fact(), y.value());
                clash = before != null && before != y.value();
            } else if (c instanceof Condition.QuantityIs q && q.limit() instanceof Limit.Constant limit) {
                label = q.fact();
                clash = narrow(ranges.computeIfAbsent(q.fact(), k -> open()), q.bound(), limit.value());
            } else if (c instanceof Condition.DateIs d) {
                label = d.fact();
                LocalDate[] span = dates.computeIfAbsent(d.fact(), k -> new LocalDate[] {LocalDate.MIN, LocalDate.MAX});
                span[0] = !d.before() && d.day().isAfter(span[0]) ? d.day() : span[0];
                span[1] = d.before() && d.day().isBefore(span[1]) ? d.day() : span[1];
                clash = !span[0].isBefore(span[1]);
            }
            if (clash) {
                return "no " + Outcome.lower(Vocabulary.define(label).label()) + " can be all of what it asks for";
            }
        }
        return null;
    }

    private static double[] open() {
        return new double[] {Double.NEGATIVE_INFINITY, 1, Double.POSITIVE_INFINITY, 1};
    }

    /** Narrows {low, low included, high, high included}; answers whether nothing is left. */
    private static boolean narrow(double[] r, Bound bound, double limit) {
        double included = bound.holds(limit, limit) ? 1 : 0;
        if (bound.isUpper() && limit <= r[2]) {
            r[3] = limit == r[2] ? Math.min(r[3], included) : included;
            r[2] = limit;
        } else if (!bound.isUpper() && limit >= r[0]) {
            r[1] = limit == r[0] ? Math.min(r[1], included) : included;
            r[0] = limit;
        }
        return r[0] > r[2] || (r[0] == r[2] && r[1] * r[3] == 0);
    }
}
