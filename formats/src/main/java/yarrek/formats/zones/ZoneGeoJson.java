package yarrek.formats.zones;

import java.time.DateTimeException;
import java.time.MonthDay;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.airspace.Zone;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.ZoneMet;
import yarrek.formats.log.BrokenFileException;

/**
 * Reads zones from a GeoJSON feature collection (RFC 7946). Each zone is a Polygon without holes, or a Point with
 * {@code radiusM}, with properties {@code zone} (its id), {@code name}, {@code kind}, {@code restriction} (prohibited,
 * needsAuthorisation, conditional, noRestriction), {@code lowerM} and {@code upperM} above ground (no upper: no end),
 * {@code seasonFrom} and {@code seasonThrough} as MM-DD, and {@code message}. Features without {@code zone} are scenery.
 */
public final class ZoneGeoJson {
    private ZoneGeoJson() {}

    /** @throws BrokenFileException naming the feature and what is wrong with it */
    public static List<Zone> read(byte[] geoJson) throws BrokenFileException {
        JsonNode root;
        try {
            root = JsonMapper.shared().readTree(geoJson);
        } catch (JacksonException e) {
            throw new BrokenFileException("geojson.json", "this is not well-formed JSON: " + e.getOriginalMessage(), e);
        }
        if (root == null || !root.path("features").isArray()) {
            throw new BrokenFileException("geojson.collection", "a GeoJSON FeatureCollection is expected");
        }
        List<Zone> zones = new ArrayList<>();
        int number = 0;
        for (JsonNode feature : root.get("features")) {
            number++;
            JsonNode p = feature.path("properties");
            if (!p.has("zone")) {
                continue;
            }
            try {
                zones.add(zone(feature.path("geometry"), p));
            } catch (IllegalArgumentException | DateTimeException e) {
                throw new BrokenFileException(
                        "geojson.zone",
                        "feature " + number + " (" + p.path("name").asString("") + "): " + e.getMessage(),
                        e);
            }
        }
        return zones;
    }

    private static Zone zone(JsonNode geometry, JsonNode p) {
        Area area;
        if (geometry.path("type").asString("").equals("Point")) {
            area = Area.circle(
                    position(geometry.get("coordinates")), p.path("radiusM").asDouble());
        } else if (geometry.path("type").asString("").equals("Polygon")) {
            if (geometry.get("coordinates").size() != 1) {
                throw new IllegalArgumentException("zones with holes are not read");
            }
            List<Position> corners = new ArrayList<>();
            geometry.get("coordinates").get(0).forEach(c -> corners.add(position(c)));
            area = Area.of(corners);
        } else {
            throw new IllegalArgumentException("a zone is a Polygon, or a Point with radiusM");
        }
        String restriction =
                p.path("restriction").asString("").replaceAll("([A-Z])", "_$1").toUpperCase(Locale.ROOT);
        return new Zone(
                p.get("zone").asString(),
                p.path("name").asString(p.get("zone").asString()),
                p.path("kind").asString("zone"),
                ZoneMet.Restriction.valueOf(restriction),
                area,
                p.path("lowerM").asDouble(0),
                p.has("upperM") ? Optional.of(p.get("upperM").asDouble()) : Optional.empty(),
                season(p, "seasonFrom"),
                season(p, "seasonThrough"),
                p.path("message").asString(""));
    }

    private static Optional<MonthDay> season(JsonNode p, String word) {
        return p.has(word) ? Optional.of(MonthDay.parse("--" + p.get(word).asString())) : Optional.empty();
    }

    private static Position position(JsonNode c) {
        if (c == null
                || !c.isArray()
                || c.size() < 2
                || !c.get(0).isNumber()
                || !c.get(1).isNumber()) {
            throw new IllegalArgumentException("a position is [longitude, latitude] in degrees");
        }
        return new Position(c.get(1).doubleValue(), c.get(0).doubleValue());
    }
}
