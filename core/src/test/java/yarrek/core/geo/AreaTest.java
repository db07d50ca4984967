package yarrek.core.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Areas measured on the ellipsoid, with holes, in pieces, over the 180th meridian, and refused where they must be. */
class AreaTest {
    private static final Position MIDDLE = new Position(46.6, -17.9);

    private static Area square(Position centre, double halfM) {
        LocalPlane plane = new LocalPlane(centre);
        return Area.of(List.of(
                plane.toPosition(-halfM, -halfM),
                plane.toPosition(halfM, -halfM),
                plane.toPosition(halfM, halfM),
                plane.toPosition(-halfM, halfM)));
    }

    @Test
    void aSquareOfAKilometreHasItsAreaPerimeterAndDiagonal() {
        Area.Figures f = square(MIDDLE, 500).figures();
        assertThat(f.areaM2()).isCloseTo(1e6, within(1.0));
        assertThat(f.perimeterM()).isCloseTo(4000, within(0.01));
        assertThat(f.extentM()).isCloseTo(1000 * Math.sqrt(2), within(0.01));
    }

    /** The whole of a degree square at the equator is 12 308 778 361 m² on WGS-84. */
    @Test
    void aDegreeAtTheEquatorHasItsPublishedArea() {
        Area a = Area.of(List.of(new Position(0, 0), new Position(0, 1), new Position(1, 1), new Position(1, 0)));
        assertThat(a.figures().areaM2()).isCloseTo(12_308_778_361.0, within(2e6));
    }

    @Test
    void holesAreTakenOffTheAreaAndCountAsOutside() {
        LocalPlane plane = new LocalPlane(MIDDLE);
        List<Position> outline = square(MIDDLE, 500).corners();
        List<Position> hole = square(MIDDLE, 100).corners();
        Area a = Area.ofPatches(List.of(new Area.Patch(outline, List.of(hole))));
        assertThat(a.figures().areaM2()).isCloseTo(1e6 - 4e4, within(1.0));
        assertThat(a.figures().perimeterM()).isCloseTo(4000 + 800, within(0.01));
        assertThat(a.locate(MIDDLE.latitudeDeg(), MIDDLE.longitudeDeg())).isEqualTo(Area.Side.OUTSIDE);
        assertThat(a.distanceM(MIDDLE)).isCloseTo(100, within(0.2));
        Position beside = plane.toPosition(300, 0);
        assertThat(a.locate(beside.latitudeDeg(), beside.longitudeDeg())).isEqualTo(Area.Side.INSIDE);
    }

    @Test
    void aHoleOutsideItsAreaIsAFault() {
        Area.Check check = Area.checkPatches(List.of(new Area.Patch(
                square(MIDDLE, 100).corners(),
                List.of(square(Geodesy.destination(MIDDLE, 90, 500), 20).corners()))));
        assertThat(check.fault()).contains("hole lies outside");
    }

    @Test
    void severalPiecesAreOneArea() {
        Position east = Geodesy.destination(MIDDLE, 90, 2000);
        Area a = Area.ofPatches(List.of(
                new Area.Patch(square(MIDDLE, 100).corners(), List.of()),
                new Area.Patch(square(east, 100).corners(), List.of())));
        assertThat(a.figures().areaM2()).isCloseTo(2 * 4e4, within(0.5));
        assertThat(a.figures().extentM()).isCloseTo(Math.hypot(2200, 200), within(0.1));
        assertThat(a.distanceM(Geodesy.destination(MIDDLE, 90, 1000))).isCloseTo(900, within(0.5));
    }

    @Test
    void crossingSidesCanBeMendedForThePersonToSee() {
        List<Position> c = square(MIDDLE, 500).corners();
        Area.Check check = Area.check(List.of(c.get(0), c.get(1), c.get(3), c.get(2)));
        assertThat(check.isValid()).isFalse();
        assertThat(check.mended().figures().areaM2()).isCloseTo(5e5, within(10.0));
    }

    @Test
    void aCircleLeavesNothingOfItselfOut() {
        Area circle = Area.circle(MIDDLE, 300);
        for (int azimuth = 0; azimuth < 360; azimuth++) {
            Position edge = Geodesy.destination(MIDDLE, azimuth, 299.999);
            assertThat(circle.locate(edge.latitudeDeg(), edge.longitudeDeg())).isNotEqualTo(Area.Side.OUTSIDE);
            assertThat(circle.distanceM(Geodesy.destination(MIDDLE, azimuth, 300.4)))
                    .isLessThan(0.41);
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, -5, Double.NaN, 1_000_001})
    void aCircleNeedsARadius(double radius) {
        assertThatThrownBy(() -> Area.circle(MIDDLE, radius))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("radius above 0 m");
    }

    @Test
    void wideningReachesTheDistanceAndKeepsTheArea() {
        Area wide = square(MIDDLE, 100).widened(50);
        assertThat(wide.figures().areaM2()).isCloseTo(200 * 200 + 4 * 200 * 50 + Math.PI * 50 * 50, within(20.0));
        Position edge = new LocalPlane(MIDDLE).toPosition(149.9, 0);
        assertThat(wide.locate(edge.latitudeDeg(), edge.longitudeDeg())).isEqualTo(Area.Side.INSIDE);
    }

    @Test
    void anAreaAcrossTheMeridianIsOneAreaOfItsTrueSize() {
        Position at = new Position(-17, 180);
        Area a = square(at, 1000);
        assertThat(a.figures().areaM2()).isCloseTo(4e6, within(10.0));
        assertThat(a.locate(-17, -179.9999)).isEqualTo(Area.Side.INSIDE);
        assertThat(a.locate(-17, 179.9999)).isEqualTo(Area.Side.INSIDE);
        assertThat(a.locate(-17, 0)).isEqualTo(Area.Side.OUTSIDE);
        Area east = square(new Position(-17, -179.995), 100);
        assertThat(a.meets(east)).isTrue();
        assertThat(east.meets(a)).isTrue();
        assertThat(a.overlap(east).orElseThrow().figures().areaM2()).isCloseTo(4e4, within(5.0));
        assertThat(a.widened(500).figures().areaM2()).isGreaterThan(4e6 + 4 * 2000 * 500);
    }

    @Test
    void thePolesAreRefusedInWords() {
        assertThat(Area.check(List.of(new Position(86, 0), new Position(86, 1), new Position(86.1, 0)))
                        .fault())
                .contains("beyond 85°");
        assertThat(Area.check(List.of(
                                new Position(80, 0),
                                new Position(80, 90),
                                new Position(80, 180),
                                new Position(80, -90)))
                        .fault())
                .contains("runs around a pole");
    }

    @Test
    void overlapAndOutsideShareTheWhole() {
        Random random = new Random(9);
        for (int i = 0; i < 60; i++) {
            Area a = square(MIDDLE, 200 + random.nextInt(500));
            Area b = Area.circle(
                    Geodesy.destination(MIDDLE, random.nextInt(360), random.nextInt(900)), 100 + random.nextInt(500));
            double whole = a.figures().areaM2();
            double shared = a.overlap(b).map(x -> x.figures().areaM2()).orElse(0.0);
            double rest = a.outside(b).map(x -> x.figures().areaM2()).orElse(0.0);
            // a corner put on a side moves it from the geodesic to the straight line in degrees
            assertThat(shared + rest).isCloseTo(whole, within(whole * 3e-5));
            assertThat(b.overlap(a).map(x -> x.figures().areaM2()).orElse(0.0)).isCloseTo(shared, within(whole * 3e-5));
            assertThat(a.meets(b)).isEqualTo(b.meets(a));
            assertThat(a.distanceM(b)).isCloseTo(b.distanceM(a), within(0.01));
            assertThat(a.distanceM(b) == 0).isEqualTo(a.meets(b));
        }
    }

    @Test
    void fiftyThousandCornersAreMeasured() {
        List<Position> corners = new ArrayList<>();
        for (int i = 0; i < 50_000; i++) {
            corners.add(Geodesy.destination(MIDDLE, i * 360.0 / 50_000, 3000));
        }
        Area a = Area.of(corners);
        assertThat(a.figures().areaM2()).isCloseTo(Math.PI * 9e6, within(50.0));
        assertThat(a.figures().extentM()).isCloseTo(6000, within(0.01));
        assertThat(a.widened(100).figures().areaM2()).isCloseTo(Math.PI * 3100 * 3100, within(5000.0));
        Area beside = square(Geodesy.destination(MIDDLE, 90, 5000), 100);
        assertThat(a.distanceM(beside)).isCloseTo(1900, within(4.0));
        assertThat(beside.distanceM(a)).isEqualTo(a.distanceM(beside));
        assertThat(a.distanceM(square(MIDDLE, 100))).isZero();
    }

    @Test
    void unionOfTouchingAreasIsOnePiece() {
        Area whole = Area.union(List.of(square(MIDDLE, 100), square(Geodesy.destination(MIDDLE, 90, 150), 100)));
        assertThat(whole.patches()).hasSize(1);
        assertThat(whole.figures().areaM2()).isCloseTo(350 * 200, within(2.0));
    }

    private static List<Position> star(int points) {
        LocalPlane plane = new LocalPlane(MIDDLE);
        List<Position> corners = new java.util.ArrayList<>();
        for (int i = 0; i < points; i++) {
            corners.add(plane.toPosition(500 * Math.cos(i * 2.399), 500 * Math.sin(i * 2.399)));
        }
        return corners;
    }

    /** A slip is mended; a ball of wool is refused in words, however large, and nothing is reckoned of it. */
    @ParameterizedTest
    @CsvSource({"5, true", "9, true", "200, false", "800, false", "3000, false"})
    void anOutlineThatCrossesWithoutEndIsRefused(int points, boolean mended) {
        Area.Check check = Area.check(star(points));
        assertThat(check.isValid()).isFalse();
        assertThat(check.mended() != null).isEqualTo(mended);
        assertThat(check.fault()).contains(mended ? "cross or touch near" : "cross more than 200 times, first near");
    }
}
