package yarrek.app.airspace;

import java.io.IOException;
import java.io.Serializable;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import java.util.zip.CRC32;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;
import yarrek.app.forms.Form;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.forms.TypedInput;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Undo;
import yarrek.app.page.Viewer;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.geo.ShapeText;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Finite;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.BrokenMapException;
import yarrek.formats.zones.ZoneFiles;

/** The map of zones and sites, the sources the zones come from, and the operator's own zones. */
@Controller
class AirspaceController {
    private static final int MOST_LISTED = 200;

    private final Airspace airspace;
    private final Sites sites;
    private final Office office;
    private final NoticeFeed notices;
    private final Clock clock;
    private final JsonMapper json;

    AirspaceController(
            Airspace airspace, Sites sites, Office office, NoticeFeed notices, Clock clock, JsonMapper json) {
        this.airspace = airspace;
        this.sites = sites;
        this.office = office;
        this.notices = notices;
        this.clock = clock;
        this.json = json;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace")
    String map(Model model) {
        model.addAttribute("sites", sites.sites());
        model.addAttribute("sources", airspace.sources());
        model.addAttribute("freshness", airspace.freshness());
        model.addAttribute("kinds", ZoneKind.values());
        model.addAttribute("zone", office.operator().zone());
        model.addAttribute("today", today());
        return "airspace/airspace";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping(value = "/airspace/scenery.json", produces = MediaType.APPLICATION_JSON_VALUE)
    @ResponseBody
    String scenery() {
        ObjectNode root = json.createObjectNode();
        root.set("scenery", airspace.scenery());
        var all = root.putArray("sites");
        for (Sites.SiteView s : sites.sites()) {
            ObjectNode n = all.addObject();
            n.put("id", s.id().toString());
            n.put("name", s.name());
            n.set("launch", Drawing.point(json, s.launch()));
            var patches = n.putArray("patches");
            for (Area.Patch p : s.area().coarse(2)) {
                var rings = patches.addArray();
                rings.add(Drawing.ring(json, p.outline()));
                p.holes().forEach(h -> rings.add(Drawing.ring(json, h)));
            }
        }
        return root.toString();
    }

    /** What is looked at; what is wrong in it is told in one sentence. */
    private Airspace.Sight sight(String box, String from, String to, String day, String hour, List<String> kinds) {
        String[] b = box.split(",");
        if (b.length != 4 || !Arrays.stream(b).allMatch(x -> x.matches("-?\\d{1,4}(\\.\\d{1,12})?"))) {
            throw new IllegalArgumentException("the box is south,west,north,east in degrees");
        }
        Set<ZoneKind> shown = EnumSet.noneOf(ZoneKind.class);
        kinds.forEach(k -> shown.add(ZoneKind.of(k)));
        return new Airspace.Sight(
                Double.parseDouble(b[0]),
                Double.parseDouble(b[1]),
                Double.parseDouble(b[2]),
                Double.parseDouble(b[3]),
                from.isBlank() ? null : TypedInput.metres(from),
                to.isBlank() ? null : TypedInput.metres(to),
                at(day, hour),
                shown);
    }

    private Instant at(String day, String hour) {
        if (day.isBlank()) {
            return null;
        }
        LocalDate d = TypedInput.date(day, today());
        LocalTime t = hour.isBlank() ? LocalTime.NOON : TypedInput.time(hour);
        return LocalDateTime.of(d, t).atZone(office.operator().zone()).toInstant();
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping(value = "/airspace/zones.json", produces = MediaType.APPLICATION_JSON_VALUE)
    @ResponseBody
    ResponseEntity<String> zones(
            @RequestParam("box") String box,
            @RequestParam(value = "from", defaultValue = "") String from,
            @RequestParam(value = "to", defaultValue = "") String to,
            @RequestParam(value = "day", defaultValue = "") String day,
            @RequestParam(value = "hour", defaultValue = "") String hour,
            @RequestParam(value = "kind", required = false) List<String> kinds) {
        try {
            return ResponseEntity.ok(airspace.drawn(
                            sight(box, from, to, day, hour, kinds == null ? List.of() : kinds),
                            office.operator().zone())
                    .toString());
        } catch (IllegalArgumentException | DateTimeException e) {
            return ResponseEntity.badRequest()
                    .body(json.createObjectNode().put("problem", e.getMessage()).toString());
        }
    }

    /** The same as a list. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/in-sight")
    String inSight(
            @RequestParam("box") String box,
            @RequestParam(value = "from", defaultValue = "") String from,
            @RequestParam(value = "to", defaultValue = "") String to,
            @RequestParam(value = "day", defaultValue = "") String day,
            @RequestParam(value = "hour", defaultValue = "") String hour,
            @RequestParam(value = "kind", required = false) List<String> kinds,
            Model model) {
        try {
            List<Zone> all = airspace.inSight(
                    sight(box, from, to, day, hour, kinds == null ? List.of() : kinds),
                    office.operator().zone());
            List<Zone> shown = all.subList(0, Math.min(all.size(), MOST_LISTED));
            model.addAttribute("all", all.size());
            model.addAttribute("zones", shown);
            model.addAttribute("sourceOf", airspace.sourceNames(shown));
        } catch (IllegalArgumentException | DateTimeException e) {
            model.addAttribute("problem", e.getMessage());
            model.addAttribute("zones", List.of());
            model.addAttribute("all", 0);
        }
        return "airspace/in-sight";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/zones.geojson")
    ResponseEntity<String> export() {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"zones.geojson\"")
                .contentType(MediaType.parseMediaType("application/geo+json"))
                .body(airspace.export());
    }

    // --- sources -----------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/sources")
    String sources(Model model) {
        model.addAttribute("sources", airspace.sources());
        model.addAttribute("form", sourceForm());
        model.addAttribute("zone", office.operator().zone());
        return "airspace/sources";
    }

    private static Form sourceForm() {
        return new Form("Sources of zones", "/airspace/sources", "/airspace")
                .text("name", "Name of the source", "an existing name replaces that source whole")
                .text("attribution", "Attribution", "as its publisher wants to be named")
                .text("publishedOn", "Edition of", "a date; empty: the day it is brought in")
                .text("staleDays", "Out of date after", "days; " + Airspace.STALE_DAYS + " unless you say otherwise")
                .select(
                        "kind",
                        "Zones without a kind are",
                        "for GeoJSON and KML that do not say",
                        Arrays.stream(ZoneKind.values())
                                .map(k -> new Form.Option(k.name(), k.words()))
                                .toList())
                .select(
                        "restriction",
                        "Zones that do not say ask for",
                        "",
                        List.of(
                                new Form.Option("", "nothing said: refuse the file"),
                                new Form.Option("PROHIBITED", "prohibited"),
                                new Form.Option("NEEDS_AUTHORISATION", "an authorisation"),
                                new Form.Option("CONDITIONAL", "a condition"),
                                new Form.Option("NO_RESTRICTION", "no restriction")))
                .ticks(
                        "options",
                        "",
                        "",
                        List.of(
                                new Form.Option("mend", "mend areas whose sides cross, and say so"),
                                new Form.Option("whole", "this source holds every zone and aerodrome of its ground")))
                .set("staleDays", Airspace.STALE_DAYS)
                .set("kind", ZoneKind.OTHER.name());
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sources")
    String bringIn(
            @RequestParam MultiValueMap<String, String> params,
            @RequestParam("file") MultipartFile file,
            Model model,
            RedirectAttributes flash)
            throws IOException {
        Form form = sourceForm().bind(params);
        Airspace.SourceDraft draft = new Airspace.SourceDraft(
                form.requiredText("name", 120),
                form.optionalText("attribution", 300),
                form.date("publishedOn", false, today()),
                Optional.ofNullable(form.whole("staleDays", 1, 36_500, true)).orElse(Airspace.STALE_DAYS),
                form.all("options").contains("whole"));
        String kind = form.choice("kind", true);
        String restriction = form.choice("restriction", false);
        if (file.isEmpty()) {
            form.problem("choose a file");
        }
        if (!form.hasErrors()) {
            try {
                Airspace.SourceView s = airspace.bringIn(
                        file.getBytes(),
                        String.valueOf(file.getOriginalFilename()),
                        draft,
                        new ZoneFiles.Settings(
                                ZoneKind.valueOf(kind),
                                Optional.ofNullable(restriction).map(ZoneMet.Restriction::valueOf),
                                form.all("options").contains("mend")),
                        Viewer.current().name());
                flash.addFlashAttribute("told", told(s));
                return "redirect:/airspace/sources/" + s.id();
            } catch (BrokenMapException e) {
                model.addAttribute("faults", e.problems());
                form.problem("Nothing was stored. The file has " + e.problems().size()
                        + (e.problems().size() == BrokenMapException.MOST_TOLD
                                ? " faults or more"
                                : e.problems().size() == 1 ? " fault" : " faults")
                        + ", named below.");
            } catch (BrokenFileException | IllegalArgumentException e) {
                form.problem("Nothing was stored: " + e.getMessage());
            }
        }
        model.addAttribute("sources", airspace.sources());
        model.addAttribute("zone", office.operator().zone());
        return form.page(model, "airspace/sources");
    }

    private static String told(Airspace.SourceView s) {
        return s.zones() + " zones on file from " + s.name() + " (" + s.format() + "): " + s.added() + " added, "
                + s.changed() + " changed, " + s.removed() + " removed";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/sources/{id}")
    String source(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("source", airspace.source(id));
        model.addAttribute("doubts", airspace.doubts(id));
        model.addAttribute("zone", office.operator().zone());
        return "airspace/source";
    }

    /** Says of a notice that was not understood whole what it means. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/doubts/{id}")
    String decide(
            @PathVariable("id") UUID id,
            @RequestParam("source") UUID source,
            @RequestParam(value = "decision", defaultValue = "") String decision,
            @RequestParam(value = "area", defaultValue = "") String area,
            @RequestParam(value = "reason", defaultValue = "") String reason,
            RedirectAttributes flash) {
        String back = "redirect:/airspace/sources/" + source;
        try {
            Doubts.Decision d = decision.equals("UNDO")
                    ? null
                    : java.util.Arrays.stream(Doubts.Decision.values())
                            .filter(x -> x.name().equals(decision))
                            .findFirst()
                            .orElseThrow(() -> new IllegalArgumentException("choose what the notice means"));
            if (d == Doubts.Decision.LEFT && reason.isBlank()) {
                throw new IllegalArgumentException("say why the notice does not concern you");
            }
            if (reason.length() > 1000) {
                throw new IllegalArgumentException("the reason has at most 1000 characters, got " + reason.length());
            }
            airspace.decide(
                    id,
                    d,
                    d == Doubts.Decision.AREA ? ShapeText.area(area) : null,
                    reason.strip(),
                    Viewer.current().name());
            flash.addFlashAttribute("told", d == null ? "The decision was taken back" : "Decided: " + d.words());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", "Nothing was decided: " + e.getMessage());
            flash.addFlashAttribute("typed", new Typed(id, decision, area, reason));
        }
        return back;
    }

    /** What was typed about a notice when it could not be stored. */
    public record Typed(UUID id, String decision, String area, String reason) implements Serializable {}

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sources/{id}/remove")
    String remove(@PathVariable("id") UUID id, RedirectAttributes flash) {
        String name = airspace.source(id).name();
        airspace.remove(id);
        flash.addFlashAttribute("told", name + " and its zones were taken out");
        return "redirect:/airspace/sources";
    }

    /** Asks the notice feed and puts what it holds in the place of what it held before. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sources/notices")
    String fetch(RedirectAttributes flash) {
        try {
            flash.addFlashAttribute("told", told(notices.fetch(Viewer.current().name())));
        } catch (BrokenFileException | IllegalStateException e) {
            flash.addFlashAttribute("problem", "Nothing was changed: " + e.getMessage());
        }
        return "redirect:/airspace/sources";
    }

    // --- own zones ---------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/own")
    String own(@RequestParam(value = "id", required = false) String id, Model model) {
        return Optional.ofNullable(id)
                .flatMap(airspace::zone)
                .map(this::filledOwn)
                .orElseGet(AirspaceController::ownForm)
                .page(model, "airspace/own");
    }

    /** A zone has no row of its own that counts its versions: what it says stands for that. */
    private Form filledOwn(Zone z) {
        ZoneId zone = office.operator().zone();
        Optional<Timetable.Period> when = z.times().periods().stream().findFirst();
        Form form = ownForm()
                .set("name", z.name())
                .set("kind", z.kind().name())
                .set("restriction", z.restriction().name())
                .set("area", ShapeText.write(z.area()))
                .set("lower", height(z.lower()))
                .set("upper", height(z.upper()))
                .set(
                        "bindsFrom",
                        z.bindsFromG().isPresent()
                                ? Finite.format(z.bindsFromG().getAsDouble()) + " g"
                                : "")
                .set("fromDay", day(when.flatMap(Timetable.Period::from), zone))
                // held through the last day, which ends where the next begins
                .set("toDay", day(when.flatMap(Timetable.Period::to).map(t -> t.minusNanos(1)), zone))
                .set("message", z.message())
                .set("authority", z.authority())
                .set("contact", z.contact());
        CRC32 sum = new CRC32();
        form.fields().forEach(f -> sum.update((form.raw(f.name()) + "\n").getBytes(StandardCharsets.UTF_8)));
        return form.version(sum.getValue());
    }

    private static String day(Optional<Instant> at, ZoneId zone) {
        return at.map(t -> t.atZone(zone).toLocalDate().toString()).orElse("");
    }

    private static String height(HeightLimit h) {
        return h.reference() == HeightLimit.Reference.NO_LIMIT ? "" : Finite.format(h.metres()) + " m";
    }

    private static Form ownForm() {
        return new Form("A zone of your own", "/airspace/own", "/airspace")
                .text("name", "Name", "")
                .select(
                        "kind",
                        "What it is",
                        "an unlisted strip, a private pad, a place closed for the day",
                        Arrays.stream(ZoneKind.values())
                                .map(k -> new Form.Option(k.name(), k.words()))
                                .toList())
                .select(
                        "restriction",
                        "It asks for",
                        "",
                        List.of(
                                new Form.Option("CONDITIONAL", "a condition"),
                                new Form.Option("NEEDS_AUTHORISATION", "an authorisation"),
                                new Form.Option("PROHIBITED", "prohibited"),
                                new Form.Option("NO_RESTRICTION", "nothing")))
                .text("lower", "From", "above ground, such as 30 m; empty: the ground")
                .text("upper", "Up to", "above ground; empty: no limit")
                .text("bindsFrom", "Binds from a take-off mass of", "such as 250 g; empty: any mass")
                .text("fromDay", "In force from", "a date; empty: always")
                .text("toDay", "Through", "a date; empty: no end")
                .text("authority", "Who answers for it", "")
                .text("contact", "How to reach them", "")
                .area("area", "Ground", "corners, or “circle 46.61, -17.89 radius 9 km”")
                .area("message", "What it asks", "in words for the crew");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/own")
    String saveOwn(@RequestParam MultiValueMap<String, String> params, Model model, RedirectAttributes flash) {
        Form form = ownForm().bind(params);
        String name = form.requiredText("name", 120);
        String kind = form.choice("kind", true);
        String restriction = form.choice("restriction", true);
        Double lower = height(form, "lower");
        Double upper = height(form, "upper");
        if (lower != null && upper != null && upper < lower) {
            form.error("upper", "the upper limit is below the lower");
        }
        var mass = form.mass("bindsFrom", false);
        LocalDate from = form.date("fromDay", false, today());
        LocalDate to = form.date("toDay", false, today());
        if (from != null && to != null && to.isBefore(from)) {
            form.error("toDay", "the last day is before the first");
        }
        Area area = area(form);
        ZoneId zone = office.operator().zone();
        return form.store(
                        () -> {
                            Optional<Form> stored = airspace.zone("OWN-" + name).map(this::filledOwn);
                            if (stored.isPresent() && form.getVersion() == -1) {
                                throw new IllegalArgumentException(
                                        "there is a zone of this name; open it on the map to change it, or type another name");
                            }
                            if (stored.isPresent() && stored.get().getVersion() != form.getVersion()) {
                                throw new LostUpdateException(stored.get().getVersion());
                            }
                            airspace.saveOwn(
                                    new Zone(
                                            "OWN-" + name,
                                            name,
                                            ZoneKind.valueOf(kind),
                                            Optional.empty(),
                                            ZoneMet.Restriction.valueOf(restriction),
                                            area,
                                            lower == null ? HeightLimit.SURFACE : HeightLimit.aboveGround(lower),
                                            upper == null ? HeightLimit.UNLIMITED : HeightLimit.aboveGround(upper),
                                            from == null && to == null
                                                    ? Timetable.ALWAYS
                                                    : Timetable.between(
                                                            from == null
                                                                    ? null
                                                                    : from.atStartOfDay(zone)
                                                                            .toInstant(),
                                                            to == null
                                                                    ? null
                                                                    : to.plusDays(1)
                                                                            .atStartOfDay(zone)
                                                                            .toInstant()),
                                            mass == null ? OptionalDouble.empty() : OptionalDouble.of(mass.toGrams()),
                                            form.optionalText("message", 1000),
                                            form.optionalText("authority", 200),
                                            form.optionalText("contact", 200)),
                                    Viewer.current().name());
                            flash.addFlashAttribute("told", "“" + name + "” is on the map");
                            return "redirect:/airspace";
                        },
                        () -> filledOwn(airspace.zone("OWN-" + name).orElseThrow()))
                .orElseGet(() -> form.page(model, "airspace/own"));
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/own/remove")
    String removeOwn(@RequestParam("id") String id, RedirectAttributes flash) {
        Form was = filledOwn(airspace.zone(id).orElseThrow(() -> new NotFoundException("zone")));
        airspace.removeOwn(id, Viewer.current().name());
        new Undo("/airspace/own", was.typed(), "Put it back").tell(flash, "“" + was.raw("name") + "” is off the map.");
        return "redirect:/airspace";
    }

    /** A height above ground, also as zones write it: "ground", "120 m above ground", "400 ft AGL", "unlimited". */
    private static Double height(Form form, String field) {
        String typed = form.raw(field).strip().toLowerCase(Locale.ROOT);
        String figure = typed.replaceAll("\\s*(above ground( level)?|agl)$", "");
        form.set(
                field,
                switch (figure) {
                    case "ground", "surface", "sfc", "gnd" -> "0 m";
                    case "unlimited" -> "";
                    default -> figure;
                });
        return form.metres(field, 0, 20_000);
    }

    private static Area area(Form form) {
        String typed = form.requiredText("area", 1_000_000);
        try {
            return typed.isEmpty() ? null : ShapeText.area(typed);
        } catch (IllegalArgumentException e) {
            form.error("area", e.getMessage());
            return null;
        }
    }
}
