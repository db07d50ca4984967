package yarrek.app.approvals;

import jakarta.persistence.EntityManager;
import java.time.DayOfWeek;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.forms.Form;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.forms.Register;
import yarrek.app.held.Held;
import yarrek.app.held.Stamps;
import yarrek.app.page.NotFoundException;
import yarrek.core.approval.Holidays;
import yarrek.core.time.WeeklyHours;

/** Offices that grant: where an application is sent, and the days on which somebody takes it. */
@Service
public class Granters {
    /**
     * @param name as requests name it; a request to “name, zone” is to it as well
     * @param hours office hours, as {@link WeeklyHours} reads them; empty for not known
     * @param closed days on which it is closed beside the holidays of the place, as {@link Holidays} reads them
     */
    public record Granter(
            UUID id, long version, String name, String email, String phone, String hours, String closed, String note) {
        /** Days of the week on which it is never open; empty when its hours are not known. */
        public Optional<Set<DayOfWeek>> off() {
            if (hours.isBlank()) {
                return Optional.empty();
            }
            Set<DayOfWeek> off = EnumSet.allOf(DayOfWeek.class);
            WeeklyHours.parse(hours).spans().forEach(s -> off.removeAll(s.days()));
            return Optional.of(off);
        }

        /** Whether its days differ from Monday to Friday without the holidays of the place. */
        public boolean hasDays() {
            return !hours.isBlank() || !closed.isBlank();
        }
    }

    private final EntityManager em;
    private final ApplicationEventPublisher events;
    private final Held<Map<String, Granter>> byName;

    Granters(EntityManager em, ApplicationEventPublisher events, Stamps stamps) {
        this.em = em;
        this.events = events;
        this.byName = stamps.holding("granters", this::read);
    }

    private Map<String, Granter> read() {
        return em.createQuery("from GranterEntity g", GranterEntity.class)
                .getResultStream()
                .map(Granters::view)
                .collect(Collectors.toMap(g -> key(g.name()), g -> g, (a, b) -> a));
    }

    private static String key(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }

    private static Granter view(GranterEntity g) {
        return new Granter(g.id, g.version, g.name, g.email, g.phone, g.hours, g.closed, g.note);
    }

    /** All of them by name. */
    @Transactional(readOnly = true)
    public List<Granter> all() {
        return byName.get().values().stream()
                .sorted(java.util.Comparator.comparing(g -> key(g.name())))
                .toList();
    }

    /** The office a request is to; the longest name that fits. */
    @Transactional(readOnly = true)
    public Optional<Granter> of(String granter) {
        Map<String, Granter> all = byName.get();
        String name = key(granter);
        while (!all.containsKey(name) && name.contains(",")) {
            name = name.substring(0, name.lastIndexOf(',')).strip();
        }
        return Optional.ofNullable(all.get(name));
    }

    @Transactional(readOnly = true)
    public Granter granter(UUID id) {
        return view(entity(id));
    }

    private GranterEntity entity(UUID id) {
        GranterEntity g = em.find(GranterEntity.class, id);
        if (g == null) {
            throw new NotFoundException("granter");
        }
        return g;
    }

    /** @throws IllegalArgumentException when another has the name */
    @Transactional
    public UUID save(Granter v) {
        of(v.name())
                .filter(g -> key(g.name()).equals(key(v.name())) && !g.id().equals(v.id()))
                .ifPresent(g -> {
                    throw new IllegalArgumentException("“" + g.name() + "” is on file already");
                });
        GranterEntity g = v.id() == null ? new GranterEntity(UUID.randomUUID()) : entity(v.id());
        if (v.id() != null && g.version != v.version()) {
            throw new LostUpdateException(g.version);
        }
        g.name = v.name();
        g.email = v.email();
        g.phone = v.phone();
        g.hours = v.hours();
        g.closed = v.closed();
        g.note = v.note();
        if (v.id() == null) {
            em.persist(g);
        }
        em.flush();
        changed();
        return g.id;
    }

    @Transactional
    public void remove(UUID id) {
        em.remove(entity(id));
        em.flush();
        changed();
    }

    /** Its days changed, so what has to be sent by when is reckoned anew. */
    void changed() {
        byName.changed();
        events.publishEvent(new Kinds.Changed());
    }

    // --- form --------------------------------------------------------------------------------------------------------

    /** The same from and to tables. */
    public Register<Granter> register() {
        return new Register<>(
                "granters",
                "who grants",
                List.of(List.of("name")),
                List.of("name"),
                this::all,
                Granter::id,
                Granters::fields,
                Granters::fill,
                (form, id) -> {
                    Granter g = read(form, id);
                    return () -> save(g);
                });
    }

    static Form form(String title, String action) {
        Form form = new Form(title, action, "/approvals/granters");
        fields(form);
        return form;
    }

    private static void fields(Form form) {
        form.text("name", "Name", "as requests name it; “tower” is also meant by “tower, Tarrow zone”")
                .text("email", "Mail address for applications", "")
                .text("phone", "Telephone", "")
                .text(
                        "hours",
                        "Office hours",
                        "mon-thu 09:00-12:00; fri 09:00-11:00; empty: not known, Monday to Friday")
                .area(
                        "closed",
                        "Closed on, beside the holidays of the place",
                        "one on a line: 12-24; 2027-01-04 stocktaking; easter+60 Corpus Christi")
                .area("note", "Note", "");
    }

    static Form filled(Granter g) {
        Form form = form(g.name(), "/approvals/granters/" + g.id()).history("granter", g.id());
        fill(form, g);
        return form;
    }

    private static void fill(Form form, Granter g) {
        form.version(g.version())
                .set("name", g.name())
                .set("email", g.email())
                .set("phone", g.phone())
                .set("hours", g.hours())
                .set("closed", g.closed())
                .set("note", g.note());
    }

    /** What was typed; the form says what is wrong with it. */
    static Granter read(Form f, UUID id) {
        Granter g = new Granter(
                id,
                f.getVersion(),
                f.requiredText("name", 200),
                f.optionalText("email", 200),
                f.optionalText("phone", 60),
                f.optionalText("hours", 400),
                f.optionalText("closed", 8000),
                f.optionalText("note", 1000));
        if (!g.email().isEmpty() && !g.email().matches("[^@\\s]{1,64}@[^@\\s]{1,134}")) {
            f.error("email", "“" + g.email() + "” is no mail address");
        }
        try {
            if (g.off().filter(off -> off.size() == DayOfWeek.values().length).isPresent()) {
                f.error("hours", "somebody who is never there grants nothing; leave it empty when it is not known");
            }
        } catch (IllegalArgumentException e) {
            f.error("hours", e.getMessage());
        }
        try {
            Holidays.of(g.closed(), 2026, 2026);
        } catch (IllegalArgumentException e) {
            f.error("closed", e.getMessage());
        }
        return g;
    }
}
