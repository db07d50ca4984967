package yarrek.app.crew;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import yarrek.app.forms.Form;
import yarrek.app.office.Office;
import yarrek.app.office.Passwords;
import yarrek.app.office.SecondFactor;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;

/** Logins as the manager keeps them: to whom each belongs, what it may do, a way in for who has lost theirs. */
@Controller
class LoginsController {
    private final Office office;
    private final Passwords passwords;
    private final SecondFactor second;
    private final Crew crew;

    LoginsController(Office office, Passwords passwords, SecondFactor second, Crew crew) {
        this.office = office;
        this.passwords = passwords;
        this.second = second;
        this.crew = crew;
    }

    private Form fields(Form form) {
        return form.text("name", "Name", "")
                .select("role", "Role", "what it may do", Form.words("choose", "MANAGER", "PILOT", "READER"))
                .select("person", "Belongs to", "a pilot sees what belongs to this member of the crew", people());
    }

    private List<Form.Option> people() {
        return Form.choices(
                "nobody of the crew",
                crew.names().entrySet().stream()
                        .sorted(Map.Entry.comparingByValue(Comparator.naturalOrder()))
                        .collect(
                                java.util.LinkedHashMap::new,
                                (m, e) -> m.put(e.getKey().toString(), e.getValue()),
                                Map::putAll));
    }

    private Form fresh() {
        return fields(new Form("New login", "/office/users/new", "/office").text("login", "Login", ""))
                .password("password", "Password", Passwords.HINT);
    }

    private static UUID person(Form form) {
        String id = form.choice("person", false);
        return id == null || id.isEmpty() ? null : UUID.fromString(id);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/office/users/new")
    String newUser(Model model) {
        return fresh().page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/users/new")
    String createUser(@RequestParam MultiValueMap<String, String> params, Model model) {
        Form form = fresh().bind(params);
        String login = form.requiredText("login", 64);
        String name = form.requiredText("name", 120);
        String role = form.choice("role", true);
        UUID person = person(form);
        if (!form.hasErrors()) {
            try {
                office.createUser(login, name, form.raw("password"), Viewer.Role.valueOf(role), person);
                return "redirect:/office";
            } catch (IllegalArgumentException e) {
                form.problem(e.getMessage());
            }
        }
        form.set("password", "");
        return form.page(model, "form");
    }

    private Form form(Office.UserRow u) {
        return fields(new Form("Login " + u.login(), "/office/users/" + u.id(), "/office"))
                .set("name", u.name())
                .set("role", u.role().name())
                .set("person", u.personId() == null ? "" : u.personId().toString())
                .version(u.version());
    }

    private String page(Office.UserRow u, Form form, Model model) {
        model.addAttribute("user", u);
        model.addAttribute("secondOn", second.isOn(u.id()));
        model.addAttribute("own", u.id().equals(Viewer.current().userId()));
        return form.page(model, "crew/login");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @GetMapping("/office/users/{id}")
    String user(@PathVariable("id") UUID id, Model model) {
        Office.UserRow u = office.user(id);
        return page(u, form(u), model);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/users/{id}")
    String change(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        Office.UserRow u = office.user(id);
        Form form = form(u).bind(params);
        String name = form.requiredText("name", 120);
        String role = form.choice("role", true);
        UUID person = person(form);
        if (id.equals(Viewer.current().userId()) && !u.role().name().equals(role)) {
            form.error("role", "nobody takes the manager's role from themselves; have another manager do it");
        }
        return form.store(
                        () -> {
                            office.changeUser(id, form.getVersion(), name, Viewer.Role.valueOf(role), person);
                            return "redirect:/office";
                        },
                        () -> form(office.user(id)))
                .orElseGet(() -> page(u, form, model));
    }

    /** A link to hand over; it is shown once and holds a day. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/users/{id}/new-password")
    String link(@PathVariable("id") UUID id, RedirectAttributes flash) {
        flash.addFlashAttribute(
                "link", ServletUriComponentsBuilder.fromCurrentContextPath().toUriString() + passwords.link(id));
        return "redirect:/office/users/" + id;
    }

    /** For whoever has lost telephone and paper. Their sessions end, since it may be somebody else who asks. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/office/users/{id}/second-factor-off")
    String secondFactorOff(@PathVariable("id") UUID id) {
        if (!id.equals(Viewer.current().userId())) {
            second.off(id);
            office.endSessions(id);
        }
        return "redirect:/office/users/" + id;
    }
}
