package yarrek.formats.maps;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightSummary;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.trace.Trace;
import yarrek.formats.gpx.GpxReader;
import yarrek.formats.log.LogReading;
import yarrek.formats.zones.ZoneFiles;

/**
 * What is written here opens in general tools, and what they write of it is read here as it was: GDAL's ogrinfo and ogr2ogr
 * (Debian's gdal-bin) and gpsbabel, which the launcher installs for the tests.
 */
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

    private static void run(String... command) throws IOException, InterruptedException {
        Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
        String out = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(p.waitFor()).as(out).isZero();
    }

    // --- zones -------------------------------------------------------------------------------------------------------

    private static final String ZONES = """
            {"type":"FeatureCollection","features":[
            {"type":"Feature","properties":{"name":"Dune","id":"D1","upper":"150 m AGL","kind":"park","restriction":"prohibited"},
             "geometry":{"type":"Polygon","coordinates":[[[-16.5,46.9],[-16.4,46.9],[-16.4,47],[-16.5,46.9]],
              [[-16.43,46.92],[-16.43,46.93],[-16.42,46.93],[-16.43,46.92]]]}},
            {"type":"Feature","properties":{"name":"Två øer","id":"D2","lower":"500 ft AMSL","upper":"FL 65","kind":"danger area",
             "restriction":"conditional"},
             "geometry":{"type":"MultiPolygon","coordinates":[[[[-16.2,46.9],[-16.1,46.9],[-16.1,47],[-16.2,46.9]]],
              [[[-16.3,46.7],[-16.2,46.7],[-16.2,46.8],[-16.3,46.7]]]]}}]}
            """;

    private static List<Zone> zones(Path file) throws Exception {
        return ZoneFiles.read(Files.readAllBytes(file), new ZoneFiles.Settings(ZoneKind.OTHER, Optional.empty(), false))
                .zones();
    }

    @ParameterizedTest
    @CsvSource({"GeoJSON,json,RFC7946=NO", "GeoJSON,json,RFC7946=YES", "LIBKML,kml,", "KML,kml,"})
    void zonesComeBackAsTheyWere(String format, String ending, String option) throws Exception {
        Path file = folder.resolve("zones.json");
        Files.writeString(file, ZONES);
        Path other = folder.resolve("other." + ending);
        if (option == null) {
            run("ogr2ogr", "-f", format, other.toString(), file.toString());
        } else {
            run("ogr2ogr", "-f", format, "-lco", option, other.toString(), file.toString());
        }
        List<Zone> before = zones(file);
        List<Zone> after = zones(other);
        assertThat(after).hasSameSizeAs(before);
        for (int i = 0; i < before.size(); i++) {
            Zone was = before.get(i);
            Zone is = after.get(i);
            assertThat(is.name()).isEqualTo(was.name());
            assertThat(is.kind()).isEqualTo(was.kind());
            assertThat(is.restriction()).isEqualTo(was.restriction());
            assertThat(is.heights()).isEqualTo(was.heights());
            assertThat(is.area().areaM2())
                    .isCloseTo(was.area().areaM2(), within(was.area().areaM2() * 1e-6));
            assertThat(is.area().overlap(was.area()).orElseThrow().areaM2())
                    .isCloseTo(was.area().areaM2(), within(was.area().areaM2() * 1e-6));
        }
    }

    // --- logs --------------------------------------------------------------------------------------------------------

    private static void same(LogReading one, LogReading two) {
        List<FlightSummary> before = flights(one.trace());
        List<FlightSummary> after = flights(two.trace());
        assertThat(after).hasSameSizeAs(before).isNotEmpty();
        assertThat(two.trace().start()).isEqualTo(one.trace().start());
        for (int i = 0; i < before.size(); i++) {
            FlightSummary was = before.get(i);
            FlightSummary is = after.get(i);
            assertThat(is.takeoffS()).isCloseTo(was.takeoffS(), within(1.0));
            assertThat(is.landingS()).isCloseTo(was.landingS(), within(1.0));
            assertThat(is.pathM()).isCloseTo(was.pathM(), within(was.pathM() * 0.005));
            assertThat(is.greatestDistanceM().orElseThrow())
                    .isCloseTo(was.greatestDistanceM().orElseThrow(), within(0.2));
            assertThat(is.greatestHeightM().orElseThrow())
                    .isCloseTo(was.greatestHeightM().orElseThrow(), within(0.3));
        }
    }

    private static List<FlightSummary> flights(Trace trace) {
        return FlightFinder.find(trace).stream()
                .map(s -> FlightSummary.of(trace, s))
                .toList();
    }

    private static LogReading through(Path out, String... command) throws Exception {
        run(command);
        return GpxReader.read(Files.readAllBytes(out));
    }

    @ParameterizedTest
    @CsvSource({"orbit.gpx", "height-breach.gpx"})
    void aTrackComesBackAsItWas(String name) throws Exception {
        Path file = folder.resolve(name);
        try (InputStream in = OtherToolTest.class.getResourceAsStream("/logs/" + name)) {
            Files.copy(in, file);
        }
        LogReading was = GpxReader.read(Files.readAllBytes(file));
        Path one = folder.resolve("one.gpx");
        Path two = folder.resolve("two.gpx");
        same(was, through(one, "gpsbabel", "-t", "-i", "gpx", "-f", file + "", "-o", "gpx", "-F", one + ""));
        same(was, through(two, "ogr2ogr", "-f", "GPX", two + "", file + "", "track_points"));
    }
}
