package yarrek.app.whatif;

import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;
import java.util.UUID;
import org.springframework.format.annotation.DateTimeFormat;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.TypedInput;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.rules.RulePackReader;

/** Versions of the law: bringing one in, seeing what it changes, adopting it from a day. */
@Controller
class PacksController {
    private final Rulebook rulebook;
    private final Changes changes;
    private final Office office;
    private final Clock clock;

    PacksController(Rulebook rulebook, Changes changes, Office office, Clock clock) {
        this.rulebook = rulebook;
        this.changes = changes;
        this.office = office;
        this.clock = clock;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/packs")
    String packs(Model model) {
        model.addAttribute("versions", rulebook.versions());
        return "whatif/packs";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/rulebook/packs")
    String bringIn(@RequestParam("file") MultipartFile file, RedirectAttributes flash) throws IOException {
        String name = String.valueOf(file.getOriginalFilename());
        try {
            UUID id = rulebook.bringIn(name, file.getBytes(), Viewer.current().name());
            return "redirect:/rulebook/packs/" + id;
        } catch (BrokenFileException | IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage() + ". Nothing was changed.");
            return "redirect:/rulebook/packs";
        }
    }

    /** The text of a shipped pack, to begin a version of one's own from. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping(path = "/rulebook/packs/shipped/{name}.yaml", produces = "application/yaml")
    @org.springframework.web.bind.annotation.ResponseBody
    String shipped(@PathVariable("name") String name) {
        boolean known = rulebook.versions().stream()
                .anyMatch(v -> v.isShipped() && v.fileName().equals(name + ".yaml"));
        if (!known) {
            throw new yarrek.app.page.NotFoundException("shipped pack");
        }
        return RulePackReader.shippedText(name + ".yaml");
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/packs/{id}")
    String change(
            @PathVariable("id") UUID id, @RequestParam(value = "from", required = false) String from, Model model) {
        LocalDate day = today();
        try {
            day = from == null ? day : TypedInput.date(from, today());
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
        }
        model.addAttribute("change", changes.packChange(id, day));
        model.addAttribute("from", day);
        return "whatif/pack";
    }

    /** Rows of open jobs that would be judged differently; the last one asks for the next stretch by itself. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/packs/{id}/jobs")
    String jobs(
            @PathVariable("id") UUID id,
            @RequestParam("from") @DateTimeFormat(iso = DateTimeFormat.ISO.DATE) LocalDate from,
            @RequestParam(value = "at", defaultValue = "0") int at,
            @RequestParam(value = "judged", defaultValue = "0") int judged,
            @RequestParam(value = "differ", defaultValue = "0") int differ,
            Model model) {
        Changes.JobChanges c = changes.jobChanges(id, from, at);
        model.addAttribute("id", id);
        model.addAttribute("from", from);
        model.addAttribute("c", c);
        model.addAttribute("judged", judged + c.judged());
        model.addAttribute("differ", differ + c.jobs().size());
        return "whatif/pack-jobs";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/rulebook/packs/{id}/adopt")
    String adopt(@PathVariable("id") UUID id, @RequestParam("from") String from, RedirectAttributes flash) {
        try {
            rulebook.adopt(id, TypedInput.date(from, today()));
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
            return "redirect:/rulebook/packs/" + id;
        }
        return "redirect:/rulebook";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/rulebook/packs/{id}/discard")
    String discard(@PathVariable("id") UUID id, RedirectAttributes flash) {
        try {
            rulebook.discard(id);
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/rulebook/packs";
    }
}
