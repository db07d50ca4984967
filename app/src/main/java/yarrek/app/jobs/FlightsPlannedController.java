package yarrek.app.jobs;

import java.time.Clock;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.Form;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.core.judging.PlannedFlight;

/** The flights planned within a job, on one page. */
@Controller
class FlightsPlannedController {
    private final Jobs jobs;
    private final Crew crew;
    private final Fleet fleet;
    private final Clock clock;

    FlightsPlannedController(Jobs jobs, Crew crew, Fleet fleet, Clock clock) {
        this.jobs = jobs;
        this.crew = crew;
        this.fleet = fleet;
        this.clock = clock;
    }

    private Form form(Jobs.JobView job, int rows) {
        Map<UUID, String> builds = new LinkedHashMap<>();
        fleet.builds().forEach(b -> builds.put(b.id(), b.aircraft().name() + ", " + b.name()));
        return FlightsForm.form(job, rows, crew.names(), builds)
                .version(job.version())
                .history("job", job.id());
    }

    private Form filled(Jobs.JobView job) {
        Form form = form(job, job.draft().flights().size() + FlightsForm.SPARE);
        FlightsForm.fill(form, job.draft());
        return form;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/flights")
    String flights(@PathVariable("id") UUID id, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        return page(job, filled(job), model);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/flights")
    String save(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        Map<String, String> typed = params.toSingleValueMap();
        int rows = FlightsForm.rows(typed);
        Form form = form(job, rows + FlightsForm.SPARE).bind(params);
        if (params.containsKey("more")) {
            return page(job, form, model);
        }
        List<PlannedFlight> flights = FlightsForm.read(
                form,
                typed,
                rows,
                job.draft(),
                LocalDate.now(clock.withZone(job.site().zone())),
                job.site().zone());
        return form.store(
                        () -> "redirect:/jobs/"
                                + jobs.save(id, form.getVersion(), job.draft().flying(flights)) + "#flights-planned",
                        () -> filled(jobs.job(id, Viewer.current())))
                .orElseGet(() -> page(job, form, model));
    }

    private static String page(Jobs.JobView job, Form form, Model model) {
        model.addAttribute("job", job);
        return form.page(model, "jobs/flights");
    }
}
