package yarrek.formats.maps;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;

/**
 * Something drawn on a map.
 *
 * @param number place in the file, from 1
 * @param name empty when it has none
 * @param properties as texts, in the order of the file
 * @param points one for a point, two or more for a line; empty for an area
 * @param patches of an area; empty for points and lines
 */
public record MapFeature(
        int number, String name, Map<String, String> properties, List<Position> points, List<Area.Patch> patches) {
    public MapFeature {
        properties = Collections.unmodifiableMap(new LinkedHashMap<>(properties));
        points = List.copyOf(points);
        patches = List.copyOf(patches);
    }

    public boolean isArea() {
        return !patches.isEmpty();
    }

    public boolean isLine() {
        return points.size() > 1;
    }

    /** "feature 12 (Skarn cliffs)". */
    public String where() {
        return "feature " + number + (name.isEmpty() ? "" : " (" + name + ")");
    }
}
