package yarrek.app.rulebook;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.mass.MassClass;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.FlightFacts;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Vocabulary;
import yarrek.formats.rules.RulePackReader;

/** The packs in use, and judging by them. */
@Service
public class Rulebook {
    private final List<RulePack> packs =
            List.of(RulePackReader.shipped("eu.yaml"), RulePackReader.shipped("house.yaml"));
    private final JsonMapper json;

    Rulebook(JsonMapper json) {
        this.json = json;
    }

    public List<RulePack> packs() {
        return packs;
    }

    /** Mass classes of a jurisdiction in rising order; empty when no pack covers it. */
    public List<MassClass> massClasses(String jurisdiction) {
        return packOf(jurisdiction).map(RulePack::massClasses).orElse(List.of());
    }

    public Optional<RulePack> packOf(String jurisdiction) {
        return packs.stream()
                .filter(p -> p.jurisdiction().map(j -> j.equals(jurisdiction)).orElse(false))
                .findFirst();
    }

    /** A rule of the packs in use; empty when it is no longer among them. */
    public Optional<Rule> rule(String id) {
        return packs.stream()
                .flatMap(p -> p.rules().stream())
                .filter(r -> r.id().equals(id))
                .findFirst();
    }

    /** Judges a plan. */
    public AssessmentRow judge(Facts facts) {
        return row(Assessment.of(facts, packs), facts);
    }

    /** Judges a flown flight over time. */
    public AssessmentRow judge(FlightFacts flight, Facts constant) {
        return row(Assessment.of(flight, packs), constant);
    }

    private AssessmentRow row(Assessment a, Facts facts) {
        List<AssessmentRow.FactRow> rows = facts.values().entrySet().stream()
                .map(e -> {
                    var d = Vocabulary.define(e.getKey());
                    return new AssessmentRow.FactRow(
                            d.name(),
                            d.label(),
                            e.getValue().value().show(d),
                            e.getValue().source());
                })
                .toList();
        String heads = packs.stream()
                .filter(p -> a.packVersions().contains(p.id() + " " + p.version()))
                .map(p -> p.title() + ", as read on " + p.readOn() + ": " + p.head())
                .collect(Collectors.joining(" "));
        return new AssessmentRow(a.findings().stream().map(FindingRow::of).toList(), rows, a.packVersions(), heads);
    }

    public String store(AssessmentRow assessment) {
        return json.writeValueAsString(assessment);
    }

    /** The stored assessment; null when there is none. */
    public AssessmentRow restore(String stored) {
        return stored == null ? null : json.readValue(stored, AssessmentRow.class);
    }
}
