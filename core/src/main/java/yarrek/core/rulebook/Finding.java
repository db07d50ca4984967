package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;

/**
 * What one rule says of one job or flight.
 *
 * @param intervals breaches over time, for a flight; empty for a plan
 * @param waiver the manager's departure, for a breach of a rule that is not law
 * @param beatenBy id of the rule with a stricter limit on the same quantity; empty when this one binds
 * @param liftedBy the approval without which it would be breached; empty for most
 * @param onTheDay what is not known can only be said on the day, and so does not hold the job up before it
 * @param otherDay another day or hour may cure it, since what it rests on changes with time
 * @param concerns which of several planned flights, in words; empty when all of them, or when there is one
 */
public record Finding(
        Rule rule,
        Verdict verdict,
        String says,
        Optional<Gauge> gauge,
        List<String> missing,
        List<Interval> intervals,
        Optional<String> beatenBy,
        Optional<WaiverHeld> waiver,
        Optional<String> liftedBy,
        boolean onTheDay,
        boolean otherDay,
        String concerns)
        implements Standing {
    public Finding {
        missing = List.copyOf(missing);
        intervals = List.copyOf(intervals);
    }

    static Finding of(Rule rule, Outcome o) {
        return of(rule, o, List.of(), rule.onTheDay(), false);
    }

    static Finding of(Rule rule, Outcome o, List<Interval> intervals, boolean onTheDay, boolean otherDay) {
        return new Finding(
                rule,
                o.verdict(),
                o.says(),
                o.gauge(),
                o.missing(),
                intervals,
                Optional.empty(),
                Optional.empty(),
                o.liftedBy(),
                onTheDay,
                otherDay,
                "");
    }

    Finding saying(String words) {
        return new Finding(
                rule, verdict, words, gauge, missing, intervals, beatenBy, waiver, liftedBy, onTheDay, otherDay,
                concerns);
    }

    Finding beatenBy(String ruleId) {
        return new Finding(
                rule,
                verdict,
                says,
                gauge,
                missing,
                intervals,
                Optional.of(ruleId),
                waiver,
                liftedBy,
                onTheDay,
                otherDay,
                concerns);
    }

    Finding waived(WaiverHeld by) {
        return new Finding(
                rule,
                verdict,
                says,
                gauge,
                missing,
                intervals,
                beatenBy,
                Optional.of(by),
                liftedBy,
                onTheDay,
                otherDay,
                concerns);
    }

    /** The same of some flights of several. */
    Finding concerning(String which, String says, List<String> missing) {
        return new Finding(
                rule, verdict, says, gauge, missing, intervals, beatenBy, waiver, liftedBy, onTheDay, otherDay, which);
    }

    @Override
    public Severity severity() {
        return rule.severity();
    }

    @Override
    public boolean law() {
        return rule.tier() == Tier.LAW;
    }

    @Override
    public boolean departed() {
        return waiver.isPresent();
    }

    @Override
    public boolean beaten() {
        return beatenBy.isPresent();
    }
}
