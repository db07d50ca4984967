package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

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
     * @param value what it is changed to; empty for a paper or an approval
     * @param words what to change, from what to what
     * @param size how large the change is against what it was, 0 to 1; 1 where no measure exists
     * @param alsoClears other open findings that it would clear
     * @param opens what it would newly open, in words
     */
    public record Change(
            String fact,
            Optional<FactValue> value,
            String words,
            double size,
            List<String> alsoClears,
            List<String> opens) {}

    private Remedies() {}

    /** For every finding that needs a hand, its smallest single changes, the best first; none where nothing alone helps. */
    public static Map<Finding, List<Change>> of(Facts facts, List<RulePack> packs, Assessment before) {
        Map<Finding, List<Change>> remedies = new LinkedHashMap<>();
        Map<Offers.Offer, Assessment> tried = new LinkedHashMap<>();
        for (Finding f : before.findings()) {
            boolean hand =
                    f.isOpen() && f.verdict() != Verdict.CLOSE && f.beatenBy().isEmpty();
            if (!hand) {
                continue;
            }
            List<Change> changes = new ArrayList<>();
            for (Offers.Offer c : offers(f.rule(), facts)) {
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
                best.add(
                        new Change("", Optional.empty(), "Approval: " + f.rule().coveredBy(), 1, List.of(), List.of()));
            }
            remedies.put(f, List.copyOf(best));
        }
        return remedies;
    }

    private static boolean breaksLaw(Finding f) {
        return f.verdict() == Verdict.BREACHED && f.rule().tier() == Tier.LAW;
    }

    private static Change change(Offers.Offer c, Finding f, Comparison comparison) {
        return new Change(
                c.fact(),
                c.value(),
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

    private static Facts with(Facts facts, Offers.Offer c) {
        Facts.Builder b = facts.toBuilder();
        c.value().ifPresent(v -> b.with(c.fact(), v, "changed to see"));
        c.paper().ifPresent(p -> {
            List<PaperHeld> held = new ArrayList<>(facts.papers().orElse(List.of()));
            held.add(p);
            b.papers(held);
        });
        return b.build();
    }

    private static Set<Offers.Offer> offers(Rule rule, Facts facts) {
        Offers to = new Offers(facts);
        rule.requires().offer(to);
        rule.appliesWhen().offerFalse(to);
        rule.exceptWhen().offerTrue(to);
        return to.all();
    }
}
