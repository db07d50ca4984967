package yarrek.formats.zones;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.airspace.Ground;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.rulebook.ZoneMet.Restriction;
import yarrek.core.time.TimeWindow;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.maps.BrokenMapException;

/** Zone files of every format read here, and what is said of bad ones. */
class ZoneFilesTest {
    private static final ZoneFiles.Settings PLAIN = new ZoneFiles.Settings(ZoneKind.OWN, Optional.empty(), false);
    private static final ZoneFiles.Settings MENDING =
            new ZoneFiles.Settings(ZoneKind.OWN, Optional.of(Restriction.CONDITIONAL), true);

    private static ZoneFiles.Reading read(String text) throws BrokenFileException {
        return ZoneFiles.read(text.getBytes(StandardCharsets.UTF_8), PLAIN);
    }

    private static TimeWindow window(String from, String to) {
        return new TimeWindow(Instant.parse(from), Instant.parse(to));
    }

    // --- ED-269 ------------------------------------------------------------------------------------------------------

    private static final String ED269 = """
            {"title": "zones", "features": [{"identifier": "XQ001", "country": "XQX", "name": "Infirmary pad", "type": "COMMON",
              "restriction": "REQ_AUTHORISATION", "restrictionConditions": ["call before"], "reason": ["AIR_TRAFFIC"], "message": "Pad in use.",
              "applicability": [{"permanent": "NO", "startDateTime": "2027-06-01T00:00:00Z", "endDateTime": "2027-06-30T23:59:00Z",
                "schedule": [{"day": ["MON", "TUE"], "startTime": "08:00:00Z", "endTime": "16:00:00Z"}]}],
              "zoneAuthority": [{"name": "Pad desk", "phone": "+00 100", "email": "pad@example.invalid", "intervalBefore": "PT24H"}],
              "geometry": [
                {"uomDimensions": "FT", "lowerLimit": 100, "lowerVerticalReference": "AGL", "upperLimit": 1500, "upperVerticalReference": "AMSL",
                 "horizontalProjection": {"type": "Circle", "center": [-17.9, 46.6], "radius": 1000}},
                {"uomDimensions": "M", "lowerLimit": 0, "lowerVerticalReference": "AGL", "upperLimit": 120, "upperVerticalReference": "AGL",
                 "horizontalProjection": {"type": "Polygon", "coordinates": [[[-17.9, 46.6], [-17.89, 46.6], [-17.89, 46.61], [-17.9, 46.6]]]}}]}]}
            """;

    @Test
    void ed269IsReadWithHeightsTimesAndAuthority() throws Exception {
        ZoneFiles.Reading r = read(ED269);
        assertThat(r.format()).isEqualTo("ED-269");
        assertThat(r.zones()).extracting(Zone::id).containsExactly("XQX-XQ001/1", "XQX-XQ001/2");
        Zone z = r.zones().get(0);
        assertThat(z.kind()).isEqualTo(ZoneKind.AERODROME);
        assertThat(z.restriction()).isEqualTo(Restriction.NEEDS_AUTHORISATION);
        assertThat(z.lower().words()).isEqualTo("100 ft (30.5 m) above ground");
        assertThat(z.upper().reference()).isEqualTo(HeightLimit.Reference.SEA);
        assertThat(z.area().figures().areaM2()).isCloseTo(Math.PI * 304.8 * 304.8, within(600.0));
        assertThat(z.message()).isEqualTo("Pad in use. call before Reason: air traffic.");
        assertThat(z.authority()).isEqualTo("Pad desk (ask 24h before)");
        assertThat(z.contact()).isEqualTo("+00 100, pad@example.invalid");
        // 7 June 2027 is a Monday
        assertThat(z.times().meets(window("2027-06-07T15:59:00Z", "2027-06-07T17:00:00Z"), ZoneOffset.UTC))
                .isTrue();
        assertThat(z.times().meets(window("2027-06-09T09:00:00Z", "2027-06-09T10:00:00Z"), ZoneOffset.UTC))
                .isFalse();
        assertThat(z.times().meets(window("2027-07-05T09:00:00Z", "2027-07-05T10:00:00Z"), ZoneOffset.UTC))
                .isFalse();
    }

    @ParameterizedTest(name = "{0} → {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "\"radius\": 1000|\"radius\": 0|radius: a circle needs a radius above 0 m",
                "\"radius\": 1000|\"radius\": \"wide\"|radius: found \"wide\"; a number is expected",
                "[-17.9, 46.6], \"radius\"|[46.6, -117.9], \"radius\"|center: position [46.6,-117.9]: latitude must be",
                "REQ_AUTHORISATION|SOMETIMES|restriction: found \"SOMETIMES\"",
                "\"identifier\": \"XQ001\"|\"identifier\": \"\"|identifier: missing",
                "\"MON\", \"TUE\"|\"MOO\"|schedule.day: found \"MOO\"",
                "08:00:00Z|8 am|schedule.startTime: found \"8 am\"",
                "2027-06-01T00:00:00Z|1 June|applicability.startDateTime: found \"1 June\"",
                "\"AMSL\"|\"WGS84\"|upperLimit: found reference \"WGS84\"",
                "\"lowerLimit\": 100|\"lowerLimit\": \"low\"|lowerLimit: found \"low\"; a number is expected",
                "[-17.89, 46.61], [-17.9, 46.6]|[-17.9, 46.6]|geometry: an area needs at least three"
            })
    void aBadPropertyIsNamedWithItsFeature(String was, String is, String told) {
        assertThat(ED269).contains(was);
        assertThatThrownBy(() -> read(ED269.replace(was, is)))
                .isInstanceOf(BrokenMapException.class)
                .hasMessageContaining("feature 1 (Infirmary pad), ")
                .hasMessageContaining(told);
    }

    @Test
    void everyFaultOfAFileIsTold() {
        String two = ED269.replace("REQ_AUTHORISATION", "SOMETIMES")
                .replace("]}]}\n", "]}, {\"identifier\": \"\", \"name\": \"Nameless\", \"geometry\": []}]}\n");
        assertThatThrownBy(() -> read(two))
                .isInstanceOfSatisfying(
                        BrokenMapException.class,
                        e -> assertThat(e.problems())
                                .hasSize(2)
                                .anyMatch(p -> p.startsWith("feature 2 (Nameless), identifier")));
    }

    // --- ED-318 ------------------------------------------------------------------------------------------------------

    @Test
    void ed318IsReadFromItsGeoJson() throws Exception {
        ZoneFiles.Reading r = read("""
                {"type": "FeatureCollection", "features": [{"type": "Feature",
                  "properties": {"identifier": "R7", "country": "XQX", "name": [{"text": "Cliff reserve", "lang": "en-GB"}], "type": "PROHIBITED",
                    "reason": ["NATURE"], "limitedApplicability": [{"schedule": [{"day": ["ANY"], "startEvent": "BMCT", "endEvent": "EECT"}]}],
                    "zoneAuthority": [{"name": [{"text": "Warden", "lang": "en-GB"}], "phone": "+00 200"}]},
                  "geometry": {"type": "Polygon", "coordinates": [[[-17.9, 46.6], [-17.89, 46.6], [-17.89, 46.61], [-17.9, 46.61], [-17.9, 46.6]]],
                    "layer": {"upper": 150, "upperReference": "AGL", "lower": 0, "lowerReference": "AGL", "uom": "m"}}},
                 {"type": "Feature", "properties": {"identifier": "R8", "restriction": "NO_RESTRICTION"},
                  "geometry": {"type": "Point", "coordinates": [-17.8, 46.6], "extent": {"subType": "Circle", "radius": 50},
                    "layer": {"upper": 65, "upperReference": "FL", "lower": 10, "lowerReference": "FL", "uom": "FL"}}}]}
                """);
        assertThat(r.format()).isEqualTo("ED-318");
        assertThat(r.zones().get(0).name()).isEqualTo("Cliff reserve");
        assertThat(r.zones().get(0).kind()).isEqualTo(ZoneKind.PARK);
        assertThat(r.zones().get(0).authority()).isEqualTo("Warden");
        // hours bound to the sun are not reckoned with: in force all day, and the text is kept
        assertThat(r.zones().get(0).times().text()).contains("BMCT");
        assertThat(r.zones()
                        .get(0)
                        .times()
                        .meets(window("2027-06-12T01:00:00Z", "2027-06-12T02:00:00Z"), ZoneOffset.UTC))
                .isTrue();
        assertThat(r.zones().get(1).lower().words()).isEqualTo("flight level 10");
    }

    // --- OpenAir -----------------------------------------------------------------------------------------------------

    private static final String OPENAIR = """
            * invented airspace
            AC CTR
            AN Tarrow
            AL SFC
            AH 2500 ft AMSL
            DP 46:35:00 N 017:56:00 W
            DP 46:37:00 N 017:56:00 W
            V X=46:36:00 N 017:54:00 W
            DB 46:37:00 N 017:54:00 W, 46:35:00 N 017:54:00 W

            AC R
            AN Range
            AL 300 ft AGL
            AH FL 65
            V X=46:40:00N 017:50:00W
            DC 1.5
            """;

    @Test
    void openAirIsReadWithArcsAndCircles() throws Exception {
        ZoneFiles.Reading r = read(OPENAIR);
        assertThat(r.zones()).extracting(Zone::kind).containsExactly(ZoneKind.CONTROL_ZONE, ZoneKind.RESTRICTED);
        Zone ctr = r.zones().get(0);
        assertThat(ctr.lower()).isEqualTo(HeightLimit.SURFACE);
        assertThat(ctr.upper().words()).isEqualTo("2500 ft (762 m) above sea level");
        // clockwise from north over east to south
        assertThat(ctr.area().locate(46.6, -17.88)).isEqualTo(yarrek.core.geo.Area.Side.INSIDE);
        assertThat(ctr.area().locate(46.6, -17.87)).isEqualTo(yarrek.core.geo.Area.Side.OUTSIDE);
        assertThat(r.zones().get(1).area().figures().areaM2()).isCloseTo(Math.PI * 2778 * 2778, within(60_000.0));
        assertThat(r.notes()).anyMatch(n -> n.contains("does not say what a zone asks"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "AH FL 65|AH very high|line 14 (Range), AH: found \"very high\"",
                "DC 1.5|DC -1|line 16 (Range), DC: found \"-1\"",
                "DC 1.5|DP 91:00:00N 017:50:00W|line 16 (Range), DP: “91:00:00N",
                "V X=46:40:00N 017:50:00W|* gone|line 16 (Range), DC: DC needs a centre"
            })
    void aBadLineIsNamedAndNothingIsTaken(String was, String is, String told) {
        assertThatThrownBy(() -> read(OPENAIR.replace(was, is)))
                .isInstanceOf(BrokenMapException.class)
                .hasMessageContaining(told);
    }

    @ParameterizedTest(name = "{0} is {1} m {2}")
    @CsvSource({
        "SFC, 0, GROUND",
        "1500 ft AGL, 457.2, GROUND",
        "3000, 914.4, SEA",
        "300 m MSL, 300, SEA",
        "FL65, 1981.2, STANDARD",
        "120 m above ground, 120, GROUND"
    })
    void heightsAreReadInTheirUsualForms(String text, double metres, HeightLimit.Reference reference) {
        HeightLimit h = OpenAirZones.height(text);
        assertThat(h.metres()).isCloseTo(metres, within(1e-9));
        assertThat(h.reference()).isEqualTo(reference);
    }

    @Test
    void aHeightBeyondAllMeasureIsToldWithTheFeaturesName() {
        assertThatThrownBy(() -> ZoneFiles.read(
                        "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"Dune\",\"upper\":\"99999999 m AGL\"},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[-16.5,46.9],[-16.4,46.9],[-16.4,47],[-16.5,46.9]]]}}]}"
                                .getBytes(StandardCharsets.UTF_8),
                        MENDING))
                .hasMessageContaining("Dune")
                .hasMessageContaining("upper");
        assertThatThrownBy(() -> read(OPENAIR.replaceFirst("(?m)^AH .*$", "AH 99999999 m AGL")))
                .hasMessageContaining("AH");
    }

    // --- NOTAM -------------------------------------------------------------------------------------------------------

    private static final String NOTAM = """
            A0417/27 NOTAMN
            Q) XQXX/QRTCA/IV/BO/W/000/012/4635N01754W003
            A) XTAR B) 2706120800 C) 2706141800 EST
            D) DAILY 0800-1800
            E) TEMPORARY RESTRICTED AREA ESTABLISHED WITHIN 463500N0175600W 463700N0175600W 463700N0175200W DUE REGATTA
            F) SFC G) 1200FT AMSL
            """;

    @Test
    void aNoticeIsReadWithItsPolygonTimesAndSchedule() throws Exception {
        ZoneFiles.Reading r = read(NOTAM);
        Zone z = r.zones().get(0);
        assertThat(z.id()).isEqualTo("A0417/27");
        assertThat(z.kind()).isEqualTo(ZoneKind.TEMPORARY);
        assertThat(z.restriction()).isEqualTo(Restriction.NEEDS_AUTHORISATION);
        assertThat(z.area().corners()).hasSize(3);
        assertThat(z.upper().words()).isEqualTo("1200 ft (365.8 m) above sea level");
        assertThat(z.times().words()).endsWith("daily 08:00 to 18:00 UTC");
        // an estimated end is no end
        assertThat(z.times().meets(window("2027-08-01T09:00:00Z", "2027-08-01T10:00:00Z"), ZoneOffset.UTC))
                .isTrue();
        assertThat(z.times().meets(window("2027-08-01T00:00:00Z", "2027-08-01T01:00:00Z"), ZoneOffset.UTC))
                .isFalse();
        assertThat(z.times().meets(window("2027-06-12T07:00:00Z", "2027-06-12T07:59:00Z"), ZoneOffset.UTC))
                .isFalse();
        assertThat(r.notes()).anyMatch(n -> n.contains("estimated"));
    }

    @Test
    void withoutAPolygonTheCircleOfTheQLineCountsAndOfARadiusInTheText() throws Exception {
        Zone q = read(NOTAM.replaceAll("WITHIN .* DUE", "DUE")).zones().get(0);
        assertThat(q.area().figures().areaM2()).isCloseTo(Math.PI * 5556 * 5556, within(200_000.0));
        Zone e = read(NOTAM.replaceAll("WITHIN .* DUE", "RADIUS 500M CENTRED 463600N0175400W DUE"))
                .zones()
                .get(0);
        assertThat(e.area().figures().areaM2()).isCloseTo(Math.PI * 500 * 500, within(1500.0));
    }

    @Test
    void aPermanentNoticeHasNoEndAndACertainOneEnds() throws Exception {
        assertThat(read(NOTAM.replace("2706141800 EST", "PERM"))
                        .zones()
                        .get(0)
                        .times()
                        .periods()
                        .get(0)
                        .to())
                .isEmpty();
        Zone certain = read(NOTAM.replace(" EST", "")).zones().get(0);
        assertThat(certain.times().isOverAt(Instant.parse("2027-06-14T18:00:01Z")))
                .isTrue();
        assertThat(certain.times().isOverAt(Instant.parse("2027-06-14T18:00:00Z")))
                .isFalse();
    }

    @Test
    void severalNoticesAreToldApart() throws Exception {
        ZoneFiles.Reading r =
                read(NOTAM + "\n" + NOTAM.replace("A0417", "A0418").replace("NOTAMN", "NOTAMR A0400/27"));
        assertThat(r.zones()).extracting(Zone::id).containsExactly("A0417/27", "A0418/27");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "B) 2706120800|B) 12 June|A0417/27, B: found \"12 June\"",
                "C) 2706141800 EST|C) 2706111800|A0417/27, C: the end",
                "/QRTCA/IV|/RTCA/IV|A0417/27, Q: found"
            })
    void aBadFieldOfANoticeIsNamed(String was, String is, String told) throws Exception {
        assertThatThrownBy(() -> read(NOTAM.replace(was, is))).hasMessageContaining(told);
    }

    // --- GeoJSON and KML ---------------------------------------------------------------------------------------------

    private static final String FEATURES = """
            {"type": "FeatureCollection", "features": [
             {"type": "Feature", "properties": {"name": "Field", "lower": "SFC", "upper": "400 ft AGL"}, "geometry": {"type": "Polygon", "coordinates":
               [[[-17.9, 46.6], [-17.89, 46.6], [-17.89, 46.61], [-17.9, 46.61], [-17.9, 46.6]], [[-17.896, 46.604], [-17.894, 46.604], [-17.895, 46.606], [-17.896, 46.604]]]}},
             {"type": "Feature", "properties": {"name": "Bow tie"}, "geometry": {"type": "Polygon", "coordinates":
               [[[-17.8, 46.6], [-17.79, 46.61], [-17.79, 46.6], [-17.8, 46.61], [-17.8, 46.6]]]}}]}
            """;

    @Test
    void aFileThatDoesNotSayWhatItAsksIsRefusedUntilThePersonDoes() {
        assertThatThrownBy(() -> read(FEATURES)).hasMessageContaining("choose it beside the file");
    }

    @Test
    void crossingSidesAreRefusedOrMendedAndToldOf() throws Exception {
        ZoneFiles.Settings strict = new ZoneFiles.Settings(ZoneKind.OWN, Optional.of(Restriction.CONDITIONAL), false);
        assertThatThrownBy(() -> ZoneFiles.read(FEATURES.getBytes(StandardCharsets.UTF_8), strict))
                .hasMessageContaining("feature 2 (Bow tie), geometry: the sides of the area cross")
                .hasMessageContaining("let crossing sides be mended");
        ZoneFiles.Reading r = ZoneFiles.read(FEATURES.getBytes(StandardCharsets.UTF_8), MENDING);
        assertThat(r.zones()).hasSize(2);
        assertThat(r.zones().get(0).area().patches().get(0).holes()).hasSize(1);
        assertThat(r.notes()).anyMatch(n -> n.contains("Bow tie") && n.contains("mended into 2 pieces"));
    }

    @Test
    void kmlIsReadWithHolesAndItsData() throws Exception {
        String kml = """
                <?xml version="1.0" encoding="UTF-8"?>
                <kml xmlns="http://www.opengis.net/kml/2.2"><Document><name>doc</name><Placemark><name>Pan</name>
                <ExtendedData><Data name="restriction"><value>prohibited</value></Data><Data name="upper"><value>120 m AGL</value></Data></ExtendedData>
                <Polygon><outerBoundaryIs><LinearRing><coordinates>-17.9,46.6,0 -17.89,46.6,0 -17.89,46.61,0 -17.9,46.61,0 -17.9,46.6,0</coordinates></LinearRing></outerBoundaryIs>
                <innerBoundaryIs><LinearRing><coordinates>-17.896,46.604 -17.894,46.604 -17.895,46.606 -17.896,46.604</coordinates></LinearRing></innerBoundaryIs></Polygon></Placemark></Document></kml>
                """;
        Zone z = read(kml).zones().get(0);
        assertThat(z.restriction()).isEqualTo(Restriction.PROHIBITED);
        assertThat(z.upper().metres()).isEqualTo(120);
        assertThat(z.area().patches().get(0).holes()).hasSize(1);
        assertThatThrownBy(() -> read(kml.replace("-17.89,46.6,0", "-17.89;46.6")))
                .hasMessageContaining("feature 1 (Pan)")
                .hasMessageContaining("longitude,latitude in degrees is expected");
        assertThatThrownBy(() -> read(kml.replace("<kml", "<!DOCTYPE kml [<!ENTITY a 'b'>]><kml")))
                .hasMessageContaining("document type declaration");
    }

    @Test
    void ourOwnZonesComeBackAsTheyWereWritten() throws Exception {
        for (String text : List.of(ED269, OPENAIR, NOTAM)) {
            for (Zone z : read(text).zones()) {
                Zone back = ZoneGeoJson.zone(ZoneGeoJson.write(z).toString());
                assertThat(back)
                        .usingRecursiveComparison()
                        .ignoringFields("area")
                        .isEqualTo(z);
                double m2 = z.area().figures().areaM2();
                // corners are written to 1e-7 of a degree
                assertThat(back.area().figures().areaM2()).isCloseTo(m2, within(m2 * 1e-4));
            }
        }
    }

    @Test
    void aBufferWidensAZoneAndAMassBindsIt() throws Exception {
        Zone z = read("""
                        {"features": [{"properties": {"zone": "F1", "name": "Fire", "kind": "fire", "restriction": "prohibited", "radiusM": 1000, "bufferM": 9260, "bindsFromG": 250},
                         "geometry": {"type": "Point", "coordinates": [-17.9, 46.6]}}]}
                        """).zones().get(0);
        assertThat(z.kind()).isEqualTo(ZoneKind.EMERGENCY);
        assertThat(Math.sqrt(z.area().figures().areaM2() / Math.PI)).isCloseTo(10_260, within(20.0));
        assertThat(z.bindsFromG()).isEqualTo(OptionalDouble.of(250));
        assertThat(z.heights(OptionalDouble.of(5), Ground.UNKNOWN)).isEqualTo(Zone.Meeting.MEETS);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "hello", "{\"a\": 1}", "{\"features\": []}", "{\"features\": [", "<kml", "[1]"})
    void whatIsNoZoneFileIsRefusedInWords(String text) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(BrokenFileException.class);
    }

    @Test
    void bytesThatAreNoUtf8AreRefused() {
        assertThatThrownBy(() -> ZoneFiles.read(new byte[] {'{', (byte) 0xC3, '}'}, PLAIN))
                .hasMessageContaining("not UTF-8");
    }

    @Test
    void zonesOfTheSameIdentityAreAllKept() throws Exception {
        String twice = OPENAIR + OPENAIR;
        assertThat(read(twice).zones())
                .extracting(Zone::id)
                .containsExactly("Tarrow CTR", "Range R", "Tarrow CTR/2", "Range R/2");
    }
}
