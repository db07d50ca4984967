package yarrek.app.today;

import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import yarrek.app.begin.Begin;
import yarrek.app.demo.Sample;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/** The first page. */
@Controller
class TodayController {
    private final Today today;
    private final Begin begin;
    private final Sample sample;

    TodayController(Today today, Begin begin, Sample sample) {
        this.sample = sample;
        this.today = today;
        this.begin = begin;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/")
    String today(Model model) {
        model.addAttribute("page", today.page(Viewer.current()));
        if (begin.isUnderWay(Viewer.current())) {
            List<Begin.Standing> steps = begin.steps();
            model.addAttribute("way", steps);
            model.addAttribute("wayNext", Begin.next(steps).orElseThrow());
        }
        model.addAttribute("sampleIn", sample.isIn());
        return "today/today";
    }
}
