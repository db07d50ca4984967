package yarrek.formats.zones;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.rulebook.ZoneMet;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.BrokenMapException;
import yarrek.formats.maps.GeoJsonMap;
import yarrek.formats.maps.MapFeature;
import yarrek.formats.maps.MapFiles;

/** Reads a zone file of any of the formats, known by what stands in it. */
public final class ZoneFiles {
    /** Zones of one file; more are refused. */
    public static final int MOST_ZONES = 200_000;

    /**
     * What the person says about the file.
     *
     * @param kind what zones are whose file does not say
     * @param restriction what zones ask whose file does not say; empty refuses such a file
     * @param mend whether areas whose sides cross are repaired, each repair being told
     */
    public record Settings(ZoneKind kind, Optional<ZoneMet.Restriction> restriction, boolean mend) {}

    /**
     * @param format in words
     * @param notes what was understood in a way that must be told: conventions, repairs, kept texts
     * @param scenery features that are no zones, as JSON: coast, names, runways
     * @param doubts what of its zones was not understood and waits for a person
     */
    public record Reading(
            String format, List<Zone> zones, List<String> notes, List<JsonNode> scenery, List<Doubt> doubts) {
        Reading(String format, List<Zone> zones, List<String> notes, List<JsonNode> scenery) {
            this(format, zones, notes, scenery, List.of());
        }
    }

    /**
     * A zone of which more was taken than is certain.
     *
     * @param text as it was published, whole
     * @param why what was not understood, and what was taken instead
     */
    public record Doubt(String zoneId, String text, String why) {}

    private ZoneFiles() {}

    /** @throws BrokenFileException with every fault; then there are no zones */
    public static Reading read(byte[] content, Settings settings) throws BrokenFileException {
        boolean western = !isJsonOrXml(content) && !isUtf8(content);
        String text = western ? new String(content, Charset.forName("windows-1252")) : MapFiles.text(content);
        String head = text.stripLeading();
        Reading reading;
        if (head.startsWith("{")) {
            reading = json(GeoJsonMap.parse(text), content, settings);
        } else if (head.startsWith("<")) {
            reading = plain("KML", MapFiles.read(content), settings, new ArrayList<>());
        } else if (Notams.looksLike(text)) {
            reading = Notams.read(text);
        } else if (OpenAirZones.looksLike(text)) {
            reading = OpenAirZones.read(text, settings.mend());
        } else {
            throw new BrokenFileException(
                    "zones.format",
                    "this is none of the zone formats read here: ED-269 or ED-318 JSON, GeoJSON, KML, OpenAir text, NOTAM text");
        }
        if (western) {
            List<String> notes = new ArrayList<>(reading.notes());
            notes.add(
                    "the file is not UTF-8; it is read as Western European text (windows-1252). Check the accented letters");
            reading = new Reading(reading.format(), reading.zones(), notes, reading.scenery(), reading.doubts());
        }
        if (reading.zones().size() > MOST_ZONES) {
            throw new BrokenFileException(
                    "zones.size",
                    "the file has " + reading.zones().size() + " zones; at most " + MOST_ZONES
                            + " are taken at once, so split it");
        }
        if (reading.zones().isEmpty()) {
            throw new BrokenFileException("zones.none", "the file holds no zones");
        }
        List<String> upsideDown = reading.zones().stream()
                .filter(ZoneFiles::isUpsideDown)
                .map(z -> "zone " + z.id() + (z.name().equals(z.id()) ? "" : " (" + z.name() + ")")
                        + ", limits: the lower, " + z.lower().words() + ", lies above the upper, "
                        + z.upper().words()
                        + "; correct them in the file")
                .toList();
        if (!upsideDown.isEmpty()) {
            throw new BrokenMapException("zones.limits", upsideDown);
        }
        return distinct(reading);
    }

    /** Limits of different references can only be laid side by side where the ground is known. */
    private static boolean isUpsideDown(Zone z) {
        HeightLimit.Reference none = HeightLimit.Reference.NO_LIMIT;
        return z.lower().reference() == none
                || (z.lower().reference() == z.upper().reference()
                        && z.lower().metres() > z.upper().metres());
    }

    private static boolean isJsonOrXml(byte[] content) {
        String head = new String(content, 0, Math.min(content.length, 200), StandardCharsets.ISO_8859_1)
                .replaceFirst("^\u00EF\u00BB\u00BF", "")
                .stripLeading();
        return head.startsWith("{") || head.startsWith("<");
    }

    private static boolean isUtf8(byte[] content) {
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(content));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }

    private static Reading json(JsonNode root, byte[] content, Settings settings) throws BrokenFileException {
        if (!root.path("features").isArray() && root.path("UASZoneList").isArray()) {
            return EuropeanZones.ed269(root.get("UASZoneList"), settings.mend());
        }
        if (!root.path("features").isArray()) {
            throw new BrokenFileException("geojson.collection", "a GeoJSON FeatureCollection is expected");
        }
        JsonNode first = root.get("features").path(0);
        if (first.path("geometry").isArray()) {
            return EuropeanZones.ed269(root.get("features"), settings.mend());
        }
        boolean own = false;
        boolean ed318 = false;
        for (JsonNode f : root.get("features")) {
            own |= f.path("properties").has("zone");
            ed318 |= f.path("geometry").has("layer")
                    || f.path("geometry").path("geometries").path(0).has("layer")
                    || f.path("properties").has("limitedApplicability");
        }
        if (own) {
            return ZoneGeoJson.read(root, settings.mend());
        }
        if (ed318) {
            return EuropeanZones.ed318(root.get("features"), settings.mend());
        }
        return plain("GeoJSON", MapFiles.read(content), settings, new ArrayList<>());
    }

    /** Features that say little of themselves: heights and the like by their usual property names, the rest as settled. */
    private static Reading plain(String format, List<MapFeature> features, Settings settings, List<String> notes)
            throws BrokenFileException {
        List<Zone> zones = new ArrayList<>();
        List<String> problems = new ArrayList<>();
        for (MapFeature f : features) {
            if (!f.isArea()) {
                notes.add(f.where() + " is no area and was left out");
                continue;
            }
            try {
                zones.add(plain(f, settings, notes));
            } catch (IllegalArgumentException e) {
                problems.add(f.where() + ", " + e.getMessage());
            }
        }
        if (!problems.isEmpty()) {
            throw new BrokenMapException("zones.feature", problems);
        }
        return new Reading(format, zones, notes, List.of());
    }

    private static Zone plain(MapFeature f, Settings settings, List<String> notes) {
        Map<String, String> p = new LinkedHashMap<>();
        f.properties().forEach((k, v) -> p.put(k.toLowerCase(java.util.Locale.ROOT), v));
        ZoneKind kind = p.containsKey("kind") ? ZoneKind.of(p.get("kind")) : settings.kind();
        ZoneMet.Restriction restriction = p.containsKey("restriction")
                ? restriction(p.get("restriction"))
                : settings.restriction()
                        .orElseThrow(
                                () -> new IllegalArgumentException(
                                        "restriction: the file does not say what the zone asks; choose it beside the file, or give each feature a restriction: prohibited, needsAuthorisation, conditional or noRestriction"));
        HeightLimit lower = p.containsKey("lower") ? stated("lower", p.get("lower")) : HeightLimit.SURFACE;
        HeightLimit upper = p.containsKey("upper") ? stated("upper", p.get("upper")) : HeightLimit.UNLIMITED;
        String id = p.getOrDefault("id", p.getOrDefault("identifier", f.name().isEmpty() ? "" + f.number() : f.name()));
        return new Zone(
                id,
                f.name().isEmpty() ? id : f.name(),
                kind,
                Optional.ofNullable(p.get("class")).filter(c -> !c.isBlank()),
                restriction,
                area(f.patches(), settings.mend(), f.where(), notes),
                lower,
                upper,
                Timetable.ALWAYS,
                OptionalDouble.empty(),
                p.getOrDefault("message", p.getOrDefault("description", "")),
                p.getOrDefault("authority", ""),
                p.getOrDefault("contact", ""));
    }

    /** "1500 ft AGL", "FL 65", "120 m above ground", "unlimited". */
    static HeightLimit height(String property, String text) {
        try {
            return OpenAirZones.height(text);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(property + ": " + e.getMessage(), e);
        }
    }

    private static final Pattern NO_REFERENCE =
            Pattern.compile("(?i)\\s*\\d+([.,]\\d+)?\\s*(ft|feet|foot|m|met(er|re)s?)?\\s*");

    /** Of a format without a convention for heights: unit and reference must stand there; nought is the ground or below. */
    static HeightLimit stated(String property, String text) {
        if (!NO_REFERENCE.matcher(text).matches()) {
            return height(property, text);
        }
        if (property.equals("lower") && text.strip().matches("0+([.,]0+)?\\D*")) {
            return HeightLimit.SURFACE;
        }
        throw new IllegalArgumentException(
                property + ": found \"" + cut(text)
                        + "\", which does not say from where it counts; write unit and reference, such as 500 ft AMSL, 150 m AGL or FL 65");
    }

    static ZoneMet.Restriction restriction(String text) {
        String bare = text.toUpperCase(java.util.Locale.ROOT).replaceAll("[^A-Z]", "");
        return switch (bare) {
            case "PROHIBITED" -> ZoneMet.Restriction.PROHIBITED;
            case "REQAUTHORISATION", "REQAUTHORIZATION", "NEEDSAUTHORISATION", "NEEDSAUTHORIZATION" ->
                ZoneMet.Restriction.NEEDS_AUTHORISATION;
            case "CONDITIONAL" -> ZoneMet.Restriction.CONDITIONAL;
            case "NORESTRICTION" -> ZoneMet.Restriction.NO_RESTRICTION;
            default ->
                throw new IllegalArgumentException("restriction: found \"" + cut(text)
                        + "\"; prohibited, needsAuthorisation, conditional or noRestriction is expected");
        };
    }

    static Area area(List<Area.Patch> patches, boolean mend, String where, List<String> notes) {
        Area.Check check = Area.checkPatches(patches);
        if (check.isValid()) {
            return check.area();
        }
        boolean cutAtTheMeridian = patches.size() > 1
                && patches.stream()
                        .allMatch(p -> p.outline().stream().anyMatch(c -> Math.abs(c.longitudeDeg()) == 180)
                                && Area.checkPatches(List.of(p)).isValid());
        if (cutAtTheMeridian) {
            // RFC 7946, 3.1.9: pieces of one area share a side there
            return Area.union(
                    patches.stream().map(p -> Area.ofPatches(List.of(p))).toList());
        }
        if (mend && check.mended() != null) {
            notes.add(where + ": " + check.fault() + "; mended into "
                    + check.mended().patches().size() + " piece"
                    + (check.mended().patches().size() == 1 ? "" : "s") + " of "
                    + Math.round(check.mended().figures().areaM2()) + " m²");
            return check.mended();
        }
        throw new IllegalArgumentException("geometry: " + check.fault()
                + (check.mended() == null ? "" : "; mend it in its source, or let crossing sides be mended"));
    }

    /** An outline whose sides are shortest lines on the ground, not straight in degrees. */
    static Area.Patch geodesic(Area.Patch p) {
        return new Area.Patch(
                Geodesy.alongSides(p.outline()),
                p.holes().stream().map(Geodesy::alongSides).toList());
    }

    static String cut(String s) {
        return s.length() > 64 ? s.substring(0, 64) + "…" : s;
    }

    /** Two zones of a file with the same identity: the later ones get a number, so that none is lost. */
    private static Reading distinct(Reading r) {
        Set<String> seen = new HashSet<>();
        List<Zone> zones = new ArrayList<>();
        BiFunction<Zone, String, Zone> named = (z, id) -> new Zone(
                id,
                z.name(),
                z.kind(),
                z.airspaceClass(),
                z.restriction(),
                z.area(),
                z.lower(),
                z.upper(),
                z.times(),
                z.bindsFromG(),
                z.message(),
                z.authority(),
                z.contact());
        for (Zone z : r.zones()) {
            String id = z.id();
            for (int n = 2; !seen.add(id); n++) {
                id = z.id() + "/" + n;
            }
            zones.add(id.equals(z.id()) ? z : named.apply(z, id));
        }
        return new Reading(r.format(), zones, r.notes(), r.scenery(), r.doubts());
    }
}
