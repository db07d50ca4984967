package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import yarrek.core.time.Validity;
import yarrek.core.units.Finite;

/**
 * What would clear a finding: the smallest changes of one fact, each tried by judging the whole plan with it, and the
 * approval where one may cover it. Which facts a planner may change, and which way, stands in the vocabulary; a change that
 * would open another breach of law is no remedy.
 */
public final class Remedies {
    /** Most that is shown for one finding. */
    private static final int MOST = 4;

    /**
     * One changed fact, one more paper, or the approval that may cover it.
     *
     * @param fact its name; empty for a paper or an approval
     * @param words what to change, from what to what
     * @param size how large the change is against what it was, 0 to 1; 1 where no measure exists
     * @param alsoClears other open findings that it would clear
     * @param opens what it would newly open, in words
     */
    public record Change(String fact, String words, double size, List<String> alsoClears, List<String> opens) {}

    private record Candidate(
            String fact, Optional<FactValue> value, Optional<PaperHeld> paper, String words, double size) {}

    private Remedies() {}

    /** For every finding that needs a hand, its smallest single changes, the best first; none where nothing alone helps. */
    public static Map<Finding, List<Change>> of(Facts facts, List<RulePack> packs, Assessment before) {
        Map<Finding, List<Change>> remedies = new LinkedHashMap<>();
        Map<Candidate, Assessment> tried = new LinkedHashMap<>();
        for (Finding f : before.findings()) {
            boolean hand =
                    f.isOpen() && f.verdict() != Verdict.CLOSE && f.beatenBy().isEmpty();
            if (!hand) {
                continue;
            }
            List<Change> changes = new ArrayList<>();
            for (Candidate c : candidates(f.rule(), facts)) {
                Assessment after = tried.computeIfAbsent(c, k -> Assessment.of(with(facts, k), packs));
                boolean clears = after.findings().stream()
                        .filter(x -> x.rule().id().equals(f.rule().id()))
                        .allMatch(x -> x.verdict().isFine());
                Comparison comparison = Comparison.of(before, after);
                boolean breaks = comparison.appear().stream().anyMatch(Remedies::breaksLaw)
                        || comparison.shifted().stream().anyMatch(x -> breaksLaw(x.after()));
                if (clears && !breaks) {
                    changes.add(change(c, f, comparison));
                }
            }
            changes.sort(Comparator.comparingInt((Change c) -> c.opens().size())
                    .thenComparingDouble(Change::size)
                    .thenComparing(c -> -c.alsoClears().size()));
            List<Change> best = new ArrayList<>(changes.stream().limit(MOST).toList());
            if (f.rule().isCoverable() && f.verdict() == Verdict.BREACHED) {
                best.add(new Change("", "Approval: " + f.rule().coveredBy(), 1, List.of(), List.of()));
            }
            remedies.put(f, List.copyOf(best));
        }
        return remedies;
    }

    private static boolean breaksLaw(Finding f) {
        return f.verdict() == Verdict.BREACHED && f.rule().tier() == Tier.LAW;
    }

    private static Change change(Candidate c, Finding f, Comparison comparison) {
        return new Change(
                c.fact(),
                c.words(),
                c.size(),
                comparison.vanish().stream()
                        .filter(x -> !x.rule().id().equals(f.rule().id()))
                        .map(x -> x.rule().title())
                        .toList(),
                comparison.appear().stream()
                        .map(x -> x.rule().title() + " (" + x.verdict().words() + ")")
                        .toList());
    }

    private static Facts with(Facts facts, Candidate c) {
        Facts.Builder b = facts.toBuilder();
        c.value().ifPresent(v -> b.with(c.fact(), v, "changed to see"));
        c.paper().ifPresent(p -> {
            List<PaperHeld> held = new ArrayList<>(facts.papers().orElse(List.of()));
            held.add(p);
            b.papers(held);
        });
        return b.build();
    }

    private static Set<Candidate> candidates(Rule rule, Facts facts) {
        Set<Candidate> all = new LinkedHashSet<>();
        meet(rule.requires(), facts, all);
        falsify(rule.appliesWhen(), facts, all);
        verify(rule.exceptWhen(), facts, all);
        return all;
    }

    // --- making a requirement hold
    // --------------------------------------------------------------------------------------

    private static void meet(Requirement r, Facts facts, Set<Candidate> into) {
        if (r instanceof Requirement.AllOf all) {
            all.of().stream().filter(p -> !p.verdict(facts).isFine()).forEach(p -> meet(p, facts, into));
        } else if (r instanceof Requirement.AnyOf any) {
            any.of().forEach(p -> meet(p, facts, into));
        } else if (r instanceof Requirement.OrClose or) {
            meet(or.main(), facts, into);
        } else if (r instanceof Requirement.QuantityWithin q) {
            quantity(q.fact(), q.bound(), q.limit(), facts, into);
        } else if (r instanceof Requirement.YesNoIs y) {
            yesNo(y.fact(), y.value(), facts, into);
        } else if (r instanceof Requirement.WordIsOneOf w) {
            w.allowed().stream().sorted().forEach(v -> word(w.fact(), v, facts, into));
        } else if (r instanceof Requirement.WordsContain w) {
            words(w.fact(), w.value(), facts, into);
        } else if (r instanceof Requirement.RecentWithin d) {
            date(d.fact(), facts, into);
        } else if (r instanceof Requirement.HoldsPaper p) {
            paper(p, facts, into);
        }
    }

    private static void quantity(String fact, Bound bound, Limit limit, Facts facts, Set<Candidate> into) {
        OptionalDouble at = limit.of(facts);
        if (at.isPresent()) {
            set(fact, justWithin(bound, at.getAsDouble()), facts, into);
        }
        FactValue.Quantity q = facts.quantity(fact);
        if (limit instanceof Limit.OfFact of && q != null && of.times() != 0) {
            set(of.fact(), (q.value() - of.plus()) / of.times(), facts, into);
        }
    }

    /** On the limit where it complies, else a tenth of the unit inside. */
    private static double justWithin(Bound bound, double limit) {
        return bound.holds(limit, limit) ? limit : limit + (bound.isUpper() ? -0.1 : 0.1);
    }

    private static void set(String fact, double value, Facts facts, Set<Candidate> into) {
        String name = fact.equals("classMassG") || fact.equals("greaterMassG") ? "takeoffMassG" : fact;
        FactDefinition d = Vocabulary.define(name);
        FactValue.Quantity was = facts.quantity(name);
        boolean may = d.change() != FactDefinition.Change.NOT
                && (was == null || d.change().allows(was.value(), value));
        if (!may || !(value >= 0)) {
            return;
        }
        String to = Finite.format(value) + " " + d.unit();
        double size =
                was == null ? 1 : Math.abs(value - was.value()) / Math.max(Math.abs(was.value()), Math.abs(value));
        into.add(new Candidate(
                name,
                Optional.of(new FactValue.Quantity(value, 0)),
                Optional.empty(),
                d.label() + (was == null ? ": " : " from " + Finite.format(was.value()) + " to ") + to,
                Double.isNaN(size) ? 0 : size));
    }

    private static void yesNo(String fact, boolean value, Facts facts, Set<Candidate> into) {
        add(fact, new FactValue.YesNo(value), facts, into);
    }

    private static void word(String fact, String value, Facts facts, Set<Candidate> into) {
        add(fact, new FactValue.Word(value), facts, into);
    }

    private static void words(String fact, String value, Facts facts, Set<Candidate> into) {
        Set<String> all = new TreeSet<>(Set.of(value));
        facts.get(fact).ifPresent(k -> all.addAll(((FactValue.Words) k.value()).values()));
        add(fact, new FactValue.Words(all), facts, into);
    }

    private static void date(String fact, Facts facts, Set<Candidate> into) {
        facts.days().stream()
                .min(LocalDate::compareTo)
                .ifPresent(day -> add(fact, new FactValue.Date(day.minusDays(1)), facts, into));
    }

    private static void add(String fact, FactValue value, Facts facts, Set<Candidate> into) {
        if (!changes(fact)) {
            return;
        }
        FactDefinition d = Vocabulary.define(fact);
        Optional<Facts.Known> was = facts.get(fact);
        if (was.map(k -> k.value().equals(value)).orElse(false)) {
            return;
        }
        String words =
                d.label() + was.map(k -> " from " + k.value().show(d) + " to ").orElse(": ") + value.show(d);
        into.add(new Candidate(fact, Optional.of(value), Optional.empty(), words, 1));
    }

    private static void paper(Requirement.HoldsPaper p, Facts facts, Set<Candidate> into) {
        if (facts.papers().isEmpty()) {
            return;
        }
        Optional<String> level = p.levels().stream().sorted().findFirst();
        into.add(new Candidate(
                "",
                Optional.empty(),
                Optional.of(new PaperHeld(
                        p.kind(),
                        level,
                        p.role(),
                        "to be had",
                        p.jurisdiction().orElse(""),
                        new Validity(Optional.empty(), Optional.empty(), facts.zone()),
                        true)),
                p.kindName() + level.map(l -> " " + l).orElse("") + " of the " + p.role()
                        + " in force for the whole job",
                1));
    }

    // --- making a condition fail, or an exception hold
    // ------------------------------------------------------------------

    private static void falsify(Condition c, Facts facts, Set<Candidate> into) {
        if (c instanceof Condition.All all) {
            all.of().forEach(p -> falsify(p, facts, into));
        } else if (c instanceof Condition.Any any
                && any.of().stream().filter(p -> p.test(facts) != Truth.NO).count() == 1) {
            any.of().stream().filter(p -> p.test(facts) != Truth.NO).forEach(p -> falsify(p, facts, into));
        } else if (c instanceof Condition.Not not) {
            verify(not.of(), facts, into);
        } else if (c instanceof Condition.QuantityIs q && q.limit().of(facts).isPresent()) {
            double limit = q.limit().of(facts).getAsDouble();
            boolean limitIsOutside = !q.bound().holds(limit, limit);
            double outside = limitIsOutside ? limit : limit + (q.bound().isUpper() ? 0.1 : -0.1);
            set(q.fact(), outside, facts, into);
        } else if (c instanceof Condition.YesNoIs y) {
            yesNo(y.fact(), !y.value(), facts, into);
        } else if (c instanceof Condition.WordIsOneOf w) {
            Vocabulary.define(w.fact()).words().stream()
                    .filter(v -> !w.values().contains(v))
                    .forEach(v -> word(w.fact(), v, facts, into));
        }
    }

    private static void verify(Condition c, Facts facts, Set<Candidate> into) {
        if (c instanceof Condition.All all
                && all.of().stream().filter(p -> p.test(facts) != Truth.YES).count() == 1) {
            all.of().stream().filter(p -> p.test(facts) != Truth.YES).forEach(p -> verify(p, facts, into));
        } else if (c instanceof Condition.Any any) {
            any.of().forEach(p -> verify(p, facts, into));
        } else if (c instanceof Condition.QuantityIs q && q.limit().of(facts).isPresent()) {
            set(q.fact(), justWithin(q.bound(), q.limit().of(facts).getAsDouble()), facts, into);
        } else if (c instanceof Condition.YesNoIs y) {
            yesNo(y.fact(), y.value(), facts, into);
        } else if (c instanceof Condition.WordIsOneOf w) {
            w.values().stream().sorted().forEach(v -> word(w.fact(), v, facts, into));
        }
    }

    private static boolean changes(String fact) {
        return Vocabulary.define(fact).change() != FactDefinition.Change.NOT;
    }
}
