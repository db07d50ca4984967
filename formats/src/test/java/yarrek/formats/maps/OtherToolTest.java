package yarrek.formats.maps;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;

/** Maps written here open in a general map tool (GDAL's ogrinfo, from Debian's gdal-bin, which the launcher installs for the tests). */
class OtherToolTest {
    private static final List<Position> RING =
            List.of(new Position(46.6, -17.9), new Position(46.6, -17.89), new Position(46.61, -17.89));
    private static final List<MapFeature> DRAWN = List.of(
            new MapFeature(1, "Mast <A> & co", Map.of("kind", "obstacle"), List.of(RING.get(0)), List.of()),
            new MapFeature(2, "Cable", Map.of("kind", "obstacle"), RING, List.of()),
            new MapFeature(
                    3, "Area", Map.of("kind", "flight area"), List.of(), List.of(new Area.Patch(RING, List.of()))));

    @TempDir
    Path folder;

    private String opened(MapFiles.Format format, String... options) throws IOException, InterruptedException {
        Path file = folder.resolve("site." + format.ending());
        Files.write(file, MapFiles.write(format, "site", DRAWN));
        List<String> command = new java.util.ArrayList<>(List.of("ogrinfo", "-ro", "-al"));
        command.addAll(List.of(options));
        command.add(file.toString());
        Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
        String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(p.waitFor()).as(out).isZero();
        return out;
    }

    @ParameterizedTest
    @CsvSource({"GEOJSON", "KML"})
    void everyFeatureIsThereWithItsNameAndGeometry(MapFiles.Format format) throws Exception {
        String out = opened(format);
        assertThat(out).contains("Mast <A> & co", "POINT", "LINESTRING", "POLYGON", "-17.89 46.61");
        assertThat(out).doesNotContain("ERROR");
    }

    @Test
    void gpxOpensWithItsWaypointAndRoutes() throws Exception {
        String out = opened(MapFiles.Format.GPX);
        assertThat(out).contains("Layer name: waypoints", "Layer name: routes", "Mast <A> & co", "LINESTRING");
        assertThat(out).doesNotContain("ERROR");
    }
}
