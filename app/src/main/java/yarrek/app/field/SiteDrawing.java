package yarrek.app.field;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Sites;
import yarrek.core.airspace.Zone;
import yarrek.core.geo.Area;
import yarrek.core.geo.LocalPlane;
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.geo.ShapeText;
import yarrek.formats.maps.GeoJsonMap;

/** A site as a drawing: zones with their patterns, the area and what stands there, scale, north and coordinates. */
@Component
public class SiteDrawing {
    /** A closed figure; {@code pattern} names how it is filled. */
    public record Figure(String path, String pattern, String title) {}

    /** A symbol of a thing on the site. */
    public record Symbol(double x, double y, String kind, String label) {}

    /** A line of a thing on the site. */
    public record Stroke(String path, String kind, String label, double x, double y) {}

    /** A mark at the frame with a coordinate. */
    public record Tick(double at, String label) {}

    /**
     * Everything in drawing units, {@code width} by {@code height}, y downwards, north up.
     *
     * @param scaleLength length of the scale bar in drawing units
     */
    public record Drawn(
            int width,
            int height,
            List<Figure> coast,
            List<Figure> zones,
            Figure buffer,
            Figure area,
            List<Stroke> strokes,
            List<Symbol> symbols,
            double scaleLength,
            String scaleWords,
            List<Tick> east,
            List<Tick> north,
            Symbol launch,
            List<Figure> overlays) {
        /** The drawing itself, for pages and for paper; what is written in it is escaped. */
        public String svg(String label) {
            return SiteSvg.write(this, label);
        }
    }

    /** An area drawn over the site: "paper" for what a paper covers, "overhang" for what it does not. */
    public record Overlay(Area area, String pattern, String title) {}

    private static final double[] STEPS = {1, 2, 5};
    private static final int MOST_ZONES = 60;

    private final Airspace airspace;

    SiteDrawing(Airspace airspace) {
        this.airspace = airspace;
    }

    /** Where a position falls on the sheet. */
    private record Sheet(LocalPlane plane, double west, double south, double metresPerUnit, int height) {
        double[] at(Position p) {
            double[] m = plane.toMetres(p);
            return new double[] {(m[0] - west) / metresPerUnit, height - (m[1] - south) / metresPerUnit};
        }

        String path(List<Area.Patch> patches) {
            StringBuilder d = new StringBuilder();
            for (Area.Patch p : patches) {
                ring(d, p.outline());
                p.holes().forEach(h -> ring(d, h));
            }
            return d.toString();
        }

        private void ring(StringBuilder d, List<Position> ring) {
            d.append(line(ring)).append('Z');
        }

        String line(List<Position> points) {
            StringBuilder d = new StringBuilder();
            for (int i = 0; i < points.size(); i++) {
                double[] xy = at(points.get(i));
                d.append(String.format(Locale.ROOT, "%s%.1f %.1f", i == 0 ? "M" : "L", xy[0], xy[1]));
            }
            return d.toString();
        }
    }

    public Drawn draw(Sites.SiteView site, int width, int height) {
        return draw(site, width, height, List.of());
    }

    /** The site with areas over it; the sheet is wide enough for all of them. */
    public Drawn draw(Sites.SiteView site, int width, int height, List<Overlay> overlays) {
        LocalPlane plane = new LocalPlane(site.area().middle());
        List<Position> all = new ArrayList<>(site.area().corners());
        all.add(site.launch());
        site.features().forEach(f -> all.add(f.drawn().somewhere()));
        overlays.forEach(o -> all.addAll(o.area().corners()));
        double[] box = {Double.MAX_VALUE, Double.MAX_VALUE, -Double.MAX_VALUE, -Double.MAX_VALUE};
        for (Position p : all) {
            double[] m = plane.toMetres(p);
            box[0] = Math.min(box[0], m[0]);
            box[1] = Math.min(box[1], m[1]);
            box[2] = Math.max(box[2], m[0]);
            box[3] = Math.max(box[3], m[1]);
        }
        double buffer = site.bufferM() == null ? 0 : site.bufferM();
        double metres = Math.max((box[2] - box[0] + 2 * buffer) / width, (box[3] - box[1] + 2 * buffer) / height) * 1.3;
        Sheet sheet = new Sheet(
                plane,
                (box[0] + box[2]) / 2 - metres * width / 2,
                (box[1] + box[3]) / 2 - metres * height / 2,
                metres,
                height);
        List<Figure> zones = new ArrayList<>();
        Area frame = frame(sheet, width);
        airspace.index().near(frame, 0).stream()
                .filter(z -> z.area().meets(frame))
                .limit(MOST_ZONES)
                .forEach(z -> z.area()
                        .overlap(frame)
                        .ifPresent(cut -> zones.add(new Figure(sheet.path(cut.patches()), pattern(z), z.name()))));
        List<Stroke> strokes = new ArrayList<>();
        List<Symbol> symbols = new ArrayList<>();
        for (Sites.Feature f : site.features()) {
            ShapeText.Shape s = f.drawn();
            double[] xy = sheet.at(s.somewhere());
            String label = (f.name().isEmpty() ? f.sort() : f.name())
                    + (f.heightM() == null ? "" : " " + yarrek.core.units.Finite.format(f.heightM()) + " m");
            if (s.area().isPresent() || s.points().size() > 1) {
                strokes.add(new Stroke(
                        s.area().map(a -> sheet.path(a.patches())).orElseGet(() -> sheet.line(s.points())),
                        f.kind().name(),
                        label,
                        xy[0],
                        xy[1]));
            } else {
                symbols.add(new Symbol(xy[0], xy[1], f.kind().name(), label));
            }
        }
        double length = round(width * metres / 4);
        double[] launch = sheet.at(site.launch());
        return new Drawn(
                width,
                height,
                coast(sheet, frame),
                zones,
                buffer == 0
                        ? null
                        : new Figure(sheet.path(site.area().widened(buffer).coarse(metres)), "buffer", "buffer"),
                new Figure(sheet.path(site.area().coarse(metres)), "area", "flight area"),
                strokes,
                symbols,
                length / metres,
                length >= 1000
                        ? yarrek.core.units.Finite.format(length / 1000) + " km"
                        : yarrek.core.units.Finite.format(length) + " m",
                ticks(sheet, width, true),
                ticks(sheet, height, false),
                new Symbol(launch[0], launch[1], "LAUNCH", "launch"),
                overlays.stream()
                        .map(o -> new Figure(sheet.path(o.area().coarse(metres)), o.pattern(), o.title()))
                        .toList());
    }

    private static Area frame(Sheet sheet, int width) {
        double east = sheet.west() + width * sheet.metresPerUnit();
        double north = sheet.south() + sheet.height() * sheet.metresPerUnit();
        return Area.of(List.of(
                sheet.plane().toPosition(sheet.west(), sheet.south()),
                sheet.plane().toPosition(east, sheet.south()),
                sheet.plane().toPosition(east, north),
                sheet.plane().toPosition(sheet.west(), north)));
    }

    private List<Figure> coast(Sheet sheet, Area frame) {
        List<Figure> coast = new ArrayList<>();
        for (JsonNode f : airspace.scenery()) {
            if (f.path("properties").path("kind").asString("").equals("land")) {
                Area.Check land = Area.checkPatches(GeoJsonMap.patches(f.path("geometry")));
                Optional.ofNullable(land.area())
                        .flatMap(a -> a.overlap(frame))
                        .ifPresent(a -> coast.add(new Figure(sheet.path(a.patches()), "land", "")));
            }
        }
        return coast;
    }

    /** How a zone is filled: by what it asks, the maker's map apart. */
    static String pattern(Zone z) {
        if (!z.kind().isLaw()) {
            return "maker";
        }
        return switch (z.restriction()) {
            case PROHIBITED -> "prohibited";
            case NEEDS_AUTHORISATION -> "authorisation";
            case CONDITIONAL -> "conditional";
            case NO_RESTRICTION -> "free";
        };
    }

    /** The greatest of 1, 2, 5 times a power of ten that is not above a length. */
    static double round(double metres) {
        double power = Math.pow(10, Math.floor(Math.log10(metres)));
        double best = power;
        for (double s : STEPS) {
            if (s * power <= metres) {
                best = s * power;
            }
        }
        return best;
    }

    /** Three marks along an edge of the sheet, each with its latitude or longitude. */
    private static List<Tick> ticks(Sheet sheet, int length, boolean east) {
        return java.util.stream.IntStream.of(1, 2, 3)
                .mapToObj(i -> {
                    double at = length * i / 4.0;
                    double x = sheet.west() + (east ? at : 0) * sheet.metresPerUnit();
                    double y = sheet.south() + (east ? 0 : sheet.height() - at) * sheet.metresPerUnit();
                    Position p = sheet.plane().toPosition(x, y);
                    String[] parts = PositionText.format(p, PositionText.Notation.MINUTES)
                            .split(" ");
                    return new Tick(at, parts[east ? 1 : 0]);
                })
                .collect(Collectors.toList());
    }
}
