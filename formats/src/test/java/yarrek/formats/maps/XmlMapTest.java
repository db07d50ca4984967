package yarrek.formats.maps;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.geo.Position;
import yarrek.formats.log.BrokenFileException;

/** KML and GPX maps, good and hostile; what is said of bad ones names the place and the cure. */
class XmlMapTest {
    private static List<MapFeature> read(String text) throws BrokenFileException {
        return XmlMap.read(text.getBytes(StandardCharsets.UTF_8));
    }

    private static String kml(String inner) {
        return "<kml xmlns=\"http://www.opengis.net/kml/2.2\"><Document>" + inner + "</Document></kml>";
    }

    private static String gpx(String inner) {
        return "<gpx version=\"1.1\" creator=\"x\">" + inner + "</gpx>";
    }

    private static void refused(String text, String... words) {
        assertThatThrownBy(() -> read(text))
                .isInstanceOf(BrokenFileException.class)
                .extracting(e -> e instanceof BrokenMapException b ? String.join("\n", b.problems()) : e.getMessage())
                .asString()
                .contains(words);
    }

    @Test
    void aPlacemarkHasItsNameItsDataAndEveryGeometry() throws Exception {
        List<MapFeature> all = read(kml("""
                <Folder><name>not this</name><Placemark><name> Slip &amp; crane </name>
                <description>under &lt;the&gt; crane</description>
                <ExtendedData><Data name="kind"><value>hazard</value></Data>
                  <SchemaData><SimpleData name="height">12 m</SimpleData></SchemaData></ExtendedData>
                <MultiGeometry>
                  <Point><coordinates>-17.9,46.6,30</coordinates></Point>
                  <LineString><coordinates>-17.9,46.6 -17.8,46.7</coordinates></LineString>
                  <Polygon><outerBoundaryIs><LinearRing><coordinates>
                    -17.9,46.6 -17.8,46.6 -17.8,46.7 -17.9,46.6</coordinates></LinearRing></outerBoundaryIs>
                    <innerBoundaryIs><LinearRing><coordinates>
                    -17.85,46.62 -17.84,46.62 -17.84,46.63 -17.85,46.62</coordinates></LinearRing></innerBoundaryIs></Polygon>
                </MultiGeometry></Placemark></Folder>"""));
        assertThat(all).hasSize(3).allMatch(f -> f.name().equals("Slip & crane"));
        assertThat(all.get(0).properties())
                .containsEntry("kind", "hazard")
                .containsEntry("height", "12 m")
                .containsEntry("description", "under <the> crane");
        assertThat(all.get(0).patches()).singleElement().satisfies(p -> {
            assertThat(p.outline()).hasSize(4);
            assertThat(p.holes()).singleElement().satisfies(h -> assertThat(h).hasSize(4));
        });
        assertThat(all.get(1).points()).containsExactly(new Position(46.6, -17.9));
        assertThat(all.get(2).points()).containsExactly(new Position(46.6, -17.9), new Position(46.7, -17.8));
    }

    @Test
    void waypointsRoutesAndTracksOfAGpx() throws Exception {
        List<MapFeature> all = read(gpx("""
                <metadata><name>not this</name></metadata>
                <wpt lat="46.6" lon="-17.9"><ele>12</ele><name>Quay</name><desc>north side</desc><type>launch</type></wpt>
                <rte><name>Road</name><type>road</type><rtept lat="46.6" lon="-17.9"><name>corner</name></rtept>
                  <rtept lat="46.7" lon="-17.9"/></rte>
                <trk><trkseg><trkpt lat="1" lon="2"/><trkpt lat="1" lon="3"/></trkseg></trk>"""));
        assertThat(all).extracting(MapFeature::name).containsExactly("Quay", "Road", "");
        assertThat(all.get(0).properties()).containsEntry("kind", "launch").containsEntry("description", "north side");
        assertThat(all.get(1).properties()).containsEntry("kind", "road");
        assertThat(all.get(2).points()).containsExactly(new Position(1, 2), new Position(1, 3));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "<!DOCTYPE kml>",
                "<!DOCTYPE kml SYSTEM \"file:///etc/passwd\">",
                "<!DOCTYPE kml [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;\">]>",
            })
    void documentTypesAreRefused(String doctype) {
        refused(doctype + kml("<Placemark><name>x</name></Placemark>"), "document type declaration");
    }

    @Test
    void anEntityIsNeverFetchedOrExpanded() {
        refused(kml("<Placemark><name>&secret;</name></Placemark>"), "not well-formed XML", "nothing was taken");
    }

    @ParameterizedTest
    @CsvSource({
        "'<kml><Document><Placemark><name>Quay', not well-formed XML",
        "'<kml><Document></kml>', not well-formed XML",
        "'', not well-formed XML",
        "'   ', not well-formed XML",
        "'<html><body/></html>', found <html>; <kml> or <gpx> is expected",
        "'<kml><a></a></kml><kml/>', not well-formed XML"
    })
    void aCutOrForeignFileIsRefused(String text, String words) {
        refused(text, words);
    }

    /** Nothing is called by depth: a file of a hundred thousand nested folders is read, not crashed on. */
    @Test
    void depthIsNoDanger() throws Exception {
        int deep = 100_000;
        String inner = "<Placemark><Point><coordinates>1,2</coordinates></Point></Placemark>";
        assertThat(read(kml("<Folder>".repeat(deep) + inner + "</Folder>".repeat(deep))))
                .hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "46.6;-17.9 | found \"46.6;-17.9\"; longitude,latitude in degrees is expected, such as -17.9,46.6",
                "-17.9 | found \"-17.9\"; longitude,latitude",
                "x,y | found \"x,y\"",
                "-17.9,91 | 91"
            })
    void coordinatesThatAreNoneAreNamedWithTheirPlace(String coordinates, String words) {
        String file = kml("\n<Placemark><name>Quay</name><Point><coordinates>" + coordinates
                + "</coordinates></Point></Placemark>");
        refused(file, "feature 1 (Quay), line 2, coordinates: ", words);
    }

    /** All faults of a file are told at once, and then nothing of it is taken. */
    @Test
    void everyFaultIsTold() {
        refused(
                gpx("\n<wpt lat=\"91\" lon=\"0\"/>\n<wpt lat=\"1\" lon=\"1\"/>\n<wpt lon=\"5\"><name>Mast</name></wpt>"
                        + "\n<trk><name>Shore</name><trkseg><trkpt lat=\"1\" lon=\"2\"/></trkseg></trk>"),
                "waypoint 1, line 2, lat and lon: found \"91\", \"0\"; degrees are expected, such as 46.6 and -17.9",
                "line 4, lat and lon: found \"null\", \"5\"",
                "trk 4 (Shore): a line needs at least two points, found 1");
    }

    @Test
    void tooManyFeaturesAreRefused() {
        String one = "<wpt lat=\"1\" lon=\"1\"/>";
        refused(gpx(one.repeat(MapFiles.MOST_FEATURES + 1)), "more than " + MapFiles.MOST_FEATURES + " features");
    }
}
