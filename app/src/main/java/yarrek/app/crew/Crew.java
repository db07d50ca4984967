package yarrek.app.crew;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;

/** The register of the crew. */
@Service
public class Crew {
    /** A member of the crew as others see them. */
    public record PersonView(
            UUID id,
            long version,
            String name,
            LocalDate bornOn,
            String phone,
            long flownS,
            int landings,
            LocalDate lastFlightOn) {
        public double flownHours() {
            return flownS / 3600.0;
        }

        public String nameAndPhone() {
            return name + (phone.isEmpty() ? "" : ", " + phone);
        }
    }

    /** A member of the crew changed. */
    public record Changed(UUID personId) {}

    private final Held<Map<UUID, String>> names;
    private final EntityManager em;
    private final ApplicationEventPublisher events;

    Crew(EntityManager em, ApplicationEventPublisher events, Stamps stamps) {
        this.names = stamps.holding("crew", this::readNames);
        this.em = em;
        this.events = events;
    }

    @Transactional(readOnly = true)
    public List<PersonView> all() {
        return em.createQuery("from person p order by p.name", Person.class)
                .getResultStream()
                .map(Crew::view)
                .toList();
    }

    /** Names by identity. */
    @Transactional(readOnly = true)
    public Map<UUID, String> names() {
        return names.get();
    }

    private Map<UUID, String> readNames() {
        return em.createQuery("select p.id, p.name from person p order by p.name", Object[].class)
                .getResultStream()
                .collect(Collectors.toMap(
                        r -> (UUID) r[0], r -> (String) r[1], (a, b) -> a, java.util.LinkedHashMap::new));
    }

    /** These people, by identity, in one statement. */
    @Transactional(readOnly = true)
    public Map<UUID, PersonView> people(Collection<UUID> ids) {
        return ids.isEmpty()
                ? Map.of()
                : em.createQuery("from person p where p.id in :ids", Person.class)
                        .setParameter("ids", ids)
                        .getResultStream()
                        .collect(Collectors.toMap(p -> p.id, Crew::view));
    }

    @Transactional(readOnly = true)
    public PersonView person(UUID id) {
        return view(entity(id));
    }

    /**
     * @throws LostUpdateException when somebody else saved it since {@code version}
     * @throws IllegalArgumentException when the name is taken
     */
    @Transactional
    public UUID save(UUID id, long version, String name, LocalDate bornOn, String phone) {
        Person p = id == null ? new Person(UUID.randomUUID()) : entity(id);
        if (id != null && version != p.version) {
            throw new LostUpdateException(p.version);
        }
        boolean taken = em.createQuery("select count(p) from person p where p.name = :n and p.id <> :id", Long.class)
                        .setParameter("n", name)
                        .setParameter("id", p.id)
                        .getSingleResult()
                > 0;
        if (taken) {
            throw new IllegalArgumentException("there is a member of the crew called " + name + " already");
        }
        p.name = name;
        p.bornOn = bornOn;
        p.phone = phone;
        if (id == null) {
            em.persist(p);
        }
        em.flush();
        restored(p);
        return p.id;
    }

    /** Has what rests on a changed member of the crew follow. */
    void restored(Person p) {
        names.changed();
        events.publishEvent(new Changed(p.id));
    }

    /**
     * Adds flown time and landings, or takes them back with negative figures.
     *
     * @param lastFlightOn day of the newest flight that counts; null when none does
     */
    @Transactional
    public void count(UUID id, long seconds, int landings, LocalDate lastFlightOn) {
        Person p = em.find(Person.class, id, LockModeType.PESSIMISTIC_WRITE);
        p.flownS = Math.max(0, p.flownS + seconds);
        p.landings = Math.max(0, p.landings + landings);
        boolean other = !java.util.Objects.equals(p.lastFlightOn, lastFlightOn);
        p.lastFlightOn = lastFlightOn;
        if (other) {
            em.flush();
            events.publishEvent(new Changed(id)); // how recently somebody flew is a fact of their jobs
        }
    }

    private Person entity(UUID id) {
        Person p = em.find(Person.class, id);
        if (p == null) {
            throw new NotFoundException("member of the crew");
        }
        return p;
    }

    private static PersonView view(Person p) {
        return new PersonView(
                p.id,
                p.version,
                p.name,
                p.bornOn,
                p.phone == null ? "" : p.phone,
                p.flownS,
                p.landings,
                p.lastFlightOn);
    }
}
