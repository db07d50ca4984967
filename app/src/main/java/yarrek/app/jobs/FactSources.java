package yarrek.app.jobs;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.airspace.ZonesOnFile;
import yarrek.app.answers.Answers;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.papers.PapersOnFile;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.Recency;
import yarrek.core.rulebook.WaiverHeld;

/**
 * All that the facts of some jobs rest on, as values: read once, in a number of statements that does not depend on how many
 * jobs they are.
 *
 * @param builds those of the jobs with every other build of the same aircraft
 * @param approvals by job, in the order of their days
 * @param stages of unlocks, by approval
 * @param reading of the rules of a state, by jurisdiction
 * @param recency how the law of a jurisdiction counts it
 */
record FactSources(
        Office.OperatorView operator,
        Map<UUID, Sites.SiteView> sites,
        Map<UUID, Fleet.BuildView> builds,
        Map<UUID, Crew.PersonView> people,
        PapersOnFile papers,
        Answers.OnFile answers,
        Map<UUID, List<WaiverHeld>> waivers,
        Map<UUID, List<Approvals.ApprovalView>> approvals,
        Map<UUID, List<Approvals.StageSaid>> stages,
        Map<String, Kinds.Row> kinds,
        ZonesOnFile zones,
        Map<UUID, List<Weather.Report>> weather,
        Neighbours neighbours,
        Function<String, Optional<Rulebook.Reading>> reading,
        Function<String, Optional<Recency>> recency) {
    /** Identities of every build of the aircraft. */
    List<UUID> buildsOf(UUID aircraftId) {
        return builds.values().stream()
                .filter(b -> b.aircraft().id().equals(aircraftId))
                .map(Fleet.BuildView::id)
                .toList();
    }
}
