package yarrek.app.flights;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.core.flight.Logbook;
import yarrek.core.geo.Position;

/** The logbook: counted flights of a span, for whoever may see them. */
@Service
class Logbooks {
    /** More flights than these are counted up in several spans. */
    static final int MOST = 20_000;

    private final EntityManager em;
    private final Jobs jobs;
    private final Fleet fleet;
    private final Crew crew;
    private final Office office;

    Logbooks(EntityManager em, Jobs jobs, Fleet fleet, Crew crew, Office office) {
        this.em = em;
        this.jobs = jobs;
        this.fleet = fleet;
        this.crew = crew;
        this.office = office;
    }

    /**
     * @param from first day by the operator's clock, {@code through} included
     * @param pilot, aircraft null for all; a pilot sees the own flights alone
     * @throws IllegalArgumentException when there are too many flights, or the days are the wrong way round
     */
    @Transactional(readOnly = true)
    Logbook book(Viewer viewer, LocalDate from, LocalDate through, UUID pilot, UUID aircraft) {
        if (through.isBefore(from)) {
            throw new IllegalArgumentException("the last day (" + through + ") is before the first (" + from + ")");
        }
        ZoneId home = office.operator().zone();
        UUID whose = viewer.isPilot() ? own(viewer) : pilot;
        TypedQuery<Object[]> query = em.createQuery(
                        "select f.id, f.takeoff, f.landing, f.zone, f.takeoffLat, f.takeoffLon, f.endsInAir, f.pilotId,"
                                + " f.aircraftId, f.jobId from FlightEntity f where f.counted = true and f.takeoff >= :from"
                                + " and f.takeoff < :to"
                                + (whose == null ? "" : " and f.pilotId = :pilot")
                                + (aircraft == null ? "" : " and f.aircraftId = :aircraft")
                                + " order by f.takeoff desc",
                        Object[].class)
                .setParameter("from", from.atStartOfDay(home).toInstant())
                .setParameter("to", through.plusDays(1).atStartOfDay(home).toInstant())
                .setMaxResults(MOST + 1);
        if (whose != null) {
            query.setParameter("pilot", whose);
        }
        if (aircraft != null) {
            query.setParameter("aircraft", aircraft);
        }
        List<Object[]> rows = query.getResultList();
        if (rows.size() > MOST) {
            throw new IllegalArgumentException("more than " + MOST + " flights; choose fewer days");
        }
        Map<UUID, String> people = crew.names();
        Map<UUID, String> craft = fleet.aircraftNames();
        Map<UUID, Jobs.NamePlace> named = jobs.namesAndPlaces(
                rows.stream().map(r -> (UUID) r[9]).filter(Objects::nonNull).collect(Collectors.toSet()));
        List<Logbook.Entry> entries = new ArrayList<>();
        for (Object[] r : rows) {
            Optional<Jobs.NamePlace> job = Optional.ofNullable((UUID) r[9]).map(named::get);
            entries.add(new Logbook.Entry(
                    r[0].toString(),
                    (Instant) r[1],
                    (Instant) r[2],
                    ZoneId.of((String) r[3]),
                    r[4] == null || r[5] == null
                            ? Optional.empty()
                            : Optional.of(new Position((double) r[4], (double) r[5])),
                    !(boolean) r[6],
                    name(people, (UUID) r[7]),
                    name(craft, (UUID) r[8]),
                    job.map(Jobs.NamePlace::place).orElse(""),
                    job.map(Jobs.NamePlace::name).orElse("")));
        }
        return new Logbook(entries);
    }

    private static UUID own(Viewer viewer) {
        return viewer.personId() == null ? new UUID(0, 0) : viewer.personId();
    }

    private static String name(Map<UUID, String> names, UUID id) {
        return id == null ? "" : names.getOrDefault(id, "");
    }
}
