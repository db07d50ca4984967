package yarrek.core.judging;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.airspace.ZonesOnFile;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.PaperKinds;
import yarrek.core.rulebook.Recency;
import yarrek.core.rulebook.WaiverHeld;
import yarrek.core.weather.Report;

/**
 * All that judging one planned flight needs. A job of several is judged one by one.
 *
 * @param operatorJurisdiction where the operator is registered
 * @param craft the aircraft; empty while none is chosen
 * @param build the aircraft as it takes off; empty when that is not known
 * @param pilot empty while nobody is named
 * @param answers what was said of the operator, the place, the aircraft, the pilot and the job, the nearest last
 * @param kinds what the papers mean
 * @param papers of operator, pilot, aircraft and job, each under its role
 * @param jobPapers the same papers of the job with what they lift
 * @param requests approvals of the job, in the order of their days
 * @param liabilitySdr greatest liability cover in force on the first day; empty when none states an amount
 * @param rulesRead when the own rules of the state were read; empty when nobody has said
 * @param recency how the law of the place counts it
 * @param weather reports of the place
 * @param house what the house reckons with
 */
public record PlanInput(
        String operatorJurisdiction,
        Place place,
        Plan plan,
        Optional<Craft> craft,
        Optional<Built> build,
        Optional<Person> pilot,
        Elsewhere elsewhere,
        List<Said> answers,
        PaperKinds kinds,
        List<PaperHeld> papers,
        List<JobPaper> jobPapers,
        List<ApprovalOnFile> requests,
        List<WaiverHeld> waivers,
        OptionalDouble liabilitySdr,
        Optional<Said.RulesRead> rulesRead,
        Optional<Recency> recency,
        ZonesOnFile zones,
        List<Report> weather,
        House house) {
    /** As if nothing were granted for the job yet: what it would need shows. */
    public PlanInput bare() {
        return new PlanInput(
                operatorJurisdiction,
                place,
                plan,
                craft,
                build,
                pilot,
                elsewhere,
                answers,
                kinds,
                papers.stream().filter(p -> !p.role().equals("job")).toList(),
                List.of(),
                List.of(),
                waivers,
                liabilitySdr,
                rulesRead,
                recency,
                zones,
                weather,
                house);
    }
}
