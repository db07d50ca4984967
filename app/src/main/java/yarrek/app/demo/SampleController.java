package yarrek.app.demo;

import java.io.IOException;
import org.springframework.core.env.Environment;
import org.springframework.core.env.Profiles;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.formats.log.BrokenFileException;

/** Lays the sample in, takes it out, and leads round in it. */
@Controller
class SampleController {
    private final Sample sample;

    private final Round round;
    private final boolean demo;

    SampleController(Sample sample, Round round, Environment environment) {
        this.sample = sample;
        this.round = round;
        this.demo = environment.acceptsProfiles(Profiles.of("demo"));
    }

    /** A look round by role, where the sample world is. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/begin/round")
    String round(Model model) {
        if (!demo && !sample.isIn()) {
            throw new NotFoundException("look round");
        }
        model.addAttribute("walks", round.walks(Viewer.current()));
        return "begin/round";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/begin/sample")
    String layIn(RedirectAttributes flash) throws IOException, BrokenFileException {
        try {
            sample.layIn(Viewer.current());
            flash.addFlashAttribute("told", "The sample is laid in. Everything in it is invented.");
            return "redirect:/";
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
            return "redirect:/begin";
        }
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/begin/sample/out")
    String takeOut(RedirectAttributes flash) {
        try {
            sample.takeOut();
            flash.addFlashAttribute("told", "The sample is taken out; nothing of it is left.");
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
        }
        return "redirect:/begin";
    }
}
