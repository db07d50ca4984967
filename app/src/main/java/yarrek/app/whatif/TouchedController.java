package yarrek.app.whatif;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Assessments;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.Verdict;

/** Which planned jobs, and how many flights, a rule speaks of, and what it says of them. */
@Controller
class TouchedController {
    private static final int MOST = 100;

    private final Assessments assessments;
    private final Rulebook rulebook;
    private final JobLists jobLists;
    private final Office office;
    private final Clock clock;

    TouchedController(Assessments assessments, Rulebook rulebook, JobLists jobLists, Office office, Clock clock) {
        this.assessments = assessments;
        this.rulebook = rulebook;
        this.jobLists = jobLists;
        this.office = office;
        this.clock = clock;
    }

    /** A job with what the rule says of it. */
    record Touched(Jobs.Row job, Verdict verdict) {}

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/touched")
    String touched(@RequestParam("rule") String ruleId, Model model) {
        Viewer viewer = Viewer.current();
        Rule rule = rulebook.rule(
                        ruleId, LocalDate.now(clock.withZone(office.operator().zone())))
                .orElseThrow(() -> new NotFoundException("rule"));
        Map<UUID, Verdict> verdicts = assessments.touchedBy(ruleId, Assessments.Kind.JOB);
        List<Touched> open = jobLists.openRows(viewer, verdicts.keySet()).values().stream()
                .map(j -> new Touched(j, verdicts.get(j.id())))
                .sorted(Comparator.comparing(Touched::verdict)
                        .thenComparing(t -> t.job().start()))
                .toList();
        model.addAttribute("rule", rule);
        model.addAttribute("open", open.size());
        model.addAttribute("rows", open.stream().limit(MOST).toList());
        if (!viewer.isPilot()) {
            model.addAttribute("flights", assessments.countTouched(ruleId, Assessments.Kind.FLIGHT));
        }
        return "whatif/touched";
    }
}
