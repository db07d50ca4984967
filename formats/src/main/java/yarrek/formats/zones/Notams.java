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
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Length;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.BrokenMapException;

/**
 * Notices to airmen in ICAO form (Annex 15, Doc 8126): Q line, B and C times with EST and PERM, D schedule, E text with its
 * coordinates, F and G limits. The area is the polygon or the circles that E describes in words known here; where its words
 * say more, it is what was read of them and the circle of the Q line together, and the notice is put forward for a decision.
 * So are limits in words not known here, for which the ground and no limit are taken. A schedule not understood counts as
 * in force throughout. An estimated end counts as no end: the notice stands until it is replaced or cancelled, also within
 * the same text.
 */
public final class Notams {
    private static final Pattern ID = Pattern.compile("\\b([A-Z]\\d{4}/\\d{2})\\b");
    private static final Pattern REPLACES = Pattern.compile("NOTAM([RC])\\s+([A-Z]\\d{4}/\\d{2})\\b");
    private static final Pattern Q_LINE = Pattern.compile(
            "\\s*([A-Z]{4})/Q([A-Z]{4})/([A-Z ]*)/([A-Z ]*)/([A-Z ]*)/(\\d{3})/(\\d{3})/(\\d{4}[NS]\\d{5}[EW])(\\d{3})\\s*");
    private static final Pattern FIELD = Pattern.compile("(?:^|\\s)([QABCDEFG])\\)");
    private static final Pattern COORDINATE = Pattern.compile(
            "\\b(\\d{4}(?:\\d{2})?(?:[.]\\d{1,4})?)\\s?([NS])[\\s,/]{0,3}(\\d{5}(?:\\d{2})?(?:[.]\\d{1,4})?)\\s?([EW])\\b");
    private static final String LENGTH = "(\\d{1,5}(?:[.]\\d+)?)\\s*(NM|KM|M|FT)\\b";
    private static final Pattern RADIUS = Pattern.compile(
            "(?:RADIUS|RAD|WITHIN|WI)\\s*(?:OF\\s*)?(?:A\\s*)?" + LENGTH + "|" + LENGTH + "\\s*(?:RADIUS|RAD)\\b");

    /** Words of an outline whose corners stand one after the other. */
    private static final Pattern OUTLINE =
            Pattern.compile("\\b(AREA|BOUNDED|LIMITS?|JOINING|POLYGON|WITHIN|WI|LINES?)\\b");

    /** Words that make of coordinates something else than corners or middles, or of one area two. */
    private static final Pattern OTHERWISE = Pattern.compile(
            "\\b(ARCS?|CLOCKWISE|ANTICLOCKWISE|COUNTERCLOCKWISE|EITHER SIDE|BOTH SIDES|CORRIDOR|SECTOR|BEARINGS?|RADIALS?"
                    + "|EXCLUDING|EXCL|EXCEPT|OUTSIDE|ENTRY|EXIT|POINTS?|ALONG|ROUTE|BTN|BETWEEN|COAST\\w*|BORDER|RIVER|FIR)\\b");

    /** Between two corners of one outline stand at most such words. */
    private static final Pattern JOINT =
            Pattern.compile("(?:\\s|[-,;:./()]|TO|THENCE|THEN|AND|BACK|POINT OF ORIGIN|ORIGIN)*");

    /** A radius, or an upper level, that means without end. */
    private static final int WHOLE_REGION = 999;

    /** The largest circle an area can be: 1,000 km. */
    private static final int LARGEST_NM = 539;

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyMMddHHmm", Locale.ROOT);

    private final String name;
    private final String notice;
    private final List<String> notes;
    private final List<ZoneFiles.Doubt> doubts;

    private Notams(String name, String notice, List<String> notes, List<ZoneFiles.Doubt> doubts) {
        this.name = name;
        this.notice = notice;
        this.notes = notes;
        this.doubts = doubts;
    }

    private void doubt(String why) {
        doubts.add(new ZoneFiles.Doubt(name, notice.strip(), why));
    }

    static boolean looksLike(String text) {
        return Pattern.compile("(?m)(?:^|\\s)Q\\)").matcher(text).find();
    }

    static ZoneFiles.Reading read(String text) throws BrokenFileException {
        List<Zone> zones = new ArrayList<>();
        List<String> problems = new ArrayList<>();
        List<String> notes = new ArrayList<>();
        List<ZoneFiles.Doubt> doubts = new ArrayList<>();
        int number = 0;
        for (String notice : split(text)) {
            number++;
            Matcher id = ID.matcher(notice);
            String name = id.find() ? id.group(1) : "notice " + number;
            try {
                Matcher other = REPLACES.matcher(notice);
                if (other.find()) {
                    boolean here = zones.removeIf(z -> z.id().equals(other.group(2)));
                    boolean cancels = other.group(1).equals("C");
                    notes.add(name
                            + (cancels ? " cancels " : " replaces ")
                            + other.group(2)
                            + (here
                                    ? ", which is left out"
                                    : ", which is not in this text; where it is on file, remove it from its source"));
                }
                if (!notice.contains("NOTAMC")) {
                    String again = name;
                    for (int n = 2; isTaken(zones, again); n++) {
                        again = name + "/" + n;
                    }
                    zones.add(new Notams(again, notice, notes, doubts).zone());
                }
            } catch (IllegalArgumentException e) {
                problems.add(name + ", " + e.getMessage());
            }
        }
        if (!problems.isEmpty()) {
            throw new BrokenMapException("notam.field", problems);
        }
        zones.forEach(z -> doubts.stream()
                .filter(d -> d.zoneId().equals(z.id()))
                .forEach(d -> notes.add(d.zoneId() + ": " + d.why())));
        return new ZoneFiles.Reading(
                "NOTAM",
                zones,
                notes,
                List.of(),
                doubts.stream().filter(d -> isTaken(zones, d.zoneId())).toList());
    }

    private static boolean isTaken(List<Zone> zones, String id) {
        return zones.stream().anyMatch(z -> z.id().equals(id));
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
            String notice = text.substring(starts.get(i), i + 1 < starts.size() ? starts.get(i + 1) : text.length());
            // brackets and headings between the notices of a bulletin belong to none of them
            notices.add(notice.replaceFirst("(?s)\\)\\s*(\\n\\s*\\n.*|\\(\\s*)?$", ""));
        }
        return notices;
    }

    private Zone zone() {
        String q = field("Q").orElseThrow(() -> new IllegalArgumentException("Q: the line is missing or broken off"));
        Matcher m = Q_LINE.matcher(q.replaceAll("\\s+", " "));
        if (!m.matches()) {
            throw new IllegalArgumentException("Q: found \"" + ZoneFiles.cut(q)
                    + "\"; seven parts are expected, such as XXXX/QRTCA/IV/BO/W/000/012/4635N01754W003");
        }
        String e = field("E").orElse("").replaceAll("\\s+", " ").strip();
        Instant from = time("B", field("B").orElse(""));
        String c = field("C").orElse("").strip();
        boolean permanent = c.startsWith("PERM") || c.equals("UFN");
        boolean estimated = c.endsWith("EST");
        Instant to = permanent ? null : time("C", c.replace("EST", "").strip());
        if (to != null && to.isBefore(from)) {
            throw new IllegalArgumentException("C: the end " + to + " is before the beginning " + from);
        }
        if (estimated) {
            notes.add(name + ": its end is estimated (" + c + "), so it counts as in force until it is replaced");
        }
        Optional<Instant> end = estimated ? Optional.empty() : Optional.ofNullable(to);
        return new Zone(
                name,
                name + " " + subject(m.group(2)),
                kind(m.group(2)),
                Optional.empty(),
                restriction(m.group(2)),
                area(e, m),
                limit("F", m.group(6), true),
                limit("G", m.group(7), false),
                times(from, end),
                OptionalDouble.empty(),
                e,
                m.group(1),
                "");
    }

    private Timetable times(Instant from, Optional<Instant> to) {
        String schedule = field("D").orElse("").replaceAll("\\s+", " ").strip();
        Optional<List<Timetable.Period>> hours =
                schedule.isEmpty() ? Optional.empty() : NoticeSchedule.read(schedule, from, to);
        if (hours.isEmpty() && !schedule.isEmpty()) {
            notes.add(name + ": its schedule, “" + schedule
                    + "”, is not understood, so it counts as in force throughout");
        }
        return new Timetable(
                hours.orElse(List.of(new Timetable.Period(Optional.of(from), to, List.of()))),
                Optional.empty(),
                Optional.empty(),
                hours.isPresent() ? "" : schedule);
    }

    private Optional<String> field(String letter) {
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

    private Area area(String text, Matcher q) {
        String e = text.toUpperCase(Locale.ROOT);
        List<Position> points = new ArrayList<>();
        boolean oneOutline = true;
        Matcher c = COORDINATE.matcher(e);
        int before = -1;
        while (c.find()) {
            oneOutline &=
                    before < 0 || JOINT.matcher(e.substring(before, c.start())).matches();
            before = c.end();
            points.add(PositionText.parse(c.group(1) + c.group(2) + c.group(3) + c.group(4)));
        }
        List<Double> radii = new ArrayList<>();
        Matcher r = RADIUS.matcher(e);
        while (r.find()) {
            boolean first = r.group(1) != null;
            radii.add(Double.parseDouble(r.group(first ? 1 : 3)) * metres(r.group(first ? 2 : 4)));
        }
        boolean plain = !OTHERWISE.matcher(e).find();
        if (plain
                && radii.isEmpty()
                && points.size() >= 3
                && oneOutline
                && OUTLINE.matcher(e).find()) {
            Area.Check outline = Area.check(Geodesy.alongSides(points));
            if (outline.isValid()) {
                return outline.area();
            }
        }
        if (plain && !points.isEmpty() && radii.size() == points.size()) {
            return circles(points, radii);
        }
        return whatWasRead(points, radii, q);
    }

    private static Area circles(List<Position> middles, List<Double> radii) {
        List<Area> circles = new ArrayList<>();
        for (int i = 0; i < middles.size(); i++) {
            circles.add(ZoneGeoJson.circle(middles.get(i), radii.get(i)));
        }
        return circles.size() == 1 ? circles.get(0) : Area.union(circles);
    }

    /** The circle of the Q line, and all that the coordinates of E may mean. */
    private Area whatWasRead(List<Position> points, List<Double> radii, Matcher q) {
        int miles = Integer.parseInt(q.group(9));
        int taken = Math.min(LARGEST_NM, Math.max(1, miles));
        Area circle = ZoneGeoJson.circle(PositionText.parse(q.group(8)), taken * Length.METRES_PER_NAUTICAL_MILE);
        String circleWords = "the circle of the Q line, " + taken + " NM about its centre";
        if (points.isEmpty() && radii.isEmpty()) {
            doubt("E gives no area; taken is " + circleWords
                    + (miles == WHOLE_REGION
                            ? ", for the notice speaks of a whole region, and may reach further"
                            : ""));
            return circle;
        }
        List<Area> all = new ArrayList<>(List.of(circle));
        double widest = radii.stream().mapToDouble(Double::doubleValue).max().orElse(0);
        if (widest > 0) {
            points.forEach(p -> all.add(ZoneGeoJson.circle(p, widest)));
        } else if (points.size() >= 3) {
            Area.Check outline = Area.check(points);
            if (outline.isValid() || outline.mended() != null) {
                all.add(outline.isValid() ? outline.area() : outline.mended());
            }
        }
        doubt("the words of E were not understood as an area; taken is " + circleWords
                + (all.size() > 1 ? ", together with all that its coordinates may mean" : ""));
        return all.size() == 1 ? circle : Area.union(all);
    }

    private static double metres(String unit) {
        return switch (unit.toUpperCase(Locale.ROOT)) {
            case "NM" -> Length.METRES_PER_NAUTICAL_MILE;
            case "KM" -> 1000;
            case "FT" -> Length.METRES_PER_FOOT;
            default -> 1;
        };
    }

    private HeightLimit limit(String letter, String level, boolean lower) {
        String text = field(letter).orElse("");
        if (!text.isBlank()) {
            try {
                // the same height in another unit often follows in brackets
                return ZoneFiles.height(
                        letter,
                        text.replaceAll("\\([^)]*\\)", " ")
                                .replaceAll("\\s+", " ")
                                .strip());
            } catch (IllegalArgumentException e) {
                doubt(letter + ", “" + ZoneFiles.cut(text) + "”, was not understood as a height; taken is "
                        + (lower ? "the ground" : "no upper limit"));
                return lower ? HeightLimit.SURFACE : HeightLimit.UNLIMITED;
            }
        }
        int fl = Integer.parseInt(level);
        if (lower && fl == 0) {
            return HeightLimit.SURFACE;
        }
        return fl == WHOLE_REGION
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
