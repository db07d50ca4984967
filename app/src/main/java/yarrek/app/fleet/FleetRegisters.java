package yarrek.app.fleet;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import yarrek.app.forms.Form;
import yarrek.app.forms.Register;
import yarrek.app.office.Office;
import yarrek.core.energy.Endurance;
import yarrek.core.judging.PackLasts;
import yarrek.core.units.Finite;
import yarrek.core.units.Mass;

/** The registers of the fleet as forms. */
@Component
public class FleetRegisters {
    private final Fleet fleet;
    private final Office office;
    private final Clock clock;

    FleetRegisters(Fleet fleet, Office office, Clock clock) {
        this.fleet = fleet;
        this.office = office;
        this.clock = clock;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    public Register<Fleet.AircraftView> aircraft() {
        return new Register<>(
                "aircraft",
                "aircraft",
                List.of(List.of("serial"), List.of("name")),
                List.of("name", "serial"),
                fleet::aircraft,
                Fleet.AircraftView::id,
                this::aircraftFields,
                FleetRegisters::fill,
                this::readAircraft);
    }

    public Register<Fleet.ModelView> models() {
        return new Register<>(
                "models",
                "aircraft models",
                List.of(List.of("name")),
                List.of("name"),
                fleet::models,
                Fleet.ModelView::id,
                this::modelsFields,
                FleetRegisters::fill,
                this::readModels);
    }

    public Register<Fleet.AccessoryView> accessories() {
        return new Register<>(
                "accessories",
                "accessories",
                List.of(List.of("name")),
                List.of("name"),
                fleet::accessories,
                Fleet.AccessoryView::id,
                this::accessoriesFields,
                FleetRegisters::fill,
                this::readAccessories);
    }

    public Register<Fleet.PackView> packs() {
        return new Register<>(
                "packs",
                "packs",
                List.of(List.of("serial"), List.of("label")),
                List.of("label", "serial"),
                fleet::packs,
                Fleet.PackView::id,
                this::packsFields,
                FleetRegisters::fill,
                this::readPacks);
    }

    public Register<Fleet.PackModelView> packModels() {
        return new Register<>(
                "pack-models",
                "pack models",
                List.of(List.of("name")),
                List.of("name"),
                fleet::packModels,
                Fleet.PackModelView::id,
                this::packModelsFields,
                FleetRegisters::fill,
                this::readPackModels);
    }

    /** What flies: an aircraft with a pack and what is on it. */
    public Register<Fleet.BuildView> builds() {
        return new Register<>(
                "builds",
                "builds",
                List.of(List.of("aircraft", "name")),
                List.of(),
                fleet::builds,
                Fleet.BuildView::id,
                this::buildsFields,
                FleetRegisters::fill,
                this::readBuilds);
    }

    private void buildsFields(Form form) {
        List<Form.Option> aircraft = new ArrayList<>(List.of(new Form.Option("", "choose")));
        fleet.aircraftNames().forEach((id, name) -> aircraft.add(new Form.Option(id.toString(), name)));
        List<Form.Option> packs = new ArrayList<>(List.of(new Form.Option("", "choose")));
        fleet.packModels().forEach(p -> packs.add(new Form.Option(p.id().toString(), p.name())));
        form.select("aircraft", "Aircraft", "", aircraft)
                .text("name", "Name", "such as “night, with strobe”")
                .select("pack", "Pack model", "", packs)
                .ticks(
                        "accessories",
                        "On it",
                        "",
                        fleet.accessories().stream()
                                .map(a -> new Form.Option(a.id().toString(), a.name()))
                                .toList());
    }

    private static void fill(Form form, Fleet.BuildView b) {
        form.set("aircraft", b.aircraft().id())
                .set("name", b.name())
                .set("pack", b.pack().id())
                .setAll(
                        "accessories",
                        b.accessoryIds().stream().map(UUID::toString).toList())
                .version(b.version());
    }

    private Supplier<UUID> readBuilds(Form form, UUID id) {
        UUID aircraft = form.id("aircraft", true);
        String name = form.requiredText("name", 80);
        UUID pack = form.id("pack", true);
        List<UUID> on = form.ids("accessories");
        return () -> {
            UUID build = id == null ? fleet.createBuild(aircraft, name, pack) : id;
            return fleet.changeBuild(build, id == null ? fleet.build(build).version() : form.getVersion(), pack, on)
                    .id();
        };
    }

    private void aircraftFields(Form form) {
        List<Form.Option> models = new ArrayList<>(List.of(new Form.Option("", "choose")));
        fleet.models().forEach(m -> models.add(new Form.Option(m.id().toString(), m.fullName())));
        form.group("The airframe")
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

    private static void fill(Form form, Fleet.AircraftView a) {
        form.set("name", a.name())
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
    }

    private Supplier<UUID> readAircraft(Form form, UUID id) {
        String name = form.requiredText("name", 80);
        String serial = form.requiredText("serial", 80);
        UUID modelId = form.id("model", true);
        LocalDate market = form.date("marketDate", false, today());
        LocalDate bought = form.date("boughtOn", false, today());
        Mass weighed = form.mass("weighed", false);
        Mass resolution = form.mass("resolution", weighed != null);
        LocalDate on = form.date("weighedOn", weighed != null, today());
        String scale = weighed != null ? form.requiredText("scale", 80) : form.optionalText("scale", 80);
        return () -> fleet.save(
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
    }

    /** Marks that a label may bear. */
    public static List<Form.Option> classMarks() {
        return Form.words(
                "choose", "none", "C0", "C1", "C2", "C3", "C4", "C5", "C6", "UK0", "UK1", "UK2", "UK3", "UK4", "UK5",
                "UK6");
    }

    /** What every model has to say of itself beside its masses. */
    public static void whatItIs(Form form) {
        remoteId(form);
        kind(form);
    }

    private static void remoteId(Form form) {
        form.select("remoteId", "Remote identification", "", Form.words("choose", "none", "module", "builtIn"));
    }

    private static void kind(Form form) {
        form.select("hasCamera", "Camera or other personal-data sensor", "", Form.words("choose", "yes", "no"))
                .select("privatelyBuilt", "Privately built", "", Form.words("choose", "yes", "no"))
                .select("isToy", "Toy by law", "", Form.words("choose", "yes", "no"));
    }

    private static final List<Form.Option> STATED = Stream.concat(
                    Stream.of(new Form.Option("", "choose")),
                    Stream.of(Endurance.Stated.values()).map(s -> new Form.Option(s.name(), s.words())))
            .toList();

    private void modelsFields(Form form) {
        form.group("The model")
                .text("maker", "Maker", "")
                .text("name", "Model", "")
                .select("classMark", "Class mark", "as on the label", classMarks())
                .fields(FleetRegisters::remoteId)
                .group("Masses")
                .text("airframeMass", "Airframe without pack", "such as 166.2 g")
                .text("tolerance", "Tolerance", "empty: 0.5 g, or 1 % above 500 g")
                .text("maxTakeoffMass", "Greatest take-off mass declared", "such as 900 g")
                .group("Maker's limits")
                .text("wind", "Wind", "such as 10.7 m/s")
                .text("tempMin", "Lowest temperature", "°C")
                .text("tempMax", "Highest temperature", "°C")
                .text("maxSpeed", "Level speed", "such as 16 m/s")
                .text("dimension", "Greatest dimension", "such as 0.35 m")
                .text("maxHeight", "Maker's greatest height", "above take-off, such as 500 m")
                .text("minutes", "Minutes of a full pack", "by the maker's leaflet, such as 34")
                .select("minutesStated", "Which are flown", "leaflets seldom say it loudly", STATED)
                .text("minutesWh", "With a pack of", "Wh; empty: that of each build")
                .group("What it is")
                .fields(FleetRegisters::kind)
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

    private static void fill(Form form, Fleet.ModelView a) {
        form.set("maker", a.maker())
                .set("name", a.name())
                .set("airframeMass", text(a.airframeMassG()))
                .set("tolerance", text(a.toleranceG()))
                .set("maxTakeoffMass", text(a.maxTakeoffMassG()))
                .set("classMark", a.classMark())
                .yesNo("privatelyBuilt", a.privatelyBuilt())
                .yesNo("hasCamera", a.hasCamera())
                .yesNo("isToy", a.isToy())
                .set("maxSpeed", number(a.maxLevelSpeedMps()))
                .set("dimension", number(a.dimensionM()))
                .set("maxHeight", number(a.maxHeightM()))
                .set("wind", number(a.windLimitMps()))
                .set("tempMin", number(a.temperatureMinC()))
                .set("tempMax", number(a.temperatureMaxC()))
                .set("remoteId", a.remoteId())
                .set("minutes", a.leaflet() == null ? "" : number(a.leaflet().minutes()))
                .set(
                        "minutesStated",
                        a.leaflet() == null ? "" : a.leaflet().stated().name())
                .set("minutesWh", a.leaflet() == null ? "" : number(a.leaflet().wh()))
                .setAll("lights", List.copyOf(a.lights()))
                .setAll("packs", a.packIds().stream().map(UUID::toString).toList())
                .version(a.version())
                .history("model", a.id());
    }

    private Supplier<UUID> readModels(Form form, UUID id) {
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
        Double height = form.metres("maxHeight", 1, 20_000);
        PackLasts.Leaflet leaflet = leaflet(form);
        Set<String> lights = new HashSet<>(form.all("lights"));
        Set<UUID> packs = new HashSet<>(form.ids("packs"));
        return () -> fleet.save(new Fleet.ModelView(
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
                height,
                remote,
                lights,
                leaflet,
                packs));
    }

    private static PackLasts.Leaflet leaflet(Form form) {
        Double minutes = form.number("minutes", "min", 1, 600, false);
        String stated = form.choice("minutesStated", false);
        Double wh = form.number("minutesWh", "Wh", 0.5, 20_000, false);
        if (form.raw("minutes").isEmpty() && (stated != null || wh != null)) {
            form.error("minutes", "say the minutes too, or leave how they are flown and the pack's Wh empty");
        }
        return minutes == null
                ? null
                : new PackLasts.Leaflet(
                        minutes, stated == null ? Endurance.Stated.NOT_KNOWN : Endurance.Stated.valueOf(stated), wh);
    }

    private void accessoriesFields(Form form) {
        form.text("name", "Name", "")
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

    private static void fill(Form form, Fleet.AccessoryView a) {
        form.set("name", a.name())
                .set("kind", a.kind())
                .set("mass", text(a.massG()))
                .set("tolerance", text(a.toleranceG()))
                .set("light", a.light())
                .version(a.version())
                .history("accessory", a.id());
    }

    private Supplier<UUID> readAccessories(Form form, UUID id) {
        String name = form.requiredText("name", 120);
        String kind = form.choice("kind", true);
        Mass mass = form.mass("mass", true);
        Mass tolerance = form.mass("tolerance", false);
        String light = form.choice("light", false);
        return () -> fleet.save(
                new Fleet.AccessoryView(id, form.getVersion(), name, kind, grams(mass), grams(tolerance), light));
    }

    private void packsFields(Form form) {
        List<Form.Option> models = new ArrayList<>(List.of(new Form.Option("", "choose")));
        fleet.packModels().forEach(m -> models.add(new Form.Option(m.id().toString(), m.name())));
        form.text("label", "Label", "what is written on it")
                .text("serial", "Serial number", "empty when there is none")
                .select("model", "Pack model", "", models)
                .text("boughtOn", "Bought on", "a date");
    }

    private static void fill(Form form, Fleet.PackView a) {
        form.set("label", a.label())
                .set("serial", a.serial())
                .set("model", a.model().id())
                .set("boughtOn", a.boughtOn())
                .version(a.version())
                .history("pack", a.id());
    }

    private Supplier<UUID> readPacks(Form form, UUID id) {
        String label = form.requiredText("label", 40);
        String serial = form.optionalText("serial", 80);
        UUID modelId = form.id("model", true);
        LocalDate bought = form.date("boughtOn", false, today());
        return () -> fleet.save(
                new Fleet.PackView(
                        id, form.getVersion(), label, serial.isEmpty() ? null : serial, null, bought, 0, 0, 0, 0),
                modelId);
    }

    private void packModelsFields(Form form) {
        form.text("name", "Name", "")
                .text("mass", "Mass", "such as 82.5 g")
                .text("tolerance", "Tolerance", "empty: 0.5 g, or 1 % above 500 g")
                .text("capacity", "Capacity", "mAh")
                .text("cells", "Cells in series", "a whole number")
                .text("nominal", "Nominal voltage", "V, of the whole pack");
    }

    private static void fill(Form form, Fleet.PackModelView a) {
        form.set("name", a.name())
                .set("mass", text(a.massG()))
                .set("tolerance", text(a.toleranceG()))
                .set("capacity", number(a.capacityMah()))
                .set("cells", a.cells())
                .set("nominal", number(a.nominalV()))
                .version(a.version())
                .history("pack-model", a.id());
    }

    private Supplier<UUID> readPackModels(Form form, UUID id) {
        String name = form.requiredText("name", 120);
        Mass mass = form.mass("mass", true);
        Mass tolerance = form.mass("tolerance", false);
        Double capacity = form.number("capacity", "mAh", 1, 1e6, true);
        Integer cells = form.whole("cells", 1, 24, true);
        Double nominal = form.number("nominal", "V", 1, 120, true);
        return () -> fleet.save(new Fleet.PackModelView(
                id, form.getVersion(), name, grams(mass), grams(tolerance), capacity, cells, nominal));
    }

    private static BigDecimal grams(Mass m) {
        return m == null ? null : BigDecimal.valueOf(m.toGrams());
    }

    private static String text(BigDecimal v) {
        return v == null ? "" : v.stripTrailingZeros().toPlainString();
    }

    private static String number(Double v) {
        return v == null ? "" : Finite.format(v);
    }
}
