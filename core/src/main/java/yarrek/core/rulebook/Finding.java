package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;

/**
 * What one rule says of one job or flight.
 *
 * @param intervals breaches over time, for a flight; empty for a plan
 * @param beatenBy id of the rule with a stricter limit on the same quantity; empty when this one binds
 */
public record Finding(
        Rule rule,
        Verdict verdict,
        String says,
        Optional<Gauge> gauge,
        List<String> missing,
        List<Interval> intervals,
        Optional<String> beatenBy) {
    public Finding {
        missing = List.copyOf(missing);
        intervals = List.copyOf(intervals);
    }

    static Finding of(Rule rule, Outcome o) {
        return new Finding(rule, o.verdict(), o.says(), o.gauge(), o.missing(), List.of(), Optional.empty());
    }

    static Finding of(Rule rule, Outcome o, List<Interval> intervals) {
        return new Finding(rule, o.verdict(), o.says(), o.gauge(), o.missing(), intervals, Optional.empty());
    }

    Finding beatenBy(String ruleId) {
        return new Finding(rule, verdict, says, gauge, missing, intervals, Optional.of(ruleId));
    }

    /** Whether the job may not go ahead until something changes. */
    public boolean blocks() {
        return verdict == Verdict.BREACHED && rule.severity() == Severity.STOP;
    }
}
