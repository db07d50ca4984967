package yarrek.formats.zones;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Length;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.BrokenMapException;

/**
 * OpenAir text: AC (class), AN (name), AL and AH (limits), DP (point), DC (circle), DA and DB (arcs), V (centre and
 * direction), comments after an asterisk. Radii in nautical miles. The format does not say what a zone asks of unmanned
 * aircraft; {@link #restriction} settles it by class, and the reading says so.
 */
final class OpenAirZones {
    private static final Pattern HEIGHT = Pattern.compile(
            "(?i)(?:(FL)\\s*(\\d{1,3}(?:[.]\\d+)?)|(-?\\d{1,6}(?:[.]\\d+)?)\\s*(FT|F|M|METRES|FEET)?\\s*"
                    + "(ABOVE GROUND|ABOVE SEA LEVEL|AGL|GND|SFC|ASFC|AMSL|MSL|ASL|ALT|STD)?)");
    private static final int ARC_STEP =
            1; // where an arc cuts into the area, corners that stand off cost 4e-5 of the radius
    private static final double UNLIKE_RADII = 0.05;

    private final boolean mend;
    private final List<Zone> zones = new ArrayList<>();
    private final List<String> problems = new ArrayList<>();
    private final List<String> notes = new ArrayList<>();

    // the zone being read
    private int startLine;
    private String airspace = "";
    private String name = "";
    private HeightLimit lower;
    private HeightLimit upper;
    private List<Position> points = new ArrayList<>();
    private Position centre;
    private boolean clockwise = true;
    private List<Area> circles = new ArrayList<>();
    private boolean failed;

    private OpenAirZones(boolean mend) {
        this.mend = mend;
    }

    static boolean looksLike(String text) {
        return Pattern.compile("(?m)^\\s*AC\\s+\\S+").matcher(text).find();
    }

    static ZoneFiles.Reading read(String text, boolean mend) throws BrokenFileException {
        OpenAirZones reader = new OpenAirZones(mend);
        String[] lines = text.split("\\R", -1);
        for (int i = 0; i < lines.length; i++) {
            String line = lines[i].replaceFirst("\\*.*$", "").strip();
            if (!line.isEmpty()) {
                reader.line(i + 1, line);
            }
        }
        reader.finish();
        if (!reader.problems.isEmpty()) {
            throw new BrokenMapException("openair.line", reader.problems);
        }
        reader.notes.add(
                "OpenAir does not say what a zone asks of unmanned aircraft: P is taken as prohibited, CTR, R and classes A to D as needing an authorisation, Q, W, GP, RMZ and TMZ as conditional, E to G as no restriction");
        return new ZoneFiles.Reading("OpenAir", reader.zones, reader.notes, List.of());
    }

    private void line(int number, String line) {
        String[] parts = line.split("\\s+", 2);
        String value = parts.length > 1 ? parts[1].strip() : "";
        try {
            switch (parts[0].toUpperCase(Locale.ROOT)) {
                case "AC" -> {
                    finish();
                    startLine = number;
                    airspace = value.toUpperCase(Locale.ROOT);
                }
                case "AN" -> name = value;
                case "AL" -> lower = either(value, false);
                case "AH" -> upper = either(value, true);
                case "DP" -> points.add(position(value));
                case "V" -> variable(value);
                case "DC" -> {
                    need(centre != null, "DC needs a centre before it: V X=46:35:00N 017:54:00W");
                    circles.add(Area.circle(centre, miles(value)));
                }
                case "DA" -> arcByAngles(value);
                case "DB" -> arcByPoints(value);
                default -> {
                    // styles, labels, frequencies and types of other dialects
                }
            }
        } catch (IllegalArgumentException e) {
            failed = true;
            problems.add("line " + number + (name.isEmpty() ? "" : " (" + name + ")") + ", " + parts[0] + ": "
                    + e.getMessage());
        }
    }

    /** Of two limits such as "6500 MSL / FL 65" the one that makes the airspace larger. */
    private HeightLimit either(String value, boolean isUpper) {
        String[] both = value.split("/");
        if (both.length != 2) {
            return height(value);
        }
        HeightLimit a = height(both[0]);
        HeightLimit b = height(both[1]);
        HeightLimit taken = a.metres() > b.metres() == isUpper ? a : b;
        notes.add(name + ": of the two limits “" + ZoneFiles.cut(value) + "” it is " + taken.words()
                + ", which makes it the larger");
        return taken;
    }

    private static void need(boolean holds, String message) {
        if (!holds) {
            throw new IllegalArgumentException(message);
        }
    }

    private void variable(String value) {
        String v = value.replaceAll("\\s*=\\s*", "=");
        if (v.toUpperCase(Locale.ROOT).startsWith("D=")) {
            clockwise = !v.endsWith("-");
        } else if (v.toUpperCase(Locale.ROOT).startsWith("X=")) {
            centre = position(v.substring(2));
        }
    }

    private static Position position(String text) {
        return PositionText.parse(text);
    }

    private static double miles(String text) {
        need(
                text.matches("\\d{1,3}([.]\\d+)?|[.]\\d+"),
                "found \"" + ZoneFiles.cut(text) + "\"; a radius in nautical miles is expected, such as 2.5");
        return Double.parseDouble(text) * Length.METRES_PER_NAUTICAL_MILE;
    }

    private void arcByAngles(String value) {
        String[] p = value.split("\\s*,\\s*");
        need(centre != null && p.length == 3, "radius, start and end angle are expected after a centre (V X=)");
        arc(miles(p[0]), angle(p[1]), angle(p[2]));
    }

    private static double angle(String text) {
        boolean figure = text.matches("\\d{1,3}([.]\\d+)?");
        need(
                figure && Double.parseDouble(text) <= 360,
                "found \"" + ZoneFiles.cut(text) + "\"; degrees 0 to 360 are expected");
        return Double.parseDouble(text);
    }

    private void arcByPoints(String value) {
        String[] p = value.split("\\s*,\\s*");
        need(centre != null && p.length == 2, "two positions with a comma between are expected after a centre (V X=)");
        Position from = position(p[0]);
        Position to = position(p[1]);
        double one = Geodesy.distanceM(centre, from);
        double two = Geodesy.distanceM(centre, to);
        need(
                Math.abs(one - two) <= Math.max(one, two) * UNLIKE_RADII,
                "the two ends lie " + Math.round(one) + " m and " + Math.round(two)
                        + " m from the centre; ends of an arc lie at the same distance");
        points.add(from);
        arc(Math.max(one, two), Geodesy.bearingDeg(centre, from), Geodesy.bearingDeg(centre, to));
        points.add(to);
    }

    private void arc(double radiusM, double fromDeg, double toDeg) {
        double turn = clockwise ? (toDeg - fromDeg + 360) % 360 : -((fromDeg - toDeg + 360) % 360);
        if (turn == 0 && Math.abs(toDeg - fromDeg) == 360) {
            circles.add(Area.circle(centre, radiusM));
            return;
        }
        int steps = Math.max(1, (int) Math.ceil(Math.abs(turn) / ARC_STEP));
        // corners between the ends stand off so far that the sides touch the arc and never cut it
        double reach = radiusM / Math.cos(Math.toRadians(Math.abs(turn) / steps / 2));
        points.add(Geodesy.destination(centre, fromDeg, radiusM));
        for (int i = 0; i < steps; i++) {
            points.add(Geodesy.destination(centre, fromDeg + turn * (i + 0.5) / steps, reach));
        }
        points.add(Geodesy.destination(centre, fromDeg + turn, radiusM));
    }

    private void finish() {
        if (startLine > 0 && !failed) {
            String where = "line " + startLine + " (" + name + ")";
            try {
                need(!circles.isEmpty() || !points.isEmpty(), "geometry: no DP, DC, DA or DB line");
                need(upper != null && lower != null, "AL and AH: both limits are expected");
                if (!points.isEmpty()) {
                    circles.add(ZoneFiles.area(
                            List.of(ZoneFiles.geodesic(new Area.Patch(distinct(points), List.of()))),
                            mend,
                            where,
                            notes));
                }
                Area area = circles.size() == 1 ? circles.get(0) : Area.union(circles);
                zones.add(new Zone(
                        (name.isEmpty() ? "line " + startLine : name) + " " + airspace,
                        name.isEmpty() ? airspace : name,
                        kind(airspace),
                        airspace.matches("[A-G]") ? Optional.of(airspace) : Optional.empty(),
                        restriction(airspace),
                        area,
                        lower,
                        upper,
                        Timetable.ALWAYS,
                        OptionalDouble.empty(),
                        "",
                        "",
                        ""));
            } catch (IllegalArgumentException e) {
                problems.add(where + ", " + e.getMessage());
            }
        }
        failed = false;
        name = "";
        lower = null;
        upper = null;
        points = new ArrayList<>();
        centre = null;
        clockwise = true;
        circles = new ArrayList<>();
    }

    /** Arcs repeat the point they start from. */
    private static List<Position> distinct(List<Position> points) {
        List<Position> kept = new ArrayList<>();
        for (Position p : points) {
            if (kept.isEmpty() || Geodesy.distanceM(kept.get(kept.size() - 1), p) > 0.5) {
                kept.add(p);
            }
        }
        if (kept.size() > 1 && Geodesy.distanceM(kept.get(0), kept.get(kept.size() - 1)) <= 0.5) {
            kept.remove(kept.size() - 1);
        }
        return kept;
    }

    private static ZoneKind kind(String airspace) {
        return switch (airspace) {
            case "P" -> ZoneKind.PROHIBITED;
            case "R" -> ZoneKind.RESTRICTED;
            case "Q" -> ZoneKind.DANGER;
            case "CTR", "A", "B", "C", "D", "E" -> ZoneKind.CONTROL_ZONE;
            case "NOTAM" -> ZoneKind.TEMPORARY;
            case "W", "GP", "RMZ", "TMZ" -> ZoneKind.CAUTION;
            default -> ZoneKind.OTHER;
        };
    }

    private static ZoneMet.Restriction restriction(String airspace) {
        return switch (airspace) {
            case "P" -> ZoneMet.Restriction.PROHIBITED;
            case "R", "CTR", "A", "B", "C", "D", "NOTAM" -> ZoneMet.Restriction.NEEDS_AUTHORISATION;
            case "Q", "W", "GP", "RMZ", "TMZ" -> ZoneMet.Restriction.CONDITIONAL;
            case "E", "F", "G" -> ZoneMet.Restriction.NO_RESTRICTION;
            default -> ZoneMet.Restriction.CONDITIONAL;
        };
    }

    /**
     * "SFC", "1500 ft AGL", "3000 MSL", "FL 65", "300 m AMSL", "UNL". Without a unit it is feet, without a reference above
     * sea level.
     *
     * @throws IllegalArgumentException saying what is accepted
     */
    static HeightLimit height(String text) {
        String t = text.strip().toUpperCase(Locale.ROOT);
        if (t.matches("SFC|GND|GROUND|SURFACE|0")) {
            return HeightLimit.SURFACE;
        }
        if (t.matches("UNL|UNLIM|UNLIMITED|NO LIMIT|UNLTD")) {
            return HeightLimit.UNLIMITED;
        }
        Matcher m = HEIGHT.matcher(t);
        if (!m.matches()) {
            throw new IllegalArgumentException("found \"" + ZoneFiles.cut(text)
                    + "\"; a height is expected, such as SFC, 1500 ft AGL, 3000 ft AMSL, FL 65, 120 m AGL or UNL");
        }
        if (m.group(1) != null) {
            return new HeightLimit(
                    Double.parseDouble(m.group(2)), HeightLimit.Unit.LEVEL, HeightLimit.Reference.STANDARD);
        }
        HeightLimit.Unit unit =
                m.group(4) != null && m.group(4).startsWith("M") ? HeightLimit.Unit.METRES : HeightLimit.Unit.FEET;
        String reference = m.group(5) == null ? "AMSL" : m.group(5);
        return new HeightLimit(
                Double.parseDouble(m.group(3)),
                unit,
                switch (reference) {
                    case "AGL", "GND", "SFC", "ASFC", "ABOVE GROUND" -> HeightLimit.Reference.GROUND;
                    case "STD" -> HeightLimit.Reference.STANDARD;
                    default -> HeightLimit.Reference.SEA;
                });
    }
}
