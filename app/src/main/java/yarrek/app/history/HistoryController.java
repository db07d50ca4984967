package yarrek.app.history;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.page.OpenTo;

/** The history of a record, and the bin. */
@Controller
class HistoryController {
    private final History history;

    HistoryController(History history) {
        this.history = history;
    }

    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/history/{code}/{id}")
    String of(@PathVariable("code") String code, @PathVariable("id") String id, Model model) {
        model.addAttribute("record", history.of(code, id));
        return "history/history";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/history/{code}/{id}")
    String takeBack(
            @PathVariable("code") String code,
            @PathVariable("id") String id,
            @RequestParam("revision") long revision,
            Model model,
            RedirectAttributes flash) {
        try {
            String path = history.takeBack(code, id, revision);
            flash.addFlashAttribute("told", "It is as it was before.");
            return "redirect:" + path;
        } catch (IllegalArgumentException e) {
            model.addAttribute("record", history.of(code, id));
            model.addAttribute("problem", e.getMessage());
            return "history/history";
        }
    }

    @OpenTo(OpenTo.Whom.OFFICE)
    @GetMapping("/bin")
    String bin(Model model) {
        model.addAttribute("bin", history.bin());
        return "history/bin";
    }
}
