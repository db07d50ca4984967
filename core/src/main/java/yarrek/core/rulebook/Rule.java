package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

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
 * @param told what it says whatever the facts, put together once: thousands of jobs are judged by the same rules
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
        String overrides,
        Told told) {
    /** What a rule says of itself, once it was asked; no part of what it is. */
    public static final class Told {
        private volatile Outcome notApplicable;
        private volatile Boolean movesByItself;

        @Override
        public boolean equals(Object other) {
            return other instanceof Told;
        }

        @Override
        public int hashCode() {
            return 0;
        }

        @Override
        public String toString() {
            return "";
        }
    }

    public Rule(
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
        this(
                id,
                title,
                layer,
                jurisdiction,
                inForceFrom,
                inForceThrough,
                appliesWhen,
                exceptWhen,
                requires,
                severity,
                remedy,
                source,
                scope,
                onTheDay,
                phase,
                coveredBy,
                overrides,
                new Told());
    }

    /** Begins what a rule says that may not apply at all. */
    public static final String IF_IT_APPLIES = "not known whether it applies: ";

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
        return requires.isDuty();
    }

    public Set<String> factNames() {
        Set<String> names = new TreeSet<>(appliesWhen.factNames());
        names.addAll(exceptWhen.factNames());
        names.addAll(requires.factNames());
        return names;
    }

    /** Whether an approval may lift it at all: alcohol, fitness, age, the maker's limits and most else never. */
    public boolean isCoverable() {
        return !coveredBy.isEmpty();
    }

    /** Judges facts that do not change over time. */
    public Finding judge(Facts facts) {
        Truth applies = applies(facts);
        if (applies == Truth.NO) {
            return Finding.of(this, notApplicable());
        }
        return finding(applies, requires.judge(facts), facts, List.of());
    }

    /** The finding that follows from what the requirement says and whether the rule applies. */
    Finding finding(Truth applies, Outcome judged, Facts facts, List<Interval> intervals) {
        return Finding.of(
                this,
                weigh(applies, judged, facts),
                intervals,
                onTheDay && !dayHasSpoken(applies),
                movesWithTime(facts));
    }

    /** Whether the day's own word has made it apply, so that what it asks must be said now. */
    private boolean dayHasSpoken(Truth applies) {
        return applies == Truth.YES
                && appliesWhen.factNames().stream()
                        .anyMatch(f -> Vocabulary.define(f).group().equals("day"));
    }

    /** Whether another day or hour may change what it says: light, weather, what is said on the day, and papers in force then. */
    private boolean movesWithTime(Facts facts) {
        if (told.movesByItself == null) {
            told.movesByItself = factNames().stream()
                    .map(f -> Vocabulary.define(f).group())
                    .anyMatch(g -> g.equals("time") || g.equals("weather") || g.equals("day"));
        }
        return told.movesByItself || requires.heldAtAnotherTime(facts);
    }

    /** Whether it applies; an exception that is not known to hold does not lift it. */
    Truth applies(Facts facts) {
        return exceptWhen.test(facts) == Truth.YES ? Truth.NO : appliesWhen.test(facts);
    }

    Outcome notApplicable() {
        if (told.notApplicable == null) {
            told.notApplicable = new Outcome(
                    Verdict.NOT_APPLICABLE, "applies when " + appliesWhen.when(), Optional.empty(), List.of());
        }
        return told.notApplicable;
    }

    private static List<String> missing(List<Condition.Undecided> open) {
        return open.stream()
                .map(Condition.Undecided::fact)
                .filter(f -> !f.isEmpty())
                .distinct()
                .toList();
    }

    private static String words(List<Condition.Undecided> open) {
        return open.stream().map(Condition.Undecided::words).distinct().collect(Collectors.joining(", "));
    }

    /** Puts what is not known about whether the rule applies together with what it would say. */
    Outcome weigh(Truth applies, Outcome judged, Facts facts) {
        Outcome outcome = judged;
        List<Condition.Undecided> open = applies == Truth.UNKNOWN ? appliesWhen.undecided(facts) : List.of();
        if (!source.ask().isEmpty()) {
            String asOnFile = requires.isQuestion() ? "" : " As on file: " + outcome.says();
            return new Outcome(
                    Verdict.NOT_KNOWN,
                    (applies == Truth.UNKNOWN ? "if it applies, " : "") + "the source is not confirmed: " + source.ask()
                            + asOnFile,
                    outcome.gauge(),
                    applies == Truth.UNKNOWN ? missing(open) : outcome.missing());
        }
        if (applies == Truth.UNKNOWN && outcome.verdict() == Verdict.DUTY && scope != Scope.OCCURRENCE) {
            return new Outcome(
                    Verdict.DUTY,
                    "where it applies (" + appliesWhen.when() + "): " + outcome.says(),
                    Optional.empty(),
                    List.of());
        }
        if (applies == Truth.UNKNOWN && outcome.verdict() != Verdict.MET) {
            Set<String> missing = new LinkedHashSet<>(missing(open));
            missing.addAll(outcome.missing());
            return new Outcome(
                    Verdict.NOT_KNOWN,
                    IF_IT_APPLIES + words(open) + "; if it does, " + outcome.says(),
                    outcome.gauge(),
                    List.copyOf(missing));
        }
        if (outcome.verdict() == Verdict.BREACHED && exceptWhen.test(facts) == Truth.UNKNOWN) {
            List<Condition.Undecided> exception = exceptWhen.undecided(facts);
            outcome = new Outcome(
                    Verdict.BREACHED,
                    outcome.says() + "; no breach if this holds, which is not known: " + words(exception),
                    outcome.gauge(),
                    missing(exception));
        }
        Optional<String> naming = facts.approvals().stream()
                .filter(a -> a.lifts().contains(id))
                .map(ApprovalHeld::reference)
                .findFirst();
        if (naming.isEmpty() || outcome.verdict() != Verdict.BREACHED) {
            return outcome;
        }
        return isCoverable()
                ? new Outcome(
                        Verdict.MET,
                        "covered by approval " + naming.get() + "; without it: " + outcome.says(),
                        outcome.gauge(),
                        List.of(),
                        naming)
                : new Outcome(
                        Verdict.BREACHED,
                        outcome.says() + "; approval " + naming.get()
                                + " names this rule, but nothing on file says that" + " an approval may lift it",
                        outcome.gauge(),
                        outcome.missing());
    }
}
