package yarrek.app.exchange;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.PlaceRegisters;
import yarrek.app.approvals.Granters;
import yarrek.app.crew.Crew;
import yarrek.app.crew.CrewRegisters;
import yarrek.app.fleet.Fleet;
import yarrek.app.fleet.FleetRegisters;
import yarrek.app.forms.Form;
import yarrek.app.forms.Register;
import yarrek.app.jobs.BesidesRegisters;
import yarrek.app.jobs.JobRegister;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.papers.PaperForms;
import yarrek.app.papers.Papers;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.table.Table;
import yarrek.formats.table.Tables;

/** Registers out as tables, and tables into registers. */
@Service
public class Exchange {
    /** How long a table that was handed over waits. */
    private static final Duration KEPT = Duration.ofDays(2);

    /** A table with the fields its columns are taken for and what its rows would do. */
    record Preview(
            UUID id,
            String register,
            String title,
            String fileName,
            Table table,
            Map<String, String> fields,
            List<String> mapping,
            boolean clearing,
            List<Bringing.RowPlan> rows,
            Map<Bringing.Outcome, Long> counts) {
        long count(Bringing.Outcome o) {
            return counts.getOrDefault(o, 0L);
        }

        public long wrong() {
            return count(Bringing.Outcome.WRONG);
        }

        public long fresh() {
            return count(Bringing.Outcome.NEW);
        }

        public long changed() {
            return count(Bringing.Outcome.CHANGED);
        }

        public long same() {
            return count(Bringing.Outcome.SAME);
        }

        /** The first lines of a column, so that it can be told what it is. */
        public String sample(int column) {
            return table.rows().stream()
                    .map(r -> r.cell(column))
                    .filter(c -> !c.isBlank())
                    .distinct()
                    .limit(3)
                    .reduce((a, b) -> a + " · " + b)
                    .orElse("");
        }
    }

    private final EntityManager em;
    private final Clock clock;
    private final Office office;
    private final FleetRegisters fleet;
    private final CrewRegisters crew;
    private final Papers papers;
    private final PaperForms paperForms;
    private final PlaceRegisters places;
    private final Granters granters;
    private final JobRegister jobs;
    private final BesidesRegisters besides;
    private final Fleet aircraft;
    private final Crew people;

    Exchange(
            EntityManager em,
            Clock clock,
            Office office,
            FleetRegisters fleet,
            CrewRegisters crew,
            Papers papers,
            PaperForms paperForms,
            PlaceRegisters places,
            Granters granters,
            JobRegister jobs,
            BesidesRegisters besides,
            Fleet aircraft,
            Crew people) {
        this.em = em;
        this.clock = clock;
        this.office = office;
        this.fleet = fleet;
        this.crew = crew;
        this.papers = papers;
        this.paperForms = paperForms;
        this.places = places;
        this.granters = granters;
        this.jobs = jobs;
        this.besides = besides;
        this.aircraft = aircraft;
        this.people = people;
    }

    /** In the order in which they rest on one another. */
    List<Register<?>> registers() {
        return List.of(
                fleet.packModels(),
                fleet.models(),
                fleet.aircraft(),
                fleet.packs(),
                fleet.accessories(),
                fleet.builds(),
                crew.people(),
                papers(),
                places.sites(),
                places.things(),
                places.directory(),
                granters.register(),
                jobs.jobs(),
                jobs.flights(),
                besides.days(),
                besides.helpers(),
                besides.reasons());
    }

    private Register<?> register(String code) {
        return registers().stream()
                .filter(r -> r.code().equals(code))
                .findFirst()
                .orElseThrow(() -> new NotFoundException("register"));
    }

    /** Papers of the operator, the crew and the aircraft; those of a job stay with the job. */
    private Register<Papers.Stored> papers() {
        return new Register<>(
                "papers",
                "papers",
                List.of(List.of("holder", "kind", "number")),
                List.of(),
                () -> papers.stored().stream()
                        .filter(p -> !p.entry().holderKind().equals("job"))
                        .toList(),
                Papers.Stored::id,
                form -> {
                    List<Form.Option> holders = new ArrayList<>();
                    holders.add(new Form.Option("", "choose"));
                    holders.add(new Form.Option("operator " + office.operator().id(), "operator"));
                    people.all().forEach(p -> holders.add(new Form.Option("pilot " + p.id(), p.name())));
                    aircraft.aircraftNames()
                            .forEach((id, name) -> holders.add(new Form.Option("aircraft " + id, "aircraft " + name)));
                    form.select("holder", "Holder", "operator, a name, or aircraft and its name", holders);
                    paperForms.fields(form, "");
                },
                (form, p) -> {
                    form.set("holder", p.entry().holderKind() + " " + p.entry().holderId());
                    paperForms.fill(form, p.entry(), p.version());
                },
                (form, id) -> {
                    String holder = form.choice("holder", true);
                    if (holder == null) {
                        return () -> null;
                    }
                    String holderKind = holder.substring(0, holder.indexOf(' '));
                    settle(form, holderKind);
                    return paperForms.read(
                            form, id, holderKind, UUID.fromString(holder.substring(holder.indexOf(' ') + 1)));
                });
    }

    /** What a table may leave out about a paper, as the page would offer it. */
    private void settle(Form form, String holderKind) {
        if (form.raw("zone").isEmpty()) {
            form.set("zone", office.operator().zone().getId());
        }
        if (form.raw("endKnown").isEmpty()) {
            form.set("endKnown", "no");
        }
        papers.kinds().stream().filter(k -> k.code().equals(form.raw("kind"))).forEach(k -> {
            if (!k.holder().equals(holderKind)) {
                form.error("kind", "a paper of the " + k.holder() + ", not of the " + holderKind);
            }
        });
        paperForms.fillLead(form);
    }

    // --- out ---------------------------------------------------------------------------------------------------------

    @Transactional(readOnly = true)
    public Table table(String code) {
        return new Bringing<>(register(code)).table();
    }

    @Transactional(readOnly = true)
    public List<Map<String, String>> objects(String code) {
        return new Bringing<>(register(code)).objects();
    }

    // --- in ----------------------------------------------------------------------------------------------------------

    /** Keeps a table until its columns are matched. */
    @Transactional
    public UUID upload(String code, String fileName, byte[] content, String by) throws BrokenFileException {
        register(code);
        Tables.read(fileName, content);
        em.createQuery("delete from RegisterUpload u where u.uploadedAt < :t")
                .setParameter("t", clock.instant().minus(KEPT))
                .executeUpdate();
        RegisterUpload u = new RegisterUpload(UUID.randomUUID());
        u.register = code;
        u.fileName = fileName.substring(0, Math.min(255, fileName.length()));
        u.content = content;
        u.uploadedBy = by;
        u.uploadedAt = clock.instant();
        em.persist(u);
        return u.id;
    }

    /** @param mapping a field or nothing for each column; null to have it suggested */
    @Transactional(readOnly = true)
    public Preview preview(UUID id, List<String> mapping, boolean clearing) {
        RegisterUpload u = find(id);
        return preview(
                u, new Bringing<>(register(u.register)), register(u.register).title(), mapping, clearing);
    }

    private Preview preview(
            RegisterUpload u, Bringing<?> bringing, String title, List<String> mapping, boolean clearing) {
        Table table;
        try {
            table = Tables.read(u.fileName, u.content);
        } catch (BrokenFileException e) {
            throw new IllegalStateException("was read when it was handed over", e);
        }
        List<String> fields = new ArrayList<>();
        for (int c = 0; c < table.header().size(); c++) {
            String wanted = mapping == null || c >= mapping.size() ? "" : mapping.get(c);
            fields.add(bringing.headers().containsKey(wanted) && !fields.contains(wanted) ? wanted : "");
        }
        if (mapping == null) {
            fields = bringing.suggest(table.header());
        }
        List<Bringing.RowPlan> rows = new ArrayList<>(bringing.plan(
                table,
                fields,
                clearing,
                LocalDate.now(clock.withZone(office.operator().zone()))));
        Map<Bringing.Outcome, Long> counts = new EnumMap<>(Bringing.Outcome.class);
        rows.forEach(r -> counts.merge(r.outcome(), 1L, Long::sum));
        return new Preview(
                u.id, u.register, title, u.fileName, table, bringing.headers(), fields, clearing, rows, counts);
    }

    /**
     * Stores what the rows say, all of it or nothing.
     *
     * @param leaveOut whether rows that are wrong are left out
     * @throws IllegalArgumentException when rows are wrong and not to be left out, or a row is refused
     */
    @Transactional
    public Preview bringIn(UUID id, List<String> mapping, boolean clearing, boolean leaveOut) {
        RegisterUpload u = find(id);
        Preview p = preview(
                u, new Bringing<>(register(u.register)), register(u.register).title(), mapping, clearing);
        if (p.wrong() > 0 && !leaveOut) {
            throw new IllegalArgumentException(p.wrong()
                    + (p.wrong() == 1 ? " row is" : " rows are")
                    + " wrong; mend the file, or tick that wrong rows are left out. Nothing was stored.");
        }
        p.rows().forEach(Exchange::store);
        em.remove(u);
        return p;
    }

    /** What became of a row, or would. */
    public record Line(
            int line, String outcome, String name, List<Bringing.Change> changes, List<Bringing.Problem> problems) {}

    /**
     * Stores what a table says whose columns are named as the fields, all of it or, when a row is wrong, nothing.
     *
     * @param looking whether nothing is to be stored
     * @return what became of each row; none was stored when any is wrong
     * @throws NotFoundException when there is no such register
     * @throws IllegalArgumentException when a column is no field
     */
    @Transactional
    public List<Line> bringIn(String code, Table table, boolean looking) {
        Bringing<?> bringing = new Bringing<>(register(code));
        return bringIn(bringing, table, bringing.exactly(table.header()), looking);
    }

    /** The same for a table with the headings under which it would be handed out. */
    @Transactional
    public List<Line> bringInAsHandedOut(String code, Table table) {
        Bringing<?> bringing = new Bringing<>(register(code));
        return bringIn(bringing, table, bringing.suggest(table.header()), false);
    }

    private List<Line> bringIn(Bringing<?> bringing, Table table, List<String> fields, boolean looking) {
        List<Bringing.RowPlan> plans = bringing.plan(
                table,
                fields,
                false,
                LocalDate.now(clock.withZone(office.operator().zone())));
        if (!looking && plans.stream().noneMatch(p -> p.outcome() == Bringing.Outcome.WRONG)) {
            plans.forEach(Exchange::store);
        }
        return plans.stream()
                .map(p -> new Line(p.line(), p.outcome().name(), p.name(), p.changes(), p.problems()))
                .toList();
    }

    private static void store(Bringing.RowPlan row) {
        if (row.saving() != null) {
            try {
                Objects.requireNonNull(row.saving().get());
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException(
                        "line " + row.line() + ": " + e.getMessage() + ". Nothing was stored.", e);
            }
        }
    }

    @Transactional
    public void discard(UUID id) {
        em.remove(find(id));
    }

    private RegisterUpload find(UUID id) {
        RegisterUpload u = em.find(RegisterUpload.class, id);
        if (u == null) {
            throw new NotFoundException("table; it was brought in, or waited longer than two days");
        }
        return u;
    }
}
