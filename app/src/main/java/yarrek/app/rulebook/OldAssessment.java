package yarrek.app.rulebook;

import java.time.LocalDate;
import java.util.List;
import yarrek.core.rulebook.Severity;
import yarrek.core.rulebook.Verdict;

/** An assessment as the rows of jobs and flights held it, up to version 8 of the tables: the words stood in each finding. */
public record OldAssessment(List<Flat> findings, List<AssessmentRow.FactRow> facts, List<String> packs, String heads) {
    /** A finding with its words. */
    public record Flat(
            String ruleId,
            String title,
            String layer,
            Severity severity,
            Verdict verdict,
            String says,
            FindingRow.GaugeRow gauge,
            List<String> missing,
            List<FindingRow.IntervalRow> intervals,
            String beatenBy,
            String citation,
            String remedy,
            String requires,
            String appliesWhen,
            LocalDate readOn,
            String confidence,
            String notes,
            boolean onTheDay,
            List<String> missingFacts,
            String tier,
            String phase,
            String coveredBy,
            String waiver,
            boolean otherDay) {
        private FindingRow now() {
            return new FindingRow(
                    new RuleWords(
                            ruleId,
                            title,
                            layer,
                            severity,
                            citation,
                            remedy,
                            requires,
                            appliesWhen,
                            readOn,
                            confidence,
                            notes,
                            tier,
                            phase,
                            coveredBy),
                    verdict,
                    says,
                    gauge,
                    missing,
                    intervals,
                    beatenBy,
                    onTheDay,
                    missingFacts,
                    waiver,
                    otherDay,
                    "");
        }
    }

    /** The same in the form of today. */
    public AssessmentRow now() {
        return new AssessmentRow(findings.stream().map(Flat::now).toList(), facts, packs, heads);
    }
}
