package yarrek.core.rulebook;

import java.util.List;
import java.util.function.BinaryOperator;
import java.util.function.IntFunction;
import java.util.function.IntToDoubleFunction;

/**
 * A requirement over the moments of a flight. What speaks of nothing that changes is judged once, so that only what does
 * change is looked at tens of thousands of times.
 *
 * @param verdict the same as that of {@link Requirement#verdict} on the facts of the moment
 * @param margin the same as that of {@link Requirement#margin}
 */
public record OverTime(IntFunction<Verdict> verdict, IntToDoubleFunction margin) {
    static OverTime of(Requirement r, Moments m) {
        if (!m.moves(r.factNames())) {
            Verdict verdict = r.verdict(m.constant());
            double margin = r.margin(m.constant());
            return new OverTime(i -> verdict, i -> margin);
        }
        return r.overTime(m);
    }

    /** Every part has to hold: the most pressing answer is the answer. */
    static OverTime all(List<Requirement> parts, Moments m) {
        return combined(parts, m, true);
    }

    /** Any part may hold: the least pressing answer is the answer. */
    static OverTime any(List<Requirement> parts, Moments m) {
        return combined(parts, m, false);
    }

    private static OverTime combined(List<Requirement> parts, Moments m, boolean all) {
        OverTime[] of = parts.stream().map(p -> of(p, m)).toArray(OverTime[]::new);
        return new OverTime(
                i -> {
                    Verdict combined = of[0].verdict.apply(i);
                    for (int k = 1; k < of.length; k++) {
                        Verdict v = of[k].verdict.apply(i);
                        combined = (v.compareTo(combined) < 0) == all ? v : combined;
                    }
                    return combined;
                },
                i -> {
                    double least = Double.POSITIVE_INFINITY;
                    for (OverTime o : of) {
                        least = Math.min(least, o.margin.applyAsDouble(i));
                    }
                    return least;
                });
    }

    /** Whether a rule applies at each moment. */
    static IntFunction<Truth> applies(Rule rule, Moments m) {
        IntFunction<Truth> when = truth(rule.appliesWhen(), m);
        IntFunction<Truth> except = truth(rule.exceptWhen(), m);
        return i -> except.apply(i) == Truth.YES ? Truth.NO : when.apply(i);
    }

    private static IntFunction<Truth> truth(Condition c, Moments m) {
        if (m.moves(c.factNames())) {
            return c.truthOverTime(m);
        }
        Truth always = c.test(m.constant());
        return i -> always;
    }

    /** A condition looked at whole at each moment. */
    static IntFunction<Truth> each(Condition c, Moments m) {
        return i -> c.test(m.at(i));
    }

    static IntFunction<Truth> not(Condition c, Moments m) {
        IntFunction<Truth> of = truth(c, m);
        return i -> of.apply(i).not();
    }

    /** A condition whose parts are put together at each moment; those that do not change are tested once. */
    static IntFunction<Truth> folded(List<Condition> parts, Moments m, Truth first, BinaryOperator<Truth> with) {
        List<IntFunction<Truth>> of = parts.stream().map(p -> truth(p, m)).toList();
        return i -> {
            Truth truth = first;
            for (IntFunction<Truth> part : of) {
                truth = with.apply(truth, part.apply(i));
            }
            return truth;
        };
    }
}
