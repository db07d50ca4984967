package yarrek.formats.zones;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
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
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Length;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.BrokenMapException;

/**
 * Notices to airmen in ICAO form (Annex 15, Doc 8126): Q line, B and C times with EST and PERM, D schedule kept as text, E
 * text with its coordinates, F and G limits. The area is the polygon or circle that E describes, else the circle of the Q
 * line. An estimated end counts as no end: the notice stands until it is replaced or cancelled.
 */
public final class Notams {
    private static final Pattern ID = Pattern.compile("\\b([A-Z]\\d{4}/\\d{2})\\b");
    private static final Pattern Q_LINE = Pattern.compile(
            "\\s*([A-Z]{4})/Q([A-Z]{4})/([A-Z ]*)/([A-Z ]*)/([A-Z ]*)/(\\d{3})/(\\d{3})/(\\d{4}[NS]\\d{5}[EW])(\\d{3})\\s*");
    private static final Pattern FIELD = Pattern.compile("(?:^|\\s)([QABCDEFG])\\)");
    private static final Pattern COORDINATE = Pattern.compile(
            "\\b(\\d{4}(?:\\d{2})?(?:[.]\\d{1,4})?)\\s?([NS])[\\s,/]{0,3}(\\d{5}(?:\\d{2})?(?:[.]\\d{1,4})?)\\s?([EW])\\b");
    private static final Pattern RADIUS = Pattern.compile(
            "(?i)(?:RADIUS|RAD|WITHIN)\\s*(?:OF\\s*)?(\\d{1,4}(?:[.]\\d+)?)\\s*(NM|KM|M|FT)\\b|(\\d{1,4}(?:[.]\\d+)?)\\s*(NM|KM|M)\\s*RADIUS");
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyMMddHHmm", Locale.ROOT);

    private Notams() {}

    static boolean looksLike(String text) {
        return Pattern.compile("(?m)(?:^|\\s)Q\\)").matcher(text).find();
    }

    static ZoneFiles.Reading read(String text) throws BrokenFileException {
        List<Zone> zones = new ArrayList<>();
        List<String> problems = new ArrayList<>();
        List<String> notes = new ArrayList<>();
        int number = 0;
        for (String notice : split(text)) {
            number++;
            Matcher id = ID.matcher(notice);
            String name = id.find() ? id.group(1) : "notice " + number;
            try {
                if (notice.contains("NOTAMC")) {
                    notes.add(name + " cancels another notice; remove that one from its source");
                    continue;
                }
                zones.add(zone(name, notice, notes));
            } catch (IllegalArgumentException e) {
                problems.add(name + ", " + e.getMessage());
            }
        }
        if (!problems.isEmpty()) {
            throw new BrokenMapException("notam.field", problems);
        }
        return new ZoneFiles.Reading("NOTAM", zones, notes, List.of());
    }

    /** A notice begins at its number, or at its Q line when it has none. */
    private static List<String> split(String text) {
        List<Integer> starts = new ArrayList<>();
        Matcher q = Pattern.compile("(?:^|\\s)Q\\)").matcher(text);
        int before = 0;
        while (q.find()) {
            String between = text.substring(before, q.start());
            Matcher id = ID.matcher(between);
            int start = q.start();
            while (id.find()) {
                // the last number before the line that names this notice; a replaced one stands after it
                if (between.startsWith("NOTAM", Math.min(between.length(), id.end() + 1))) {
                    start = before + id.start();
                }
            }
            starts.add(start);
            before = q.end();
        }
        List<String> notices = new ArrayList<>();
        for (int i = 0; i < starts.size(); i++) {
            notices.add(text.substring(starts.get(i), i + 1 < starts.size() ? starts.get(i + 1) : text.length()));
        }
        return notices;
    }

    private static Zone zone(String name, String notice, List<String> notes) {
        String q = field(notice, "Q").orElseThrow();
        Matcher m = Q_LINE.matcher(q.replaceAll("\\s+", " "));
        if (!m.matches()) {
            throw new IllegalArgumentException("Q: found \"" + ZoneFiles.cut(q)
                    + "\"; seven parts are expected, such as XXXX/QRTCA/IV/BO/W/000/012/4635N01754W003");
        }
        String e = field(notice, "E").orElse("").replaceAll("\\s+", " ").strip();
        Instant from = time("B", field(notice, "B").orElse(""));
        String c = field(notice, "C").orElse("").strip();
        boolean permanent = c.startsWith("PERM");
        boolean estimated = c.endsWith("EST");
        Instant to = permanent ? null : time("C", c.replace("EST", "").strip());
        if (to != null && to.isBefore(from)) {
            throw new IllegalArgumentException("C: the end " + to + " is before the beginning " + from);
        }
        if (estimated) {
            notes.add(name + ": its end is estimated (" + c + "), so it counts as in force until it is replaced");
        }
        String schedule = field(notice, "D").orElse("").replaceAll("\\s+", " ").strip();
        Timetable times = new Timetable(
                List.of(new Timetable.Period(
                        Optional.of(from), estimated ? Optional.empty() : Optional.ofNullable(to), List.of())),
                Optional.empty(),
                Optional.empty(),
                schedule);
        return new Zone(
                name,
                name + " " + subject(m.group(2)),
                kind(m.group(2)),
                Optional.empty(),
                restriction(m.group(2)),
                area(name, e, m, notes),
                limit("F", field(notice, "F"), m.group(6), true),
                limit("G", field(notice, "G"), m.group(7), false),
                times,
                OptionalDouble.empty(),
                e,
                m.group(1),
                "");
    }

    private static Optional<String> field(String notice, String letter) {
        Matcher f = FIELD.matcher(notice);
        int start = -1;
        while (f.find()) {
            if (start >= 0) {
                return Optional.of(notice.substring(start, f.start()).strip());
            }
            if (f.group(1).equals(letter)) {
                start = f.end();
            }
        }
        if (start < 0) {
            return Optional.empty();
        }
        return Optional.of(notice.substring(start).strip().replaceFirst("\\)\\s*$", ""));
    }

    private static Instant time(String letter, String text) {
        try {
            return LocalDateTime.parse(text.strip(), TIME).toInstant(ZoneOffset.UTC);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    letter + ": found \"" + ZoneFiles.cut(text)
                            + "\"; year, month, day, hour and minute in UTC are expected, such as 2706120800",
                    e);
        }
    }

    private static Area area(String name, String e, Matcher q, List<String> notes) {
        List<Position> points = new ArrayList<>();
        Matcher c = COORDINATE.matcher(e);
        while (c.find()) {
            points.add(PositionText.parse(c.group(1) + c.group(2) + c.group(3) + c.group(4)));
        }
        Matcher r = RADIUS.matcher(e);
        if (!points.isEmpty() && points.size() < 3 && r.find()) {
            double v = Double.parseDouble(r.group(1) != null ? r.group(1) : r.group(3));
            String unit = r.group(2) != null ? r.group(2) : r.group(4);
            return ZoneGeoJson.circle(points.get(0), v * metres(unit));
        }
        if (points.size() >= 3) {
            return ZoneFiles.area(List.of(new Area.Patch(points, List.of())), false, name, notes);
        }
        int miles = Integer.parseInt(q.group(9));
        if (miles == 999) {
            throw new IllegalArgumentException(
                    "Q: radius 999 means the whole region, and E gives no area; draw the part that concerns you by hand");
        }
        notes.add(name + ": E gives no area; the circle of the Q line is taken, " + miles + " NM about its centre");
        return ZoneGeoJson.circle(PositionText.parse(q.group(8)), Math.max(1, miles) * Length.METRES_PER_NAUTICAL_MILE);
    }

    private static double metres(String unit) {
        return switch (unit.toUpperCase(Locale.ROOT)) {
            case "NM" -> Length.METRES_PER_NAUTICAL_MILE;
            case "KM" -> 1000;
            case "FT" -> Length.METRES_PER_FOOT;
            default -> 1;
        };
    }

    private static HeightLimit limit(String letter, Optional<String> text, String level, boolean lower) {
        if (text.isPresent() && !text.get().isBlank()) {
            return ZoneFiles.height(letter, text.get().strip());
        }
        int fl = Integer.parseInt(level);
        if (lower && fl == 0) {
            return HeightLimit.SURFACE;
        }
        return fl == 999
                ? HeightLimit.UNLIMITED
                : new HeightLimit(fl, HeightLimit.Unit.LEVEL, HeightLimit.Reference.STANDARD);
    }

    private static ZoneKind kind(String code) {
        if (code.startsWith("RP")) {
            return ZoneKind.PROHIBITED;
        }
        if (code.startsWith("RD")) {
            return ZoneKind.DANGER;
        }
        return code.startsWith("W") ? ZoneKind.EVENT : ZoneKind.TEMPORARY;
    }

    private static ZoneMet.Restriction restriction(String code) {
        if (code.startsWith("RP")) {
            return ZoneMet.Restriction.PROHIBITED;
        }
        return code.startsWith("R") ? ZoneMet.Restriction.NEEDS_AUTHORISATION : ZoneMet.Restriction.CONDITIONAL;
    }

    private static String subject(String code) {
        return switch (code.substring(0, 2)) {
            case "RT" -> "temporary restricted area";
            case "RR" -> "restricted area";
            case "RP" -> "prohibited area";
            case "RD" -> "danger area";
            case "RA" -> "airspace reservation";
            case "OB" -> "obstacle";
            case "WU" -> "unmanned aircraft";
            case "WA" -> "air display";
            case "WP" -> "parachuting";
            case "WM" -> "firing";
            case "WE" -> "exercises";
            default -> code.startsWith("W") ? "warning" : "notice";
        };
    }
}
