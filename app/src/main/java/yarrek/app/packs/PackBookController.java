package yarrek.app.packs;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import yarrek.app.fleet.Fleet;
import yarrek.app.page.OpenTo;
import yarrek.core.pack.PackStanding.Limits;

/** The list of packs. */
@Controller
class PackBookController {
    private final PackBook book;
    private final Fleet fleet;

    PackBookController(PackBook book, Fleet fleet) {
        this.book = book;
        this.fleet = fleet;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/packs")
    String packs(Model model) {
        model.addAttribute("packs", book.lines());
        model.addAttribute("packModels", fleet.packModels());
        model.addAttribute("limits", Limits.HOUSE);
        return "packs/packs";
    }
}
