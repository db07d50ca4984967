package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import yarrek.core.time.Patience;

/**
 * The findings of every rule in force, the most pressing first.
 *
 * @param packVersions "EU 2026-11-1", one for each pack used
 */
public record Assessment(List<Finding> findings, List<String> packVersions) {
    static final Comparator<Finding> PRESSING = Comparator.comparing(Finding::verdict)
            .thenComparing(f -> f.rule().onTheDay())
            .thenComparing(f -> f.rule().severity())
            .thenComparing(f -> f.rule().layer());

    public Assessment {
        findings = List.copyOf(findings);
        packVersions = List.copyOf(packVersions);
    }

    /** Judges a job, or anything else whose facts do not change over time, by the rules in force on its days. */
    public static Assessment of(Facts facts, List<RulePack> packs) {
        return assess(facts, packs, Rule.Scope.PLAN, (f, r) -> r.judge(f));
    }

    /** Judges a flight over time by the rules in force on its day. */
    public static Assessment of(FlightFacts flight, List<RulePack> packs) {
        return assess(
                flight.constant(),
                packs,
                Rule.Scope.FLIGHT,
                (f, r) -> (f.equals(flight.constant()) ? flight : flight.with(f)).judge(r));
    }

    /** The duties that follow from what happened, by the rules in force on its day. */
    public static Assessment ofOccurrence(Facts facts, List<RulePack> packs) {
        return assess(facts, packs, Rule.Scope.OCCURRENCE, (f, r) -> r.judge(f));
    }

    private static Assessment assess(
            Facts facts, List<RulePack> packs, Rule.Scope scope, BiFunction<Facts, Rule, Finding> judge) {
        String jurisdiction = facts.place().orElse(null);
        List<Finding> findings = new ArrayList<>();
        List<String> versions = new ArrayList<>();
        List<Rule> rules = new ArrayList<>();
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
                }
            }
        }
        Set<String> replaced = replaced(rules, facts);
        Patience.ask();
        for (Rule rule : rules) {
            if (!replaced.contains(rule.id())) {
                findings.add(judge.apply(facts, rule));
            }
        }
        findings = EitherWay.settle(findings, facts, judge);
        findings.replaceAll(f -> waivedWhere(f, facts));
        List<RulePack> law = packs.stream()
                .filter(p -> p.jurisdiction().isPresent() && p.holdsIn(jurisdiction))
                .toList();
        boolean overlayHeld =
                law.stream().anyMatch(p -> p.jurisdiction().get().equals(jurisdiction) && !p.asksForOverlay());
        if (law.isEmpty()) {
            findings.add(missing(
                    "NO-PACK",
                    Severity.STOP,
                    jurisdiction == null ? "the jurisdiction of the place" : "the law of " + jurisdiction));
        } else if (!overlayHeld) {
            boolean unnamed = law.stream().anyMatch(p -> p.jurisdiction().get().equals(jurisdiction));
            findings.add(missing(
                    "NO-OVERLAY",
                    Severity.ACT,
                    unnamed
                            ? "which state of the union the place is in, and what that state adds of its own: zones,"
                                    + " insurance, ages, night, landowners"
                            : "what " + jurisdiction + " adds of its own: zones, insurance, ages, night, landowners"));
        }
        if (scope != Rule.Scope.OCCURRENCE) {
            findings.addAll(unruledZones(rules, r -> judge.apply(facts, r)));
        }
        return new Assessment(strictestWins(findings).stream().sorted(PRESSING).toList(), versions);
    }

    /** Rules of a wider pack that a narrower one stands in for: only where that one is settled and known to apply. */
    private static Set<String> replaced(List<Rule> rules, Facts facts) {
        Set<String> replaced = new HashSet<>();
        for (Rule r : rules) {
            if (!r.overrides().isEmpty()
                    && r.source().ask().isEmpty()
                    && !r.source().confidence().equals("low")
                    && r.applies(facts) == Truth.YES) {
                replaced.add(r.overrides());
            }
        }
        return replaced;
    }

    /** What a zone asks must be known under every law: where no rule on file speaks of such zones, it is asked. */
    private static List<Finding> unruledZones(List<Rule> rules, Function<Rule, Finding> judge) {
        Set<ZoneMet.Restriction> ruled = new HashSet<>();
        rules.forEach(r -> {
            r.requires().zones().ifPresent(ruled::add);
        });
        List<Finding> findings = new ArrayList<>();
        for (ZoneMet.Restriction r : ZoneMet.Restriction.values()) {
            if (r == ZoneMet.Restriction.NO_RESTRICTION || ruled.contains(r)) {
                continue;
            }
            NoZone none = new NoZone(r);
            Finding f = judge.apply(general(
                    "ZONE-" + r.name(),
                    "What a zone asks here",
                    none,
                    r == ZoneMet.Restriction.CONDITIONAL ? Severity.ACT : Severity.STOP,
                    "Read what the zone's publisher asks, ask its authority, or plan outside it; then write the rule.",
                    "airspace"));
            if (f.verdict() != Verdict.MET && f.verdict() != Verdict.NOT_KNOWN) {
                findings.add(Finding.of(
                        f.rule(),
                        Outcome.unknown(
                                "not known: what the law here asks in " + f.says() + "; no rule on file speaks of it",
                                List.of()),
                        f.intervals(),
                        false,
                        f.otherDay()));
            }
        }
        return findings;
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
        return general(
                        id,
                        "The law of the place",
                        new Ask("not known: " + what + "; no rule pack on file covers it"),
                        severity,
                        "Choose the state on the site's page; where it has no pack, read the authority's text and write the"
                                + " rules.",
                        "place")
                .judge(Facts.builder(java.time.ZoneOffset.UTC).build());
    }

    private static Rule general(
            String id, String title, Requirement requires, Severity severity, String remedy, String phase) {
        return new Rule(
                id,
                title,
                Layer.LAW,
                Optional.empty(),
                java.time.LocalDate.EPOCH,
                Optional.empty(),
                Condition.always(),
                Condition.never(),
                requires,
                severity,
                remedy,
                new Source("none on file", java.time.LocalDate.EPOCH, "high", "", ""),
                Rule.Scope.BOTH,
                false,
                phase,
                "",
                "");
    }

    /** Of the applicable limits on one side of one quantity, marks those that a stricter one beats. */
    private static List<Finding> strictestWins(List<Finding> findings) {
        Map<String, Finding> strictest = new HashMap<>();
        for (Finding f : findings) {
            // a limit that an approval has lifted, or that may not apply, binds nobody
            f.gauge()
                    .filter(g -> f.liftedBy().isEmpty() && f.verdict() != Verdict.NOT_KNOWN)
                    .ifPresent(g -> strictest.merge(
                            key(g),
                            f,
                            (a, b) ->
                                    stricter(b.gauge().orElseThrow(), a.gauge().orElseThrow()) ? b : a));
        }
        return findings.stream()
                .map(f -> {
                    Finding first = f.gauge().map(g -> strictest.get(key(g))).orElse(f);
                    first = first == null || f.liftedBy().isPresent() ? f : first;
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
        return findings.stream().filter(Standing::isOpen).count();
    }

    /** The first reason not to go; empty when nothing on file forbids it. */
    public Optional<Finding> noGo() {
        return findings.stream().filter(Standing::blocks).findFirst();
    }
}
