package yarrek.app.whatif;

import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yarrek.app.airspace.Sites;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.OperationFit;
import yarrek.core.rulebook.Vocabulary;

/** "Which category am I in, and why": a build, a pilot, a place and a purpose. */
@Controller
class CategoryController {
    private final Changes changes;
    private final Rulebook rulebook;
    private final Fleet fleet;
    private final Crew crew;
    private final Sites sites;

    CategoryController(Changes changes, Rulebook rulebook, Fleet fleet, Crew crew, Sites sites) {
        this.changes = changes;
        this.rulebook = rulebook;
        this.fleet = fleet;
        this.crew = crew;
        this.sites = sites;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/rulebook/category")
    String category(
            @RequestParam(value = "build", required = false) UUID build,
            @RequestParam(value = "pilot", required = false) UUID pilot,
            @RequestParam(value = "site", required = false) UUID site,
            @RequestParam(value = "purpose", required = false) String purpose,
            @RequestParam(value = "law", required = false) String law,
            Model model) {
        Viewer viewer = Viewer.current();
        model.addAttribute("builds", fleet.builds());
        model.addAttribute(
                "people", crew.all().stream().filter(p -> viewer.maySee(p.id())).toList());
        model.addAttribute("sites", sites.sites());
        model.addAttribute("laws", rulebook.jurisdictions());
        model.addAttribute("build", build);
        model.addAttribute("pilot", pilot);
        model.addAttribute("site", site);
        model.addAttribute("purpose", purpose);
        model.addAttribute("law", law);
        if (build != null && site != null) {
            if (pilot != null) {
                viewer.requireSight(pilot);
            }
            String place = law == null || law.isBlank() ? sites.site(site).jurisdiction() : law;
            Facts facts = changes
                    .factsFor(build, pilot, site, List.of("work", "recreation").contains(purpose) ? purpose : null)
                    .toBuilder()
                    .word("jurisdiction", place, "chosen")
                    .build();
            FactDefinition classMass = Vocabulary.define("classMassG");
            facts.get(classMass.name())
                    .filter(c -> facts.get("takeoffMassG")
                            .map(t -> !t.value().equals(c.value()))
                            .orElse(true))
                    .ifPresent(c -> model.addAttribute(
                            "classMass",
                            "Where a law goes by the declared mass, this build counts as "
                                    + c.value().show(classMass) + " (" + c.source() + ")."));
            model.addAttribute("place", place);
            model.addAttribute(
                    "weighed", fleet.weighed(fleet.build(build), place).orElse(null));
            model.addAttribute(
                    "fits",
                    rulebook.packOf(place).map(p -> OperationFit.of(facts, p)).orElse(List.of()));
        }
        return "whatif/category";
    }
}
