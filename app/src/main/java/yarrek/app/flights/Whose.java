package yarrek.app.flights;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.Viewer;
import yarrek.core.geo.Position;

/** Who is likely to have flown what, for a flight that does not say so: a proposal that somebody confirms. */
@Service
public class Whose {
    /** Wider than what counts a flight without asking: somebody confirms it. */
    private static final double NEAR_M = 5000;

    private static final Duration AROUND = Duration.ofHours(3);

    /** @param because why it is proposed, in words; empty for no proposal */
    public record Guess(Flights.Attribution attribution, String because) {
        static final Guess NONE = new Guess(Flights.Attribution.NONE, "");
    }

    private final Jobs jobs;
    private final Fleet fleet;
    private final Crew crew;

    Whose(Jobs jobs, Fleet fleet, Crew crew) {
        this.jobs = jobs;
        this.fleet = fleet;
        this.crew = crew;
    }

    /** What is said already stays; the rest comes from the job of that day and place, else from there being only one. */
    @Transactional(readOnly = true)
    public Guess guess(Flights.FlightView f, Viewer viewer) {
        Flights.Attribution said = f.attribution();
        if (said.aircraftId() != null && said.pilotId() != null) {
            return Guess.NONE;
        }
        Optional<Jobs.JobView> job =
                said.jobId() == null ? jobOf(f, viewer) : Optional.of(jobs.jobUnchecked(said.jobId()));
        UUID aircraft = or(
                said.aircraftId(),
                job.map(Jobs.JobView::build).map(b -> b.aircraft().id()).orElse(null),
                only(List.copyOf(fleet.aircraftNames().keySet())));
        UUID pilot = or(
                said.pilotId(),
                viewer.isPilot()
                        ? viewer.personId()
                        : job.map(j -> j.draft().pilotId()).orElse(null),
                only(crew.all().stream().map(Crew.PersonView::id).toList()));
        UUID pack = said.packId() != null
                ? said.packId()
                : only(fleet.packs().stream().map(Fleet.PackView::id).toList());
        if (aircraft == null && pilot == null && job.isEmpty()) {
            return Guess.NONE;
        }
        return new Guess(
                new Flights.Attribution(
                        aircraft, pack, pilot, job.map(Jobs.JobView::id).orElse(null)),
                job.map(j -> "from the job “" + j.draft().name() + "” of that day at "
                                + j.site().name())
                        .orElse("there is only one of it on file"));
    }

    /** The nearest job of about that hour and place, when the viewer may see it. */
    private Optional<Jobs.JobView> jobOf(Flights.FlightView f, Viewer viewer) {
        if (f.figures().takeoffLatitudeDeg() == null) {
            return Optional.empty();
        }
        Position at = new Position(f.figures().takeoffLatitudeDeg(), f.figures().takeoffLongitudeDeg());
        return jobs.jobAt(f.figures().takeoffUtc(), at, AROUND, NEAR_M)
                .map(jobs::jobUnchecked)
                .filter(j -> j.row().seenBy(viewer));
    }

    private static UUID or(UUID a, UUID b, UUID c) {
        return a != null ? a : b != null ? b : c;
    }

    private static UUID only(List<UUID> all) {
        return all.size() == 1 ? all.get(0) : null;
    }
}
