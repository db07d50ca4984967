package yarrek.app.incidents;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.answers.Answers;
import yarrek.app.flights.Flights;
import yarrek.app.office.Office;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.Rulebook;
import yarrek.app.web.Viewer;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.TimeWindow;

/** What has to be reported after an incident, to whom and by when, from what was said of it. */
@Service
class Duties {
    private static final String GROUP = "occurrence";

    /** A question and what stands as its answer; empty when it was not answered. */
    record Question(FactDefinition definition, String answer) {}

    /** @param law under which it was judged, with the pack's version */
    record Standing(List<FindingRow> duties, List<Question> questions, String law) {}

    private final Incidents incidents;
    private final Flights flights;
    private final Answers answers;
    private final Rulebook rulebook;
    private final Office office;

    Duties(Incidents incidents, Flights flights, Answers answers, Rulebook rulebook, Office office) {
        this.incidents = incidents;
        this.flights = flights;
        this.answers = answers;
        this.rulebook = rulebook;
        this.office = office;
    }

    @Transactional(readOnly = true)
    public Standing of(UUID incidentId, Viewer viewer) {
        Incidents.View incident = incidents.incident(incidentId, viewer);
        Office.OperatorView operator = office.operator();
        Facts.Builder b = Facts.builder(operator.zone())
                .window(new TimeWindow(incident.happenedAt(), incident.happenedAt()))
                .with("jurisdiction", new FactValue.Word(operator.jurisdiction()), "the operator's law");
        if (incident.flightId() != null) {
            flights.judgedUnder(incident.flightId())
                    .forEach((fact, word) -> b.with(fact, new FactValue.Word(word), "of the flight"));
        }
        answers.put(b, Map.of(Answers.About.OCCURRENCE, incidentId));
        AssessmentRow judged = rulebook.judgeOccurrence(b.build());
        Map<String, String> said = answers.of(List.of(incidentId)).stream()
                .collect(Collectors.toMap(Answers.Answer::fact, Answers.Answer::shown));
        return new Standing(
                judged.findings().stream()
                        .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                        .toList(),
                Vocabulary.all().stream()
                        .filter(d -> d.group().equals(GROUP))
                        .map(d -> new Question(d, said.getOrDefault(d.name(), "")))
                        .toList(),
                String.join(", ", judged.packs()));
    }

    /**
     * Stores answers by fact; an empty one takes the answer back.
     *
     * @throws IllegalArgumentException naming the question when an answer is not understood
     */
    @Transactional
    public void say(UUID incidentId, Map<String, String> typed, Viewer viewer) {
        incidents.incident(incidentId, viewer);
        Map<String, String> known = new HashMap<>(typed);
        known.keySet()
                .removeIf(f ->
                        !Vocabulary.knows(f) || !Vocabulary.define(f).group().equals(GROUP));
        answers.say(Answers.About.OCCURRENCE, incidentId, known, viewer.name());
    }
}
