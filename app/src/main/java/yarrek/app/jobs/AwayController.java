package yarrek.app.jobs;

import java.io.Serializable;
import java.time.Clock;
import java.time.LocalDate;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.TypedInput;
import yarrek.app.history.History;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;

/** Says on the board who is away and which aircraft is in upkeep. */
@Controller
class AwayController {
    private static final int MOST_WHY = 200;

    private final Aways aways;
    private final History history;
    private final Office office;
    private final Clock clock;

    AwayController(Aways aways, History history, Office office, Clock clock) {
        this.aways = aways;
        this.history = history;
        this.office = office;
        this.clock = clock;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/board/away")
    String add(
            @RequestParam(value = "whose", required = false) UUID whose,
            @RequestParam("first") String first,
            @RequestParam(value = "last", defaultValue = "") String last,
            @RequestParam(value = "why", defaultValue = "") String why,
            RedirectAttributes flash) {
        flash.addFlashAttribute("awayTyped", new Typed(whose, first, last, why));
        try {
            if (whose == null) {
                throw new IllegalArgumentException("choose who or what is away");
            }
            if (why.strip().length() > MOST_WHY) {
                throw new IllegalArgumentException("why: at most " + MOST_WHY + " letters");
            }
            LocalDate from = day(first);
            UUID id = aways.add(whose, from, last.isBlank() ? from : day(last), why.strip());
            flash.addFlashAttribute("awayTyped", Typed.NOTHING);
            history.undo("away", id).tell(flash, "Kept; jobs of those days are judged again.");
            flash.addAttribute("from", from);
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", "Not kept: " + e.getMessage());
        }
        return "redirect:/board";
    }

    private LocalDate day(String typed) {
        return TypedInput.date(
                typed, LocalDate.now(clock.withZone(office.operator().zone())));
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/board/away/{id}/end")
    String end(@PathVariable("id") UUID id, RedirectAttributes flash) {
        aways.remove(id);
        history.undo("away", id).tell(flash, "Taken away; jobs of those days are judged again.");
        return "redirect:/board";
    }

    /** What stands in the form. */
    public record Typed(UUID whose, String first, String last, String why) implements Serializable {
        static final Typed NOTHING = new Typed(null, "", "", "");
    }
}
