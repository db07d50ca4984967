package yarrek.app.rulebook;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import yarrek.core.rulebook.Vocabulary;

/** Pages of the rulebook: packs, rules, words. */
@Controller
class RulebookController {
    private final Rulebook rulebook;

    RulebookController(Rulebook rulebook) {
        this.rulebook = rulebook;
    }

    @GetMapping("/rulebook")
    String rules(Model model) {
        model.addAttribute("packs", rulebook.packs());
        return "rulebook/rules";
    }

    @GetMapping("/rulebook/words")
    String words(Model model) {
        model.addAttribute("words", Vocabulary.all());
        return "rulebook/words";
    }
}
