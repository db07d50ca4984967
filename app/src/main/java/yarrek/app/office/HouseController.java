package yarrek.app.office;

import java.util.EnumMap;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.Form;
import yarrek.app.page.OpenTo;
import yarrek.core.judging.House;
import yarrek.core.judging.HouseFigure;
import yarrek.core.units.Finite;

/** The figures that the house chooses, with what is usual and why. */
@Controller
class HouseController {
    private final HouseFigures figures;

    HouseController(HouseFigures figures) {
        this.figures = figures;
    }

    private static Form form() {
        Form form = new Form("What the house reckons with", "/office/house", "/office");
        HouseFigure.Group group = null;
        for (HouseFigure f : HouseFigure.values()) {
            if (f.group() != group) {
                group = f.group();
                form.group(group.words());
            }
            form.text(
                    f.code(),
                    f.label() + ", " + f.unit(),
                    "usually " + Finite.format(f.usual()) + " " + f.unit() + ": " + f.why());
        }
        return form;
    }

    private Form filled() {
        House house = figures.house();
        Form form = form().version(figures.version());
        for (HouseFigure f : HouseFigure.values()) {
            form.set(f.code(), Finite.format(house.of(f)));
        }
        return form;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/office/house")
    String house(Model model) {
        return filled().page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/house")
    String save(@RequestParam MultiValueMap<String, String> params, Model model, RedirectAttributes flash) {
        Form form = form().bind(params);
        Map<HouseFigure, Double> chosen = new EnumMap<>(HouseFigure.class);
        for (HouseFigure f : HouseFigure.values()) {
            Double amount = form.optionalText(f.code(), 40).isEmpty()
                    ? Double.valueOf(f.usual())
                    : form.number(f.code(), f.unit(), f.least(), f.most(), true);
            if (amount != null) {
                chosen.put(f, amount);
            }
        }
        return form.store(
                        () -> {
                            figures.save(form.getVersion(), chosen);
                            flash.addFlashAttribute("told", "Kept; jobs that rest on it are judged again.");
                            return "redirect:/office/house";
                        },
                        this::filled)
                .orElseGet(() -> form.page(model, "form"));
    }
}
