package yarrek.app.jobs;

import java.time.Clock;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Sites;
import yarrek.app.answers.Answers;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.Form;
import yarrek.app.forms.Register;
import yarrek.app.office.Office;

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
        JobDraft draft = JobForm.read(
                form, LocalDate.now(clock.withZone(office.operator().zone())), answers::read);
        return () -> jobs.save(id, form.getVersion(), draft);
    }
}
