package yarrek.app.approvals;

import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.Form;
import yarrek.app.history.History;
import yarrek.app.page.OpenTo;
import yarrek.app.rulebook.Rulebook;

/** Offices that grant, and the days on which nobody does. */
@Controller
class GrantersController {
    private static final int YEARS_AHEAD = 3;

    private final Granters granters;
    private final Kinds kinds;
    private final Rulebook rulebook;
    private final Clock clock;
    private final History history;

    GrantersController(Granters granters, Kinds kinds, Rulebook rulebook, Clock clock, History history) {
        this.history = history;
        this.granters = granters;
        this.kinds = kinds;
        this.rulebook = rulebook;
        this.clock = clock;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/granters")
    String list(Model model) {
        model.addAttribute("granters", granters.all());
        return "chains/granters";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/granters/new")
    String blank(@RequestParam(value = "name", defaultValue = "") String name, Model model) {
        return Granters.form("Who grants", "/approvals/granters/new")
                .set("name", name.length() > 200 ? "" : name)
                .page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/granters/new")
    String create(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(Granters.form("Who grants", "/approvals/granters/new").bind(params), null, model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/granters/{id}")
    String edit(@PathVariable("id") UUID id, Model model) {
        return Granters.filled(granters.granter(id)).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/granters/{id}")
    String change(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(Granters.filled(granters.granter(id)).bind(params), id, model);
    }

    private String store(Form form, UUID id, Model model) {
        Granters.Granter g = Granters.read(form, id);
        return form.store(
                        () -> {
                            granters.save(g);
                            return "redirect:/approvals/granters";
                        },
                        () -> Granters.filled(granters.granter(id)))
                .orElseGet(() -> form.page(model, "form"));
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/approvals/granters/{id}/remove")
    String remove(@PathVariable("id") UUID id, RedirectAttributes flash) {
        granters.remove(id);
        history.undo("granter", id).tell(flash, "The granter is taken out.");
        return "redirect:/approvals/granters";
    }

    /** The days that are left out of working days, of a place and of the house. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/approvals/holidays")
    String holidays(
            @RequestParam(value = "in", defaultValue = "") String in,
            @RequestParam(value = "year", defaultValue = "") String year,
            Model model) {
        int now = LocalDate.now(clock).getYear();
        List<String> places = kinds.placesWithHolidays();
        String place = places.contains(in) ? in : places.get(0);
        int shown =
                year.matches("\\d{4}") ? Math.max(now - 1, Math.min(now + YEARS_AHEAD, Integer.parseInt(year))) : now;
        model.addAttribute("places", places);
        model.addAttribute("names", rulebook.jurisdictions());
        model.addAttribute("in", place);
        model.addAttribute("year", shown);
        model.addAttribute(
                "years",
                java.util.stream.IntStream.rangeClosed(now - 1, now + YEARS_AHEAD)
                        .boxed()
                        .toList());
        model.addAttribute("days", kinds.namedHolidays(place, shown));
        model.addAttribute("remark", kinds.holidayRemark(place));
        return "chains/holidays";
    }
}
