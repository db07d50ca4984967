package yarrek.formats.tracks;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.time.Patience;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;

/**
 * Tracks of GeoJSON: a line with a list of times beside it, or points of which each has its time. Longitude comes first
 * (RFC 7946 3.1.1); a third number is the height above sea level that most writers mean.
 */
public final class GeoJsonTrackReader {
    private static final List<String> TIME_LISTS = List.of("coordTimes", "times", "timestamps");
    private static final List<String> POINT_TIMES = List.of("time", "timestamp", "datetime", "date", "when");

    private final PointTable table = new PointTable();
    private final List<String> notes = new ArrayList<>();
    private boolean heights;

    private GeoJsonTrackReader() {}

    /** Whether text begins as a GeoJSON object. */
    public static boolean begins(String head) {
        return head.stripLeading().startsWith("{")
                && head.matches("(?s).*\"(FeatureCollection|Feature|LineString|MultiLineString)\".*");
    }

    public static LogReading read(byte[] content) throws BrokenFileException {
        return new GeoJsonTrackReader().readAll(content);
    }

    private LogReading readAll(byte[] content) throws BrokenFileException {
        JsonNode root;
        try {
            root = JsonMapper.shared().readTree(content);
        } catch (JacksonException e) {
            throw new BrokenFileException(
                    "geojson.json",
                    "this is not well-formed JSON: "
                            + String.valueOf(e.getOriginalMessage()).replaceAll("\\s+", " ")
                            + (e.getLocation() == null
                                    ? ""
                                    : ", line " + e.getLocation().getLineNr())
                            + "; nothing was taken",
                    e);
        }
        JsonNode features = root.path("features");
        if (features.isArray()) {
            for (JsonNode f : features) {
                feature(f);
            }
        } else {
            feature(root);
        }
        if (heights) {
            notes.add(
                    "the third number of each place is read as metres above the sea, as most writers mean it; the format itself"
                            + " (RFC 7946) means the height above the ellipsoid, some tens of metres apart");
        }
        return table.read("geojson", false, notes);
    }

    private void feature(JsonNode f) throws BrokenFileException {
        JsonNode geometry = f.has("geometry") ? f.path("geometry") : f;
        JsonNode properties = f.path("properties");
        switch (geometry.path("type").asString("")) {
            case "LineString" -> {
                times(properties).ifPresent(t -> line(geometry.path("coordinates"), t));
            }
            case "MultiLineString" -> {
                Optional<JsonNode> all = times(properties);
                for (int i = 0;
                        all.isPresent() && i < geometry.path("coordinates").size();
                        i++) {
                    line(geometry.path("coordinates").get(i), all.get().path(i));
                }
            }
            case "Point" -> point(geometry.path("coordinates"), properties);
            default -> {
                // an area or a collection is no track
            }
        }
    }

    private static Optional<JsonNode> times(JsonNode properties) {
        return Stream.of(properties.path("coordinateProperties"), properties)
                .flatMap(p -> TIME_LISTS.stream().map(p::path))
                .filter(JsonNode::isArray)
                .findFirst();
    }

    private void line(JsonNode coordinates, JsonNode times) {
        int points = Math.min(coordinates.size(), times.size());
        if (points < Math.max(coordinates.size(), times.size())) {
            notes.add("a line has " + coordinates.size() + " places and " + times.size() + " times; the first " + points
                    + " are read");
        }
        table.track();
        for (int i = 0; i < points; i++) {
            Patience.ask();
            place(coordinates.get(i), words(times.get(i))).ifPresent(table::point);
        }
    }

    private void point(JsonNode coordinates, JsonNode properties) {
        Patience.ask();
        Optional<String> time = POINT_TIMES.stream()
                .map(properties::path)
                .filter(n -> n.isString() || n.isNumber())
                .map(GeoJsonTrackReader::words)
                .findFirst();
        if (time.isEmpty()) {
            return;
        }
        place(coordinates, time.get()).ifPresent(cells -> {
            List<Map<String, String>> further = new ArrayList<>();
            properties.properties().forEach(e -> {
                JsonNode v = e.getValue();
                if (v.isArray() && e.getKey().startsWith("message")) {
                    for (JsonNode m : v) {
                        further.add(Map.of(
                                PointTable.TIME,
                                time.get(),
                                PointTable.LEVEL,
                                words(m.path("level")),
                                PointTable.MESSAGE,
                                words(m.isString() ? m : m.path("text"))));
                    }
                } else if (v.isValueNode() && !v.isNull() && !POINT_TIMES.contains(e.getKey())) {
                    cells.putIfAbsent(e.getKey(), words(v));
                }
            });
            table.point(cells);
            further.forEach(table::point);
        });
    }

    private Optional<Map<String, String>> place(JsonNode c, String time) {
        if (c.size() < 2 || !c.get(0).isNumber() || !c.get(1).isNumber()) {
            return Optional.empty();
        }
        Map<String, String> cells = PointTable.cells(time, words(c.get(1)), words(c.get(0)));
        if (c.size() > 2 && c.get(2).isNumber()) {
            cells.put(PointTable.ALTITUDE, words(c.get(2)));
            heights = true;
        }
        return Optional.of(cells);
    }

    private static String words(JsonNode n) {
        return n.isString()
                ? n.asString()
                : n.isNumber() ? n.decimalValue().toPlainString() : n.isBoolean() ? n.toString() : "";
    }
}
