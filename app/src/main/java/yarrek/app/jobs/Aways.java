package yarrek.app.jobs;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.core.judging.Neighbours;
import yarrek.core.time.Days;
import yarrek.core.time.TimeWindow;

/** Who is away and which aircraft is in upkeep, by days: a job that has them then is told so as of another that has them. */
@Service
class Aways {
    private static final int MOST_DAYS = 400;

    private final EntityManager em;
    private final Crew crew;
    private final Fleet fleet;
    private final Office office;
    private final ApplicationEventPublisher events;

    Aways(EntityManager em, Crew crew, Fleet fleet, Office office, ApplicationEventPublisher events) {
        this.em = em;
        this.crew = crew;
        this.fleet = fleet;
        this.office = office;
        this.events = events;
    }

    /**
     * @param whose the person or the aircraft
     * @param why in words; empty when nobody said
     */
    public record Away(UUID id, UUID whose, String name, boolean person, LocalDate first, LocalDate last, String why) {
        /** What ending it is called. */
        public String ending() {
            return "Take away: " + words() + ", " + Days.stretch(first, last, " to ");
        }

        /** What stands in the way of a job, without why: that is not everybody's to know. */
        String words() {
            return name + (person ? " is away" : " is in upkeep");
        }
    }

    /** Somebody or something is away otherwise than before. */
    record Changed(UUID personId, UUID aircraftId) {}

    /**
     * @param whose a person or an aircraft
     * @throws IllegalArgumentException when the days are none, or too many
     */
    @Transactional
    UUID add(UUID whose, LocalDate first, LocalDate last, String why) {
        if (last.isBefore(first)) {
            throw new IllegalArgumentException("the last day is before the first");
        }
        if (first.plusDays(MOST_DAYS).isBefore(last)) {
            throw new IllegalArgumentException("at most " + MOST_DAYS + " days; say the rest when they come");
        }
        boolean person = crew.names().containsKey(whose);
        if (!person && !fleet.aircraftNames().containsKey(whose)) {
            throw new NotFoundException("person or aircraft");
        }
        AwayEntity a = new AwayEntity(person ? whose : null, person ? null : whose, first, last, why);
        em.persist(a);
        em.flush();
        events.publishEvent(new Changed(a.personId, a.aircraftId));
        return a.id;
    }

    @Transactional
    void remove(UUID id) {
        AwayEntity a = em.find(AwayEntity.class, id);
        if (a == null) {
            throw new NotFoundException("entry");
        }
        em.remove(a);
        em.flush();
        events.publishEvent(new Changed(a.personId, a.aircraftId));
    }

    /** Its entry was taken back: what rests on it is judged again. */
    void restored(AwayEntity a) {
        events.publishEvent(new Changed(a.personId, a.aircraftId));
    }

    /** Those with a day in a span, the soonest first. */
    @Transactional(readOnly = true)
    public List<Away> between(LocalDate first, LocalDate last) {
        List<AwayEntity> all = em.createQuery(
                        "from AwayEntity a where a.firstDay <= :last and a.lastDay >= :first order by a.firstDay, a.id",
                        AwayEntity.class)
                .setParameter("first", first)
                .setParameter("last", last)
                .getResultList();
        if (all.isEmpty()) {
            return List.of();
        }
        Map<UUID, String> names = new HashMap<>(crew.names());
        names.putAll(fleet.aircraftNames());
        return all.stream()
                .map(a -> {
                    UUID whose = a.personId == null ? a.aircraftId : a.personId;
                    return new Away(
                            a.id,
                            whose,
                            names.getOrDefault(whose, "somebody"),
                            a.personId != null,
                            a.firstDay,
                            a.lastDay,
                            a.why);
                })
                .toList();
    }

    /** The same as neighbours of jobs see it: the person, or every build of the aircraft, is spoken for all day. */
    @Transactional(readOnly = true)
    public List<Neighbours.Planned> asPlanned(LocalDate first, LocalDate last) {
        List<Away> away = between(first.minusDays(1), last.plusDays(1));
        if (away.isEmpty()) {
            return List.of();
        }
        ZoneId zone = office.operator().zone();
        Map<UUID, List<UUID>> builds = fleet.buildsByAircraft(
                away.stream().filter(a -> !a.person()).map(Away::whose).collect(Collectors.toSet()));
        return away.stream()
                .map(a -> {
                    List<TimeWindow> days = List.of(new TimeWindow(
                            a.first().atStartOfDay(zone).toInstant(),
                            a.last().plusDays(1).atStartOfDay(zone).toInstant()));
                    Collection<UUID> used = a.person() ? List.of(a.whose()) : builds.getOrDefault(a.whose(), List.of());
                    return new Neighbours.Planned(
                            a.id(),
                            a.words(),
                            null,
                            null,
                            false,
                            a.last(),
                            used.stream().collect(Collectors.toMap(u -> u, u -> days)));
                })
                .toList();
    }
}
