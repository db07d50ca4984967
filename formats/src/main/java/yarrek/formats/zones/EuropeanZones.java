package yarrek.formats.zones;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.NamedUnit;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.BrokenMapException;
import yarrek.formats.maps.GeoJsonMap;

/**
 * Geographical zones as states of the Union publish them: EUROCAE ED-269 JSON (a list of features, each with its own list
 * of geometries) and its successor ED-318, a GeoJSON FeatureCollection with a layer of heights in each geometry. A zone of
 * several geometries becomes one zone for each, numbered. Times are UTC. A schedule bound to sunrise or sunset is kept as
 * text, and the zone counts as in force all day.
 */
final class EuropeanZones {
    private final boolean mend;
    private final List<Zone> zones = new ArrayList<>();
    private final List<String> problems = new ArrayList<>();
    private final List<String> notes = new ArrayList<>();

    private EuropeanZones(boolean mend) {
        this.mend = mend;
    }

    static ZoneFiles.Reading ed269(JsonNode features, boolean mend) throws BrokenFileException {
        return new EuropeanZones(mend).readAll("ED-269", features, true);
    }

    static ZoneFiles.Reading ed318(JsonNode features, boolean mend) throws BrokenFileException {
        return new EuropeanZones(mend).readAll("ED-318", features, false);
    }

    private ZoneFiles.Reading readAll(String format, JsonNode features, boolean old) throws BrokenFileException {
        int number = 0;
        for (JsonNode f : features) {
            number++;
            JsonNode p = old ? f : f.path("properties");
            String where = "feature " + number + " (" + name(p) + ")";
            try {
                feature(p, f.path("geometry"), old, where);
            } catch (IllegalArgumentException | DateTimeException e) {
                problems.add(where + ", " + e.getMessage());
            }
        }
        if (!problems.isEmpty()) {
            throw new BrokenMapException("zones.feature", problems);
        }
        return new ZoneFiles.Reading(format, zones, notes, List.of());
    }

    private static String name(JsonNode p) {
        JsonNode n = p.path("name");
        if (n.isArray()) {
            return n.path(0).path("text").asString("");
        }
        return n.asString("");
    }

    private void feature(JsonNode p, JsonNode geometry, boolean old, String where) {
        String id = p.path("identifier").asString("");
        if (id.isBlank()) {
            throw new IllegalArgumentException("identifier: missing; each zone needs one, such as \"XX001\"");
        }
        String country = p.path("country").asString("");
        ZoneMet.Restriction restriction = ZoneFiles.restriction(
                p.path("restriction").asString(p.path("type").asString("")));
        Timetable times = times(old ? p.path("applicability") : p.path("limitedApplicability"));
        List<JsonNode> parts = new ArrayList<>();
        if (old || geometry.isArray()) {
            geometry.forEach(parts::add);
        } else if (geometry.path("type").asString("").equals("GeometryCollection")) {
            geometry.path("geometries").forEach(parts::add);
        } else {
            parts.add(geometry);
        }
        if (parts.isEmpty()) {
            throw new IllegalArgumentException("geometry: missing; at least one is expected");
        }
        int n = 0;
        for (JsonNode g : parts) {
            n++;
            zones.add(new Zone(
                    (country.isEmpty() ? "" : country + "-") + id + (parts.size() > 1 ? "/" + n : ""),
                    name(p).isEmpty() ? id : name(p),
                    kind(p, restriction),
                    Optional.empty(),
                    restriction,
                    old ? area269(g, where) : area318(g, where),
                    old ? limit269(g, "lower") : limit318(g, "lower"),
                    old ? limit269(g, "upper") : limit318(g, "upper"),
                    times,
                    OptionalDouble.empty(),
                    message(p),
                    authority(p),
                    contact(p)));
        }
    }

    private static ZoneKind kind(JsonNode p, ZoneMet.Restriction restriction) {
        String reasons = p.path("reason").toString().toUpperCase(Locale.ROOT);
        if (reasons.contains("AIR_TRAFFIC")) {
            return ZoneKind.AERODROME;
        }
        if (reasons.contains("NATURE")) {
            return ZoneKind.PARK;
        }
        if (reasons.contains("EMERGENCY")) {
            return ZoneKind.EMERGENCY;
        }
        if (reasons.contains("POPULATION")) {
            return ZoneKind.BUILT_UP;
        }
        return restriction == ZoneMet.Restriction.PROHIBITED
                ? ZoneKind.PROHIBITED
                : restriction == ZoneMet.Restriction.NO_RESTRICTION ? ZoneKind.OTHER : ZoneKind.RESTRICTED;
    }

    private static String message(JsonNode p) {
        List<String> parts = new ArrayList<>();
        JsonNode message = p.path("message");
        parts.add(message.isArray() ? message.path(0).path("text").asString("") : message.asString(""));
        JsonNode conditions = p.path("restrictionConditions");
        if (conditions.isArray()) {
            conditions.forEach(c -> parts.add(c.asString("")));
        } else {
            parts.add(conditions.asString(""));
        }
        parts.add(p.path("otherReasonInfo").asString(""));
        List<String> reasons = new ArrayList<>();
        p.path("reason")
                .forEach(
                        r -> reasons.add(r.asString("").toLowerCase(Locale.ROOT).replace('_', ' ')));
        if (!reasons.isEmpty()) {
            parts.add("Reason: " + String.join(", ", reasons) + ".");
        }
        parts.removeIf(String::isBlank);
        return String.join(" ", parts);
    }

    private static String authority(JsonNode p) {
        JsonNode a = p.path("zoneAuthority").path(0);
        JsonNode n = a.path("name");
        String name = n.isArray() ? n.path(0).path("text").asString("") : n.asString("");
        String before = a.path("intervalBefore").asString("");
        return name
                + (before.isEmpty()
                        ? ""
                        : " (ask " + before.replaceFirst("^P(T?)", "").toLowerCase(Locale.ROOT) + " before)");
    }

    private static String contact(JsonNode p) {
        JsonNode a = p.path("zoneAuthority").path(0);
        List<String> parts = new ArrayList<>();
        for (String property : List.of("contactName", "phone", "email", "siteURL")) {
            JsonNode n = a.path(property);
            parts.add(n.isArray() ? n.path(0).path("text").asString("") : n.asString(""));
        }
        parts.removeIf(String::isBlank);
        return String.join(", ", parts);
    }

    // --- ED-269 ------------------------------------------------------------------------------------------------------

    private Area area269(JsonNode g, String where) {
        JsonNode h = g.path("horizontalProjection");
        return h.path("type").asString("").equals("Circle")
                ? ZoneGeoJson.circle(
                        at("center", h.path("center")),
                        radius(h, g.path("uomDimensions").asString("M")))
                : polygon(h, where, true);
    }

    private static yarrek.core.geo.Position at(String property, JsonNode n) {
        try {
            return GeoJsonMap.position(n);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(property + ": " + e.getMessage(), e);
        }
    }

    /** @param geodesic sides are shortest lines on the ground; GeoJSON's are straight in degrees (RFC 7946, 3.1.1) */
    private Area polygon(JsonNode h, String where, boolean geodesic) {
        if (!h.path("type").asString("").endsWith("Polygon")) {
            throw new IllegalArgumentException("geometry: found type \""
                    + ZoneFiles.cut(h.path("type").asString("")) + "\"; a Polygon or a circle is expected");
        }
        try {
            List<Area.Patch> patches = GeoJsonMap.patches(h);
            return ZoneFiles.area(
                    geodesic ? patches.stream().map(ZoneFiles::geodesic).toList() : patches, mend, where, notes);
        } catch (IllegalArgumentException e) {
            String m = String.valueOf(e.getMessage());
            throw new IllegalArgumentException(m.startsWith("geometry") ? m : "geometry: " + m, e);
        }
    }

    private static double radius(JsonNode h, String unit) {
        if (!h.path("radius").isNumber()) {
            throw new IllegalArgumentException(
                    "radius: found \"" + ZoneFiles.cut(h.path("radius").asString("")) + "\"; a number is expected");
        }
        return h.get("radius").doubleValue() * (unit.equalsIgnoreCase("FT") ? NamedUnit.FOOT.factor() : 1);
    }

    private static HeightLimit limit269(JsonNode g, String which) {
        JsonNode v = g.path(which + "Limit");
        String unit = g.path("uomDimensions").asString("M");
        return limit(
                which + "Limit", v, unit, g.path(which + "VerticalReference").asString("AGL"), which);
    }

    // --- ED-318 ------------------------------------------------------------------------------------------------------

    private Area area318(JsonNode g, String where) {
        if (g.path("type").asString("").equals("Point")) {
            JsonNode extent = g.path("extent");
            return ZoneGeoJson.circle(at("coordinates", g.path("coordinates")), radius(extent, "M"));
        }
        return polygon(g, where, false);
    }

    private static HeightLimit limit318(JsonNode g, String which) {
        JsonNode layer = g.path("layer");
        return limit(
                "layer." + which,
                layer.path(which),
                layer.path("uom").asString("m"),
                layer.path(which + "Reference").asString("AGL"),
                which);
    }

    private static HeightLimit limit(String property, JsonNode v, String unit, String reference, String which) {
        if (v.isMissingNode() || v.isNull()) {
            return which.equals("lower") ? HeightLimit.SURFACE : HeightLimit.UNLIMITED;
        }
        if (!v.isNumber()) {
            throw new IllegalArgumentException(
                    property + ": found \"" + ZoneFiles.cut(v.asString("")) + "\"; a number is expected");
        }
        HeightLimit.Unit u = switch (unit.toUpperCase(Locale.ROOT)) {
            case "M" -> HeightLimit.Unit.METRES;
            case "FT" -> HeightLimit.Unit.FEET;
            case "FL" -> HeightLimit.Unit.LEVEL;
            default ->
                throw new IllegalArgumentException(
                        property + ": found unit \"" + ZoneFiles.cut(unit) + "\"; m, ft or FL is expected");
        };
        HeightLimit.Reference r = switch (reference.toUpperCase(Locale.ROOT)) {
            case "AGL", "SFC" -> HeightLimit.Reference.GROUND;
            case "AMSL", "MSL" -> HeightLimit.Reference.SEA;
            case "FL", "STD" -> HeightLimit.Reference.STANDARD;
            default ->
                throw new IllegalArgumentException(property + ": found reference \"" + ZoneFiles.cut(reference)
                        + "\"; AGL, AMSL or FL is expected (heights above the ellipsoid are not read)");
        };
        return new HeightLimit(v.doubleValue(), u, u == HeightLimit.Unit.LEVEL ? HeightLimit.Reference.STANDARD : r);
    }

    // --- times -------------------------------------------------------------------------------------------------------

    private static Timetable times(JsonNode applicability) {
        List<Timetable.Period> periods = new ArrayList<>();
        List<String> texts = new ArrayList<>();
        for (JsonNode a : applicability) {
            boolean permanent = a.path("permanent").asString("").equalsIgnoreCase("YES");
            List<Timetable.Weekly> weekly = new ArrayList<>();
            boolean bySun = false;
            for (JsonNode s : a.path("schedule")) {
                if (s.hasNonNull("startEvent") || s.hasNonNull("endEvent")) {
                    bySun = true;
                    texts.add(s.toString());
                } else {
                    weekly.add(new Timetable.Weekly(days(s), time(s, "startTime"), time(s, "endTime")));
                }
            }
            Optional<Instant> from = permanent ? Optional.empty() : instant(a, "startDateTime");
            Optional<Instant> to = permanent ? Optional.empty() : instant(a, "endDateTime");
            if (from.isPresent() || to.isPresent() || !weekly.isEmpty()) {
                periods.add(new Timetable.Period(from, to, bySun ? List.of() : weekly));
            } else {
                // one stretch without limits makes it always in force
                return new Timetable(List.of(), Optional.empty(), Optional.empty(), String.join(" ", texts));
            }
        }
        return new Timetable(periods, Optional.empty(), Optional.empty(), String.join(" ", texts));
    }

    private static Set<DayOfWeek> days(JsonNode s) {
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        for (JsonNode d : s.path("day")) {
            String word = d.asString("").toUpperCase(Locale.ROOT);
            if (word.equals("ANY")) {
                return Set.of();
            }
            days.add(java.util.Arrays.stream(DayOfWeek.values())
                    .filter(x -> x.name().startsWith(word) && word.length() >= 3)
                    .findFirst()
                    .orElseThrow(() -> new IllegalArgumentException(
                            "schedule.day: found \"" + ZoneFiles.cut(word) + "\"; MON to SUN or ANY is expected")));
        }
        return days;
    }

    private static LocalTime time(JsonNode s, String property) {
        String text =
                s.path(property).asString("").replaceFirst("Z$|\\+00:?00$", "").replaceFirst("[.]\\d+$", "");
        try {
            return text.startsWith("24:00") ? LocalTime.MIDNIGHT : LocalTime.parse(text);
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "schedule." + property + ": found \""
                            + ZoneFiles.cut(s.path(property).asString(""))
                            + "\"; a time in UTC is expected, such as 08:00Z",
                    e);
        }
    }

    private static Optional<Instant> instant(JsonNode a, String property) {
        if (!a.hasNonNull(property) || a.get(property).asString("").isBlank()) {
            return Optional.empty();
        }
        String text = a.get(property).asString("");
        try {
            return Optional.of(OffsetDateTime.parse(text).toInstant());
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(
                    "applicability." + property + ": found \"" + ZoneFiles.cut(text)
                            + "\"; a date and time with its offset is expected, such as 2027-06-12T08:00:00Z",
                    e);
        }
    }
}
