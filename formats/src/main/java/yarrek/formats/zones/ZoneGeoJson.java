package yarrek.formats.zones;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalTime;
import java.time.MonthDay;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.BrokenMapException;
import yarrek.formats.maps.GeoJsonMap;

/**
 * Our own zones as GeoJSON features (RFC 7946): a Polygon or MultiPolygon, or a Point with {@code radiusM}, and the
 * properties {@code zone} (its id), {@code name}, {@code kind}, {@code class}, {@code restriction} (prohibited,
 * needsAuthorisation, conditional, noRestriction), {@code lowerM} and {@code upperM} above ground or {@code lower} and
 * {@code upper} in words such as "1500 ft AMSL" (no upper: no end), {@code seasonFrom} and {@code seasonThrough} as MM-DD,
 * {@code periods} with {@code from}, {@code to} and {@code weekly} hours in UTC, {@code schedule} as text,
 * {@code bindsFromG}, {@code bufferM} by which it is widened, {@code message}, {@code authority}, {@code contact}.
 * Features without {@code zone} are scenery.
 */
public final class ZoneGeoJson {
    private static final JsonMapper JSON = JsonMapper.shared();

    private ZoneGeoJson() {}

    static ZoneFiles.Reading read(JsonNode root, boolean mend) throws BrokenFileException {
        List<Zone> zones = new ArrayList<>();
        List<String> problems = new ArrayList<>();
        List<String> notes = new ArrayList<>();
        List<JsonNode> scenery = new ArrayList<>();
        int number = 0;
        for (JsonNode feature : root.get("features")) {
            number++;
            JsonNode p = feature.path("properties");
            if (!p.has("zone")) {
                scenery.add(feature);
                continue;
            }
            String where = "feature " + number + " (" + p.path("name").asString("") + ")";
            try {
                zones.add(zone(feature, mend, where, notes));
            } catch (IllegalArgumentException | DateTimeException e) {
                problems.add(where + ", " + e.getMessage());
            }
        }
        if (!problems.isEmpty()) {
            throw new BrokenMapException("geojson.zone", problems);
        }
        return new ZoneFiles.Reading("GeoJSON", zones, notes, scenery);
    }

    /** One stored zone. */
    public static Zone zone(String feature) {
        return zone(JSON.readTree(feature), false, "the stored zone", new ArrayList<>());
    }

    private static Zone zone(JsonNode feature, boolean mend, String where, List<String> notes) {
        JsonNode p = feature.path("properties");
        JsonNode g = feature.path("geometry");
        String type = g.path("type").asString("");
        Area area;
        if (type.equals("Point")) {
            area = circle(GeoJsonMap.position(g.get("coordinates")), number(p, "radiusM"));
        } else if (type.equals("Polygon") || type.equals("MultiPolygon")) {
            area = ZoneFiles.area(GeoJsonMap.patches(g), mend, where, notes);
        } else {
            throw new IllegalArgumentException(
                    "geometry: found \"" + type + "\"; a zone is a Polygon, a MultiPolygon, or a Point with radiusM");
        }
        if (p.has("bufferM")) {
            area = area.widened(number(p, "bufferM"));
        }
        return new Zone(
                p.get("zone").asString(),
                p.path("name").asString(p.get("zone").asString()),
                ZoneKind.of(p.path("kind").asString("")),
                Optional.ofNullable(p.get("class")).map(c -> c.asString("")).filter(c -> !c.isEmpty()),
                ZoneFiles.restriction(p.path("restriction").asString("")),
                area,
                limit(p, "lower", HeightLimit.SURFACE),
                limit(p, "upper", HeightLimit.UNLIMITED),
                times(p),
                p.has("bindsFromG") ? OptionalDouble.of(number(p, "bindsFromG")) : OptionalDouble.empty(),
                p.path("message").asString(""),
                p.path("authority").asString(""),
                p.path("contact").asString(""));
    }

    static Area circle(yarrek.core.geo.Position centre, double radiusM) {
        try {
            return Area.circle(centre, radiusM);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("radius: " + e.getMessage(), e);
        }
    }

    private static double number(JsonNode p, String property) {
        if (!p.path(property).isNumber()) {
            throw new IllegalArgumentException(property + ": found \""
                    + ZoneFiles.cut(p.path(property).asString("")) + "\"; a number is expected");
        }
        return p.get(property).doubleValue();
    }

    private static HeightLimit limit(JsonNode p, String which, HeightLimit otherwise) {
        if (p.has(which)) {
            return ZoneFiles.stated(which, p.get(which).asString(""));
        }
        return p.has(which + "M") ? HeightLimit.aboveGround(number(p, which + "M")) : otherwise;
    }

    private static Timetable times(JsonNode p) {
        List<Timetable.Period> periods = new ArrayList<>();
        for (JsonNode n : p.path("periods")) {
            List<Timetable.Weekly> weekly = new ArrayList<>();
            for (JsonNode w : n.path("weekly")) {
                Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
                w.path("days").forEach(d -> days.add(DayOfWeek.of(d.asInt())));
                weekly.add(new Timetable.Weekly(
                        days,
                        LocalTime.parse(w.path("from").asString("00:00")),
                        LocalTime.parse(w.path("to").asString("00:00"))));
            }
            periods.add(new Timetable.Period(instant(n, "from"), instant(n, "to"), weekly));
        }
        return new Timetable(
                periods,
                season(p, "seasonFrom"),
                season(p, "seasonThrough"),
                p.path("schedule").asString(""));
    }

    private static Optional<Instant> instant(JsonNode n, String property) {
        return n.hasNonNull(property)
                ? Optional.of(Instant.parse(n.get(property).asString()))
                : Optional.empty();
    }

    private static Optional<MonthDay> season(JsonNode p, String word) {
        return p.has(word) ? Optional.of(MonthDay.parse("--" + p.get(word).asString())) : Optional.empty();
    }

    // --- writing -----------------------------------------------------------------------------------------------------

    /** A zone as a feature that {@link #zone(String)} reads back the same; a circle comes out as its corners. */
    public static ObjectNode write(Zone z) {
        ObjectNode f = JSON.createObjectNode();
        f.put("type", "Feature");
        ObjectNode p = f.putObject("properties");
        p.put("zone", z.id());
        p.put("name", z.name());
        p.put("kind", z.kind().words());
        z.airspaceClass().ifPresent(c -> p.put("class", c));
        p.put("restriction", z.restriction().name().toLowerCase(Locale.ROOT));
        p.put("lower", words(z.lower()));
        p.put("upper", words(z.upper()));
        z.times().seasonFrom().ifPresent(d -> p.put("seasonFrom", d.toString().substring(2)));
        z.times()
                .seasonThrough()
                .ifPresent(d -> p.put("seasonThrough", d.toString().substring(2)));
        if (!z.times().text().isEmpty()) {
            p.put("schedule", z.times().text());
        }
        if (!z.times().periods().isEmpty()) {
            periods(p.putArray("periods"), z.times().periods());
        }
        z.bindsFromG().ifPresent(g -> p.put("bindsFromG", g));
        p.put("message", z.message());
        p.put("authority", z.authority());
        p.put("contact", z.contact());
        f.set("geometry", GeoJsonMap.geometry(z.area().patches()));
        return f;
    }

    private static void periods(ArrayNode all, List<Timetable.Period> periods) {
        for (Timetable.Period period : periods) {
            ObjectNode n = all.addObject();
            period.from().ifPresent(i -> n.put("from", i.toString()));
            period.to().ifPresent(i -> n.put("to", i.toString()));
            ArrayNode weekly = n.putArray("weekly");
            for (Timetable.Weekly w : period.weekly()) {
                ObjectNode hours = weekly.addObject();
                ArrayNode days = hours.putArray("days");
                w.days().stream().sorted().forEach(d -> days.add(d.getValue()));
                hours.put("from", w.from().toString());
                hours.put("to", w.to().toString());
            }
        }
    }

    /** As {@link OpenAirZones#height} reads it. */
    private static String words(HeightLimit h) {
        String value = java.math.BigDecimal.valueOf(Double.isInfinite(h.value()) ? 0 : h.value())
                .stripTrailingZeros()
                .toPlainString();
        return switch (h.reference()) {
            case NO_LIMIT -> "UNLIMITED";
            case STANDARD ->
                h.unit() == HeightLimit.Unit.LEVEL
                        ? "FL " + value
                        : value + (h.unit() == HeightLimit.Unit.FEET ? " ft STD" : " m STD");
            case GROUND -> value + (h.unit() == HeightLimit.Unit.FEET ? " ft AGL" : " m AGL");
            case SEA -> value + (h.unit() == HeightLimit.Unit.FEET ? " ft AMSL" : " m AMSL");
        };
    }
}
