package yarrek.app.fleet;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
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
import yarrek.app.web.LostUpdateException;
import yarrek.core.units.Mass;

/** Pages of the fleet. Translates between HTTP and {@link Fleet}; decides nothing itself. */
@Controller
class FleetController {

    private final Fleet fleet;
    private final Papers papers;
    private final Office office;
    private final Clock clock;

    FleetController(Fleet fleet, Papers papers, Office office, Clock clock) {
        this.fleet = fleet;
        this.papers = papers;
        this.office = office;
        this.clock = clock;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    @GetMapping("/fleet")
    String fleet(Model model) {
        List<Fleet.AircraftView> aircraft = fleet.aircraft();
        model.addAttribute("aircraft", aircraft);
        model.addAttribute("models", fleet.models());
        model.addAttribute("accessories", fleet.accessories());
        Map<UUID, List<Fleet.BuildView>> builds = fleet.builds().stream()
                .collect(Collectors.groupingBy(b -> b.aircraft().id()));
        model.addAttribute("builds", builds);
        model.addAttribute("today", today());
        return "fleet/fleet";
    }

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

    @PostMapping("/fleet/aircraft/{id}/builds")
    String createBuild(
            @PathVariable("id") UUID id, @RequestParam("name") String name, @RequestParam("pack") UUID pack) {
        String clean = name.isBlank()
                ? "build"
                : name.strip().substring(0, Math.min(120, name.strip().length()));
        return "redirect:/fleet/builds/" + fleet.createBuild(id, clean, pack);
    }

    @GetMapping("/fleet/builds/{id}")
    String build(@PathVariable("id") UUID id, Model model) {
        fillBuild(id, model);
        return "fleet/build";
    }

    /** Changes what is on the build; htmx puts the answer in place of the panel. */
    @PostMapping("/fleet/builds/{id}")
    String changeBuild(
            @PathVariable("id") UUID id,
            @RequestParam("version") long version,
            @RequestParam("pack") UUID pack,
            @RequestParam(value = "accessory", required = false) List<UUID> accessories,
            Model model) {
        try {
            fleet.changeBuild(id, version, pack, accessories == null ? List.of() : accessories);
        } catch (LostUpdateException e) {
            model.addAttribute(
                    "conflict",
                    "Somebody else changed this build while you had it open. It is shown here as it stands now; make your change again if it is still wanted.");
        }
        fillBuild(id, model);
        return "fleet/build :: panel";
    }

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

    private void fillBuild(UUID id, Model model) {
        Fleet.BuildView b = fleet.build(id);
        Office.OperatorView operator = office.operator();
        model.addAttribute("build", b);
        model.addAttribute("weighed", fleet.weighed(id, operator.jurisdiction()).orElse(null));
        model.addAttribute("accessories", fleet.accessories());
        model.addAttribute(
                "packModels",
                fleet.packModels().stream()
                        .filter(p -> b.aircraft().model().packIds().contains(p.id())
                                || p.id().equals(b.pack().id()))
                        .toList());
    }

    // --- registers ---------------------------------------------------------------------------------------------------

    @GetMapping("/fleet/aircraft/new")
    String newAircraft(Model model) {
        model.addAttribute("form", aircraftForm("New aircraft", "/fleet/aircraft/new", "/fleet"));
        return "form";
    }

    @PostMapping("/fleet/aircraft/new")
    String createAircraft(@RequestParam MultiValueMap<String, String> params, Model model) {
        return storeAircraft(
                aircraftForm("New aircraft", "/fleet/aircraft/new", "/fleet").bind(params), null, model);
    }

    @GetMapping("/fleet/aircraft/{id}/edit")
    String editAircraft(@PathVariable("id") UUID id, Model model) {
        Fleet.AircraftView a = fleet.aircraft(id);
        Form form = aircraftForm(a.name(), "/fleet/aircraft/" + id + "/edit", "/fleet/aircraft/" + id)
                .set("name", a.name())
                .set("serial", a.serial())
                .set("model", a.model().id())
                .set("marketDate", a.marketDate())
                .set("boughtOn", a.boughtOn())
                .yesNo("remoteIdActive", a.remoteIdActive())
                .yesNo("geoAwarenessCurrent", a.geoAwarenessCurrent())
                .set("weighed", text(a.weighedG()))
                .set("resolution", text(a.weighedResolutionG()))
                .set("weighedOn", a.weighedOn())
                .set("scale", a.weighedScale())
                .version(a.version());
        return form.page(model, "form");
    }

    @PostMapping("/fleet/aircraft/{id}/edit")
    String changeAircraft(
            @PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return storeAircraft(
                aircraftForm(fleet.aircraft(id).name(), "/fleet/aircraft/" + id + "/edit", "/fleet/aircraft/" + id)
                        .bind(params),
                id,
                model);
    }

    private Form aircraftForm(String title, String action, String back) {
        List<Form.Option> models = new ArrayList<>(List.of(new Form.Option("", "choose")));
        fleet.models().forEach(m -> models.add(new Form.Option(m.id().toString(), m.fullName())));
        return new Form(title, action, back)
                .group("The airframe")
                .text("name", "Name", "as the crew says it")
                .text("serial", "Serial number", "of the airframe, not of controller or pack")
                .select("model", "Model", "", models)
                .text("marketDate", "First placed on the market", "this unit, not the model; a date")
                .text("boughtOn", "Bought on", "a date; starts the clock of its duties")
                .group("Remote identification and zone data")
                .select(
                        "remoteIdActive",
                        "Remote identification active",
                        "loaded with the operator's number and broadcasting",
                        Form.yesNo())
                .select("geoAwarenessCurrent", "Zone data on the aircraft current", "", Form.yesNo())
                .group("Its own weighing, airframe alone")
                .text("weighed", "The scale shows", "such as 166.2 g; empty uses the maker's figure")
                .text("resolution", "The scale's step", "such as 0.1 g")
                .text("scale", "Scale", "which one")
                .text("weighedOn", "On", "a date");
    }

    private String storeAircraft(Form form, UUID id, Model model) {
        String name = form.requiredText("name", 80);
        String serial = form.requiredText("serial", 80);
        UUID modelId = form.id("model", true);
        LocalDate market = form.date("marketDate", false, today());
        LocalDate bought = form.date("boughtOn", false, today());
        Mass weighed = form.mass("weighed", false);
        Mass resolution = form.mass("resolution", weighed != null);
        LocalDate on = form.date("weighedOn", weighed != null, today());
        String scale = weighed != null ? form.requiredText("scale", 80) : form.optionalText("scale", 80);
        return form.store(() -> {
                    UUID saved = fleet.save(
                            new Fleet.AircraftView(
                                    id,
                                    form.getVersion(),
                                    name,
                                    serial,
                                    null,
                                    market,
                                    bought,
                                    grams(weighed),
                                    grams(resolution),
                                    on,
                                    scale.isEmpty() ? null : scale,
                                    form.yesNo("remoteIdActive"),
                                    form.yesNo("geoAwarenessCurrent"),
                                    0,
                                    0),
                            modelId);
                    return "redirect:/fleet/aircraft/" + saved;
                })
                .orElseGet(() -> form.page(model, "form"));
    }

    @GetMapping("/fleet/models/new")
    String newModel(Model model) {
        model.addAttribute("form", modelForm("New aircraft model", "/fleet/models/new"));
        return "form";
    }

    @PostMapping("/fleet/models/new")
    String createModel(@RequestParam MultiValueMap<String, String> params, Model model) {
        return storeModel(modelForm("New aircraft model", "/fleet/models/new").bind(params), null, model);
    }

    @GetMapping("/fleet/models/{id}")
    String editModel(@PathVariable("id") UUID id, Model model) {
        Fleet.ModelView m = fleet.model(id);
        model.addAttribute(
                "form",
                modelForm(m.fullName(), "/fleet/models/" + id)
                        .set("maker", m.maker())
                        .set("name", m.name())
                        .set("airframeMass", text(m.airframeMassG()))
                        .set("tolerance", text(m.toleranceG()))
                        .set("maxTakeoffMass", text(m.maxTakeoffMassG()))
                        .set("classMark", m.classMark())
                        .yesNo("privatelyBuilt", m.privatelyBuilt())
                        .yesNo("hasCamera", m.hasCamera())
                        .yesNo("isToy", m.isToy())
                        .set("maxSpeed", m.maxLevelSpeedMps())
                        .set("dimension", m.dimensionM())
                        .set("wind", m.windLimitMps())
                        .set("tempMin", m.temperatureMinC())
                        .set("tempMax", m.temperatureMaxC())
                        .set("remoteId", m.remoteId())
                        .setAll("lights", List.copyOf(m.lights()))
                        .setAll(
                                "packs",
                                m.packIds().stream().map(UUID::toString).toList())
                        .version(m.version()));
        return "form";
    }

    @PostMapping("/fleet/models/{id}")
    String changeModel(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return storeModel(
                modelForm(fleet.model(id).fullName(), "/fleet/models/" + id).bind(params), id, model);
    }

    private Form modelForm(String title, String action) {
        return new Form(title, action, "/fleet")
                .group("The model")
                .text("maker", "Maker", "")
                .text("name", "Model", "")
                .select(
                        "classMark",
                        "Class mark",
                        "as on the label",
                        Form.words(
                                "choose", "none", "C0", "C1", "C2", "C3", "C4", "C5", "C6", "UK0", "UK1", "UK2", "UK3",
                                "UK4", "UK5", "UK6"))
                .select("remoteId", "Remote identification", "", Form.words("choose", "none", "module", "builtIn"))
                .group("Masses")
                .text("airframeMass", "Airframe without pack", "such as 166.2 g")
                .text("tolerance", "Tolerance", "empty: 0.5 g, or 1 % above 500 g")
                .text("maxTakeoffMass", "Greatest take-off mass declared", "such as 0.9 kg")
                .group("Maker's limits")
                .text("wind", "Wind", "such as 10.7 m/s")
                .text("tempMin", "Lowest temperature", "°C")
                .text("tempMax", "Highest temperature", "°C")
                .text("maxSpeed", "Level speed", "such as 16 m/s")
                .text("dimension", "Greatest dimension", "such as 0.35 m")
                .group("What it is")
                .select("hasCamera", "Camera or other personal-data sensor", "", Form.words("choose", "yes", "no"))
                .select("privatelyBuilt", "Privately built", "", Form.words("choose", "yes", "no"))
                .select("isToy", "Toy by law", "", Form.words("choose", "yes", "no"))
                .ticks(
                        "lights",
                        "Lights built in",
                        "",
                        List.of(
                                new Form.Option("position", "position"),
                                new Form.Option("greenFlashing", "green flashing"),
                                new Form.Option("antiCollision3SM", "anti-collision, 3 statute miles")))
                .ticks(
                        "packs",
                        "Packs that fit",
                        "",
                        fleet.packModels().stream()
                                .map(p -> new Form.Option(p.id().toString(), p.name()))
                                .toList());
    }

    private String storeModel(Form form, UUID id, Model model) {
        String maker = form.requiredText("maker", 120);
        String name = form.requiredText("name", 120);
        String mark = form.choice("classMark", true);
        String remote = form.choice("remoteId", true);
        Mass airframe = form.mass("airframeMass", true);
        Mass tolerance = form.mass("tolerance", false);
        Mass max = form.mass("maxTakeoffMass", false);
        form.choice("hasCamera", true);
        form.choice("privatelyBuilt", true);
        form.choice("isToy", true);
        Double wind = form.speed("wind");
        Double speed = form.speed("maxSpeed");
        Double min = form.number("tempMin", "°C", -80, 60, false);
        Double top = form.number("tempMax", "°C", -20, 90, false);
        Double dimension = form.metres("dimension", 0.01, 20);
        Set<String> lights = new HashSet<>(form.all("lights"));
        Set<UUID> packs = new HashSet<>(form.ids("packs"));
        return form.store(() -> {
                    fleet.save(new Fleet.ModelView(
                            id,
                            form.getVersion(),
                            maker,
                            name,
                            grams(airframe),
                            grams(tolerance),
                            grams(max),
                            mark,
                            form.yesNo("privatelyBuilt"),
                            form.yesNo("hasCamera"),
                            form.yesNo("isToy"),
                            speed,
                            dimension,
                            wind,
                            min,
                            top,
                            remote,
                            lights,
                            packs));
                    return "redirect:/fleet";
                })
                .orElseGet(() -> form.page(model, "form"));
    }

    @GetMapping("/fleet/accessories/new")
    String newAccessory(Model model) {
        model.addAttribute("form", accessoryForm("New accessory", "/fleet/accessories/new"));
        return "form";
    }

    @PostMapping("/fleet/accessories/new")
    String createAccessory(@RequestParam MultiValueMap<String, String> params, Model model) {
        return storeAccessory(
                accessoryForm("New accessory", "/fleet/accessories/new").bind(params), null, model);
    }

    @GetMapping("/fleet/accessories/{id}")
    String editAccessory(@PathVariable("id") UUID id, Model model) {
        Fleet.AccessoryView a = fleet.accessory(id);
        model.addAttribute(
                "form",
                accessoryForm(a.name(), "/fleet/accessories/" + id)
                        .set("name", a.name())
                        .set("kind", a.kind())
                        .set("mass", text(a.massG()))
                        .set("tolerance", text(a.toleranceG()))
                        .set("light", a.light())
                        .version(a.version()));
        return "form";
    }

    @PostMapping("/fleet/accessories/{id}")
    String changeAccessory(
            @PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return storeAccessory(
                accessoryForm(fleet.accessory(id).name(), "/fleet/accessories/" + id)
                        .bind(params),
                id,
                model);
    }

    private static Form accessoryForm(String title, String action) {
        return new Form(title, action, "/fleet")
                .text("name", "Name", "")
                .select(
                        "kind",
                        "Kind",
                        "",
                        Form.words(
                                "choose", "card", "filter", "guards", "light", "float", "legs", "tracker", "payload",
                                "other"))
                .text("mass", "Mass", "such as 1.2 g")
                .text("tolerance", "Tolerance", "empty: 0.5 g, or 1 % above 500 g")
                .select(
                        "light",
                        "Counts as light",
                        "",
                        Form.words("none", "position", "greenFlashing", "antiCollision3SM"));
    }

    private String storeAccessory(Form form, UUID id, Model model) {
        String name = form.requiredText("name", 120);
        String kind = form.choice("kind", true);
        Mass mass = form.mass("mass", true);
        Mass tolerance = form.mass("tolerance", false);
        String light = form.choice("light", false);
        return form.store(() -> {
                    fleet.save(new Fleet.AccessoryView(
                            id, form.getVersion(), name, kind, grams(mass), grams(tolerance), light));
                    return "redirect:/fleet";
                })
                .orElseGet(() -> form.page(model, "form"));
    }

    // --- packs -------------------------------------------------------------------------------------------------------

    @GetMapping("/packs")
    String packs(Model model) {
        model.addAttribute("packs", fleet.packs());
        model.addAttribute("packModels", fleet.packModels());
        return "fleet/packs";
    }

    @GetMapping("/packs/new")
    String newPack(Model model) {
        model.addAttribute("form", packForm("New pack", "/packs/new"));
        return "form";
    }

    @PostMapping("/packs/new")
    String createPack(@RequestParam MultiValueMap<String, String> params, Model model) {
        return storePack(packForm("New pack", "/packs/new").bind(params), null, model);
    }

    @GetMapping("/packs/{id}")
    String editPack(@PathVariable("id") UUID id, Model model) {
        Fleet.PackView p = fleet.pack(id);
        model.addAttribute(
                "form",
                packForm("Pack " + p.label(), "/packs/" + id)
                        .set("label", p.label())
                        .set("serial", p.serial())
                        .set("model", p.model().id())
                        .set("boughtOn", p.boughtOn())
                        .version(p.version()));
        return "form";
    }

    @PostMapping("/packs/{id}")
    String changePack(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return storePack(
                packForm("Pack " + fleet.pack(id).label(), "/packs/" + id).bind(params), id, model);
    }

    private Form packForm(String title, String action) {
        List<Form.Option> models = new ArrayList<>(List.of(new Form.Option("", "choose")));
        fleet.packModels().forEach(m -> models.add(new Form.Option(m.id().toString(), m.name())));
        return new Form(title, action, "/packs")
                .text("label", "Label", "what is written on it")
                .text("serial", "Serial number", "empty when there is none")
                .select("model", "Pack model", "", models)
                .text("boughtOn", "Bought on", "a date");
    }

    private String storePack(Form form, UUID id, Model model) {
        String label = form.requiredText("label", 40);
        String serial = form.optionalText("serial", 80);
        UUID modelId = form.id("model", true);
        LocalDate bought = form.date("boughtOn", false, today());
        return form.store(() -> {
                    fleet.save(
                            new Fleet.PackView(
                                    id,
                                    form.getVersion(),
                                    label,
                                    serial.isEmpty() ? null : serial,
                                    null,
                                    bought,
                                    0,
                                    0,
                                    0,
                                    0),
                            modelId);
                    return "redirect:/packs";
                })
                .orElseGet(() -> form.page(model, "form"));
    }

    @GetMapping("/packs/models/new")
    String newPackModel(Model model) {
        model.addAttribute("form", packModelForm("New pack model", "/packs/models/new"));
        return "form";
    }

    @PostMapping("/packs/models/new")
    String createPackModel(@RequestParam MultiValueMap<String, String> params, Model model) {
        return storePackModel(
                packModelForm("New pack model", "/packs/models/new").bind(params), null, model);
    }

    @GetMapping("/packs/models/{id}")
    String editPackModel(@PathVariable("id") UUID id, Model model) {
        Fleet.PackModelView m = fleet.packModel(id);
        model.addAttribute(
                "form",
                packModelForm(m.name(), "/packs/models/" + id)
                        .set("name", m.name())
                        .set("mass", text(m.massG()))
                        .set("tolerance", text(m.toleranceG()))
                        .set("capacity", yarrek.core.units.Finite.format(m.capacityMah()))
                        .set("cells", m.cells())
                        .set("nominal", yarrek.core.units.Finite.format(m.nominalV()))
                        .version(m.version()));
        return "form";
    }

    @PostMapping("/packs/models/{id}")
    String changePackModel(
            @PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return storePackModel(
                packModelForm(fleet.packModel(id).name(), "/packs/models/" + id).bind(params), id, model);
    }

    private static Form packModelForm(String title, String action) {
        return new Form(title, action, "/packs")
                .text("name", "Name", "")
                .text("mass", "Mass", "such as 82.5 g")
                .text("tolerance", "Tolerance", "empty: 0.5 g, or 1 % above 500 g")
                .text("capacity", "Capacity", "mAh")
                .text("cells", "Cells in series", "a whole number")
                .text("nominal", "Nominal voltage", "V, of the whole pack");
    }

    private String storePackModel(Form form, UUID id, Model model) {
        String name = form.requiredText("name", 120);
        Mass mass = form.mass("mass", true);
        Mass tolerance = form.mass("tolerance", false);
        Double capacity = form.number("capacity", "mAh", 1, 1e6, true);
        Integer cells = form.whole("cells", 1, 24, true);
        Double nominal = form.number("nominal", "V", 1, 120, true);
        return form.store(() -> {
                    fleet.save(new Fleet.PackModelView(
                            id, form.getVersion(), name, grams(mass), grams(tolerance), capacity, cells, nominal));
                    return "redirect:/packs";
                })
                .orElseGet(() -> form.page(model, "form"));
    }

    private static BigDecimal grams(Mass m) {
        return m == null ? null : BigDecimal.valueOf(m.toGrams());
    }

    private static String text(BigDecimal v) {
        return v == null ? "" : v.stripTrailingZeros().toPlainString();
    }
}
