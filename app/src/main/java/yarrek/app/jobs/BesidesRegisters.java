package yarrek.app.jobs;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.Form;
import yarrek.app.forms.Register;
import yarrek.core.judging.Arranged;

/** What jobs have besides their flights as registers: hours of days, people without a flight, reasons of builds. */
@Component
public class BesidesRegisters {
    private final Jobs jobs;
    private final Crew crew;
    private final Fleet fleet;
    private final Clock clock;

    BesidesRegisters(Jobs jobs, Crew crew, Fleet fleet, Clock clock) {
        this.jobs = jobs;
        this.crew = crew;
        this.fleet = fleet;
        this.clock = clock;
    }

    /** A row of a job. */
    public record Of<T>(UUID jobId, T row) {
        UUID id() {
            return UUID.nameUUIDFromBytes((jobId + " " + row).getBytes(StandardCharsets.UTF_8));
        }
    }

    private <T> List<Of<T>> all(Function<Arranged, Stream<T>> rows) {
        return jobs.stored().stream()
                .flatMap(j -> rows.apply(j.draft().besides()).map(r -> new Of<>(j.id(), r)))
                .toList();
    }

    private Form withJob(Form form) {
        return form.select("jobId", "Job", "", Form.choices("choose", BesidesForm.names(jobs.names())));
    }

    /** Puts a row in a job as it is by then: rows before may have added others. */
    private <T> UUID put(UUID jobId, T row, UnaryOperator<Arranged> how) {
        Jobs.JobView job = jobs.jobUnchecked(jobId);
        jobs.save(
                jobId, job.version(), job.draft().arranged(how.apply(job.draft().besides())));
        return new Of<>(jobId, row).id();
    }

    public Register<Of<Map.Entry<LocalDate, Arranged.Hours>>> days() {
        return new Register<>(
                "days-of-jobs",
                "days with hours of their own",
                List.of(List.of("jobId", "day")),
                List.of(),
                () -> all(b -> b.hours().entrySet().stream()),
                Of::id,
                form -> withJob(form)
                        .text("day", "Day", "one of the job's")
                        .text("from", "From", "local time")
                        .text("to", "To", "local time; before “from” means past midnight"),
                (form, d) -> form.set("jobId", d.jobId())
                        .set("day", d.row().getKey())
                        .set("from", d.row().getValue().from())
                        .set("to", d.row().getValue().to()),
                (form, id) -> readDay(form));
    }

    private Supplier<UUID> readDay(Form form) {
        UUID job = form.id("jobId", true);
        LocalDate day = form.date("day", true, LocalDate.now(clock));
        Arranged.Hours hours = new Arranged.Hours(form.time("from", true), form.time("to", true));
        return () -> put(job, Map.entry(day, hours), b -> {
            Map<LocalDate, Arranged.Hours> all = new HashMap<>(b.hours());
            all.put(day, hours);
            return new Arranged(all, b.crew(), b.reasons());
        });
    }

    public Register<Of<Arranged.Helper>> helpers() {
        return new Register<>(
                "crew-of-jobs",
                "crew without a flight",
                List.of(List.of("jobId", "personId", "role", "day")),
                List.of(),
                () -> all(b -> b.crew().stream()),
                Of::id,
                form -> BesidesForm.helper(withJob(form), "", crew.names()),
                (form, h) -> {
                    form.set("jobId", h.jobId());
                    BesidesForm.fill(form, "", h.row());
                },
                (form, id) -> readHelper(form));
    }

    private Supplier<UUID> readHelper(Form form) {
        UUID job = form.id("jobId", true);
        form.id("personId", true);
        form.choice("role", true);
        Arranged.Helper h = BesidesForm.one(form, "", LocalDate.now(clock));
        return () -> put(job, h, b -> {
            List<Arranged.Helper> all = new ArrayList<>(b.crew());
            if (!all.contains(h)) {
                all.add(h);
            }
            return new Arranged(b.hours(), all, b.reasons());
        });
    }

    public Register<Of<Map.Entry<UUID, String>>> reasons() {
        return new Register<>(
                "builds-of-jobs",
                "why builds go",
                List.of(List.of("jobId", "buildId")),
                List.of(),
                () -> all(b -> b.reasons().entrySet().stream()),
                Of::id,
                form -> withJob(form)
                        .select("buildId", "Build", "", Form.choices("choose", BesidesForm.names(builds())))
                        .text("why", "Why it goes", ""),
                (form, r) -> form.set("jobId", r.jobId())
                        .set("buildId", r.row().getKey())
                        .set("why", r.row().getValue()),
                (form, id) -> readReason(form));
    }

    private Map<UUID, String> builds() {
        Map<UUID, String> builds = new LinkedHashMap<>();
        fleet.builds().forEach(b -> builds.put(b.id(), b.aircraft().name() + ", " + b.name()));
        return builds;
    }

    private Supplier<UUID> readReason(Form form) {
        UUID job = form.id("jobId", true);
        UUID build = form.id("buildId", true);
        String why = form.requiredText("why", 300);
        return () -> put(job, Map.entry(build, why), b -> {
            Map<UUID, String> all = new HashMap<>(b.reasons());
            all.put(build, why);
            return new Arranged(b.hours(), b.crew(), all);
        });
    }
}
