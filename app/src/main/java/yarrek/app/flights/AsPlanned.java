package yarrek.app.flights;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.Jobs;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.judging.PlannedFlight;
import yarrek.core.judging.PlannedFlown;
import yarrek.core.rulebook.FactValue;

/** What differed between a flight and its plan. */
@Service
public class AsPlanned {
    private final EntityManager em;
    private final Jobs jobs;
    private final Fleet fleet;
    private final Crew crew;

    AsPlanned(EntityManager em, Jobs jobs, Fleet fleet, Crew crew) {
        this.em = em;
        this.jobs = jobs;
        this.fleet = fleet;
        this.crew = crew;
    }

    /** Empty for a flight of no job, and for one that none of the flights planned can have been. */
    @Transactional(readOnly = true)
    public Optional<PlannedFlown> of(UUID flightId) {
        FlightEntity f = em.find(FlightEntity.class, flightId);
        if (f == null || f.jobId == null) {
            return Optional.empty();
        }
        Jobs.JobView job = jobs.jobUnchecked(f.jobId);
        FlightsPlanned planned = job.draft().planned();
        Map<UUID, UUID> craft = fleet.aircraftByBuild(planned.builds());
        UnaryOperator<UUID> aircraftOf = b -> craft.getOrDefault(b, b);
        Map<UUID, String> names = new HashMap<>(crew.names());
        names.putAll(fleet.aircraftNames());
        ZoneId zone = job.site().zone();
        if (planned.all().isEmpty()) {
            PlannedFlight whole =
                    whole(job.draft(), planned, PlannedFlight.on(planned.job().firstDay()));
            return Optional.of(PlannedFlown.of(0, whole, planned.job().lastDay(), flown(f), aircraftOf, names, zone));
        }
        List<PlannedFlown.Flown> all = em.createQuery(
                        "from FlightEntity f where f.jobId = :j order by f.takeoff", FlightEntity.class)
                .setParameter("j", f.jobId)
                .getResultStream()
                .map(AsPlanned::flown)
                .toList();
        return Optional.ofNullable(
                        PlannedFlown.match(all, planned, aircraftOf, zone).get(flightId))
                .map(n -> {
                    PlannedFlight as = whole(job.draft(), planned, planned.all().get(n - 1));
                    LocalDate day = as.day();
                    return PlannedFlown.of(n, as, day, flown(f), aircraftOf, names, zone);
                });
    }

    private static PlannedFlown.Flown flown(FlightEntity f) {
        return new PlannedFlown.Flown(f.id, f.takeoff, f.landing, f.aircraftId, f.pilotId, f.heightM, f.distanceM);
    }

    /** With the height and the distance that the job has for all where the flight says none. */
    private static PlannedFlight whole(JobDraft d, FlightsPlanned planned, PlannedFlight own) {
        PlannedFlight f = planned.whole(own);
        boolean high = f.heightM() == null && d.heightM() != null;
        Double distance = f.distanceM() == null && d.said().get("pilotDistanceM") instanceof FactValue.Quantity q
                ? Double.valueOf(q.value())
                : f.distanceM();
        return new PlannedFlight(
                f.day(),
                f.startsAt(),
                f.buildId(),
                f.pilotId(),
                f.supervisedId(),
                f.observerId(),
                high ? d.heightM() : f.heightM(),
                high ? Boolean.valueOf(d.heightReference() == JobDraft.HeightReference.TAKEOFF) : f.aboveTakeoff(),
                distance,
                f.subcategory(),
                f.minutes(),
                f.mode(),
                f.purpose());
    }
}
