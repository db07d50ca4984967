package yarrek.app.judging;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.Assessments;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.judging.PlanFacts;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.FlightFacts;
import yarrek.core.rulebook.PaperKinds;
import yarrek.core.rulebook.PaperWanted;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Tally;
import yarrek.core.rulebook.Together;
import yarrek.core.rulebook.Verdict;

/** Judges plans and flights and stores what is said of them: the one way to an assessment on file. */
@Service
public class Judging {
    private final Rulebook rulebook;
    private final Assessments assessments;
    private final Clock clock;
    private final TransactionTemplate beside;

    /** Fewer plans than these are judged before a second thread has begun. */
    private static final int WORTH_HALVING = 16;

    Judging(Rulebook rulebook, Assessments assessments, Clock clock, PlatformTransactionManager transactions) {
        this.rulebook = rulebook;
        this.assessments = assessments;
        this.clock = clock;
        beside = new TransactionTemplate(transactions);
        beside.setReadOnly(true);
    }

    /**
     * What is said of a plan now.
     *
     * @param facts of each of its parts
     * @param differs whether anything else than before
     * @param difference open points that came and that went, in words; empty for none
     */
    public record Judgement(
            UUID id, List<Facts> facts, AssessmentRow assessment, Tally tally, boolean differs, String difference) {}

    /** A part of a plan, judged. */
    public record Part(Wanted wanted, Facts facts, List<RulePack> packs, Assessment assessment) {}

    /**
     * A plan in its parts, and what is said of all of them together.
     *
     * @param parts at least one
     */
    public record Judged(List<Part> parts, Assessment together) {
        public Tally tally() {
            return Tally.of(together.findings());
        }

        /** The part that holds the plan up, or else the first. */
        public Part worst() {
            return parts.stream()
                    .filter(p -> Tally.of(p.assessment().findings()).isNoGo())
                    .findFirst()
                    .orElse(parts.get(0));
        }
    }

    /**
     * Judges a plan without storing what is said.
     *
     * @param parts of one plan, at least one
     * @param with what is changed in the facts to see
     */
    public Judged look(List<Wanted> parts, FactSources sources, UnaryOperator<Facts> with) {
        List<Part> judged = parts.stream()
                .map(w -> {
                    Facts facts = with.apply(PlanFacts.of(sources.input(w)));
                    List<RulePack> packs = rulebook.packsFor(facts, sources.setting(w));
                    return new Part(w, facts, packs, Assessment.of(facts, packs));
                })
                .toList();
        return new Judged(
                judged,
                Together.of(
                        judged.stream().map(Part::assessment).toList(),
                        which -> FlightWords.of(parts, which, sources)));
    }

    /**
     * Judges plans without storing what is said: half of many beside, in a transaction of its own, since all they rest on was
     * read before.
     *
     * @param plans in parts, each at least one
     * @return one for each, in their order
     */
    public List<Judged> look(List<List<Wanted>> plans, FactSources sources) {
        if (plans.size() < WORTH_HALVING) {
            return inTurn(plans, sources);
        }
        int half = plans.size() / 2;
        List<List<Wanted>> rest = plans.subList(half, plans.size());
        CompletableFuture<List<Judged>> second =
                CompletableFuture.supplyAsync(() -> beside.execute(t -> inTurn(rest, sources)));
        return Stream.concat(inTurn(plans.subList(0, half), sources).stream(), second.join().stream())
                .toList();
    }

    private List<Judged> inTurn(List<List<Wanted>> plans, FactSources sources) {
        return plans.stream()
                .map(p -> look(p, sources, UnaryOperator.identity()))
                .toList();
    }

    /**
     * Judges plans by what was read for them, and stores it, in a number of statements that does not depend on how many.
     *
     * @param plans by the identity of the job, each in its parts
     */
    public List<Judgement> plans(Map<UUID, List<Wanted>> plans, FactSources sources) {
        Map<UUID, List<Facts>> facts = new HashMap<>();
        List<Assessments.Entry> entries = new ArrayList<>();
        plans.forEach((id, parts) -> {
            Judged judged = look(parts, sources, UnaryOperator.identity());
            AssessmentRow a = row(judged, sources);
            facts.put(id, judged.parts().stream().map(Part::facts).toList());
            entries.add(new Assessments.Entry(id, a, needs(judged, sources)));
        });
        Map<UUID, Optional<AssessmentRow>> changed = assessments.put(Assessments.Kind.JOB, entries, clock.instant());
        return entries.stream()
                .map(e -> new Judgement(
                        e.subject(),
                        facts.get(e.subject()),
                        e.assessment(),
                        e.assessment().tally(),
                        changed.containsKey(e.subject()),
                        difference(changed.get(e.subject()), e.assessment())))
                .toList();
    }

    /** Every pack that judged a part, each version once. */
    private static List<RulePack> packs(List<Part> parts) {
        if (parts.size() == 1) {
            return parts.get(0).packs();
        }
        Map<String, RulePack> packs = new LinkedHashMap<>();
        parts.forEach(p -> p.packs().forEach(k -> packs.putIfAbsent(k.id() + " " + k.version(), k)));
        return List.copyOf(packs.values());
    }

    /** As it is stored and shown. */
    public AssessmentRow row(Judged judged, FactSources sources) {
        List<Wanted> parts = judged.parts().stream().map(Part::wanted).toList();
        return Rulebook.row(
                judged.together(),
                judged.parts().stream().map(Part::facts).toList(),
                packs(judged.parts()),
                which -> FlightWords.of(parts, which, sources));
    }

    /** Judges a flight by what was measured, and stores it. */
    public AssessmentRow flight(UUID id, FlightFacts facts, OwnRules.Setting setting) {
        AssessmentRow a = rulebook.judge(facts, facts.constant(), setting);
        assessments.put(Assessments.Kind.FLIGHT, List.of(new Assessments.Entry(id, a, List.of())), clock.instant());
        return a;
    }

    private static String difference(Optional<AssessmentRow> before, AssessmentRow now) {
        if (before == null) {
            return "";
        }
        Set<String> was = before.map(Judging::open).orElse(Set.of());
        Set<String> appeared = open(now);
        Set<String> vanished = new TreeSet<>(was);
        vanished.removeAll(appeared);
        appeared.removeAll(was);
        return (appeared.isEmpty() ? "" : "now " + String.join(", ", appeared))
                + (appeared.isEmpty() || vanished.isEmpty() ? "" : "; ")
                + (vanished.isEmpty() ? "" : "gone " + String.join(", ", vanished));
    }

    private static Set<String> open(AssessmentRow a) {
        return a.open().stream()
                .map(f -> f.title() + " (" + f.verdict().words() + ")")
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /** The papers that the rules applying to a plan ask for, of whom. */
    private static List<Assessments.Need> needs(Judged judged, FactSources sources) {
        PaperKinds kinds = sources.papers().kinds();
        return judged.parts().stream()
                .flatMap(p -> needs(p, kinds, sources.holders(p.wanted())))
                .distinct()
                .toList();
    }

    private static Stream<Assessments.Need> needs(Part part, PaperKinds kinds, Map<String, UUID> holderByRole) {
        Set<String> applying = part.assessment().findings().stream()
                .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                .map(f -> f.rule().id())
                .collect(Collectors.toSet());
        return part.packs().stream()
                .flatMap(p -> p.rules().stream())
                .filter(r -> applying.contains(r.id()))
                .flatMap(r -> PaperWanted.of(r, kinds).stream())
                .filter(w -> holderByRole.get(w.role()) != null)
                .map(w -> new Assessments.Need(w.ruleId(), holderByRole.get(w.role()), w.kind(), w.levels()));
    }
}
