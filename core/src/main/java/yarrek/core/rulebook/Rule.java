package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * A rule as data.
 *
 * @param inForceFrom first day, included
 * @param inForceThrough last day, included; empty while it holds
 * @param jurisdiction empty for rules of the house or the maker, which travel with the operator
 * @param exceptWhen an exception counts only when it is known to hold; {@link Condition#NEVER} when there is none
 * @param readOn day on which the rule was last compared with its source
 * @param confidence high, medium or low
 * @param remedy plain words: what to do
 * @param scope whether it judges plans, flown flights or both
 * @param onTheDay what it asks can only be said on the day; until then not knowing it does not hold a job up
 */
public record Rule(
        String id,
        String title,
        Layer layer,
        Optional<String> jurisdiction,
        LocalDate inForceFrom,
        Optional<LocalDate> inForceThrough,
        Condition appliesWhen,
        Condition exceptWhen,
        Requirement requires,
        String citation,
        Severity severity,
        String remedy,
        LocalDate readOn,
        String confidence,
        String notes,
        Scope scope,
        boolean onTheDay) {

    /** What a rule judges. */
    public enum Scope {
        BOTH,
        PLAN,
        FLIGHT
    }

    public boolean inForceOn(LocalDate day) {
        return !day.isBefore(inForceFrom)
                && inForceThrough.map(t -> !day.isAfter(t)).orElse(true);
    }

    Set<String> factNames() {
        Set<String> names = new TreeSet<>(appliesWhen.factNames());
        names.addAll(exceptWhen.factNames());
        names.addAll(requires.factNames());
        return names;
    }

    /** Judges facts that do not change over time. */
    public Finding judge(Facts facts) {
        Truth applies = applies(facts);
        if (applies == Truth.NO) {
            return Finding.of(this, notApplicable());
        }
        return Finding.of(this, weigh(applies, requires.judge(facts), facts));
    }

    /** Whether it applies; an exception that is not known to hold does not lift it. */
    Truth applies(Facts facts) {
        return exceptWhen.test(facts) == Truth.YES ? Truth.NO : appliesWhen.test(facts);
    }

    Outcome notApplicable() {
        return new Outcome(
                Verdict.NOT_APPLICABLE, "applies when " + appliesWhen.words(), Optional.empty(), java.util.List.of());
    }

    /** Puts what is not known about whether the rule applies together with what it would say. */
    Outcome weigh(Truth applies, Outcome judged, Facts facts) {
        Outcome outcome = judged;
        if (applies == Truth.UNKNOWN && outcome.verdict() != Verdict.MET) {
            java.util.List<String> missing = new java.util.ArrayList<>(appliesWhen.factNames().stream()
                    .filter(f -> facts.get(f).isEmpty())
                    .toList());
            String whether = missing.stream()
                    .map(f -> Outcome.lower(Vocabulary.define(f).label()))
                    .collect(java.util.stream.Collectors.joining(", "));
            outcome.missing().stream().filter(m -> !missing.contains(m)).forEach(missing::add);
            return new Outcome(
                    Verdict.NOT_KNOWN,
                    "not known whether it applies: " + whether + "; if it does, " + outcome.says(),
                    outcome.gauge(),
                    missing);
        }
        if (outcome.verdict() == Verdict.BREACHED && exceptWhen.test(facts) == Truth.UNKNOWN) {
            java.util.List<String> open = exceptWhen.factNames().stream()
                    .filter(f -> facts.get(f).isEmpty())
                    .toList();
            outcome = new Outcome(
                    Verdict.BREACHED,
                    outcome.says() + "; an exception would need what is not known: "
                            + open.stream()
                                    .map(f -> Outcome.lower(Vocabulary.define(f).label()))
                                    .collect(java.util.stream.Collectors.joining(", ")),
                    outcome.gauge(),
                    open);
        }
        Optional<String> lifted = facts.approvals().stream()
                .filter(a -> a.lifts().contains(id))
                .map(ApprovalHeld::reference)
                .findFirst();
        if (lifted.isPresent() && outcome.verdict() == Verdict.BREACHED) {
            return new Outcome(
                    Verdict.MET,
                    "covered by approval " + lifted.get() + "; without it: " + outcome.says(),
                    outcome.gauge(),
                    java.util.List.of());
        }
        return outcome;
    }
}
