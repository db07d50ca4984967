package yarrek.app.airspace;

import java.util.List;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import yarrek.core.geo.Position;

/** Positions as the map's script wants them: latitude first. */
final class Drawing {
    private Drawing() {}

    /** A ring without a jump at the 180th meridian. */
    static ArrayNode ring(JsonMapper json, List<Position> corners) {
        ArrayNode ring = json.createArrayNode();
        double before = corners.get(0).longitudeDeg();
        for (Position p : corners) {
            double lon = p.longitudeDeg() + 360 * Math.rint((before - p.longitudeDeg()) / 360);
            ring.addArray().add(round(p.latitudeDeg())).add(round(lon));
            before = lon;
        }
        return ring;
    }

    static ArrayNode point(JsonMapper json, Position p) {
        return json.createArrayNode().add(round(p.latitudeDeg())).add(round(p.longitudeDeg()));
    }

    private static double round(double degrees) {
        return Math.round(degrees * 1e6) / 1e6;
    }
}
