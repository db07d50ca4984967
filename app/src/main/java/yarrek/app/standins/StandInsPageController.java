package yarrek.app.standins;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.context.annotation.Profile;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;

/** What is simulated, what the desks have in their books, and how they are made to misbehave. */
@Controller
@Profile("demo")
class StandInsPageController {
    private final Desks desks;

    StandInsPageController(Desks desks) {
        this.desks = desks;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/office/stand-ins")
    String page(Model model) {
        Map<String, List<Desks.Entry>> books = new LinkedHashMap<>();
        Map<String, String> faults = new LinkedHashMap<>();
        for (String desk : Desks.NAMES) {
            books.put(desk, desks.book(desk));
            faults.put(desk, desks.fault(desk).name());
        }
        model.addAttribute("books", books);
        model.addAttribute("faults", faults);
        Map<String, String> kinds = new LinkedHashMap<>();
        for (Desks.Fault f : Desks.Fault.values()) {
            kinds.put(f.name(), f.words());
        }
        model.addAttribute("kinds", kinds);
        return "standins/stand-ins";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/stand-ins/{desk}")
    String set(@PathVariable("desk") String desk, @RequestParam("fault") String fault) {
        if (!Desks.NAMES.contains(desk)) {
            throw new NotFoundException("desk");
        }
        for (Desks.Fault f : Desks.Fault.values()) {
            if (f.name().equals(fault)) {
                desks.setFault(desk, f);
            }
        }
        return "redirect:/office/stand-ins";
    }
}
