package yarrek.app.office;

import jakarta.persistence.EntityManager;
import java.util.EnumMap;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.core.judging.House;
import yarrek.core.judging.HouseFigure;

/** What the house reckons with where no law says it. */
@Service
public class HouseFigures {
    /** A figure was chosen, or goes back to what is usual. */
    public record Changed() {}

    private final EntityManager em;
    private final ApplicationEventPublisher events;
    private final Held<Stored> stored;

    /** @param version counts up with every change of any figure */
    private record Stored(House house, long version) {}

    HouseFigures(EntityManager em, ApplicationEventPublisher events, Stamps stamps) {
        this.em = em;
        this.events = events;
        this.stored = stamps.holding("house", this::read);
    }

    private Stored read() {
        var all = em.createQuery("from HouseFigureEntity f", HouseFigureEntity.class)
                .getResultList();
        Map<HouseFigure, Double> chosen = all.stream()
                .filter(f -> HouseFigure.of(f.code).isPresent())
                .collect(Collectors.toMap(f -> HouseFigure.of(f.code).orElseThrow(), f -> f.amount));
        return new Stored(
                new House(chosen), all.stream().mapToLong(f -> f.version + 1).sum());
    }

    @Transactional(readOnly = true)
    public House house() {
        return stored.get().house();
    }

    @Transactional(readOnly = true)
    long version() {
        return stored.get().version();
    }

    /**
     * @param chosen every figure in its unit; one that is as usual is not kept as chosen
     * @throws LostUpdateException when somebody else changed one since {@code version}
     */
    @Transactional
    void save(long version, Map<HouseFigure, Double> chosen) {
        Stored now = read();
        if (now.version() != version) {
            throw new LostUpdateException(now.version());
        }
        Map<HouseFigure, Double> anew = new EnumMap<>(HouseFigure.class);
        chosen.forEach((f, amount) -> {
            if (amount != now.house().of(f)) {
                anew.put(f, amount);
            }
        });
        if (anew.isEmpty()) {
            return;
        }
        anew.forEach((f, amount) -> {
            HouseFigureEntity e = em.find(HouseFigureEntity.class, f.code());
            if (e == null) {
                e = new HouseFigureEntity(f.code());
                e.amount = amount;
                em.persist(e);
            }
            e.amount = amount;
        });
        em.flush();
        changed();
    }

    /** One was taken back by its history. */
    void changed() {
        stored.changed();
        events.publishEvent(new Changed());
    }
}
