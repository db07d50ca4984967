package yarrek.app.crew;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.forms.Form;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.core.paper.HolderStanding;

/** Pages of the crew. */
@Controller
class CrewController {

    private final Crew crew;
    private final Papers papers;
    private final Office office;
    private final CrewRegisters registers;

    CrewController(Crew crew, Papers papers, Office office, CrewRegisters registers) {
        this.crew = crew;
        this.papers = papers;
        this.office = office;
        this.registers = registers;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/crew")
    String crew(Model model) {
        Viewer viewer = Viewer.current();
        Map<UUID, HolderStanding> standings =
                papers.standings(crew.all().stream().map(Crew.PersonView::id).toList());
        List<Crew.PersonView> people = crew.all().stream() // stable: by name within
                .filter(p -> viewer.maySee(p.id()))
                .sorted(Comparator.comparing(p -> standings.get(p.id()), HolderStanding.MOST_PRESSING))
                .toList();
        model.addAttribute("standings", standings);
        model.addAttribute("people", people);
        model.addAttribute("operator", office.operator());
        model.addAttribute("operatorPapers", papers.of(List.of(office.operator().id())));
        model.addAttribute(
                "papers", papers.of(people.stream().map(Crew.PersonView::id).toList()));
        return "crew/crew";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/crew/{id}")
    String person(@PathVariable("id") UUID id, Model model) {
        Viewer.current().requireSight(id);
        Crew.PersonView p = crew.person(id);
        model.addAttribute("person", p);
        model.addAttribute("papers", papers.of(List.of(id)));
        return "crew/person";
    }

    private Form form(UUID id) {
        Crew.PersonView p = id == null ? null : crew.person(id);
        return registers
                .people()
                .form(
                        p == null ? "New member of the crew" : p.name(),
                        p == null ? "/crew/new" : "/crew/" + id + "/edit",
                        p == null ? "/crew" : "/crew/" + id,
                        p);
    }

    private String store(UUID id, MultiValueMap<String, String> params, Model model) {
        Form form = form(id).bind(params);
        Supplier<UUID> saving = registers.people().read().apply(form, id);
        return form.store(() -> "redirect:/crew/" + saving.get(), () -> form(id))
                .orElseGet(() -> form.page(model, "form"));
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/crew/new")
    String newPerson(Model model) {
        return form(null).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/crew/new")
    String create(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(null, params, model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/crew/{id}/edit")
    String edit(@PathVariable("id") UUID id, Model model) {
        Viewer.current().requireSight(id);
        return form(id).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/crew/{id}/edit")
    String change(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(id, params, model);
    }
}
