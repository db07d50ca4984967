package yarrek.formats.tracks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.logs.LogFormat;

/** Tracks with times by small files of their own: what dialects and damage do. */
class TrackReadersTest {
    private static final int POINTS = 8;

    private static String each(String before, java.util.function.IntFunction<String> one) {
        return IntStream.range(0, POINTS).mapToObj(one).collect(Collectors.joining("", before, ""));
    }

    private static String when(int i) {
        return "2024-05-14T09:12:3" + i + "Z";
    }

    private static String kml(String mode, String inside) {
        return "<?xml version=\"1.0\"?>\n<kml xmlns=\"http://www.opengis.net/kml/2.2\""
                + " xmlns:gx=\"http://www.google.com/kml/ext/2.2\"><Placemark><gx:Track><altitudeMode>" + mode
                + "</altitudeMode>" + inside + "</gx:Track></Placemark></kml>";
    }

    private static final String WHEN = each("", i -> "<when>" + when(i) + "</when>");
    private static final String COORD =
            each("", i -> "<gx:coord>-17.88 " + (46.6 + i * 1e-4) + " " + (412 + i) + "</gx:coord>");

    private static LogReading read(String text) throws BrokenFileException {
        byte[] file = text.getBytes(StandardCharsets.UTF_8);
        return LogFormat.of(file).orElseThrow().read(file);
    }

    @Test
    void anAbsoluteTrackHasHeightsAboveTheSea() throws Exception {
        Trace t = read(kml("absolute", WHEN + COORD)).trace();
        assertThat(t.size()).isEqualTo(POINTS);
        assertThat(t.at(Channel.ALTITUDE_MSL_M, 3)).isCloseTo(415, within(1e-9));
        assertThat(t.at(Channel.LATITUDE_DEG, 3)).isCloseTo(46.6003, within(1e-9));
        assertThat(t.has(Channel.HEIGHT_ABOVE_TAKEOFF_M)).isFalse();
    }

    @Test
    void anyOtherTrackHasHeightsAboveTheGroundAndSaysSo() throws Exception {
        LogReading r = read(kml("relativeToGround", WHEN + COORD));
        assertThat(r.trace().has(Channel.ALTITUDE_MSL_M)).isFalse();
        assertThat(r.trace().has(Channel.HEIGHT_ABOVE_TAKEOFF_M)).isTrue();
        assertThat(r.notes()).anyMatch(n -> n.contains("only holds over level ground"));
    }

    @Test
    void arraysBesideThePlacesAreMatchedLikeColumnsAndTold() throws Exception {
        String data = "<ExtendedData><SchemaData><gx:SimpleArrayData name=\"speed_ms\">"
                + each("", i -> "<gx:value>" + i + "</gx:value>")
                + "</gx:SimpleArrayData><gx:SimpleArrayData name=\"frobs\">"
                + each("", i -> "<gx:value>7</gx:value>") + "</gx:SimpleArrayData></SchemaData></ExtendedData>";
        LogReading r = read(kml("absolute", WHEN + COORD + data));
        assertThat(r.trace().at(Channel.GROUND_SPEED_MPS, 5)).isEqualTo(5);
        assertThat(r.notes())
                .anyMatch(n -> n.contains("“speed_ms” as ground speed in m/s") && n.contains("“frobs” is not read"));
    }

    @Test
    void timesAndPlacesThatDoNotPairAreToldAndTheRestRead() throws Exception {
        LogReading r = read(kml("absolute", WHEN + COORD + "<gx:coord>-17.88 46.7 412</gx:coord>"));
        assertThat(r.trace().size()).isEqualTo(POINTS);
        assertThat(r.notes()).anyMatch(n -> n.contains("8 times and 9 places; the first 8 are read"));
    }

    @Test
    void aTrackThatBreaksOffIsReadUpToThere() throws Exception {
        String whole = kml("absolute", WHEN + COORD);
        LogReading r = read(whole.substring(0, whole.indexOf("46.6005")));
        assertThat(r.truncated()).isTrue();
        assertThat(r.trace().size()).isEqualTo(5);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<kml><Placemark><LineString><coordinates>1,2 3,4</coordinates></LineString></Placemark></kml>",
                "<!DOCTYPE kml [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><kml>&x;</kml>",
                "<kml><gx:Track",
                "<kml xmlns:gx=\"g\"><gx:Track></gx:Track></kml>"
            })
    void whatIsNoTrackWithTimesIsRefusedInWords(String text) {
        assertThatThrownBy(() -> read(text))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageNotContaining("root:");
    }

    private static String line(String properties, String geometry) {
        return "{\"type\":\"Feature\",\"geometry\":" + geometry + ",\"properties\":" + properties + "}";
    }

    private static final String PLACES = IntStream.range(0, POINTS)
            .mapToObj(i -> "[-17.88," + (46.6 + i * 1e-4) + "," + (412 + i) + "]")
            .collect(Collectors.joining(",", "[", "]"));
    private static final String TIMES =
            IntStream.range(0, POINTS).mapToObj(i -> "\"" + when(i) + "\"").collect(Collectors.joining(",", "[", "]"));

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"coordTimes\":%s}",
                "{\"times\":%s}",
                "{\"coordinateProperties\":{\"times\":%s}}",
                "{\"timestamps\":%s,\"name\":\"x\"}"
            })
    void aLineHasItsTimesBesideIt(String properties) throws Exception {
        LogReading r = read(
                line(String.format(properties, TIMES), "{\"type\":\"LineString\",\"coordinates\":" + PLACES + "}"));
        assertThat(r.trace().size()).isEqualTo(POINTS);
        assertThat(r.trace().at(Channel.ALTITUDE_MSL_M, 2)).isCloseTo(414, within(1e-9));
        assertThat(r.notes()).anyMatch(n -> n.contains("above the sea") && n.contains("ellipsoid"));
    }

    @Test
    void severalLinesOfOneFeatureEachHaveTheirTimes() throws Exception {
        String later = TIMES.replace(":12:", ":32:");
        LogReading r = read(line(
                "{\"coordTimes\":[" + TIMES + "," + later + "]}",
                "{\"type\":\"MultiLineString\",\"coordinates\":[" + PLACES + "," + PLACES + "]}"));
        assertThat(r.trace().size()).isEqualTo(2 * POINTS);
    }

    @Test
    void pointsCarryTheirOwnFiguresAndWords() throws Exception {
        String points = IntStream.range(0, POINTS)
                .mapToObj(i -> line(
                        "{\"time\":\"" + when(i) + "\",\"battery_pct\":" + (90 - i) + ",\"mode\":\"HOVER\""
                                + (i == 4
                                        ? ",\"messages\":[{\"level\":\"warning\",\"text\":\"high wind\"},{\"level\":\"info\",\"text\":\"ok\"}]"
                                        : "")
                                + "}",
                        "{\"type\":\"Point\",\"coordinates\":[-17.88," + (46.6 + i * 1e-4) + "]}"))
                .collect(Collectors.joining(",", "{\"type\":\"FeatureCollection\",\"features\":[", "]}"));
        Trace t = read(points).trace();
        assertThat(t.at(Channel.BATTERY_PCT, 3)).isEqualTo(87);
        assertThat(t.modes()).extracting(Trace.ModeChange::mode).containsExactly("HOVER");
        assertThat(t.messages()).extracting(Trace.Message::text).containsExactly("high wind", "ok");
        assertThat(t.messages()).extracting(Trace.Message::level).containsExactly("warning", "info");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"type\":\"FeatureCollection\",\"features\":[]}",
                "{\"type\":\"Feature\",\"geometry\":{\"type\":\"LineString\",\"coordinates\":[[1,2],[3,4]]},\"properties\":{}}",
                "{\"type\":\"Feature\",\"geometry\":{\"type\":\"LineString\",\"coordinates\":[[\"x\",2]]},\"properties\":{\"times\":[\"2024-05-14T09:12:30Z\"]}}",
                "{\"type\":\"FeatureCollection\",\"features\":[{"
            })
    void geoJsonWithoutTimesIsRefusedInWords(String text) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(BrokenFileException.class);
    }
}
