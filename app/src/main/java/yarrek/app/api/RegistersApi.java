package yarrek.app.api;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;

/** Lists: papers with their states, jobs with their standing. */
@RestController
@RequestMapping("/api/v1")
class RegistersApi {
    private final Papers papers;
    private final JobLists jobLists;

    RegistersApi(Papers papers, JobLists jobLists) {
        this.papers = papers;
        this.jobLists = jobLists;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/papers")
    List<Papers.Row> papers() {
        Viewer viewer = Viewer.current();
        return papers.all().stream()
                .filter(p -> !viewer.isPilot() || p.holderId().equals(viewer.personId()))
                .toList();
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs")
    List<Jobs.Row> jobs() {
        return jobLists.all(Viewer.current());
    }
}
