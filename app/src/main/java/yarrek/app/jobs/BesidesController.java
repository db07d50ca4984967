package yarrek.app.jobs;

import java.time.Clock;
import java.time.LocalDate;
import java.util.LinkedHashMap;
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
import yarrek.app.forms.Form;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.core.judging.Arranged;

/** Hours of days that differ, people without a flight and why the builds go, on one page. */
@Controller
class BesidesController {
    private final Jobs jobs;
    private final Crew crew;
    private final Clock clock;

    BesidesController(Jobs jobs, Crew crew, Clock clock) {
        this.jobs = jobs;
        this.crew = crew;
        this.clock = clock;
    }

    private static Map<UUID, String> builds(Jobs.JobView job) {
        Map<UUID, String> builds = new LinkedHashMap<>();
        job.builds().forEach(b -> builds.put(b.id(), b.aircraft().name() + ", " + b.name()));
        return builds;
    }

    private Form form(Jobs.JobView job, int helpers) {
        return BesidesForm.form(job, helpers, crew.names(), builds(job))
                .version(job.version())
                .history("job", job.id());
    }

    private Form filled(Jobs.JobView job) {
        Form form = form(job, job.draft().besides().crew().size() + BesidesForm.SPARE);
        BesidesForm.fill(form, job.draft());
        return form;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/besides")
    String besides(@PathVariable("id") UUID id, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        return page(job, filled(job), model);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/besides")
    String save(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        int helpers = Math.min(BesidesForm.helpers(params.toSingleValueMap()), Arranged.MOST_CREW + 1);
        boolean more = params.containsKey("more");
        Form form = form(job, helpers + (more ? BesidesForm.SPARE : 0)).bind(params);
        if (more) {
            return page(job, form, model);
        }
        Arranged read = BesidesForm.read(
                form,
                helpers,
                job.draft(),
                builds(job),
                LocalDate.now(clock.withZone(job.site().zone())));
        return form.store(
                        () -> "redirect:/jobs/"
                                + jobs.save(id, form.getVersion(), job.draft().arranged(read)) + "#flights-planned",
                        () -> filled(jobs.job(id, Viewer.current())))
                .orElseGet(() -> page(job, form, model));
    }

    private static String page(Jobs.JobView job, Form form, Model model) {
        model.addAttribute("job", job);
        return form.page(model, "jobs/besides");
    }
}
