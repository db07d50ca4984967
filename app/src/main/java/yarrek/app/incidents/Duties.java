package yarrek.app.incidents;

import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.answers.Answers;
import yarrek.app.fleet.Fleet;
import yarrek.app.flights.Flights;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.Rulebook;
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

    /**
     * @param settled what is done, by rule
     * @param law under which it was judged, with the pack's version
     */
    record Standing(
            List<FindingRow> duties, List<Question> questions, Map<String, Incidents.Settled> settled, String law) {
        /** Why it cannot be closed yet; empty when nothing stands in the way. */
        public List<String> open() {
            return duties.stream()
                    .filter(f -> !settled.containsKey(f.ruleId()))
                    .map(f -> (f.verdict() == Verdict.DUTY ? "not yet settled: " : "not known whether it is due: ")
                            + f.title())
                    .toList();
        }
    }

    private final Incidents incidents;
    private final Flights flights;
    private final Jobs jobs;
    private final Fleet fleet;
    private final Answers answers;
    private final Rulebook rulebook;
    private final Office office;

    Duties(
            Incidents incidents,
            Flights flights,
            Jobs jobs,
            Fleet fleet,
            Answers answers,
            Rulebook rulebook,
            Office office) {
        this.incidents = incidents;
        this.flights = flights;
        this.jobs = jobs;
        this.fleet = fleet;
        this.answers = answers;
        this.rulebook = rulebook;
        this.office = office;
    }

    @Transactional(readOnly = true)
    public Standing of(UUID incidentId, Viewer viewer) {
        return of(incidents.incident(incidentId, viewer));
    }

    Standing of(Incidents.View incident) {
        Facts facts = facts(incident);
        AssessmentRow judged = rulebook.judgeOccurrence(facts);
        Map<String, String> said = answers.of(List.of(incident.id())).stream()
                .collect(Collectors.toMap(Answers.Answer::fact, Answers.Answer::shown));
        List<FindingRow> duties = judged.findings().stream()
                .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                .toList();
        Set<String> asked = new LinkedHashSet<>();
        Vocabulary.all().stream()
                .filter(d -> d.group().equals(GROUP) && !d.name().equals("occurrence.happenedAt"))
                .forEach(d -> asked.add(d.name()));
        // whatever else a duty waits for is asked here too, and what was said of it stays
        duties.forEach(f -> asked.addAll(f.missingFacts()));
        said.keySet().forEach(asked::add);
        return new Standing(
                duties,
                asked.stream()
                        .filter(f -> !f.equals("jurisdiction"))
                        .map(Vocabulary::define)
                        .map(d -> new Question(d, said.getOrDefault(d.name(), "")))
                        .toList(),
                incidents.settled(incident.id()),
                String.join(", ", judged.packs()));
    }

    private Facts facts(Incidents.View incident) {
        Office.OperatorView operator = office.operator();
        Incidents.About about = incident.about();
        Jobs.JobView job = about.jobId() == null ? null : jobs.jobUnchecked(about.jobId());
        Facts.Builder b = Facts.builder(
                        job == null ? operator.zone() : job.site().zone())
                .window(new TimeWindow(incident.happenedAt(), incident.happenedAt()))
                .with("occurrence.happenedAt", new FactValue.Moment(incident.happenedAt()), "the incident");
        if (about.jurisdiction() == null) {
            b.word(
                    "jurisdiction",
                    operator.jurisdiction(),
                    "the operator's home law, since nobody has said the place's");
        } else {
            b.word("jurisdiction", about.jurisdiction(), "law of the place where it happened");
        }
        if (incident.flightId() != null) {
            Optional.ofNullable(flights.judgedUnder(incident.flightId()).get("category"))
                    .ifPresent(c -> b.word("category", c, "of the flight"));
        }
        if (job != null) {
            word(b, "category", job.draft().text("category"));
            word(b, "purpose", job.draft().purpose());
        }
        if (job != null
                && job.build() != null
                && (about.aircraftId() == null
                        || about.aircraftId().equals(job.build().aircraft().id()))) {
            job.build().built().describe(b, "build planned for the job");
        } else if (about.aircraftId() != null) {
            fleet.aircraft(about.aircraftId()).craft(List.of()).describe(b);
        }
        answers.put(b, Map.of(Answers.About.OCCURRENCE, incident.id()));
        return b.build();
    }

    private static void word(Facts.Builder b, String fact, String value) {
        if (value != null) {
            b.word(fact, value, "of the job");
        }
    }

    /**
     * Stores answers by fact; an empty one takes the answer back.
     *
     * @throws IllegalArgumentException naming the question when an answer is not understood
     */
    @Transactional
    public void say(UUID incidentId, Map<String, String> typed, Viewer viewer) {
        Incidents.View incident = incidents.incident(incidentId, viewer);
        Set<String> asked = of(incident).questions().stream()
                .map(q -> q.definition().name())
                .collect(Collectors.toSet());
        Map<String, String> known = new HashMap<>(typed);
        known.keySet().retainAll(asked);
        answers.say(
                Answers.About.OCCURRENCE,
                incidentId,
                known,
                viewer.name(),
                incident.about().jobId() == null
                        ? office.operator().zone()
                        : jobs.jobUnchecked(incident.about().jobId()).site().zone());
    }

    /** @throws IllegalArgumentException naming what is not yet reported, or not yet known */
    void requireSettled(UUID incidentId, Viewer viewer) {
        List<String> open = of(incidentId, viewer).open();
        if (!open.isEmpty()) {
            throw new IllegalArgumentException("it cannot be closed: " + String.join("; ", open)
                    + ". Answer the questions, and say of each report when it was made or why it is not due");
        }
    }
}
