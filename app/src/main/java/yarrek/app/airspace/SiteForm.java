package yarrek.app.airspace;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.util.MultiValueMap;
import yarrek.app.forms.Form;
import yarrek.app.forms.TypedInput;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.geo.ShapeText;
import yarrek.core.units.Finite;
import yarrek.core.weather.Wind;

/** The form of a site: what is asked, and how it is read. The map writes into the same fields. */
final class SiteForm {
    private static final int MOST_FEATURES = 500;
    private static final int LONGEST_AREA = 3_000_000;

    /** A thing on the site as typed. */
    public record Row(String kind, String sort, String name, String height, String shape, String known, String note) {}

    private SiteForm() {}

    static Form of(String title, String action, String back, Map<String, String> places) {
        Form form = new Form(title, action, back);
        fields(form, places);
        return form;
    }

    static void fields(Form form, Map<String, String> places) {
        form.group("Place")
                .text("name", "Name", "")
                .text("launch", "Launch point", "in degrees, degrees and minutes, or degrees minutes seconds")
                .select(
                        "jurisdiction",
                        "Jurisdiction",
                        "whose law holds here, the state where it is in a union",
                        Form.choices("choose", places))
                .text("zone", "Time zone", "such as Atlantic/Azores")
                .area(
                        "area",
                        "Flight area",
                        "corners in order, a semicolon or new line between; an empty line begins another piece, a piece that begins with “hole” is cut out, “circle 46.61, -17.89 radius 200 m” is a piece too")
                .group("Ground")
                .text("elevation", "Elevation of the launch point", "above sea level, such as 35 m")
                .text("relief", "Relief", "greatest difference of the ground from the launch point, such as 15 m")
                .text("buffer", "Buffer around the area", "widens it when zones are looked for, such as 50 m")
                .select(
                        "terrain",
                        "Terrain to windward",
                        "for the wind at flight height",
                        options(
                                "not known",
                                Arrays.stream(Wind.Terrain.values())
                                        .map(t -> new Form.Option(t.name(), t.words()))
                                        .toList()))
                .text("builtUp", "To built-up or recreational area", "nearest, such as 400 m")
                .select("overWater", "Over water", "any of it", Form.yesNo())
                .group("What was said of the place")
                .text("landowner", "Landowner", "")
                .text("landContact", "How to reach them", "")
                .select("coverage", "Mobile coverage", "", Form.words("not known", "none", "some", "good"))
                .text("makerLevel", "The aircraft's built-in map says", "never taken as authority")
                .text("makerLookedOn", "Looked up on", "a date")
                .text("officialMap", "The authority's own map says", "colour, zone names")
                .text("officialLookedOn", "Looked up on (authority)", "a date")
                .text("visitedOn", "Visited on", "a date; empty: nobody has been there")
                .text("visitedBy", "By", "")
                .text("help", "Nearest help", "first aid, fire extinguisher, boat")
                .text("discretion", "Discretion", "such as: keep the aircraft out of sight until needed")
                .area("notes", "Notes", "access, parking, tides");
    }

    private static List<Form.Option> options(String empty, List<Form.Option> rest) {
        List<Form.Option> all = new ArrayList<>(List.of(new Form.Option("", empty)));
        all.addAll(rest);
        return all;
    }

    static Map<String, String> values(Sites.SiteView s) {
        Map<String, String> v = new LinkedHashMap<>();
        v.put("name", s.name());
        v.put("launch", s.launch().toString());
        v.put("jurisdiction", s.jurisdiction());
        v.put("zone", s.zone().getId());
        v.put("area", ShapeText.write(s.area()));
        v.put("elevation", metres(s.elevationM()));
        v.put("relief", metres(s.reliefM()));
        v.put("buffer", metres(s.bufferM()));
        v.put("terrain", s.terrain() == null ? "" : s.terrain().name());
        v.put("builtUp", metres(s.builtUpDistanceM()));
        v.put("overWater", s.overWater() == null ? "" : s.overWater() ? "yes" : "no");
        Sites.Particulars p = s.particulars();
        v.put("landowner", p.landowner());
        v.put("landContact", p.landContact());
        v.put("coverage", p.coverage());
        v.put("makerLevel", p.makerLevel());
        v.put("makerLookedOn", day(p.makerLookedOn()));
        v.put("officialMap", p.officialMap());
        v.put("officialLookedOn", day(p.officialLookedOn()));
        v.put("visitedOn", day(p.visitedOn()));
        v.put("visitedBy", p.visitedBy());
        v.put("help", p.help());
        v.put("discretion", p.discretion());
        v.put("notes", s.notes());
        return v;
    }

    private static String metres(Double v) {
        return v == null ? "" : Finite.format(v) + " m";
    }

    private static String day(LocalDate d) {
        return d == null ? "" : d.toString();
    }

    static List<Row> rows(List<Sites.Feature> features) {
        return features.stream()
                .map(f -> new Row(
                        f.kind().name(),
                        f.sort(),
                        f.name(),
                        metres(f.heightM()),
                        f.shape(),
                        f.known() == null ? "" : f.known().name(),
                        f.note()))
                .toList();
    }

    /** The rows as typed; wholly empty ones are dropped. */
    static List<Row> rows(MultiValueMap<String, String> params) {
        List<String> shapes = params.getOrDefault("feature.shape", List.of());
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < shapes.size(); i++) {
            Row r = new Row(
                    at(params, "kind", i),
                    at(params, "sort", i),
                    at(params, "name", i),
                    at(params, "height", i),
                    shapes.get(i).strip(),
                    at(params, "known", i),
                    at(params, "note", i));
            if (!(r.name() + r.height() + r.shape() + r.note() + r.sort()).isEmpty()) {
                rows.add(r);
            }
        }
        return rows;
    }

    private static String at(MultiValueMap<String, String> params, String column, int i) {
        List<String> all = params.getOrDefault("feature." + column, List.of());
        return i < all.size() ? all.get(i).strip() : "";
    }

    /** The site as typed; null when something is wrong, and then the form says what. */
    static Sites.SiteView read(Form form, List<Row> rows, UUID id, LocalDate today) {
        String name = form.requiredText("name", 120);
        Position launch = position(form, "launch");
        Area area = area(form);
        String jurisdiction = form.choice("jurisdiction", true);
        String zone = form.requiredText("zone", 64);
        if (!zone.isEmpty() && !ZoneId.getAvailableZoneIds().contains(zone)) {
            form.error("zone", "there is no such time zone; type one such as Atlantic/Azores");
        }
        String terrain = form.choice("terrain", false);
        List<Sites.Feature> features = features(form, rows);
        String coverage = form.choice("coverage", false);
        Sites.Particulars particulars = new Sites.Particulars(
                form.optionalText("landowner", 200),
                form.optionalText("landContact", 200),
                coverage == null ? "" : coverage,
                form.optionalText("makerLevel", 200),
                form.date("makerLookedOn", false, today),
                form.optionalText("officialMap", 400),
                form.date("officialLookedOn", false, today),
                form.date("visitedOn", false, today),
                form.optionalText("visitedBy", 120),
                form.optionalText("help", 300),
                form.optionalText("discretion", 300));
        Sites.SiteView view = form.hasErrors()
                ? null
                : new Sites.SiteView(
                        id,
                        form.getVersion(),
                        name,
                        launch,
                        area,
                        jurisdiction,
                        ZoneId.of(zone),
                        form.metres("elevation", -430, 8_849),
                        form.metres("relief", 0, 3_000),
                        form.metres("buffer", 0, 10_000),
                        terrain == null ? null : Wind.Terrain.valueOf(terrain),
                        form.metres("builtUp", 0, 1e6),
                        form.yesNo("overWater"),
                        features,
                        particulars,
                        form.optionalText("notes", 4000));
        return form.hasErrors() ? null : view;
    }

    private static Position position(Form form, String field) {
        String typed = form.requiredText(field, 80);
        if (typed.isEmpty()) {
            return null;
        }
        try {
            return PositionText.parse(typed);
        } catch (IllegalArgumentException e) {
            form.error(field, e.getMessage());
            return null;
        }
    }

    private static Area area(Form form) {
        String typed = form.requiredText("area", LONGEST_AREA);
        if (typed.isEmpty()) {
            return null;
        }
        try {
            return ShapeText.area(typed);
        } catch (IllegalArgumentException e) {
            form.error("area", e.getMessage());
            return null;
        }
    }

    static List<Sites.Feature> features(Form form, List<Row> rows) {
        List<Sites.Feature> features = new ArrayList<>();
        List<String> wrong = new ArrayList<>();
        if (rows.size() > MOST_FEATURES) {
            wrong.add("at most " + MOST_FEATURES + " things on one site, got " + rows.size());
        }
        for (int i = 0; i < rows.size() && i < MOST_FEATURES; i++) {
            Row r = rows.get(i);
            String where = "line " + (i + 1) + (r.name().isEmpty() ? "" : " (" + r.name() + ")") + ": ";
            Sites.FeatureKind kind = Sites.FeatureKind.of(r.kind());
            if (kind == null) {
                wrong.add(where + "choose what it is");
                continue;
            }
            try {
                Double height = r.height().isEmpty() ? null : TypedInput.metres(r.height());
                if (height != null && !(height > 0 && height <= 2000)) {
                    wrong.add(where + "a height must be above 0 m and at most 2,000 m, got " + Finite.format(height));
                    continue;
                }
                ShapeText.shape(r.shape());
                features.add(new Sites.Feature(
                        kind,
                        cut(r.sort(), 40),
                        cut(r.name(), 120),
                        height,
                        r.shape(),
                        r.known().isEmpty() ? null : Sites.Known.valueOf(r.known()),
                        cut(r.note(), 400)));
            } catch (IllegalArgumentException e) {
                wrong.add(where + e.getMessage());
            }
        }
        if (!wrong.isEmpty()) {
            form.problem("Things on the site: " + String.join("; ", wrong));
        }
        return features;
    }

    private static String cut(String s, int most) {
        return s.length() > most ? s.substring(0, most) : s;
    }
}
