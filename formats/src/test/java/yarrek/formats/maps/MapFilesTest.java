package yarrek.formats.maps;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;

/** Maps out and in again. */
class MapFilesTest {
    private static final List<Position> RING =
            List.of(new Position(46.6, -17.9), new Position(46.6, -17.89), new Position(46.61, -17.89));
    private static final List<Position> HOLE =
            List.of(new Position(46.602, -17.893), new Position(46.602, -17.892), new Position(46.603, -17.892));
    private static final List<MapFeature> DRAWN = List.of(
            new MapFeature(1, "Launch <1> & co", Map.of("kind", "launch"), List.of(RING.get(0)), List.of()),
            new MapFeature(2, "Cable", Map.of("kind", "obstacle", "height", "30 m"), RING, List.of()),
            new MapFeature(
                    3, "Area", Map.of("kind", "flight area"), List.of(), List.of(new Area.Patch(RING, List.of(HOLE)))));

    @ParameterizedTest
    @EnumSource(MapFiles.Format.class)
    void whatIsWrittenIsReadBack(MapFiles.Format format) throws Exception {
        List<MapFeature> back = MapFiles.read(MapFiles.write(format, "site", DRAWN));
        assertThat(back.get(0).name()).isEqualTo("Launch <1> & co");
        assertThat(back.get(0).points()).isEqualTo(List.of(RING.get(0)));
        assertThat(back.get(1).points()).isEqualTo(RING);
        assertThat(back).allMatch(f -> f.properties().containsKey("kind"));
        if (format == MapFiles.Format.GPX) {
            // no areas there: outline and hole are closed routes
            assertThat(back).hasSize(4);
            assertThat(back.get(2).points()).hasSize(4).startsWith(RING.get(0)).endsWith(RING.get(0));
        } else {
            Area area = Area.ofPatches(back.get(2).patches());
            assertThat(area.figures().areaM2())
                    .isCloseTo(Area.ofPatches(DRAWN.get(2).patches()).figures().areaM2(), within(0.1));
            assertThat(area.patches().get(0).holes()).hasSize(1);
        }
    }

    @Test
    void outlinesOfGeoJsonRunCounterClockwise() {
        List<Position> clockwise = new ArrayList<>(RING);
        java.util.Collections.reverse(clockwise);
        String one =
                GeoJsonMap.geometry(List.of(new Area.Patch(RING, List.of()))).toString();
        String other = GeoJsonMap.geometry(List.of(new Area.Patch(clockwise, List.of())))
                .toString();
        assertThat(one).contains("[-17.9,46.6],[-17.89,46.6],[-17.89,46.61]");
        assertThat(other).contains("[-17.89,46.6],[-17.89,46.61],");
    }

    @Test
    void gpxTracksAndWaypointsAreReadAndABadPointIsNamed() throws Exception {
        String gpx = """
                <gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1"><wpt lat="46.6" lon="-17.9"><name>mast</name><type>obstacle</type></wpt>
                <trk><name>walk</name><trkseg><trkpt lat="46.6" lon="-17.9"><name>not this</name></trkpt><trkpt lat="46.61" lon="-17.9"/></trkseg></trk></gpx>
                """;
        List<MapFeature> f = MapFiles.read(gpx.getBytes(StandardCharsets.UTF_8));
        assertThat(f).extracting(MapFeature::name).containsExactly("mast", "walk");
        assertThat(f.get(1).points()).hasSize(2);
        assertThatThrownBy(() -> MapFiles.read(gpx.replace("46.61", "north").getBytes(StandardCharsets.UTF_8)))
                .hasMessageContaining("trk 2, point 2")
                .hasMessageContaining("\"north\"");
    }

    @Test
    void everyBadFeatureIsNamed() {
        String json = """
                {"type": "FeatureCollection", "features": [
                 {"properties": {"name": "a"}, "geometry": {"type": "Point", "coordinates": [200, 46]}},
                 {"properties": {}, "geometry": {"type": "Blob"}},
                 {"properties": {"name": "ok"}, "geometry": {"type": "MultiPoint", "coordinates": [[-17, 46]]}},
                 {"properties": {"name": "c"}, "geometry": {"type": "LineString", "coordinates": [[-17, 46]]}}]}
                """;
        assertThatThrownBy(() -> MapFiles.read(json.getBytes(StandardCharsets.UTF_8)))
                .isInstanceOfSatisfying(
                        BrokenMapException.class,
                        e -> assertThat(e.problems())
                                .hasSize(3)
                                .anyMatch(p -> p.startsWith("feature 1 (a), geometry: position [200,46]"))
                                .anyMatch(p -> p.startsWith("feature 2, geometry: found type \"Blob\""))
                                .anyMatch(p -> p.contains("at least two positions")));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "x", "<html></html>", "{\"type\": \"Topology\"}", "<kml><Placemark>"})
    void whatIsNoMapIsRefused(String text) {
        assertThatThrownBy(() -> MapFiles.read(text.getBytes(StandardCharsets.UTF_8)))
                .isInstanceOf(yarrek.formats.log.BrokenFileException.class);
    }
}
