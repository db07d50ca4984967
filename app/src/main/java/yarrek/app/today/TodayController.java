package yarrek.app.today;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/** The first page. */
@Controller
class TodayController {
    private final Today today;

    TodayController(Today today) {
        this.today = today;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/")
    String today(Model model) {
        model.addAttribute("page", today.page(Viewer.current()));
        return "today/today";
    }
}
