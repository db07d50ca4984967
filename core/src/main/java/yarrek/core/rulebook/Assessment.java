package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/**
 * The findings of every rule in force, the most pressing first.
 *
 * @param packVersions "EU 2026-11-1", one for each pack used
 */
public record Assessment(List<Finding> findings, List<String> packVersions) {
    private static final Comparator<Finding> PRESSING = Comparator.comparing(Finding::verdict)
            .thenComparing(f -> f.rule().severity())
            .thenComparing(f -> f.rule().layer());

    public Assessment {
        findings = List.copyOf(findings);
        packVersions = List.copyOf(packVersions);
    }

    /** Judges a job, or anything else whose facts do not change over time, by the rules in force on its days. */
    public static Assessment of(Facts facts, List<RulePack> packs) {
        return assess(facts, packs, Rule.Scope.PLAN, r -> r.judge(facts));
    }

    /** Judges a flight over time by the rules in force on its day. */
    public static Assessment of(FlightFacts flight, List<RulePack> packs) {
        return assess(flight.constant(), packs, Rule.Scope.FLIGHT, r -> flight.judge(r));
    }

    private static Assessment assess(
            Facts facts, List<RulePack> packs, Rule.Scope scope, Function<Rule, Finding> judge) {
        String jurisdiction = facts.get("jurisdiction")
                .map(k -> ((FactValue.Word) k.value()).value())
                .orElse(null);
        List<Finding> findings = new ArrayList<>();
        List<String> versions = new ArrayList<>();
        for (RulePack pack : packs) {
            if (pack.jurisdiction().isPresent() && !pack.jurisdiction().get().equals(jurisdiction)) {
                continue;
            }
            versions.add(pack.id() + " " + pack.version());
            for (Rule rule : pack.rules()) {
                boolean judges = rule.scope() == Rule.Scope.BOTH || rule.scope() == scope;
                boolean inForce =
                        facts.days().isEmpty() || facts.days().stream().anyMatch(rule::inForceOn);
                if (judges && inForce) {
                    findings.add(judge.apply(rule));
                }
            }
        }
        boolean lawHeld = packs.stream()
                .anyMatch(p ->
                        p.jurisdiction().isPresent() && p.jurisdiction().get().equals(jurisdiction));
        if (!lawHeld) {
            findings.add(noLaw(jurisdiction));
        }
        return new Assessment(strictestWins(findings).stream().sorted(PRESSING).toList(), versions);
    }

    /** A jurisdiction without a pack is not known for every rule of law, and says so. */
    private static Finding noLaw(String jurisdiction) {
        String what = jurisdiction == null ? "the jurisdiction of the place" : "the law of " + jurisdiction;
        Rule rule = new Rule(
                "NO-PACK",
                "The law of the place",
                Layer.LAW,
                Optional.empty(),
                java.time.LocalDate.EPOCH,
                Optional.empty(),
                Condition.ALWAYS,
                Condition.NEVER,
                new Requirement.Ask("not known: " + what + "; no rule pack covers it"),
                "none on file",
                Severity.STOP,
                "Choose a jurisdiction with a rule pack, or read the authority's text and write the rules.",
                java.time.LocalDate.EPOCH,
                "high",
                "",
                Rule.Scope.BOTH,
                false);
        return rule.judge(Facts.builder(java.time.ZoneOffset.UTC).build());
    }

    /** Of the applicable limits on one side of one quantity, marks those that a stricter one beats. */
    private static List<Finding> strictestWins(List<Finding> findings) {
        Map<String, Finding> strictest = new HashMap<>();
        for (Finding f : findings) {
            f.gauge()
                    .ifPresent(g -> strictest.merge(
                            key(g),
                            f,
                            (a, b) ->
                                    stricter(b.gauge().orElseThrow(), a.gauge().orElseThrow()) ? b : a));
        }
        return findings.stream()
                .map(f -> {
                    Finding first = f.gauge().map(g -> strictest.get(key(g))).orElse(f);
                    return first.equals(f) || f.verdict() == Verdict.BREACHED
                            ? f
                            : f.beatenBy(first.rule().id());
                })
                .toList();
    }

    private static String key(Gauge g) {
        return g.fact() + (g.bound().isUpper() ? " upper" : " lower");
    }

    private static boolean stricter(Gauge a, Gauge b) {
        if (a.limit() == b.limit()) {
            return !a.bound().isInclusive() && b.bound().isInclusive();
        }
        return a.bound().isUpper() ? a.limit() < b.limit() : a.limit() > b.limit();
    }

    public List<Finding> with(Verdict verdict) {
        return findings.stream().filter(f -> f.verdict() == verdict).toList();
    }

    /** Findings that need a hand: breached, not known and close. */
    public long open() {
        return findings.stream()
                .filter(f -> f.verdict().compareTo(Verdict.CLOSE) <= 0)
                .count();
    }

    /** The first reason not to go: a blocking breach, else a stop rule that is not known; empty when there is neither. */
    public Optional<Finding> noGo() {
        return findings.stream()
                .filter(Finding::blocks)
                .findFirst()
                .or(() -> findings.stream()
                        .filter(f -> f.verdict() == Verdict.NOT_KNOWN
                                && f.rule().severity() == Severity.STOP
                                && !f.rule().onTheDay())
                        .findFirst());
    }
}
