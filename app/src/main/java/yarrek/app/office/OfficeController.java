package yarrek.app.office;

import java.time.ZoneId;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.forms.Form;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;

/** Pages of the office, and signing in. */
@Controller
class OfficeController {
    private final Office office;
    private final Tokens tokens;
    private final Rulebook rulebook;

    OfficeController(Office office, Tokens tokens, Rulebook rulebook) {
        this.tokens = tokens;
        this.rulebook = rulebook;
        this.office = office;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/office")
    String office(Model model) {
        model.addAttribute("operator", office.operator());
        model.addAttribute("users", office.users());
        model.addAttribute("tokens", tokens.of(Viewer.current(), true));
        return "office/office";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/tokens/{id}/revoke")
    String revoke(@PathVariable("id") UUID id) {
        tokens.revoke(id, Viewer.current());
        return "redirect:/office";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/users/{id}/enabled")
    String enable(@PathVariable("id") UUID id, @RequestParam("value") boolean value) {
        if (!id.equals(Viewer.current().userId())) {
            office.setEnabled(id, value);
        }
        return "redirect:/office";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/office/operator")
    String editOperator(Model model) {
        return filledOperator().page(model, "form");
    }

    private Form filledOperator() {
        Office.OperatorView o = office.operator();
        return operatorForm()
                .set("name", o.name())
                .set("jurisdiction", o.jurisdiction())
                .set("zone", o.zone().getId())
                .set("phone", o.phone())
                .version(o.version())
                .history("operator", o.id());
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/operator")
    String saveOperator(@RequestParam MultiValueMap<String, String> params, Model model) {
        Form form = operatorForm().bind(params);
        String name = form.requiredText("name", 160);
        String jurisdiction = form.choice("jurisdiction", true);
        String zone = form.requiredText("zone", 64);
        if (!ZoneId.getAvailableZoneIds().contains(zone)) {
            form.error("zone", "there is no such time zone; type one such as Atlantic/Azores");
        }
        String phone = form.optionalText("phone", 40);
        return form.store(
                        () -> {
                            office.saveOperator(form.getVersion(), name, jurisdiction, ZoneId.of(zone), phone);
                            return "redirect:/office";
                        },
                        this::filledOperator)
                .orElseGet(() -> form.page(model, "form"));
    }

    private Form operatorForm() {
        return new Form("The operator", "/office/operator", "/office")
                .text("name", "Name", "")
                .select(
                        "jurisdiction",
                        "Home jurisdiction",
                        "whose law holds at home, the state where it is in a union",
                        Form.choices("choose", rulebook.places()))
                .text("zone", "Time zone", "such as Atlantic/Azores")
                .text("phone", "Telephone", "in international form");
    }
}
