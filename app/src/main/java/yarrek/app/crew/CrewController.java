package yarrek.app.crew;

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
import yarrek.app.office.Office;
import yarrek.app.papers.Papers;
import yarrek.app.web.Form;
import yarrek.app.web.Viewer;

/** Pages of the crew. */
@Controller
class CrewController {

    private final Crew crew;
    private final Papers papers;
    private final Office office;
    private final Clock clock;

    CrewController(Crew crew, Papers papers, Office office, Clock clock) {
        this.crew = crew;
        this.papers = papers;
        this.office = office;
        this.clock = clock;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    @GetMapping("/crew")
    String crew(Model model) {
        Viewer viewer = Viewer.current();
        List<Crew.PersonView> people =
                crew.all().stream().filter(p -> viewer.maySee(p.id())).toList();
        model.addAttribute("people", people);
        model.addAttribute("operator", office.operator());
        model.addAttribute("operatorPapers", papers.of(List.of(office.operator().id())));
        model.addAttribute(
                "papers", papers.of(people.stream().map(Crew.PersonView::id).toList()));
        return "crew/crew";
    }

    @GetMapping("/crew/{id}")
    String person(@PathVariable("id") UUID id, Model model) {
        Viewer.current().requireSight(id);
        Crew.PersonView p = crew.person(id);
        model.addAttribute("person", p);
        model.addAttribute("papers", papers.of(List.of(id)));
        return "crew/person";
    }

    @GetMapping("/crew/new")
    String newPerson(Model model) {
        model.addAttribute("form", form("New member of the crew", "/crew/new", "/crew"));
        return "form";
    }

    @PostMapping("/crew/new")
    String create(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(form("New member of the crew", "/crew/new", "/crew").bind(params), null, model);
    }

    @GetMapping("/crew/{id}/edit")
    String edit(@PathVariable("id") UUID id, Model model) {
        Viewer.current().requireSight(id);
        Crew.PersonView p = crew.person(id);
        model.addAttribute(
                "form",
                form(p.name(), "/crew/" + id + "/edit", "/crew/" + id)
                        .set("name", p.name())
                        .set("bornOn", p.bornOn())
                        .set("phone", p.phone())
                        .version(p.version()));
        return "form";
    }

    @PostMapping("/crew/{id}/edit")
    String change(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(
                form(crew.person(id).name(), "/crew/" + id + "/edit", "/crew/" + id)
                        .bind(params),
                id,
                model);
    }

    private static Form form(String title, String action, String back) {
        return new Form(title, action, back)
                .text("name", "Name", "")
                .text("bornOn", "Born on", "a date; decides the age")
                .text("phone", "Telephone", "in international form");
    }

    private String store(Form form, UUID id, Model model) {
        String name = form.requiredText("name", 120);
        LocalDate born = form.date("bornOn", false, today());
        if (born != null && born.isAfter(today())) {
            form.error("bornOn", "that day is still to come");
        }
        String phone = form.optionalText("phone", 40);
        return form.store(() -> {
                    return "redirect:/crew/" + crew.save(id, form.getVersion(), name, born, phone);
                })
                .orElseGet(() -> form.page(model, "form"));
    }
}
