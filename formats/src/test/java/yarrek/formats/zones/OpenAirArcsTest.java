package yarrek.formats.zones;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.formats.log.BrokenFileException;

/**
 * Arcs of OpenAir against the plane geometry of sectors: areas by radius and angle, and places just inside and just outside
 * the arc on every bearing.
 */
class OpenAirArcsTest {
    private static final Position CENTRE = new Position(46 + 35 / 60.0, -17.9);
    private static final double NM = 1852;

    private static Zone read(String geometry) throws BrokenFileException {
        String text = "AC R\nAN Sector\nAL SFC\nAH 1500 ft AGL\nV X=46:35:00N 017:54:00W\n" + geometry + "\n";
        return ZoneFiles.read(
                        text.getBytes(StandardCharsets.UTF_8),
                        new ZoneFiles.Settings(ZoneKind.OWN, Optional.empty(), false))
                .zones()
                .get(0);
    }

    private static double areaM2(Zone z) {
        return z.area().figures().areaM2();
    }

    private static boolean holds(Zone z, double bearingDeg, double metres) {
        return z.area().distanceM(Geodesy.destination(CENTRE, bearingDeg, metres)) == 0;
    }

    private static String at(double bearingDeg, double metres) {
        Position p = Geodesy.destination(CENTRE, bearingDeg, metres);
        return String.format(
                Locale.ROOT, "%s %s", sexagesimal(p.latitudeDeg(), "N", "S"), sexagesimal(p.longitudeDeg(), "E", "W"));
    }

    private static String sexagesimal(double deg, String plus, String minus) {
        double a = Math.abs(deg);
        int d = (int) a;
        int m = (int) ((a - d) * 60);
        return String.format(Locale.ROOT, "%d:%02d:%06.3f%s", d, m, ((a - d) * 60 - m) * 60, deg < 0 ? minus : plus);
    }

    /** The chord between the ends closes an arc: a circular segment of r²/2 (a - sin a). */
    @ParameterizedTest
    @CsvSource({"0, 90, +, 90", "0, 90, -, 270", "350, 10, +, 20", "10, 350, -, 20", "45, 225, +, 180", "1, 0, +, 359"})
    void anArcByAnglesIsASegment(double from, double to, String turn, double angle) throws Exception {
        Zone z = read("V D=" + turn + "\nDA 2, " + from + ", " + to);
        double r = 2 * NM;
        double a = Math.toRadians(angle);
        double segment = r * r / 2 * (a - Math.sin(a));
        // sides touch the arc and never cut it, so the area is a little too large, never too small
        assertThat(areaM2(z)).isBetween(segment * 0.999, segment * 1.002 + 60);
    }

    /** On the arc's own bearings a metre inside is in; a thousandth of the radius outside is out. */
    @ParameterizedTest
    @ValueSource(strings = {"V D=+\nDA 3, 30, 150", "V D=-\nDA 3, 150, 30"})
    void theEdgeOfAnArcIsWhereTheRadiusSays(String arc) throws Exception {
        Zone z = read(arc);
        double r = 3 * NM;
        for (double b = 31; b < 149; b += 0.37) {
            assertThat(holds(z, b, r - 1)).as("inside on bearing " + b).isTrue();
            assertThat(holds(z, b, r * 1.001)).as("outside on bearing " + b).isFalse();
        }
        assertThat(holds(z, 270, 100)).as("behind the chord").isFalse();
    }

    @Test
    void anArcByPointsIsTheSameAsByAngles() throws Exception {
        Zone byAngles = read("DA 2, 20, 120");
        Zone byPoints = read("DB " + at(20, 2 * NM) + ", " + at(120, 2 * NM));
        assertThat(areaM2(byPoints)).isCloseTo(areaM2(byAngles), within(areaM2(byAngles) * 2e-4));
        Zone back = read("V D=-\nDB " + at(120, 2 * NM) + ", " + at(20, 2 * NM));
        assertThat(areaM2(back)).isCloseTo(areaM2(byAngles), within(areaM2(byAngles) * 2e-4));
    }

    /** A sector: out from the centre, along the arc, back. */
    @Test
    void aSectorIsAPartOfTheCircle() throws Exception {
        Zone z = read("DP 46:35:00N 017:54:00W\nDA 4, 200, 260\nDP 46:35:00N 017:54:00W");
        double r = 4 * NM;
        assertThat(areaM2(z)).isCloseTo(Math.PI * r * r / 6, within(Math.PI * r * r / 6 * 2e-3));
        assertThat(holds(z, 230, 50)).isTrue();
        assertThat(holds(z, 50, 50)).isFalse();
    }

    @ParameterizedTest
    @CsvSource({"0, 360", "360, 0"})
    void aWholeTurnIsACircle(double from, double to) throws Exception {
        Zone z = read("DA 1.5, " + from + ", " + to);
        assertThat(areaM2(z)).isCloseTo(areaM2(read("DC 1.5")), within(1.0));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "DA 2, 20 | line 6 (Sector), DA: radius, start and end angle are expected after a centre (V X=)",
                "DA 2, 20, 361 | found \"361\"; degrees 0 to 360 are expected",
                "DA 2, -5, 20 | found \"-5\"; degrees 0 to 360 are expected",
                "DA two, 5, 20 | found \"two\"; a radius in nautical miles is expected, such as 2.5",
                "DC 1000 | found \"1000\"; a radius in nautical miles",
                "DB 46:40:00N 017:54:00W | two positions with a comma between are expected",
                "DB 46:40:00N 017:54:00W, 46:36:00N 017:54:00W | ends of an arc lie at the same distance",
                "DP 46:95:00N 017:54:00W | line 6 (Sector), DP:",
                "V X=nowhere | line 6 (Sector), V:"
            })
    void aBadArcIsRefusedWithItsLine(String line, String words) {
        assertThatThrownBy(() -> read(line))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining(words);
    }
}
