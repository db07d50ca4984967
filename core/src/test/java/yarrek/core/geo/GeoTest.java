package yarrek.core.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Geodesics against published lengths, areas at their edge. */
class GeoTest {
    private static final Area SQUARE = Area.of(List.of(
            new Position(46.60, -17.90),
            new Position(46.61, -17.90),
            new Position(46.61, -17.88),
            new Position(46.60, -17.88)));

    /** A degree of longitude on the equator is a x pi / 180 with a = 6378137 m; the quarter meridian is 10 001 965.729 m (WGS-84). */
    @ParameterizedTest
    @CsvSource({"0, 0, 0, 1, 111319.4908", "0, 0, 90, 0, 10001965.729"})
    void distancesAreGeodesicOnTheEllipsoid(double lat1, double lon1, double lat2, double lon2, double metres) {
        assertThat(Geodesy.distanceM(lat1, lon1, lat2, lon2)).isCloseTo(metres, within(0.001));
    }

    @Test
    void aStepIsTheGeodesicToAMillionthWhateverItsLengthAndPlace() {
        Random random = new Random(5);
        for (int i = 0; i < 20_000; i++) {
            Position a = new Position(random.nextDouble() * 178 - 89, random.nextDouble() * 360 - 180);
            double d = Math.pow(10, random.nextDouble() * 5 - 2); // a centimetre to a kilometre, and beyond
            Position b = Geodesy.destination(a, random.nextDouble() * 360, d);
            double geodesic = Geodesy.distanceM(a, b);
            assertThat(Geodesy.stepM(a.latitudeDeg(), a.longitudeDeg(), b.latitudeDeg(), b.longitudeDeg()))
                    .as("%s to %s", a, b)
                    .isCloseTo(geodesic, within(geodesic * 1e-6 + 1e-6));
        }
    }

    @Test
    void distanceIsSymmetricAndDestinationComesBack() {
        Random random = new Random(3);
        for (int i = 0; i < 300; i++) {
            Position a = new Position(random.nextDouble() * 120 - 60, random.nextDouble() * 300 - 150);
            double d = random.nextDouble() * 20_000;
            Position b = Geodesy.destination(a, random.nextDouble() * 360, d);
            assertThat(Geodesy.distanceM(a, b)).isCloseTo(d, within(1e-6));
            assertThat(Geodesy.distanceM(b, a)).isCloseTo(Geodesy.distanceM(a, b), within(1e-9));
        }
    }

    @ParameterizedTest(name = "{0}, {1} is {2}")
    @CsvSource({"46.605, -17.89, INSIDE", "46.60, -17.89, EDGE", "46.60, -17.90, EDGE", "46.5999999, -17.89, OUTSIDE"})
    void pointsLieInsideOnTheEdgeOrOutside(double lat, double lon, Area.Side side) {
        assertThat(SQUARE.locate(lat, lon)).isEqualTo(side);
    }

    @Test
    void anAreaThatCrossesItselfIsAFaultWithItsPlace() {
        Area.Check check = Area.check(List.of(
                new Position(46.60, -17.90),
                new Position(46.61, -17.88),
                new Position(46.61, -17.90),
                new Position(46.60, -17.88)));
        assertThat(check.isValid()).isFalse();
        assertThat(check.fault()).contains("cross").contains("46.605");
    }

    @Test
    void twoCornersAreNoArea() {
        assertThat(Area.check(List.of(new Position(1, 1), new Position(2, 2), new Position(1, 1)))
                        .fault())
                .isEqualTo("an area needs at least three different corners, got 2");
    }

    @Test
    void touchingAreasMeetButOnlyTouch() {
        Area next = Area.of(List.of(
                new Position(46.61, -17.90),
                new Position(46.62, -17.90),
                new Position(46.62, -17.88),
                new Position(46.61, -17.88)));
        assertThat(SQUARE.meets(next)).isTrue();
        assertThat(SQUARE.onlyTouches(next)).isTrue();
    }

    @Test
    void distanceToAnAreaIsToItsNearestPoint() {
        assertThat(SQUARE.distanceM(new Position(46.605, -17.89))).isZero();
        double metres = SQUARE.distanceM(new Position(46.62, -17.89));
        assertThat(metres).isCloseTo(Geodesy.distanceM(46.61, -17.89, 46.62, -17.89), within(metres * 0.002));
    }

    @Test
    void notANumberIsNoPosition() {
        assertThatThrownBy(() -> new Position(Double.NaN, 0))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("latitude must be -90 to 90 degrees, got NaN");
    }
}
