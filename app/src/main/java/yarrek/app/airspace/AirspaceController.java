package yarrek.app.airspace;

import java.io.IOException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.springframework.http.MediaType;
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
import yarrek.app.office.Office;
import yarrek.app.web.Form;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.Numbers;

/** The map and the sites. */
@Controller
class AirspaceController {
    private final Airspace airspace;
    private final Office office;

    AirspaceController(Airspace airspace, Office office) {
        this.airspace = airspace;
        this.office = office;
    }

    @GetMapping("/airspace")
    String map(Model model) {
        model.addAttribute("sites", airspace.sites());
        model.addAttribute("zones", airspace.zones());
        model.addAttribute("asOf", airspace.zonesAsOf().orElse(null));
        model.addAttribute("zone", office.operator().zone());
        return "airspace/airspace";
    }

    @GetMapping(value = "/airspace/map.json", produces = MediaType.APPLICATION_JSON_VALUE)
    @ResponseBody
    String mapData() {
        return airspace.map().toString();
    }

    @PostMapping("/airspace/zones")
    String bringIn(@RequestParam("file") MultipartFile file, RedirectAttributes flash) throws IOException {
        try {
            int n = airspace.bringIn(file.getBytes(), file.getOriginalFilename());
            flash.addFlashAttribute("told", n + " zones brought in from " + file.getOriginalFilename());
        } catch (BrokenFileException | IllegalArgumentException e) {
            flash.addFlashAttribute("problem", "Nothing was stored: " + e.getMessage());
        }
        return "redirect:/airspace";
    }

    @GetMapping("/airspace/sites/new")
    String newSite(Model model) {
        Office.OperatorView o = office.operator();
        model.addAttribute(
                "form",
                siteForm("New site", "/airspace/sites/new")
                        .set("jurisdiction", o.jurisdiction())
                        .set("zone", o.zone().getId()));
        return "airspace/site-form";
    }

    @PostMapping("/airspace/sites/new")
    String createSite(@RequestParam MultiValueMap<String, String> params, Model model) {
        return store(siteForm("New site", "/airspace/sites/new").bind(params), null, model);
    }

    @GetMapping("/airspace/sites/{id}")
    String editSite(@PathVariable("id") UUID id, Model model) {
        Airspace.SiteView s = airspace.site(id);
        model.addAttribute(
                "form",
                siteForm(s.name(), "/airspace/sites/" + id)
                        .set("name", s.name())
                        .set("launch", s.launch())
                        .set("area", SiteEntity.text(s.corners()))
                        .set("jurisdiction", s.jurisdiction())
                        .set("zone", s.zone().getId())
                        .set("relief", s.reliefM() == null ? "" : yarrek.core.units.Finite.format(s.reliefM()) + " m")
                        .set(
                                "builtUp",
                                s.builtUpDistanceM() == null
                                        ? ""
                                        : yarrek.core.units.Finite.format(s.builtUpDistanceM()) + " m")
                        .yesNo("overWater", s.overWater())
                        .set("notes", s.notes())
                        .version(s.version()));
        return "airspace/site-form";
    }

    @PostMapping("/airspace/sites/{id}")
    String changeSite(@PathVariable("id") UUID id, @RequestParam MultiValueMap<String, String> params, Model model) {
        return store(siteForm(airspace.site(id).name(), "/airspace/sites/" + id).bind(params), id, model);
    }

    private static Form siteForm(String title, String action) {
        return new Form(title, action, "/airspace")
                .text("name", "Name", "")
                .text("launch", "Launch point", "latitude, longitude, such as 46.6123, -17.8934")
                .area(
                        "area",
                        "Corners of the area",
                        "latitude, longitude; with a semicolon between corners, in order around it")
                .select(
                        "jurisdiction",
                        "Jurisdiction",
                        "whose law holds here",
                        Form.words("choose", "EU", "GB", "CA", "US", "AU", "NZ"))
                .text("zone", "Time zone", "such as Atlantic/Azores")
                .text("relief", "Relief", "greatest difference of the ground from the launch point, such as 15 m")
                .text("builtUp", "To built-up or recreational area", "nearest, such as 400 m")
                .select("overWater", "Over water", "any of it", Form.yesNo())
                .area("notes", "Notes", "landowner, access, obstacles");
    }

    private String store(Form form, UUID id, Model model) {
        String name = form.requiredText("name", 120);
        List<Position> corners = new ArrayList<>();
        Position launch = launch(form);
        try {
            for (String c : form.requiredText("area", 8000).split("[;\\n]")) {
                if (!c.isBlank()) {
                    corners.add(position(c));
                }
            }
            Area.Check check = Area.check(corners);
            if (!check.isValid()) {
                form.error("area", check.fault());
            }
        } catch (IllegalArgumentException e) {
            form.error("area", "corner " + (corners.size() + 1) + ": " + e.getMessage());
        }
        String jurisdiction = form.choice("jurisdiction", true);
        String zone = form.requiredText("zone", 64);
        if (!zone.isEmpty() && !ZoneId.getAvailableZoneIds().contains(zone)) {
            form.error("zone", "there is no such time zone; type one such as Atlantic/Azores");
        }
        Double relief = form.metres("relief", 0, 3000);
        Double builtUp = form.metres("builtUp", 0, 1e6);
        String notes = form.optionalText("notes", 2000);
        return form.store(() -> {
                    airspace.save(new Airspace.SiteView(
                            id,
                            form.getVersion(),
                            name,
                            launch,
                            corners,
                            jurisdiction,
                            ZoneId.of(zone),
                            relief,
                            builtUp,
                            form.yesNo("overWater"),
                            notes));
                    return "redirect:/airspace";
                })
                .orElseGet(() -> form.page(model, "airspace/site-form"));
    }

    /** Null when it is missing or wrong, and then the form says so. */
    private static Position launch(Form form) {
        String typed = form.requiredText("launch", 60);
        if (typed.isEmpty()) {
            return null;
        }
        try {
            return position(typed);
        } catch (IllegalArgumentException e) {
            form.error("launch", e.getMessage());
            return null;
        }
    }

    private static Position position(String s) {
        String[] parts = s.strip().split("\\s*,\\s*|\\s+");
        double lat = parts.length == 2 ? Numbers.parse(parts[0], false) : Double.NaN;
        double lon = parts.length == 2 ? Numbers.parse(parts[1], false) : Double.NaN;
        if (Double.isNaN(lat) || Double.isNaN(lon)) {
            throw new IllegalArgumentException("“" + s.strip()
                    + "” is not a position; type latitude, longitude in degrees, such as 46.6123, -17.8934");
        }
        return new Position(lat, lon);
    }
}
