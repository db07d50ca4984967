package yarrek.app.jobs;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Sites;
import yarrek.app.answers.Answers;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.Form;
import yarrek.app.forms.Register;
import yarrek.app.office.Office;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.judging.PlannedFlight;

/**
 * Jobs as a register: what the vocabulary asks of a plan is a field of the page, a column of the table and a member of the
 * API alike.
 */
@Component
public class JobRegister {
    private final Jobs jobs;
    private final Sites sites;
    private final Crew crew;
    private final Fleet fleet;
    private final Answers answers;
    private final Office office;
    private final Clock clock;

    JobRegister(Jobs jobs, Sites sites, Crew crew, Fleet fleet, Answers answers, Office office, Clock clock) {
        this.jobs = jobs;
        this.sites = sites;
        this.crew = crew;
        this.fleet = fleet;
        this.answers = answers;
        this.office = office;
        this.clock = clock;
    }

    public Register<Jobs.Stored> jobs() {
        return new Register<>(
                "jobs",
                "jobs",
                List.of(List.of("name")),
                List.of("name"),
                jobs::stored,
                Jobs.Stored::id,
                this::fields,
                (form, j) -> {
                    JobForm.values(j.draft()).forEach(form::set);
                    form.version(j.version()).history("job", j.id());
                },
                this::read);
    }

    private void fields(Form form) {
        Map<UUID, String> people = new LinkedHashMap<>();
        crew.all().forEach(p -> people.put(p.id(), p.name()));
        Map<UUID, String> builds = new LinkedHashMap<>();
        fleet.builds()
                .forEach(b -> builds.put(
                        b.id(),
                        b.aircraft().name() + ", " + b.name() + " (" + b.mass().mass() + ")"));
        JobForm.fields(form, sites.names(), people, builds);
    }

    private Supplier<UUID> read(Form form, UUID id) {
        JobDraft typed = JobForm.read(
                form, LocalDate.now(clock.withZone(office.operator().zone())), answers::read);
        return () -> jobs.save(id, form.getVersion(), id == null ? typed : jobs.moved(id, typed));
    }

    /**
     * A planned flight as a row of a table.
     *
     * @param number within its job, from 1
     */
    public record Planned(UUID jobId, int number, PlannedFlight flight) {
        UUID id() {
            return UUID.nameUUIDFromBytes((jobId + " " + number).getBytes(StandardCharsets.UTF_8));
        }
    }

    /** The flights planned of all jobs: a row each, found again by its job and its number. */
    public Register<Planned> flights() {
        return new Register<>(
                "flights-planned",
                "flights planned",
                List.of(List.of("jobId", "number")),
                List.of(),
                () -> jobs.stored().stream()
                        .flatMap(j -> IntStream.range(0, j.draft().flights().size())
                                .mapToObj(i -> new Planned(
                                        j.id(), i + 1, j.draft().flights().get(i))))
                        .toList(),
                Planned::id,
                form -> {
                    form.select("jobId", "Job", "", Form.choices("choose", texts(jobs.names())))
                            .text("number", "Flight", "its place in the job; empty: after the others");
                    FlightsForm.fields(form, "", "empty: the first of the job", crew.names(), builds());
                },
                (form, p) -> {
                    form.set("jobId", p.jobId()).set("number", p.number());
                    FlightsForm.fill(form, "", p.flight());
                },
                (form, id) -> readFlight(form));
    }

    private static Map<String, String> texts(Map<UUID, String> byId) {
        Map<String, String> names = new LinkedHashMap<>();
        byId.forEach((id, name) -> names.put(id.toString(), name));
        return names;
    }

    private Map<UUID, String> builds() {
        Map<UUID, String> builds = new LinkedHashMap<>();
        fleet.builds().forEach(b -> builds.put(b.id(), b.aircraft().name() + ", " + b.name()));
        return builds;
    }

    private Supplier<UUID> readFlight(Form form) {
        UUID job = form.id("jobId", true);
        Integer number = form.whole("number", 1, FlightsPlanned.MOST, false);
        if (job == null) {
            return () -> null;
        }
        Jobs.JobView planned = jobs.jobUnchecked(job);
        PlannedFlight f = FlightsForm.one(
                form,
                "",
                planned.draft(),
                LocalDate.now(clock.withZone(planned.site().zone())),
                planned.site().zone());
        return () -> put(job, number, f);
    }

    /** Puts a flight in its place, as the job is by then: rows before may have added others. */
    private UUID put(UUID jobId, Integer number, PlannedFlight f) {
        Jobs.JobView job = jobs.jobUnchecked(jobId);
        List<PlannedFlight> flights = new ArrayList<>(job.draft().flights());
        int place = number == null ? flights.size() + 1 : number;
        if (place > flights.size() + 1) {
            throw new IllegalArgumentException("there is no flight " + (place - 1) + " before it in “"
                    + job.draft().name() + "”");
        }
        if (place <= flights.size()) {
            flights.set(place - 1, f);
        } else {
            flights.add(f);
        }
        jobs.save(jobId, job.version(), job.draft().flying(flights));
        return new Planned(jobId, place, f).id();
    }
}
