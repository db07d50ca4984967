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
 * @param remedy plain words: what to do
 * @param scope whether it judges plans, flown flights, both, or what happened
 * @param onTheDay what it asks can only be said on the day; until then not knowing it does not hold a job up
 * @param phase part of the work it belongs to, such as "papers" or "airspace"
 * @param coveredBy the approval that would lift it, in words; empty when only other facts help
 * @param overrides id of the rule of the wider pack that it replaces where it is in force; empty for most
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
        Severity severity,
        String remedy,
        Source source,
        Scope scope,
        boolean onTheDay,
        String phase,
        String coveredBy,
        String overrides) {

    /** What a rule judges. */
    public enum Scope {
        BOTH,
        PLAN,
        FLIGHT,
        OCCURRENCE
    }

    public boolean inForceOn(LocalDate day) {
        return !day.isBefore(inForceFrom)
                && inForceThrough.map(t -> !day.isAfter(t)).orElse(true);
    }

    /** Guidance in a law's pack weighs as a caution and is no breach of law. */
    public Tier tier() {
        return layer.isBinding() && severity != Severity.CAUTION ? Tier.LAW : Tier.DEPARTURE;
    }

    public boolean isDuty() {
        return requires instanceof Requirement.Duty;
    }

    public Set<String> factNames() {
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

    private static java.util.List<String> missing(Condition c, Facts facts) {
        return c.factNames().stream().filter(f -> facts.get(f).isEmpty()).toList();
    }

    /** Puts what is not known about whether the rule applies together with what it would say. */
    Outcome weigh(Truth applies, Outcome judged, Facts facts) {
        Outcome outcome = judged;
        if (!source.ask().isEmpty()) {
            String asOnFile = requires instanceof Requirement.Ask ? "" : " As on file: " + outcome.says();
            return new Outcome(
                    Verdict.NOT_KNOWN,
                    (applies == Truth.UNKNOWN ? "if it applies, " : "") + "the source is not confirmed: " + source.ask()
                            + asOnFile,
                    outcome.gauge(),
                    applies == Truth.UNKNOWN ? missing(appliesWhen, facts) : outcome.missing());
        }
        if (applies == Truth.UNKNOWN && outcome.verdict() == Verdict.DUTY && scope != Scope.OCCURRENCE) {
            return new Outcome(
                    Verdict.DUTY,
                    "where it applies (" + appliesWhen.words() + "): " + outcome.says(),
                    Optional.empty(),
                    java.util.List.of());
        }
        if (applies == Truth.UNKNOWN && outcome.verdict() != Verdict.MET) {
            java.util.List<String> missing = new java.util.ArrayList<>(missing(appliesWhen, facts));
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
            java.util.List<String> open = missing(exceptWhen, facts);
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
