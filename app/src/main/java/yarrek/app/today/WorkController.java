package yarrek.app.today;

import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.work.Work;

/** What is done in the background: how far it is, what failed and why, and stopping it. */
@Controller
class WorkController {
    private final Work work;
    private final Jobs jobs;
    private final Office office;

    WorkController(Work work, Jobs jobs, Office office) {
        this.work = work;
        this.jobs = jobs;
        this.office = office;
    }

    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/work")
    String all(Model model) {
        model.addAttribute("work", work.newest());
        model.addAttribute("rounds", work.rounds());
        model.addAttribute("names", jobs.names());
        model.addAttribute("zone", office.operator().zone());
        return "work/work";
    }

    /** What runs now; asks again by itself while anything does. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/work/now")
    String now(Model model) {
        model.addAttribute(
                "running",
                work.newest().stream().filter(Work.Progress::isRunning).toList());
        return "work/now";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/work/{id}/stop")
    String stop(@PathVariable("id") UUID id, RedirectAttributes flash) {
        work.stop(id, Viewer.current().name());
        flash.addFlashAttribute(
                "told", "It stops after the stretch it is in; what is not done stays as it was judged before");
        return "redirect:/work";
    }
}
