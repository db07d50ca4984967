package yarrek.core.geo;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import yarrek.core.units.NamedUnit;

/**
 * Points, lines and areas typed as text. Corners stand in any notation of {@link PositionText}, with a semicolon or a new
 * line between. An empty line begins another piece of an area; a piece that begins with "hole" is cut out of the piece
 * before it; "circle 46.6, -17.9 radius 200 m" is a piece too. A shape that may be any of the three is an area when it
 * begins with "area" or "circle", a point with one corner, else a line.
 */
public final class ShapeText {
    private static final Pattern CIRCLE = Pattern.compile(
            "(?i)circle\\s*:?\\s*(.+?)[\\s,;]*\\bradius\\s*([0-9]+(?:[.,][0-9]+)?)\\s*(km|m|nm|ft)?\\s*");
    private static final int MOST_CORNERS = 60_000;

    private ShapeText() {}

    /**
     * @param points one for a point, two or more for a line; empty for an area
     * @param area empty for points and lines
     */
    public record Shape(List<Position> points, Optional<Area> area) {
        public Shape {
            points = List.copyOf(points);
        }

        /** Somewhere to name it by: the point, the first of a line, the middle of an area. */
        public Position somewhere() {
            return area.map(Area::middle).orElseGet(() -> points.get(0));
        }
    }

    /** @throws IllegalArgumentException naming the corner and what is wrong */
    public static Shape shape(String text) {
        String t = text.strip();
        String lower = t.toLowerCase(Locale.ROOT);
        if (lower.startsWith("area")) {
            return new Shape(List.of(), Optional.of(area(t.substring(4))));
        }
        if (lower.startsWith("circle")) {
            return new Shape(List.of(), Optional.of(area(t)));
        }
        List<Position> points = corners(lower.startsWith("line") ? t.substring(4) : t);
        if (points.isEmpty()) {
            throw new IllegalArgumentException(
                    "a position is needed, several for a line, or “area” and the corners of one");
        }
        return new Shape(points, Optional.empty());
    }

    /** @throws IllegalArgumentException naming the corner and what is wrong, or with the fault of the area */
    public static Area area(String text) {
        Area.Check check = Area.checkPatches(patches(text));
        if (!check.isValid()) {
            throw new IllegalArgumentException(check.fault());
        }
        return check.area();
    }

    /** The pieces as typed, their corners read but not yet checked for crossing. */
    public static List<Area.Patch> patches(String text) {
        List<List<Position>> outlines = new ArrayList<>();
        List<List<List<Position>>> holes = new ArrayList<>();
        for (String block : text.strip().replaceAll("\\r\\n?", "\n").split("\n[ \\t]*\n")) {
            String b = block.strip().replaceFirst("^[:;]\\s*", "");
            if (b.isEmpty()) {
                continue;
            }
            Matcher circle = CIRCLE.matcher(b);
            if (circle.matches()) {
                Area round = Area.circle(PositionText.parse(circle.group(1)), metres(circle.group(2), circle.group(3)));
                outlines.add(round.corners());
                holes.add(new ArrayList<>());
            } else if (b.toLowerCase(Locale.ROOT).startsWith("hole")) {
                if (outlines.isEmpty()) {
                    throw new IllegalArgumentException("a hole needs the area before it from which it is cut");
                }
                holes.get(holes.size() - 1).add(corners(b.substring(4).replaceFirst("^\\s*:", "")));
            } else {
                outlines.add(corners(b));
                holes.add(new ArrayList<>());
            }
        }
        List<Area.Patch> patches = new ArrayList<>();
        for (int i = 0; i < outlines.size(); i++) {
            patches.add(new Area.Patch(outlines.get(i), holes.get(i)));
        }
        return patches;
    }

    private static double metres(String number, String unit) {
        double v = Double.parseDouble(number.replace(',', '.'));
        return unit == null
                ? v
                : switch (unit.toLowerCase(Locale.ROOT)) {
                    case "km" -> v * NamedUnit.KILOMETRE.factor();
                    case "nm" -> v * NamedUnit.NAUTICAL_MILE.factor();
                    case "ft" -> v * NamedUnit.FOOT.factor();
                    default -> v;
                };
    }

    private static List<Position> corners(String text) {
        List<Position> corners = new ArrayList<>();
        for (String c : text.split("[;\\n]")) {
            if (c.isBlank()) {
                continue;
            }
            try {
                corners.add(PositionText.parse(c));
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException("corner " + (corners.size() + 1) + ": " + e.getMessage(), e);
            }
            if (corners.size() > MOST_CORNERS) {
                throw new IllegalArgumentException("at most " + MOST_CORNERS + " corners");
            }
        }
        return corners;
    }

    /** As {@link #area} reads it, in decimal degrees. */
    public static String write(Area area) {
        List<String> blocks = new ArrayList<>();
        for (Area.Patch p : area.patches()) {
            blocks.add(ring(p.outline()));
            p.holes().forEach(h -> blocks.add("hole " + ring(h)));
        }
        return String.join("\n\n", blocks);
    }

    /** As {@link #shape} reads it. */
    public static String write(Shape s) {
        return s.area().map(a -> "area " + write(a)).orElseGet(() -> ring(s.points()));
    }

    private static String ring(List<Position> corners) {
        return corners.stream().map(Position::toString).collect(Collectors.joining("; "));
    }
}
