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
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.Form;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;

/** Pages of the office, and signing in. */
@Controller
class OfficeController {
    private final Office office;
    private final Rulebook rulebook;

    OfficeController(Office office, Rulebook rulebook) {
        this.rulebook = rulebook;
        this.office = office;
    }

    @OpenTo(OpenTo.Whom.ANYBODY)
    @GetMapping("/login")
    String login() {
        return "login";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/office")
    String office(Model model) {
        model.addAttribute("operator", office.operator());
        model.addAttribute("users", office.users());
        model.addAttribute("tokens", office.tokens());
        return "office/office";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/tokens")
    String token(@RequestParam("name") String name, RedirectAttributes flash) {
        String clean = name.isBlank()
                ? "unnamed"
                : name.strip().substring(0, Math.min(80, name.strip().length()));
        flash.addFlashAttribute("newToken", office.createToken(Viewer.current().userId(), clean));
        return "redirect:/office";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/tokens/{id}/revoke")
    String revoke(@PathVariable("id") UUID id) {
        office.revokeToken(id);
        return "redirect:/office";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/office/users/new")
    String newUser(Model model) {
        model.addAttribute("form", userForm());
        return "form";
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/users/new")
    String createUser(@RequestParam MultiValueMap<String, String> params, Model model) {
        Form form = userForm().bind(params);
        String login = form.requiredText("login", 64);
        String name = form.requiredText("name", 120);
        String role = form.choice("role", true);
        if (!form.hasErrors()) {
            try {
                office.createUser(login, name, form.raw("password"), Viewer.Role.valueOf(role), null);
                return "redirect:/office";
            } catch (IllegalArgumentException e) {
                form.problem(e.getMessage());
            }
        }
        form.set("password", "");
        return form.page(model, "form");
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
        Office.OperatorView o = office.operator();
        model.addAttribute(
                "form",
                operatorForm()
                        .set("name", o.name())
                        .set("jurisdiction", o.jurisdiction())
                        .set("zone", o.zone().getId())
                        .set("phone", o.phone()));
        return "form";
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
        if (form.hasErrors()) {
            return form.page(model, "form");
        }
        office.saveOperator(name, jurisdiction, ZoneId.of(zone), phone);
        return "redirect:/office";
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

    private static Form userForm() {
        return new Form("New login", "/office/users/new", "/office")
                .text("login", "Login", "")
                .text("name", "Name", "")
                .select("role", "Role", "what it may do", Form.words("choose", "MANAGER", "PILOT", "READER"))
                .password("password", "Password", "at least 10 characters");
    }
}
