package yarrek.formats.zones;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.rulebook.ZoneMet;

/** Notices and zone files as others write them: never taken for an area they do not describe. */
class HostileNoticesTest {
    private static final String Q = "Q) XTFX/QRTCA/IV/BO/W/000/012/4654N01630W003";

    private static ZoneFiles.Reading read(String text) throws Exception {
        return ZoneFiles.read(
                text.getBytes(StandardCharsets.UTF_8),
                new ZoneFiles.Settings(
                        ZoneKind.TEMPORARY, Optional.of(ZoneMet.Restriction.NEEDS_AUTHORISATION), false));
    }

    private static String notice(String number, String head, String e, String limits) {
        return "(" + number + " " + head + "\n" + Q + "\nA) XTFX B) 2611280600 C) 2611301800\nE) " + e + "\n" + limits
                + ")";
    }

    private static ZoneFiles.Reading e(String e) throws Exception {
        return read(notice("A0101/26", "NOTAMN", e, "F) SFC G) 2500FT AMSL"));
    }

    private static boolean in(ZoneFiles.Reading r, double lat, double lon) {
        return r.zones().stream().anyMatch(z -> z.area().locate(lat, lon) != Area.Side.OUTSIDE);
    }

    /** The last column is a place that the words name as inside, and that a shape drawn from the figures alone would miss. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "RESTRICTED AREA CIRCLE RADIUS 3NM CENTRED ON 465400N 0163000W. ENTRY POINTS 465700N 0163000W AND 465400N 0162500W | 46.87 | -16.54",
                "WI 1NM RADIUS OF 465400N 0163000W AND WI 3NM RADIUS OF 470000N 0161500W | 47.0 | -16.25",
                "CRANES ERECTED AT: 465400N 0163000W, 465500N 0162900W, 465500N 0163100W | 46.899 | -16.51",
                "WI 0.5NM EITHER SIDE OF LINE 465400N 0163000W - 465700N 0162800W - 465900N 0163000W | 46.9835 | -16.49",
                "WI 5NM OF 465400N 0163000W | 46.97 | -16.5",
                "AREA BOUNDED BY 465400N0163000W THENCE CLOCKWISE BY THE ARC OF A CIRCLE RADIUS 4NM CENTRED ON 465400N0163600W TO 465800N0163600W TO ORIGIN | 46.9 | -16.55",
                "UAS FLYING IN THE VALLEY | 46.9 | -16.5"
            })
    void noTextIsTakenForAnAreaItDoesNotDescribe(String words, double lat, double lon) throws Exception {
        assertThat(in(e(words), lat, lon)).isTrue();
    }

    @Test
    void whatWasNotUnderstoodIsTold() throws Exception {
        assertThat(e("CRANES ERECTED AT: 465400N 0163000W, 465500N 0162900W, 465500N 0163100W")
                        .notes())
                .anyMatch(n -> n.startsWith("A0101/26") && n.contains("not understood"));
        assertThat(e("UAS FLYING IN THE VALLEY").notes()).anyMatch(n -> n.contains("E gives no area"));
    }

    /** Each stands on file as more than it may be, and waits for a person with its text whole. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "CRANES ERECTED AT: 465400N 0163000W, 465500N 0162900W, 465500N 0163100W | F) SFC G) 2500FT AMSL | not understood as an area",
                "UAS FLYING IN THE VALLEY | F) SFC G) 2500FT AMSL | E gives no area",
                "WI 1NM RADIUS OF 465400N 0163000W | F) SFC G) SEE AIP SUP 12 | no upper limit",
                "AREA BOUNDED BY 465400N 0163000W - 465500N 0162900W - 465400N 0162900W - 465500N 0163000W | F) SFC G) 2500FT AMSL | not understood as an area"
            })
    void whatWasNotUnderstoodIsPutForwardForADecision(String e, String limits, String why) throws Exception {
        var read = read(notice("A0101/26", "NOTAMN", e, limits));
        assertThat(read.doubts()).singleElement().satisfies(d -> {
            assertThat(d.zoneId()).isEqualTo("A0101/26");
            assertThat(d.why()).contains(why);
            assertThat(d.text()).contains(e).contains(Q);
        });
        assertThat(e("WI 1NM RADIUS OF 465400N 0163000W").doubts()).isEmpty();
    }

    @Test
    void aNoticeForTheWholeRegionReachesFarUntilSomebodyDecides() throws Exception {
        var read = read(notice("A0101/26", "NOTAMN", "GPS MAY BE UNRELIABLE", "F) SFC G) UNL")
                .replace("W003", "W999"));
        assertThat(in(read, 50, -10)).isTrue();
        assertThat(read.doubts())
                .singleElement()
                .satisfies(d -> assertThat(d.why()).contains("539 NM").contains("whole region"));
    }

    /** A parallel of latitude and the shortest line part by 2 NM² tan φ / 8R: a side of 50 NM at 46.9 degrees by 180 m. */
    @Test
    void longSidesAreTheShortestLine() throws Exception {
        var read = e("AREA BOUNDED BY 465400N 0163000W - 465400N 0151800W - 462000N 0160000W");
        double middle = -15.9;
        double bulge = Math.pow(91_350, 2) * Math.tan(Math.toRadians(46.9)) / (8 * 6_371_000) / 111_180;
        assertThat(in(read, 46.9 + bulge * 0.97, middle)).isTrue();
        assertThat(in(read, 46.9 + bulge * 1.03, middle)).isFalse();
    }

    // --- daily schedules ---------------------------------------------------------------------------------------------

    private static Zone scheduled(String d) throws Exception {
        return read(notice("A0101/26", "NOTAMN", "WI 1NM RADIUS OF 465400N 0163000W", "F) SFC G) 2500FT AMSL")
                        .replace("\nE)", "\nD) " + d + "\nE)"))
                .zones()
                .get(0);
    }

    private static boolean inForce(Zone z, String at) {
        var t = java.time.Instant.parse(at);
        return z.times().meets(new yarrek.core.time.TimeWindow(t, t), java.time.ZoneOffset.UTC);
    }

    /** The notice runs from Saturday 28 November 06:00 to Monday 30 November 2026 18:00. */
    @ParameterizedTest(name = "{0} at {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "DAILY 0800-1000 | 2026-11-28T08:00:00Z | true",
                "DAILY 0800-1000 | 2026-11-28T10:00:00Z | true",
                "DAILY 0800-1000 | 2026-11-28T10:00:01Z | false",
                "0800-1000 1200-1300 | 2026-11-29T12:30:00Z | true",
                "MON-FRI 0600-2000 | 2026-11-28T12:00:00Z | false",
                "MON-FRI 0600-2000 | 2026-11-30T12:00:00Z | true",
                "MON-FRI 0600-2000 | 2026-11-30T18:00:01Z | false",
                "MON-FRI 0600-2000, SAT 0700-0900 | 2026-11-28T08:00:00Z | true",
                "SAT SUN 0600-0700 MON H24 | 2026-11-30T03:00:00Z | true",
                "SAT SUN 0600-0700 MON H24 | 2026-11-28T08:00:00Z | false",
                "FRI-MON 1000-1100 | 2026-11-29T10:30:00Z | true",
                "DAILY 2200-0200 | 2026-11-29T01:30:00Z | true",
                "DAILY 2200-0200 | 2026-11-28T06:30:00Z | false",
                "NOV 28 30 0800-1000 | 2026-11-29T09:00:00Z | false",
                "NOV 28 30 0800-1000 | 2026-11-30T09:00:00Z | true",
                "28-29 0800-1000 30 1400-1500 | 2026-11-30T09:00:00Z | false",
                "28-29 0800-1000 30 1400-1500 | 2026-11-30T14:00:00Z | true",
                "H24 | 2026-11-29T03:00:00Z | true"
            })
    void schedulesAreReckonedWith(String d, String at, boolean inForce) throws Exception {
        assertThat(inForce(scheduled(d), at)).isEqualTo(inForce);
        assertThat(scheduled(d).times().words()).doesNotContain("not reckoned");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "SR-SS",
                "DAILY 0800-1000 EXC SUN",
                "DAILY",
                "MON 28 0800-1000",
                "NOV 0800-1000",
                "31 0800-1000",
                "DEC 02 0800-1000",
                "0800-2500",
                "ACT BY PPR",
                "30-28 0800-1000"
            })
    void aScheduleNotUnderstoodCountsThroughout(String d) throws Exception {
        assertThat(inForce(scheduled(d), "2026-11-29T03:00:00Z")).isTrue();
        assertThat(scheduled(d).times().words()).contains("not reckoned with: " + d);
    }

    @Test
    void outlinesAndCirclesInKnownWordsAreTakenAsTheyStand() throws Exception {
        var outline = e("TEMPORARY RESTRICTED AREA BOUNDED BY 465400N 0163000W - 465500N 0162900W - 465500N 0163100W");
        assertThat(outline.notes()).isEmpty();
        assertThat(outline.zones().get(0).area().corners()).hasSize(3);
        var two = e("WI 1NM RADIUS OF 465400N 0163000W AND WI 1NM RADIUS OF 470000N 0161500W");
        assertThat(two.notes()).isEmpty();
        assertThat(two.zones().get(0).area().patches()).hasSize(2);
    }

    @Test
    void aWholeBulletinIsReadAndItsReplacementsAndCancellationsHold() throws Exception {
        String bulletin = String.join(
                "\n\n",
                notice("A0101/26", "NOTAMN", "WI 1NM RADIUS OF 465400N 0163000W", "F) SFC G) 2500FT AMSL"),
                notice("A0102/26", "NOTAMN", "WI 1NM RADIUS OF 465400N 0163000W", "F) SFC G) 120 M (400 FT) AGL"),
                notice("A0103/26", "NOTAMR A0102/26", "WI 2NM RADIUS OF 465400N 0163000W", "F) SFC G) 2500FT AMSL"),
                notice("A0104/26", "NOTAMC A0101/26", "CANCELLED", "F) SFC G) 2500FT AMSL"));
        var read = read(bulletin.replace("C) 2611301800\nE) WI 2NM", "C) UFN\nE) WI 2NM"));
        assertThat(read.zones()).extracting(Zone::id).containsExactly("A0103/26");
        assertThat(read.notes())
                .anyMatch(n -> n.equals("A0103/26 replaces A0102/26, which is left out"))
                .anyMatch(n -> n.equals("A0104/26 cancels A0101/26, which is left out"));
        assertThat(read.zones().get(0).times().periods().get(0).to()).isEmpty();
        var metres =
                read(notice("A0102/26", "NOTAMN", "WI 1NM RADIUS OF 465400N 0163000W", "F) SFC G) 120 M (400 FT) AGL"));
        assertThat(metres.zones().get(0).upper()).isEqualTo(HeightLimit.aboveGround(120));
    }

    @Test
    void limitsUpsideDownAreRefusedWithTheirName() {
        assertThatThrownBy(() -> read(notice(
                        "A0105/26", "NOTAMN", "WI 1NM RADIUS OF 465400N 0163000W", "F) 2500FT AMSL G) 1000FT AMSL")))
                .hasMessageContaining("A0105/26")
                .hasMessageContaining("above the upper");
        assertThatThrownBy(() ->
                        read("AC R\nAN Upside\nAL 3000 ft MSL\nAH 1000 ft MSL\nV X=46:54:00 N 016:30:00 W\nDC 1\n"))
                .hasMessageContaining("Upside");
    }

    private static String feature(String limits) {
        return "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"Dune\","
                + limits
                + "},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[-16.5,46.9],[-16.4,46.9],[-16.4,47],[-16.5,46.9]]]}}]}";
    }

    @ParameterizedTest
    @ValueSource(strings = {"\"upper\":500", "\"upper\":\"500 ft\"", "\"lower\":\"100 m\",\"upper\":\"500 ft AMSL\""})
    void aHeightThatDoesNotSayFromWhereIsAskedFor(String limits) {
        assertThatThrownBy(() -> read(feature(limits)))
                .hasMessageContaining("Dune")
                .hasMessageContaining("write unit and reference");
    }

    @Test
    void noughtIsTheGroundAndStatedHeightsAreRead() throws Exception {
        Zone z = read(feature("\"lower\":0,\"upper\":\"150 m AGL\"")).zones().get(0);
        assertThat(z.lower()).isEqualTo(HeightLimit.SURFACE);
        assertThat(z.upper()).isEqualTo(HeightLimit.aboveGround(150));
    }

    // --- OpenAir as others write it ----------------------------------------------------------------------------------

    private static final String HEAD = "AC R\nAN %s\nAL SFC\nAH 3000 ft MSL\nV X=46:54:00 N 016:30:00 W\n";

    private static ZoneFiles.Reading openAir(String geometry) throws Exception {
        return read(HEAD.formatted("Ring") + geometry);
    }

    @Test
    void ofTwoLimitsTheOneThatMakesItLarger() throws Exception {
        var read = read(
                "AC R\nAN Both\nAL 1000 ft MSL / FL 5\nAH 6500 ft MSL / FL 70\nV X=46:54:00 N 016:30:00 W\nDC 1\n");
        assertThat(read.zones().get(0).heights()).isEqualTo("flight level 5 to flight level 70");
        assertThat(read.notes()).anyMatch(n -> n.contains("6500 ft MSL / FL 70"));
    }

    @Test
    void everyRingOfAnAirspaceIsKept() throws Exception {
        var rings = openAir("DC 1\nV X=47:00:00 N 016:15:00 W\nDC .5\n");
        assertThat(rings.zones().get(0).area().patches()).hasSize(2);
        var both = openAir("DP 46:40:00 N 016:30:00 W\nDP 46:41:00 N 016:30:00 W\nDP 46:41:00 N 016:28:00 W\nDC 1\n");
        assertThat(in(both, 46.679, -16.495)).isTrue();
        assertThat(in(both, 46.9, -16.5)).isTrue();
        assertThat(in(openAir("DA 1.5,0,360\n"), 46.9, -16.5)).isTrue();
    }

    /** Every point of the arc itself lies in the area: its sides stand off. */
    @Test
    void arcsErrOnTheSafeSide() throws Exception {
        Zone z = openAir("DP 46:54:00 N 016:30:00 W\nDA 5,300,60\n").zones().get(0);
        var centre = new yarrek.core.geo.Position(46.9, -16.5);
        for (double azimuth = -59.9; azimuth < 60; azimuth += 0.25) {
            var p = yarrek.core.geo.Geodesy.destination(centre, azimuth, 5 * 1852 - 0.01);
            assertThat(z.area().locate(p.latitudeDeg(), p.longitudeDeg()))
                    .as(azimuth + "°")
                    .isNotEqualTo(Area.Side.OUTSIDE);
        }
        var beyond = yarrek.core.geo.Geodesy.destination(centre, 0, 5 * 1852 * 1.0002);
        assertThat(z.area().locate(beyond.latitudeDeg(), beyond.longitudeDeg())).isEqualTo(Area.Side.OUTSIDE);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "DA 1.5,100,470\n",
                "DB 46:58:00 N 016:30:00 W,46:54:00 N 016:10:00 W\n",
            })
    void arcsThatCannotBeAreRefused(String geometry) {
        assertThatThrownBy(() -> openAir(geometry)).hasMessageContaining("Ring");
    }

    @Test
    void westernTextIsReadAndTold() throws Exception {
        var read = ZoneFiles.read(
                (HEAD.formatted("Düne") + "DC 1\n").getBytes(java.nio.charset.Charset.forName("windows-1252")),
                new ZoneFiles.Settings(
                        ZoneKind.TEMPORARY, Optional.of(ZoneMet.Restriction.NEEDS_AUTHORISATION), false));
        assertThat(read.zones().get(0).name()).isEqualTo("Düne");
        assertThat(read.notes()).anyMatch(n -> n.contains("windows-1252"));
    }

    /** RFC 7946, 3.1.9. */
    @Test
    void anAreaCutAtTheMeridianIsOneAgain() throws Exception {
        String west = "[[[179.9,-17],[180,-17],[180,-16.9],[179.9,-16.9],[179.9,-17]]]";
        String east = "[[[-180,-17],[-179.9,-17],[-179.9,-16.9],[-180,-16.9],[-180,-17]]]";
        var read = read(
                "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"Cut\"},"
                        + "\"geometry\":{\"type\":\"MultiPolygon\",\"coordinates\":[" + west + "," + east + "]}}]}");
        assertThat(read.zones().get(0).area().patches()).hasSize(1);
        assertThat(in(read, -16.95, 180)).isTrue();
        assertThat(in(read, -16.95, -179.95)).isTrue();
    }
}
