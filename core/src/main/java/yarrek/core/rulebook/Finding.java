package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;

/**
 * What one rule says of one job or flight.
 *
 * @param intervals breaches over time, for a flight; empty for a plan
 * @param waiver the manager's departure, for a breach of a rule that is not law
 * @param beatenBy id of the rule with a stricter limit on the same quantity; empty when this one binds
 */
public record Finding(
        Rule rule,
        Verdict verdict,
        String says,
        Optional<Gauge> gauge,
        List<String> missing,
        List<Interval> intervals,
        Optional<String> beatenBy,
        Optional<WaiverHeld> waiver) {
    public Finding {
        missing = List.copyOf(missing);
        intervals = List.copyOf(intervals);
    }

    static Finding of(Rule rule, Outcome o) {
        return of(rule, o, List.of());
    }

    static Finding of(Rule rule, Outcome o, List<Interval> intervals) {
        return new Finding(
                rule, o.verdict(), o.says(), o.gauge(), o.missing(), intervals, Optional.empty(), Optional.empty());
    }

    Finding beatenBy(String ruleId) {
        return new Finding(rule, verdict, says, gauge, missing, intervals, Optional.of(ruleId), waiver);
    }

    Finding waived(WaiverHeld by) {
        return new Finding(rule, verdict, says, gauge, missing, intervals, beatenBy, Optional.of(by));
    }

    /** Whether it needs a hand: breached and not departed from, not known, or close. */
    public boolean isOpen() {
        return verdict.compareTo(Verdict.CLOSE) <= 0 && waiver.isEmpty();
    }

    /** Whether the job may not go ahead until something changes. */
    public boolean blocks() {
        return verdict == Verdict.BREACHED && rule.severity() == Severity.STOP && waiver.isEmpty();
    }
}
