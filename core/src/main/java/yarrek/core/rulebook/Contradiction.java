package yarrek.core.rulebook;

import java.time.LocalDate;
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
    static final int MOST_BRANCHES = 2000;

    private Contradiction() {}

    /** Why the condition can never hold; empty when nothing speaks against it. */
    public static Optional<String> of(Condition condition) {
        List<List<Condition>> branches = condition.branches();
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

    private static String clash(List<Condition> together) {
        Left left = new Left();
        for (Condition c : together) {
            if (c.clashes(left)) {
                String label = c.factNames().iterator().next();
                return "no " + Outcome.lower(Vocabulary.define(label).label()) + " can be all of what it asks for";
            }
        }
        return null;
    }

    /** What is left for each fact after some conditions; every method narrows it and says whether nothing is left. */
    public static final class Left {
        private final Map<String, Set<String>> words = new HashMap<>();
        private final Map<String, Boolean> yesNo = new HashMap<>();
        private final Map<String, double[]> ranges = new HashMap<>();
        private final Map<String, LocalDate[]> dates = new HashMap<>();

        private Left() {}

        boolean word(String fact, Set<String> values) {
            Set<String> left = words.computeIfAbsent(fact, k -> new HashSet<>(values));
            left.retainAll(values);
            return left.isEmpty();
        }

        boolean yesNo(String fact, boolean value) {
            Boolean before = yesNo.putIfAbsent(fact, value);
            return before != null && before != value;
        }

        boolean date(String fact, boolean before, LocalDate day) {
            LocalDate[] span = dates.computeIfAbsent(fact, k -> new LocalDate[] {LocalDate.MIN, LocalDate.MAX});
            span[0] = !before && day.isAfter(span[0]) ? day : span[0];
            span[1] = before && day.isBefore(span[1]) ? day : span[1];
            return !span[0].isBefore(span[1]);
        }

        boolean quantity(String fact, Bound bound, double limit) {
            // low, whether it is included, high, whether it is included
            double[] r = ranges.computeIfAbsent(
                    fact, k -> new double[] {Double.NEGATIVE_INFINITY, 1, Double.POSITIVE_INFINITY, 1});
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
}
