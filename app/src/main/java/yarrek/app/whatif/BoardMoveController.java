package yarrek.app.whatif;

import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.history.History;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/** Moving a job on the board: what would change is shown before it is kept. */
@Controller
class BoardMoveController {
    private static final int FARTHEST = 366;

    private final Changes changes;
    private final Jobs jobs;
    private final History history;

    BoardMoveController(Changes changes, Jobs jobs, History history) {
        this.changes = changes;
        this.jobs = jobs;
        this.history = history;
    }

    /** What was chosen, to be kept by the next step. */
    public record Typed(UUID job, int days, UUID pilot, UUID build) {}

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/board/move")
    String look(
            @RequestParam(value = "job", required = false) UUID job,
            @RequestParam(value = "days", defaultValue = "0") String days,
            @RequestParam(value = "pilot", required = false) UUID pilot,
            @RequestParam(value = "build", required = false) UUID build,
            Model model) {
        try {
            int by = days(days);
            if (job != null && (by != 0 || pilot != null || build != null)) {
                model.addAttribute("look", changes.moved(job, by, pilot, build).look());
                model.addAttribute("version", jobs.job(job, Viewer.current()).version());
                model.addAttribute("typed", new Typed(job, by, pilot, build));
            }
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
        }
        return "whatif/moved";
    }

    private static int days(String typed) {
        try {
            int days = Integer.parseInt(typed.strip().replace('\u2212', '-'));
            if (Math.abs(days) <= FARTHEST) {
                return days;
            }
        } catch (NumberFormatException e) {
            // told below, as one out of range is
        }
        throw new IllegalArgumentException(
                "a whole number of days from −" + FARTHEST + " to " + FARTHEST + ", got " + typed);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/board/move")
    String keep(
            @RequestParam("job") UUID job,
            @RequestParam("days") int days,
            @RequestParam(value = "pilot", required = false) UUID pilot,
            @RequestParam(value = "build", required = false) UUID build,
            @RequestParam("version") long version,
            RedirectAttributes flash) {
        try {
            Changes.Moved moved = changes.moved(job, days, pilot, build);
            jobs.save(job, version, moved.draft());
            history.undo("job", job)
                    .tell(flash, moved.draft().name() + ": " + moved.look().words() + ".");
            flash.addAttribute("from", moved.draft().firstDay());
        } catch (LostUpdateException e) {
            flash.addFlashAttribute(
                    "problem", "Somebody else changed this job meanwhile; it is shown as it stands now.");
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/board";
    }
}
