package yarrek.app.fleet;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.forms.Form;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.forms.Register;
import yarrek.app.history.History;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.papers.Papers;
import yarrek.core.paper.HolderStanding;
import yarrek.core.units.Mass;

/** Pages of the fleet. Translates between HTTP and {@link Fleet}; decides nothing itself. */
@Controller
class FleetController {

    private final Fleet fleet;
    private final FleetRegisters registers;
    private final Papers papers;
    private final Office office;
    private final Clock clock;
    private final History history;

    FleetController(Fleet fleet, FleetRegisters registers, Papers papers, Office office, Clock clock, History history) {
        this.history = history;
        this.fleet = fleet;
        this.registers = registers;
        this.papers = papers;
        this.office = office;
        this.clock = clock;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet")
    String fleet(Model model) {
        Map<UUID, HolderStanding> standings = papers.standings(
                fleet.aircraft().stream().map(Fleet.AircraftView::id).toList());
        List<Fleet.AircraftView> aircraft = fleet.aircraft().stream() // stable: by name within
                .sorted(Comparator.comparing(a -> standings.get(a.id()), HolderStanding.MOST_PRESSING))
                .toList();
        model.addAttribute("standings", standings);
        model.addAttribute("aircraft", aircraft);
        model.addAttribute("models", fleet.models());
        model.addAttribute("accessories", fleet.accessories());
        Map<UUID, List<Fleet.BuildView>> builds = fleet.builds().stream()
                .collect(Collectors.groupingBy(b -> b.aircraft().id()));
        model.addAttribute("builds", builds);
        model.addAttribute("today", today());
        return "fleet/fleet";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/aircraft/{id}")
    String aircraft(@PathVariable("id") UUID id, Model model) {
        Fleet.AircraftView a = fleet.aircraft(id);
        model.addAttribute("aircraft", a);
        model.addAttribute("builds", fleet.buildsOf(id));
        model.addAttribute("papers", papers.of(List.of(id)));
        model.addAttribute(
                "packModels",
                fleet.packModels().stream()
                        .filter(p -> a.model().packIds().contains(p.id()))
                        .toList());
        return "fleet/aircraft";
    }

    // --- weigh -------------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/aircraft/{id}/builds")
    String createBuild(
            @PathVariable("id") UUID id, @RequestParam("name") String name, @RequestParam("pack") UUID pack) {
        return "redirect:/fleet/builds/" + fleet.createBuild(id, buildName(name), pack);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/builds/{id}")
    String build(@PathVariable("id") UUID id, Model model) {
        fillBuild(fleet.build(id), model);
        return "fleet/build";
    }

    /** What other parts would make of the build; nothing is stored. htmx puts the answer in place of the panel. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/fleet/builds/{id}/try")
    String tryBuild(
            @PathVariable("id") UUID id,
            @RequestParam("pack") UUID pack,
            @RequestParam(value = "accessory", defaultValue = "") List<UUID> accessories,
            Model model) {
        fillBuild(fleet.tried(id, pack, accessories), model);
        return "fleet/build :: panel";
    }

    /** What was tried becomes a build of its own. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/builds/{id}/new")
    String newBuild(
            @PathVariable("id") UUID id,
            @RequestParam("name") String name,
            @RequestParam("pack") UUID pack,
            @RequestParam(value = "accessory", defaultValue = "") List<UUID> accessories,
            Model model) {
        try {
            return "redirect:/fleet/builds/" + fleet.buildFrom(id, buildName(name), pack, accessories);
        } catch (IllegalArgumentException e) {
            model.addAttribute("conflict", "Nothing was stored yet: " + e.getMessage() + ". Call it something else.");
            fillBuild(fleet.tried(id, pack, accessories), model);
            return "fleet/build";
        }
    }

    private static String buildName(String typed) {
        String name = typed.strip();
        return name.isEmpty() ? "build" : name.substring(0, Math.min(120, name.length()));
    }

    /** Changes what is on the build. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/builds/{id}")
    String changeBuild(
            @PathVariable("id") UUID id,
            @RequestParam("version") long version,
            @RequestParam("pack") UUID pack,
            @RequestParam(value = "accessory", defaultValue = "") List<UUID> accessories,
            Model model,
            RedirectAttributes flash) {
        try {
            fleet.changeBuild(id, version, pack, accessories);
            history.undo("build", id).tell(flash, "Kept; its open jobs are judged by it.");
            return "redirect:/fleet/builds/" + id;
        } catch (LostUpdateException e) {
            model.addAttribute(
                    "conflict",
                    "Somebody else changed this build while you had it open. What you tried is shown beside it as it stands now.");
            fillBuild(fleet.tried(id, pack, accessories), model);
            return "fleet/build";
        }
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/builds/{id}/weighings")
    String weigh(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        Form form = weighForm(id).bind(params);
        LocalDate on = form.date("on", true, today());
        String scale = form.requiredText("scale", 80);
        Mass mass = form.mass("mass", true);
        Mass resolution = form.mass("resolution", true);
        if (mass != null && mass.compareTo(Mass.ZERO) <= 0) {
            form.error("mass", "must be more than 0 g");
        }
        if (form.hasErrors()) {
            return form.page(model, "form");
        }
        fleet.weigh(id, on, scale, mass, resolution);
        return "redirect:/fleet/builds/" + id;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/builds/{id}/weighings/new")
    String newWeighing(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("form", weighForm(id).set("on", today()).set("resolution", "0.1 g"));
        return "form";
    }

    private static Form weighForm(UUID id) {
        return new Form("Weigh the build as it stands", "/fleet/builds/" + id + "/weighings", "/fleet/builds/" + id)
                .text("mass", "The scale shows", "such as 249.7 g")
                .text("resolution", "The scale's step", "such as 0.1 g")
                .text("scale", "Scale", "which one")
                .text("on", "On", "a date");
    }

    /** @param b as it is stored, or as it is tried */
    private void fillBuild(Fleet.BuildView b, Model model) {
        Fleet.BuildView stored = fleet.build(b.id());
        Office.OperatorView operator = office.operator();
        model.addAttribute("stored", stored);
        model.addAttribute("tried", !b.carriesWhat(stored));
        model.addAttribute("build", b);
        model.addAttribute("weighed", fleet.weighed(b, operator.jurisdiction()).orElse(null));
        model.addAttribute("accessories", fleet.accessories());
        model.addAttribute(
                "packModels",
                fleet.packModels().stream()
                        .filter(p -> b.aircraft().model().packIds().contains(p.id())
                                || p.id().equals(b.pack().id()))
                        .toList());
    }

    // --- registers ---------------------------------------------------------------------------------------------------

    private static <V> String store(
            Register<V> register,
            UUID id,
            Function<UUID, Form> filled,
            MultiValueMap<String, String> params,
            Function<UUID, String> then,
            Model model) {
        Form form = filled.apply(id).bind(params);
        Supplier<UUID> saving = register.read().apply(form, id);
        return form.store(() -> "redirect:" + then.apply(saving.get()), () -> filled.apply(id))
                .orElseGet(() -> form.page(model, "form"));
    }

    private Form aircraftForm(UUID id) {
        Fleet.AircraftView a = id == null ? null : fleet.aircraft(id);
        return registers
                .aircraft()
                .form(
                        a == null ? "New aircraft" : a.name(),
                        a == null ? "/fleet/aircraft/new" : "/fleet/aircraft/" + id + "/edit",
                        a == null ? "/fleet" : "/fleet/aircraft/" + id,
                        a);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/aircraft/new")
    String newAircraft(Model model) {
        return aircraftForm(null).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/aircraft/new")
    String createAircraft(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.aircraft(), null, this::aircraftForm, params, a -> "/fleet/aircraft/" + a, model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/aircraft/{id}/edit")
    String editAircraft(@PathVariable("id") UUID id, Model model) {
        return aircraftForm(id).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/aircraft/{id}/edit")
    String changeAircraft(
            @PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.aircraft(), id, this::aircraftForm, params, a -> "/fleet/aircraft/" + a, model);
    }

    private Form modelsForm(UUID id) {
        Fleet.ModelView a = id == null ? null : fleet.model(id);
        return registers
                .models()
                .form(
                        a == null ? "New aircraft model" : a.fullName(),
                        "/fleet/models/" + (a == null ? "new" : id),
                        "/fleet",
                        a);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/models/new")
    String newModel(Model model) {
        return modelsForm(null).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/models/new")
    String createModel(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.models(), null, this::modelsForm, params, a -> "/fleet", model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/models/{id}")
    String editModel(@PathVariable("id") UUID id, Model model) {
        return modelsForm(id).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/models/{id}")
    String changeModel(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.models(), id, this::modelsForm, params, a -> "/fleet", model);
    }

    private Form accessoriesForm(UUID id) {
        Fleet.AccessoryView a = id == null ? null : fleet.accessory(id);
        return registers
                .accessories()
                .form(
                        a == null ? "New accessory" : a.name(),
                        "/fleet/accessories/" + (a == null ? "new" : id),
                        "/fleet",
                        a);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/accessories/new")
    String newAccessory(Model model) {
        return accessoriesForm(null).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/accessories/new")
    String createAccessory(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.accessories(), null, this::accessoriesForm, params, a -> "/fleet", model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/fleet/accessories/{id}")
    String editAccessory(@PathVariable("id") UUID id, Model model) {
        return accessoriesForm(id).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/fleet/accessories/{id}")
    String changeAccessory(
            @PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.accessories(), id, this::accessoriesForm, params, a -> "/fleet", model);
    }

    // --- packs -------------------------------------------------------------------------------------------------------

    private Form packsForm(UUID id) {
        Fleet.PackView a = id == null ? null : fleet.pack(id);
        return registers
                .packs()
                .form(a == null ? "New pack" : "Pack " + a.label(), "/packs/" + (a == null ? "new" : id), "/packs", a);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/packs/new")
    String newPack(Model model) {
        return packsForm(null).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/packs/new")
    String createPack(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.packs(), null, this::packsForm, params, a -> "/packs", model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/packs/{id}")
    String editPack(@PathVariable("id") UUID id, Model model) {
        return packsForm(id).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/packs/{id}")
    String changePack(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.packs(), id, this::packsForm, params, a -> "/packs", model);
    }

    private Form packModelsForm(UUID id) {
        Fleet.PackModelView a = id == null ? null : fleet.packModel(id);
        return registers
                .packModels()
                .form(
                        a == null ? "New pack model" : a.name(),
                        "/packs/models/" + (a == null ? "new" : id),
                        "/packs",
                        a);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/packs/models/new")
    String newPackModel(Model model) {
        return packModelsForm(null).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/packs/models/new")
    String createPackModel(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.packModels(), null, this::packModelsForm, params, a -> "/packs", model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/packs/models/{id}")
    String editPackModel(@PathVariable("id") UUID id, Model model) {
        return packModelsForm(id).page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/packs/models/{id}")
    String changePackModel(
            @PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(registers.packModels(), id, this::packModelsForm, params, a -> "/packs", model);
    }
}
