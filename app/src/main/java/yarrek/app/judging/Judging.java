package yarrek.app.judging;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.Assessments;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.judging.PlanFacts;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.FlightFacts;
import yarrek.core.rulebook.PaperKinds;
import yarrek.core.rulebook.PaperWanted;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Tally;
import yarrek.core.rulebook.Verdict;

/** Judges plans and flights and stores what is said of them: the one way to an assessment on file. */
@Service
public class Judging {
    private final Rulebook rulebook;
    private final Assessments assessments;
    private final Clock clock;

    Judging(Rulebook rulebook, Assessments assessments, Clock clock) {
        this.rulebook = rulebook;
        this.assessments = assessments;
        this.clock = clock;
    }

    /**
     * What is said of a plan now.
     *
     * @param differs whether anything else than before
     * @param difference open points that came and that went, in words; empty for none
     */
    public record Judgement(
            UUID id, Facts facts, AssessmentRow assessment, Tally tally, boolean differs, String difference) {}

    /** Judges plans by what was read for them, and stores it, in a number of statements that does not depend on how many. */
    public List<Judgement> plans(Collection<Wanted> plans, FactSources sources) {
        Map<UUID, Facts> facts = new HashMap<>();
        List<Assessments.Entry> entries = new ArrayList<>();
        for (Wanted w : plans) {
            Facts known = PlanFacts.of(sources.input(w));
            List<RulePack> packs = rulebook.packsFor(known, sources.setting(w));
            AssessmentRow a = rulebook.judge(known, packs);
            facts.put(w.jobId(), known);
            entries.add(new Assessments.Entry(
                    w.jobId(), a, needs(a, packs, sources.papers().kinds(), sources.holders(w))));
        }
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

    /** The papers that the rules applying to a job ask for, of whom. */
    private static List<Assessments.Need> needs(
            AssessmentRow a, List<RulePack> packs, PaperKinds kinds, Map<String, UUID> holderByRole) {
        Set<String> applying = a.findings().stream()
                .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                .map(FindingRow::ruleId)
                .collect(Collectors.toSet());
        return packs.stream()
                .flatMap(p -> p.rules().stream())
                .filter(r -> applying.contains(r.id()))
                .flatMap(r -> PaperWanted.of(r, kinds).stream())
                .filter(w -> holderByRole.get(w.role()) != null)
                .map(w -> new Assessments.Need(w.ruleId(), holderByRole.get(w.role()), w.kind(), w.levels()))
                .distinct()
                .toList();
    }
}
