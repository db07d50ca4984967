package yarrek.app.airspace;

import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
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
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yarrek.app.forms.Form;
import yarrek.app.history.History;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.geo.ShapeText;
import yarrek.core.weather.Report;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.MapFeature;
import yarrek.formats.maps.MapFiles;

/** The editor of sites, their files, the directory, and the weather that is typed in. */
@Controller
class SitesController {
    private final Sites sites;
    private final Office office;
    private final Directory directory;
    private final Weather weather;
    private final WeatherStation station;
    private final Clock clock;
    private final JsonMapper json;
    private final Rulebook rulebook;
    private final History history;

    SitesController(
            Sites sites,
            Office office,
            Directory directory,
            Weather weather,
            WeatherStation station,
            Clock clock,
            JsonMapper json,
            Rulebook rulebook,
            History history) {
        this.history = history;
        this.sites = sites;
        this.office = office;
        this.directory = directory;
        this.weather = weather;
        this.station = station;
        this.clock = clock;
        this.json = json;
        this.rulebook = rulebook;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    // --- editor ------------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/sites/new")
    String newSite(Model model) {
        Office.OperatorView o = office.operator();
        Form form = SiteForm.of("New site", "/airspace/sites/new", "/airspace", rulebook.places())
                .set("jurisdiction", o.jurisdiction())
                .set("zone", o.zone().getId());
        return editor(form, List.of(), model);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sites/new")
    String create(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(
                SiteForm.of("New site", "/airspace/sites/new", "/airspace", rulebook.places())
                        .bind(params),
                params,
                null,
                model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/sites/{id}/edit")
    String edit(@PathVariable("id") UUID id, Model model) {
        return editor(form(id), SiteForm.rows(sites.site(id).features()), model);
    }

    private Form form(UUID id) {
        Sites.SiteView s = sites.site(id);
        Form form = SiteForm.of(s.name(), "/airspace/sites/" + id + "/edit", "/airspace/sites/" + id, rulebook.places())
                .version(s.version())
                .history("site", id);
        SiteForm.values(s).forEach(form::set);
        return form;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sites/{id}/edit")
    String change(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(form(id).bind(params), params, id, model);
    }

    private String store(Form form, MultiValueMap<String, String> params, UUID id, Model model) {
        List<SiteForm.Row> rows = SiteForm.rows(params);
        Sites.SiteView view = SiteForm.read(form, rows, id, today());
        return form.store(() -> "redirect:/airspace/sites/" + sites.save(view), () -> form(id))
                .orElseGet(() -> editor(form, rows, model));
    }

    private static String editor(Form form, List<SiteForm.Row> rows, Model model) {
        model.addAttribute("rows", rows);
        model.addAttribute("kinds", Sites.FeatureKind.values());
        model.addAttribute("knowns", Sites.Known.values());
        return form.page(model, "airspace/site-edit");
    }

    /**
     * A shape as typed, measured and made ready to draw: every figure the editor shows comes from here.
     *
     * @param as area, launch or shape
     */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping(value = "/airspace/shape", produces = MediaType.APPLICATION_JSON_VALUE)
    @ResponseBody
    String shape(
            @RequestParam("text") String text,
            @RequestParam(value = "as", defaultValue = "shape") String as,
            @RequestParam(value = "launch", defaultValue = "") String launch) {
        ObjectNode n = json.createObjectNode();
        try {
            if (as.equals("launch")) {
                Position p = PositionText.parse(text);
                points(n, List.of(p));
                ArrayNode ways = n.putArray("written");
                Arrays.stream(PositionText.Notation.values()).forEach(w -> ways.add(PositionText.format(p, w)));
            } else if (as.equals("area")) {
                area(n, text, launch);
            } else {
                ShapeText.Shape s = ShapeText.shape(text);
                if (s.area().isPresent()) {
                    area(n, text.strip().replaceFirst("(?i)^area", ""), launch);
                } else {
                    points(n, s.points());
                    if (s.points().size() > 1) {
                        n.put(
                                "figures",
                                String.format(
                                        Locale.UK,
                                        "length %,.1f m; bearing %.1f° at its start",
                                        Geodesy.lengthM(s.points()),
                                        Geodesy.bearingDeg(
                                                s.points().get(0), s.points().get(1))));
                    }
                }
            }
        } catch (IllegalArgumentException e) {
            n.put("problem", e.getMessage());
        }
        return n.toString();
    }

    private void points(ObjectNode n, List<Position> points) {
        ArrayNode all = n.putArray("points");
        points.forEach(p -> all.add(Drawing.point(json, p)));
    }

    private void area(ObjectNode n, String text, String launch) {
        List<Area.Patch> typed = ShapeText.patches(text);
        patches(n, typed);
        Area.Check check = Area.checkPatches(typed);
        if (!check.isValid()) {
            n.put("problem", check.fault());
            if (check.mended() != null) {
                ObjectNode mended = n.putObject("mended");
                mended.put("text", ShapeText.write(check.mended()));
                mended.put(
                        "words",
                        String.format(
                                Locale.UK,
                                "mended it would be %d piece%s of %,.0f m²",
                                check.mended().patches().size(),
                                check.mended().patches().size() == 1 ? "" : "s",
                                check.mended().figures().areaM2()));
            }
            return;
        }
        Area.Figures f = check.area().figures();
        String words = String.format(
                Locale.UK,
                "%,.0f m² (%.2f ha); around it %,.0f m; greatest extent %,.0f m",
                f.areaM2(),
                f.areaM2() / 10_000,
                f.perimeterM(),
                f.extentM());
        try {
            Position p = PositionText.parse(launch);
            words += String.format(
                    Locale.UK,
                    "; farthest corner from the launch point %,.0f m",
                    check.area().farthestCornerM(p));
        } catch (IllegalArgumentException e) {
            // no launch point yet: nothing to measure from
        }
        n.put("figures", words);
    }

    private void patches(ObjectNode n, List<Area.Patch> patches) {
        ArrayNode all = n.putArray("patches");
        for (Area.Patch p : patches) {
            if (p.outline().isEmpty()) {
                continue;
            }
            ArrayNode rings = all.addArray();
            rings.add(Drawing.ring(json, p.outline()));
            p.holes().stream().filter(h -> !h.isEmpty()).forEach(h -> rings.add(Drawing.ring(json, h)));
        }
    }

    // --- files -------------------------------------------------------------------------------------------------------

    private static final String AREA = "flight area";
    private static final String LAUNCH = "launch";

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/sites/{id}/site.{format}")
    ResponseEntity<byte[]> export(@PathVariable("id") UUID id, @PathVariable("format") String format) {
        Sites.SiteView s = sites.site(id);
        MapFiles.Format f = MapFiles.Format.of(format);
        List<MapFeature> features = new ArrayList<>();
        features.add(new MapFeature(
                1,
                s.name() + ", flight area",
                Map.of("kind", AREA),
                List.of(),
                s.area().patches()));
        features.add(new MapFeature(2, s.name() + ", launch", Map.of("kind", LAUNCH), List.of(s.launch()), List.of()));
        for (Sites.Feature x : s.features()) {
            ShapeText.Shape shape = x.drawn();
            Map<String, String> p = new LinkedHashMap<>();
            p.put("kind", x.kind().words());
            p.put("sort", x.sort());
            if (x.heightM() != null) {
                p.put("heightM", yarrek.core.units.Finite.format(x.heightM()));
            }
            p.put("known", x.known() == null ? "" : x.known().words());
            p.put("note", x.note());
            features.add(new MapFeature(
                    features.size() + 1,
                    x.name(),
                    p,
                    shape.points(),
                    shape.area().map(Area::patches).orElse(List.of())));
        }
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"" + s.name().replaceAll("[^A-Za-z0-9-]+", "-") + "." + f.ending()
                                + "\"")
                .contentType(MediaType.parseMediaType(f.mediaType()))
                .body(MapFiles.write(f, s.name(), features));
    }

    /** Opens the editor with what a file holds put in; nothing is stored until it is saved there. */
    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping({"/airspace/sites/{id}/import", "/airspace/sites/import"})
    String bringIn(
            @PathVariable(value = "id", required = false) UUID id,
            @RequestParam("file") MultipartFile file,
            Model model,
            RedirectAttributes flash)
            throws IOException {
        List<MapFeature> features;
        try {
            features = MapFiles.read(file.getBytes());
        } catch (BrokenFileException e) {
            flash.addFlashAttribute(
                    "problem", "Nothing was taken from " + file.getOriginalFilename() + ": " + e.getMessage());
            return id == null ? "redirect:/airspace" : "redirect:/airspace/sites/" + id;
        }
        Form form;
        List<SiteForm.Row> rows = new ArrayList<>();
        if (id == null) {
            Office.OperatorView o = office.operator();
            form = SiteForm.of("New site", "/airspace/sites/new", "/airspace", rulebook.places())
                    .set("jurisdiction", o.jurisdiction())
                    .set("zone", o.zone().getId());
        } else {
            Sites.SiteView s = sites.site(id);
            form = SiteForm.of(s.name(), "/airspace/sites/" + id + "/edit", "/airspace/sites/" + id, rulebook.places())
                    .version(s.version())
                    .history("site", s.id());
            SiteForm.values(s).forEach(form::set);
            rows.addAll(SiteForm.rows(s.features()));
        }
        take(features, form, rows);
        model.addAttribute(
                "told",
                features.size() + " features read from " + file.getOriginalFilename()
                        + ". Nothing is stored yet: look at them here, then save.");
        return editor(form, rows, model);
    }

    private static void take(List<MapFeature> features, Form form, List<SiteForm.Row> rows) {
        List<Area.Patch> patches = new ArrayList<>();
        for (MapFeature f : features) {
            String kind = f.properties().getOrDefault("kind", "");
            boolean ring = f.isLine()
                    && f.points().get(0).equals(f.points().get(f.points().size() - 1))
                    && f.points().size() > 3;
            Sites.FeatureKind thing = Sites.FeatureKind.of(kind);
            if (kind.equals(LAUNCH) && !f.isArea() && !f.isLine()) {
                form.set("launch", f.points().get(0));
            } else if (kind.equals(AREA) && ring && f.name().endsWith(", hole") && !patches.isEmpty()) {
                Area.Patch last = patches.remove(patches.size() - 1);
                List<List<Position>> holes = new ArrayList<>(last.holes());
                holes.add(f.points());
                patches.add(new Area.Patch(last.outline(), holes));
            } else if (kind.equals(AREA) && ring) {
                patches.add(new Area.Patch(f.points(), List.of()));
            } else if (f.isArea() && (kind.equals(AREA) || thing == null)) {
                patches.addAll(f.patches());
            } else {
                Map<String, String> p = f.properties();
                rows.add(new SiteForm.Row(
                        (thing == null ? Sites.FeatureKind.HAZARD : thing).name(),
                        p.getOrDefault("sort", ""),
                        f.name(),
                        p.containsKey("heightM") ? p.get("heightM") + " m" : p.getOrDefault("height", ""),
                        f.isArea()
                                ? "area " + written(f.patches())
                                : written(f.points(), ring && thing != null && thing != Sites.FeatureKind.MEASURE),
                        p.getOrDefault("known", "").toUpperCase(Locale.ROOT),
                        p.getOrDefault("note", "")));
            }
        }
        if (!patches.isEmpty()) {
            form.set("area", written(patches));
        }
    }

    private static String written(List<Area.Patch> patches) {
        List<String> blocks = new ArrayList<>();
        for (Area.Patch p : patches) {
            blocks.add(written(p.outline(), false));
            p.holes().forEach(h -> blocks.add("hole " + written(h, false)));
        }
        return String.join("\n\n", blocks);
    }

    private static String written(List<Position> points, boolean area) {
        return (area ? "area " : "")
                + String.join("; ", points.stream().map(Position::toString).toList());
    }

    // --- directory ---------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/directory")
    String directory(Model model) {
        model.addAttribute("entries", directory.all());
        model.addAttribute("old", today().minusMonths(12));
        return "airspace/directory";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/directory/new")
    String newEntry(Model model) {
        return Directory.form("Somebody to call", "/airspace/directory/new").page(model, "form");
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/directory/new")
    String createEntry(@RequestParam MultiValueMap<String, String> params, Model model) {
        return storeEntry(
                Directory.form("Somebody to call", "/airspace/directory/new").bind(params), null, model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/directory/{id}")
    String editEntry(@PathVariable("id") UUID id, Model model) {
        return entryForm(id).page(model, "form");
    }

    private Form entryForm(UUID id) {
        Directory.Entry e = directory.entry(id);
        Form form = Directory.form(e.name(), "/airspace/directory/" + id)
                .version(e.version())
                .history("directory", id);
        Directory.values(e).forEach(form::set);
        return form;
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/directory/{id}")
    String changeEntry(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return storeEntry(entryForm(id).bind(params), id, model);
    }

    private String storeEntry(Form form, UUID id, Model model) {
        Directory.Entry e = Directory.read(form, id, today());
        return form.store(
                        () -> {
                            directory.save(e);
                            return "redirect:/airspace/directory";
                        },
                        () -> entryForm(id))
                .orElseGet(() -> form.page(model, "form"));
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/directory/{id}/remove")
    String removeEntry(@PathVariable("id") UUID id, RedirectAttributes flash) {
        directory.remove(id);
        history.undo("directory", id).tell(flash, "Taken out of the directory.");
        return "redirect:/airspace/directory";
    }

    // --- weather -----------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sites/{id}/weather/report")
    String report(
            @PathVariable("id") UUID id,
            @RequestParam("text") String text,
            @RequestParam(value = "back", defaultValue = "") String back,
            RedirectAttributes flash) {
        try {
            var r = weather.addMetar(
                    id, text, "report typed in", Viewer.current().name());
            flash.addFlashAttribute(
                    "told",
                    "Report of " + r.station() + " read."
                            + (r.kept().isEmpty()
                                    ? ""
                                    : " Kept and not reckoned with: " + String.join(" ", r.kept()) + "."));
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
            flash.addFlashAttribute("typedReport", text);
        }
        return "redirect:" + back(id, back);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sites/{id}/weather/typed")
    String typed(
            @PathVariable("id") UUID id,
            @RequestParam MultiValueMap<String, String> params,
            @RequestParam(value = "back", defaultValue = "") String back,
            RedirectAttributes flash) {
        try {
            weather.add(
                    id,
                    TypedWeather.isForecast(
                                    params, clock.instant(), sites.site(id).zone(), today())
                            ? Report.Kind.FORECAST
                            : Report.Kind.TYPED,
                    "",
                    List.of(TypedWeather.read(params, sites.site(id).zone(), today())),
                    "typed in",
                    Viewer.current().name());
        } catch (IllegalArgumentException e) {
            flash.addFlashAttribute("problem", e.getMessage());
            flash.addFlashAttribute("typedWeather", params.toSingleValueMap());
        }
        return "redirect:" + back(id, back);
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sites/{id}/weather/fetch")
    String fetch(
            @PathVariable("id") UUID id,
            @RequestParam(value = "back", defaultValue = "") String back,
            RedirectAttributes flash) {
        try {
            flash.addFlashAttribute(
                    "told", station.fetch(sites.site(id), Viewer.current().name()));
        } catch (IllegalStateException | IllegalArgumentException e) {
            flash.addFlashAttribute("problem", "Nothing was taken: " + e.getMessage());
        }
        return "redirect:" + back(id, back);
    }

    /** Only pages of our own are gone back to. */
    private static String back(UUID site, String back) {
        return back.matches("/[a-z0-9/-]{1,120}") && !back.startsWith("//")
                ? back + "#weather"
                : "/airspace/sites/" + site + "#weather";
    }
}
