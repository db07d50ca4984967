package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * The findings of every rule in force, the most pressing first.
 *
 * @param packVersions "EU 2026-11-1", one for each pack used
 */
public record Assessment(List<Finding> findings, List<String> packVersions) {
    private static final Comparator<Finding> PRESSING = Comparator.comparing(Finding::verdict)
            .thenComparing(f -> f.rule().onTheDay())
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

    /** The duties that follow from what happened, by the rules in force on its day. */
    public static Assessment ofOccurrence(Facts facts, List<RulePack> packs) {
        return assess(facts, packs, Rule.Scope.OCCURRENCE, r -> r.judge(facts));
    }

    private static Assessment assess(
            Facts facts, List<RulePack> packs, Rule.Scope scope, Function<Rule, Finding> judge) {
        String jurisdiction = facts.get("jurisdiction")
                .map(k -> ((FactValue.Word) k.value()).value())
                .orElse(null);
        List<Finding> findings = new ArrayList<>();
        List<String> versions = new ArrayList<>();
        List<Rule> rules = new ArrayList<>();
        Set<String> replaced = new HashSet<>();
        for (RulePack pack : packs) {
            if (!pack.holdsIn(jurisdiction)) {
                continue;
            }
            versions.add(pack.id() + " " + pack.version());
            for (Rule rule : pack.rules()) {
                boolean judges =
                        rule.scope() == scope || (rule.scope() == Rule.Scope.BOTH && scope != Rule.Scope.OCCURRENCE);
                boolean inForce =
                        facts.days().isEmpty() || facts.days().stream().anyMatch(rule::inForceOn);
                if (judges && inForce) {
                    rules.add(rule);
                    replaced.add(rule.overrides());
                }
            }
        }
        for (Rule rule : rules) {
            if (!replaced.contains(rule.id())) {
                findings.add(waivedWhere(judge.apply(rule), facts));
            }
        }
        boolean lawHeld = packs.stream().anyMatch(p -> p.jurisdiction().isPresent() && p.holdsIn(jurisdiction));
        boolean overlayHeld = packs.stream()
                .anyMatch(p ->
                        p.jurisdiction().isPresent() && p.jurisdiction().get().equals(jurisdiction));
        if (!lawHeld) {
            findings.add(missing(
                    "NO-PACK",
                    Severity.STOP,
                    jurisdiction == null ? "the jurisdiction of the place" : "the law of " + jurisdiction));
        } else if (!overlayHeld) {
            findings.add(missing(
                    "NO-OVERLAY",
                    Severity.ACT,
                    "what " + jurisdiction + " adds of its own: zones, ages, fees, insurance"));
        }
        return new Assessment(strictestWins(findings).stream().sorted(PRESSING).toList(), versions);
    }

    private static Finding waivedWhere(Finding f, Facts facts) {
        if (f.verdict() != Verdict.BREACHED || f.rule().tier() == Tier.LAW) {
            return f;
        }
        return facts.waivers().stream()
                .filter(w -> w.ruleId().equals(f.rule().id())
                        && facts.days().stream().noneMatch(d -> d.isAfter(w.until())))
                .findFirst()
                .map(f::waived)
                .orElse(f);
    }

    /** A law that is not on file is not known, and says so. */
    private static Finding missing(String id, Severity severity, String what) {
        Rule rule = new Rule(
                id,
                "The law of the place",
                Layer.LAW,
                Optional.empty(),
                java.time.LocalDate.EPOCH,
                Optional.empty(),
                Condition.ALWAYS,
                Condition.NEVER,
                new Requirement.Ask("not known: " + what + "; no rule pack on file covers it"),
                severity,
                "Choose a jurisdiction with a rule pack, or read the authority's text and write the rules.",
                new Source("none on file", java.time.LocalDate.EPOCH, "high", "", ""),
                Rule.Scope.BOTH,
                false,
                "place",
                "",
                "");
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
        return findings.stream().filter(Finding::isOpen).count();
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
