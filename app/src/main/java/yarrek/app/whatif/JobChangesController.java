package yarrek.app.whatif;

import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.forms.TypedInput;
import yarrek.app.jobs.Jobs;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.Vocabulary;

/** Looking ahead on a job's page: one fact changed, and what would make it clean. Fragments; nothing is stored. */
@Controller
class JobChangesController {
    private final Changes changes;
    private final Jobs jobs;
    private final Crew crew;
    private final Fleet fleet;
    private final Rulebook rulebook;

    JobChangesController(Changes changes, Jobs jobs, Crew crew, Fleet fleet, Rulebook rulebook) {
        this.changes = changes;
        this.jobs = jobs;
        this.crew = crew;
        this.fleet = fleet;
        this.rulebook = rulebook;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/whatif")
    String whatIf(
            @PathVariable("id") UUID id,
            @RequestParam(value = "build", required = false) String build,
            @RequestParam(value = "pilot", required = false) String pilot,
            @RequestParam(value = "shift", required = false) String shift,
            @RequestParam(value = "raise", required = false) String raise,
            @RequestParam(value = "jurisdiction", required = false) String jurisdiction,
            @RequestParam(value = "fact", required = false) String fact,
            @RequestParam(value = "value", required = false) String value,
            Model model) {
        model.addAttribute("job", jobs.job(id, Viewer.current()));
        model.addAttribute("builds", fleet.builds());
        model.addAttribute("people", crew.all());
        model.addAttribute("jurisdictions", rulebook.jurisdictions());
        model.addAttribute("facts", Vocabulary.all());
        try {
            Changes.Tweak tweak = new Changes.Tweak(
                    uuid(build),
                    uuid(pilot),
                    empty(shift) ? null : minutes(shift),
                    empty(raise) ? null : TypedInput.metres(raise),
                    empty(jurisdiction) ? null : jurisdiction,
                    empty(fact) || empty(value) ? null : fact,
                    value);
            if (!empty(build)
                    || !empty(pilot)
                    || !empty(shift)
                    || !empty(raise)
                    || !empty(jurisdiction)
                    || tweak.fact() != null) {
                model.addAttribute("look", changes.whatIf(id, tweak));
            }
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
        }
        model.addAttribute("typed", new Typed(build, pilot, shift, raise, jurisdiction, fact, value));
        return "whatif/whatif";
    }

    /** What was typed, to be shown again. */
    public record Typed(
            String build, String pilot, String shift, String raise, String jurisdiction, String fact, String value) {}

    private static boolean empty(String s) {
        return s == null || s.isBlank();
    }

    private static UUID uuid(String s) {
        return empty(s) ? null : UUID.fromString(s);
    }

    private static Integer minutes(String s) {
        double hours = TypedInput.plain(s, "h");
        if (!(Math.abs(hours) <= 24)) {
            throw new IllegalArgumentException("hours from −24 to 24, got " + s);
        }
        return (int) Math.round(hours * 60);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/clean")
    String clean(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("job", jobs.job(id, Viewer.current()));
        model.addAttribute("clean", changes.clean(id));
        return "whatif/clean";
    }

    /** What helps most, for the head of the job. */
    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/jobs/{id}/cure")
    String cure(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("job", jobs.job(id, Viewer.current()));
        model.addAttribute("cure", changes.cure(id).orElse(null));
        return "whatif/cure";
    }

    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/jobs/{id}/who")
    String who(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("job", jobs.job(id, Viewer.current()));
        model.addAttribute("who", changes.who(id));
        return "whatif/who";
    }

    /** Every pair of a pilot and a build, fetched after the page. */
    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/jobs/{id}/who/pairs")
    String pairs(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("job", jobs.job(id, Viewer.current()));
        model.addAttribute("pairs", changes.pairs(id));
        return "whatif/pairs";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/jobs/{id}/change")
    String change(
            @PathVariable("id") UUID id,
            @RequestParam("version") long version,
            @RequestParam(value = "pilot", required = false) UUID pilot,
            @RequestParam(value = "build", required = false) UUID build,
            @RequestParam(value = "pair", defaultValue = "") String pair,
            @RequestParam(value = "fact", defaultValue = "") String fact,
            @RequestParam(value = "value", defaultValue = "") String value,
            RedirectAttributes flash) {
        try {
            String[] both = pair.isEmpty() ? new String[0] : pair.split(" ", 2);
            changes.change(
                    id,
                    version,
                    both.length == 2 ? UUID.fromString(both[0]) : pilot,
                    both.length == 2 ? UUID.fromString(both[1]) : build,
                    fact,
                    value);
            flash.addFlashAttribute("told", "Changed and judged anew. The history of the job puts it back.");
        } catch (LostUpdateException e) {
            flash.addFlashAttribute(
                    "problem", "Somebody else changed this job meanwhile; it is shown as it stands now.");
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/jobs/" + id;
    }
}
