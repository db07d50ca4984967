package yarrek.formats.maps;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.formats.log.BrokenFileException;

/** Features of RFC 7946: points, lines, polygons, their multiples and collections. A third coordinate is passed over. */
public final class GeoJsonMap {
    private static final JsonMapper JSON = JsonMapper.shared();

    private GeoJsonMap() {}

    /** The document, when it is well-formed. */
    public static JsonNode parse(String text) throws BrokenFileException {
        try {
            return JSON.readTree(text);
        } catch (JacksonException e) {
            throw new BrokenFileException(
                    "geojson.json",
                    "this is not well-formed JSON: " + e.getOriginalMessage()
                            + (e.getLocation() == null
                                    ? ""
                                    : " (line " + e.getLocation().getLineNr() + ", column "
                                            + e.getLocation().getColumnNr() + ")"),
                    e);
        }
    }

    static List<MapFeature> read(String text) throws BrokenFileException {
        JsonNode root = parse(text);
        List<JsonNode> nodes = new ArrayList<>();
        String type = root.path("type").asString("");
        if (root.path("features").isArray()) {
            root.get("features").forEach(nodes::add);
        } else if (type.equals("Feature")) {
            nodes.add(root);
        } else if (root.has("coordinates") || root.has("geometries")) {
            nodes.add(JSON.createObjectNode().set("geometry", root));
        } else {
            throw new BrokenFileException(
                    "geojson.collection", "a GeoJSON FeatureCollection, Feature or geometry is expected");
        }
        if (nodes.size() > MapFiles.MOST_FEATURES) {
            throw new BrokenFileException(
                    "geojson.size",
                    "the file has " + nodes.size() + " features; at most " + MapFiles.MOST_FEATURES
                            + " are read at once");
        }
        List<MapFeature> features = new ArrayList<>();
        List<String> problems = new ArrayList<>();
        int number = 0;
        for (JsonNode f : nodes) {
            number++;
            Map<String, String> properties = properties(f);
            String name = properties.getOrDefault("name", "");
            try {
                add(features, number, name, properties, f.path("geometry"));
            } catch (IllegalArgumentException e) {
                problems.add("feature " + number + (name.isEmpty() ? "" : " (" + name + ")") + ", geometry: "
                        + e.getMessage());
            }
        }
        if (!problems.isEmpty()) {
            throw new BrokenMapException("geojson.geometry", problems);
        }
        return features;
    }

    private static Map<String, String> properties(JsonNode feature) {
        Map<String, String> found = new LinkedHashMap<>();
        feature.path("properties")
                .forEachEntry((k, v) -> found.put(k, v.isValueNode() ? v.asString("") : v.toString()));
        return found;
    }

    private static void add(
            List<MapFeature> features, int number, String name, Map<String, String> properties, JsonNode g) {
        List<Area.Patch> patches = new ArrayList<>();
        switch (g.path("type").asString("")) {
            case "Point" ->
                features.add(
                        new MapFeature(number, name, properties, List.of(position(g.get("coordinates"))), patches));
            case "MultiPoint" ->
                g.path("coordinates")
                        .forEach(c -> features.add(
                                new MapFeature(number, name, properties, List.of(position(c)), List.of())));
            case "LineString" ->
                features.add(new MapFeature(number, name, properties, line(g.get("coordinates")), patches));
            case "MultiLineString" ->
                g.path("coordinates")
                        .forEach(c -> features.add(new MapFeature(number, name, properties, line(c), List.of())));
            case "Polygon", "MultiPolygon" ->
                features.add(new MapFeature(number, name, properties, List.of(), patches(g)));
            case "GeometryCollection" ->
                g.path("geometries").forEach(part -> add(features, number, name, properties, part));
            default ->
                throw new IllegalArgumentException(
                        "found type \"" + g.path("type").asString("")
                                + "\"; a Point, LineString, Polygon, one of their multiples or a GeometryCollection is expected");
        }
    }

    /** The pieces of a Polygon or MultiPolygon. */
    public static List<Area.Patch> patches(JsonNode geometry) {
        List<Area.Patch> patches = new ArrayList<>();
        if (geometry.path("type").asString("").equals("Polygon")) {
            patches.add(patch(geometry.path("coordinates")));
        } else {
            geometry.path("coordinates").forEach(p -> patches.add(patch(p)));
        }
        if (patches.isEmpty()) {
            throw new IllegalArgumentException("a MultiPolygon with at least one polygon is expected");
        }
        return patches;
    }

    private static Area.Patch patch(JsonNode rings) {
        if (!rings.isArray() || rings.isEmpty()) {
            throw new IllegalArgumentException("the coordinates of a polygon are a list of rings");
        }
        List<List<Position>> all = new ArrayList<>();
        rings.forEach(r -> all.add(positions(r)));
        return new Area.Patch(all.get(0), all.subList(1, all.size()));
    }

    private static List<Position> line(JsonNode c) {
        List<Position> points = positions(c);
        if (points.size() < 2) {
            throw new IllegalArgumentException("a line needs at least two positions");
        }
        return points;
    }

    private static List<Position> positions(JsonNode c) {
        List<Position> found = new ArrayList<>();
        if (c != null) {
            c.forEach(p -> found.add(position(p)));
        }
        return found;
    }

    /** A position as [longitude, latitude]. */
    public static Position position(JsonNode c) {
        if (c == null
                || !c.isArray()
                || c.size() < 2
                || !c.get(0).isNumber()
                || !c.get(1).isNumber()) {
            throw new IllegalArgumentException("found " + cut(c) + "; a position is [longitude, latitude] in degrees");
        }
        try {
            return new Position(c.get(1).doubleValue(), c.get(0).doubleValue());
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(
                    "position " + cut(c) + ": " + e.getMessage() + "; a position is [longitude, latitude]", e);
        }
    }

    private static String cut(JsonNode c) {
        String s = c == null ? "nothing" : c.toString();
        return s.length() > 64 ? s.substring(0, 64) + "…" : s;
    }

    static String write(List<MapFeature> features) {
        ObjectNode root = JSON.createObjectNode();
        root.put("type", "FeatureCollection");
        ArrayNode all = root.putArray("features");
        for (MapFeature f : features) {
            ObjectNode n = all.addObject();
            n.put("type", "Feature");
            ObjectNode p = n.putObject("properties");
            if (!f.name().isEmpty()) {
                p.put("name", f.name());
            }
            f.properties().forEach(p::put);
            n.set("geometry", f.isArea() ? geometry(f.patches()) : geometry(f.points(), f.isLine()));
        }
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root);
    }

    private static ObjectNode geometry(List<Position> points, boolean line) {
        ObjectNode g = JSON.createObjectNode();
        g.put("type", line ? "LineString" : "Point");
        g.set("coordinates", line ? array(points, false) : array(points, false).get(0));
        return g;
    }

    /** A Polygon or MultiPolygon, its rings closed, outlines counter-clockwise. */
    public static ObjectNode geometry(List<Area.Patch> patches) {
        ObjectNode g = JSON.createObjectNode();
        g.put("type", patches.size() == 1 ? "Polygon" : "MultiPolygon");
        ArrayNode polygons = JSON.createArrayNode();
        for (Area.Patch p : patches) {
            ArrayNode rings = polygons.addArray();
            rings.add(array(turned(p.outline(), true), true));
            p.holes().forEach(h -> rings.add(array(turned(h, false), true)));
        }
        g.set("coordinates", patches.size() == 1 ? polygons.get(0) : polygons);
        return g;
    }

    /** RFC 7946 3.1.6: outlines run counter-clockwise, holes clockwise. */
    private static List<Position> turned(List<Position> ring, boolean counterClockwise) {
        double twice = 0;
        for (int i = 0; i < ring.size(); i++) {
            Position a = ring.get(i);
            Position b = ring.get((i + 1) % ring.size());
            twice += (b.longitudeDeg() - a.longitudeDeg()) * (b.latitudeDeg() + a.latitudeDeg());
        }
        if (twice < 0 == counterClockwise) {
            return ring;
        }
        List<Position> other = new ArrayList<>(ring);
        java.util.Collections.reverse(other);
        return other;
    }

    private static ArrayNode array(List<Position> points, boolean closed) {
        ArrayNode a = JSON.createArrayNode();
        points.forEach(p -> a.addArray().add(round(p.longitudeDeg())).add(round(p.latitudeDeg())));
        if (closed && !points.isEmpty() && !points.get(0).equals(points.get(points.size() - 1))) {
            a.addArray()
                    .add(round(points.get(0).longitudeDeg()))
                    .add(round(points.get(0).latitudeDeg()));
        }
        return a;
    }

    /** To 1e-7 of a degree, 11 mm. */
    private static double round(double degrees) {
        return Math.round(degrees * 1e7) / 1e7;
    }
}
