package yarrek.core.airspace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;

/** A planned area among zones, and the index that finds them. */
class SiteLookTest {
    private static final Position LAUNCH = new Position(46.605, -17.895);

    private static Zone circle(String id, ZoneKind kind, Position centre, double radiusM) {
        return new Zone(
                id,
                id,
                kind,
                Optional.empty(),
                ZoneMet.Restriction.NEEDS_AUTHORISATION,
                Area.circle(centre, radiusM),
                HeightLimit.SURFACE,
                HeightLimit.aboveGround(120),
                Timetable.between(Instant.parse("2027-06-12T08:00:00Z"), Instant.parse("2027-06-12T09:00:00Z")),
                OptionalDouble.empty(),
                "",
                "",
                "");
    }

    private static SiteLook.Plan plan(double buffer, OptionalDouble height, TimeWindow... windows) {
        return new SiteLook.Plan(
                ZoneTest.box(46.60, -17.90), LAUNCH, buffer, height, List.of(windows), ZoneOffset.UTC, Ground.UNKNOWN);
    }

    private static final TimeWindow MORNING =
            new TimeWindow(Instant.parse("2027-06-12T07:30:00Z"), Instant.parse("2027-06-12T12:00:00Z"));

    @Test
    void overlapHeightsAndHoursAreMeasured() {
        ZoneIndex index = new ZoneIndex(List.of(circle("H", ZoneKind.HELIPORT, LAUNCH, 100)));
        SiteLook look = SiteLook.of(plan(0, OptionalDouble.of(90), MORNING), index);
        assertThat(look.met()).hasSize(1);
        SiteLook.Met m = look.met().get(0);
        assertThat(m.overlapM2()).isCloseTo(Math.PI * 100 * 100, within(100.0));
        assertThat(m.share()).isCloseTo(m.overlapM2() / (1111.8 * 766.9), within(0.0005));
        assertThat(m.overlapHeights()).contains(new HeightLimit.Span(0, 90));
        assertThat(m.inForce())
                .containsExactly(
                        new TimeWindow(Instant.parse("2027-06-12T08:00:00Z"), Instant.parse("2027-06-12T09:00:00Z")));
        assertThat(m.meeting()).isEqualTo(Zone.Meeting.MEETS);
    }

    @Test
    void outsideItsHoursAZoneIsClear() {
        ZoneIndex index = new ZoneIndex(List.of(circle("H", ZoneKind.HELIPORT, LAUNCH, 100)));
        TimeWindow evening =
                new TimeWindow(Instant.parse("2027-06-12T09:00:01Z"), Instant.parse("2027-06-12T12:00:00Z"));
        SiteLook look = SiteLook.of(plan(0, OptionalDouble.of(90), evening), index);
        assertThat(look.met().get(0).meeting()).isEqualTo(Zone.Meeting.CLEAR);
        assertThat(look.pressing()).isEmpty();
    }

    @Test
    void theBufferWidensTheAreaAndIsNamed() {
        // the zone's edge lies 50 m north of the area
        Position north = Geodesy.destination(new Position(46.61, -17.895), 0, 150);
        ZoneIndex index = new ZoneIndex(List.of(circle("N", ZoneKind.RESTRICTED, north, 100)));
        assertThat(SiteLook.of(plan(49, OptionalDouble.of(90), MORNING), index).met())
                .isEmpty();
        SiteLook look = SiteLook.of(plan(52, OptionalDouble.of(90), MORNING), index);
        assertThat(look.met().get(0).onlyInBuffer()).isTrue();
        assertThat(look.nearest().get(ZoneKind.RESTRICTED).distanceM()).isCloseTo(50, within(0.2));
    }

    @Test
    void theNearestAerodromeIsNamedHoweverFarWithDistanceAndBearing() {
        Position far = Geodesy.destination(LAUNCH, 90, 60_000);
        ZoneIndex index = new ZoneIndex(List.of(circle("A", ZoneKind.AERODROME, far, 1000)));
        SiteLook look = SiteLook.of(plan(0, OptionalDouble.of(90), MORNING), index);
        assertThat(look.around()).hasSize(1);
        assertThat(look.around().get(0).fromLaunchM()).isCloseTo(59_000, within(5.0));
        assertThat(look.around().get(0).bearingDeg()).isCloseTo(90, within(0.01));
        assertThat(look.met()).isEmpty();
    }

    /** The index must find what looking at every zone one by one finds. */
    @Test
    void theIndexFindsWhatALookAtEveryZoneFinds() {
        Random random = new Random(11);
        List<Zone> zones = new ArrayList<>();
        for (int i = 0; i < 400; i++) {
            double lon = random.nextBoolean() ? 179 + random.nextDouble() * 2 : random.nextDouble() * 4 - 20;
            Position centre = new Position(45 + random.nextDouble() * 3, lon > 180 ? lon - 360 : lon);
            zones.add(circle("z" + i, ZoneKind.OTHER, centre, 500 + random.nextDouble() * 20_000));
        }
        ZoneIndex index = new ZoneIndex(zones);
        for (int i = 0; i < 60; i++) {
            double lon = random.nextBoolean() ? 179.5 + random.nextDouble() : random.nextDouble() * 4 - 20;
            Area area = Area.circle(
                    new Position(45 + random.nextDouble() * 3, lon > 180 ? lon - 360 : lon),
                    200 + random.nextInt(3000));
            assertThat(index.near(area, 0).stream()
                            .filter(z -> z.area().meets(area))
                            .map(Zone::id))
                    .containsExactlyInAnyOrderElementsOf(zones.stream()
                            .filter(z -> z.area().meets(area))
                            .map(Zone::id)
                            .collect(Collectors.toList()));
        }
    }

    // --- height allowed ----------------------------------------------------------------------------------------------

    private static Structure mast(double heightM) {
        return new Structure("the mast", "mast", List.of(LAUNCH), Optional.empty(), OptionalDouble.of(heightM));
    }

    private static double allowed(String law, double mastM, double distanceM, boolean work) {
        return new HeightAllowed(Allowance.of(law).orElseThrow(), List.of(mast(mastM)), List.of(), Ground.UNKNOWN, work)
                .at(Geodesy.destination(LAUNCH, 70, distanceM))
                .heightM();
    }

    @ParameterizedTest(name = "{0}: mast {1} m, {2} m away, work {3}: {4} m")
    @CsvSource({
        "EU, 110, 49.9, true, 125",
        "EU, 110, 50.1, true, 120",
        "EU, 105, 10, true, 120",
        "GB, 200, 10, false, 215",
        "CA, 110, 60.9, true, 140.48",
        "CA, 110, 61.0, true, 121.92",
        "US, 100, 121.9, true, 221.92",
        "US, 100, 122, true, 121.92",
        "US, 100, 10, false, 121.92",
        "AU, 200, 1, true, 121.92"
    })
    void structuresRaiseTheHeightAsEachLawSays(
            String law, double mastM, double distanceM, boolean work, double heightM) {
        assertThat(allowed(law, mastM, distanceM, work)).isCloseTo(heightM, within(1e-9));
    }

    @Test
    void aTreeRaisesNothingAndAMastOfUnknownHeightIsTold() {
        Structure tree = new Structure("oak", "tree", List.of(LAUNCH), Optional.empty(), OptionalDouble.of(140));
        Structure unknown = new Structure("mast", "mast", List.of(LAUNCH), Optional.empty(), OptionalDouble.empty());
        Allowance eu = Allowance.of("EU-XX").orElseThrow();
        assertThat(new HeightAllowed(eu, List.of(tree), List.of(), Ground.UNKNOWN, true)
                        .at(LAUNCH)
                        .heightM())
                .isEqualTo(120);
        HeightAllowed.At at = new HeightAllowed(eu, List.of(unknown), List.of(), Ground.UNKNOWN, true).at(LAUNCH);
        assertThat(at.heightM()).isEqualTo(120);
        assertThat(at.unknown()).isEqualTo("the height of mast");
    }

    @Test
    void aSectionRisesBesideAMastAndEndsUnderAZone() {
        Position end = Geodesy.destination(LAUNCH, 90, 1000);
        Zone above = new Zone(
                "C",
                "Control zone",
                ZoneKind.CONTROL_ZONE,
                Optional.of("D"),
                ZoneMet.Restriction.NEEDS_AUTHORISATION,
                Area.circle(end, 300),
                HeightLimit.aboveGround(60),
                HeightLimit.UNLIMITED,
                Timetable.ALWAYS,
                OptionalDouble.empty(),
                "",
                "",
                "");
        List<HeightAllowed.Stretch> s = new HeightAllowed(
                        Allowance.of("EU").orElseThrow(), List.of(mast(110)), List.of(above), Ground.UNKNOWN, true)
                .along(List.of(LAUNCH, end));
        assertThat(s).extracting(x -> x.at().heightM()).containsExactly(125.0, 120.0, 60.0);
        assertThat(s.get(0).toM()).isCloseTo(50, within(0.11));
        assertThat(s.get(1).toM()).isCloseTo(700, within(0.5));
        assertThat(s.get(2).toM()).isCloseTo(1000, within(1e-6));
        assertThat(HeightAllowed.lowest(s).at().why()).contains("Control zone");
    }

    @Test
    void aCableCountsAlongItsWholeLength() {
        Structure cable = new Structure(
                "cable",
                "line",
                List.of(LAUNCH, Geodesy.destination(LAUNCH, 0, 400)),
                Optional.empty(),
                OptionalDouble.of(30));
        Position beside = Geodesy.destination(Geodesy.destination(LAUNCH, 0, 200), 90, 35);
        assertThat(cable.distanceM(beside)).isCloseTo(35, within(0.01));
    }

    // --- maps, fly-away ----------------------------------------------------------------------------------------------

    @ParameterizedTest
    @CsvSource({
        "false, false, BOTH_CLEAR",
        "true, false, LAW_ONLY",
        "false, true, MAKER_ONLY",
        "true, true, BOTH",
        ", false, NOT_KNOWN",
        ", true, NOT_KNOWN",
        "true, , NOT_KNOWN",
        "false, , NOT_KNOWN",
        ", , NOT_KNOWN"
    })
    void twoMapsMakeFourCasesAndAnUnknownOneIsNeverClear(Boolean law, Boolean maker, MapComparison expected) {
        assertThat(MapComparison.of(Optional.ofNullable(law), Optional.ofNullable(maker)))
                .isEqualTo(expected);
    }

    @Test
    void anUnlockIsNeverSaidToGiveAuthority() {
        assertThat(MapComparison.BOTH.follows()).contains("never gives legal authority");
        assertThat(MapComparison.MAKER_ONLY.follows()).contains("is not a permission of the law");
    }

    @Test
    void aFlyAwayDriftsWithTheWindAndNamesTheZonesOnItsWay() {
        ZoneIndex index =
                new ZoneIndex(List.of(circle("pad", ZoneKind.HELIPORT, Geodesy.destination(LAUNCH, 90, 1200), 200)));
        // nose north at 10 m/s, wind from the west at 10 m/s: over the ground north-east at 14.14 m/s
        List<FlyAway.Minute> m = FlyAway.sideways(LAUNCH, 0, 10, OptionalDouble.of(270), 10, 3, index);
        assertThat(Geodesy.bearingDeg(LAUNCH, m.get(2).onHeading())).isCloseTo(45, within(0.05));
        assertThat(Geodesy.distanceM(LAUNCH, m.get(2).onHeading())).isCloseTo(14.142 * 180, within(0.2));
        assertThat(m.get(2).reachM()).isEqualTo(3600);
        // nose and wind both east: after one minute at 1200 m, in the pad
        assertThat(FlyAway.sideways(LAUNCH, 90, 10, OptionalDouble.of(270), 10, 1, index)
                        .get(0)
                        .met())
                .containsExactly("pad");
    }

    @Test
    void upwardsNamesWhatTheClimbCanReachLowestFirst() {
        Zone high = new Zone(
                "R",
                "Route",
                ZoneKind.ROUTE,
                Optional.empty(),
                ZoneMet.Restriction.NO_RESTRICTION,
                Area.circle(LAUNCH, 5000),
                HeightLimit.aboveGround(600),
                HeightLimit.UNLIMITED,
                Timetable.ALWAYS,
                OptionalDouble.empty(),
                "",
                "",
                "");
        ZoneIndex index = new ZoneIndex(List.of(high, circle("pad", ZoneKind.HELIPORT, LAUNCH, 500)));
        assertThat(FlyAway.upwards(LAUNCH, 50, 4, 2, Ground.UNKNOWN, index))
                .extracting(a -> a.zone().id())
                .containsExactly("pad");
        assertThat(FlyAway.upwards(LAUNCH, 50, 4, 3, Ground.UNKNOWN, index))
                .extracting(a -> a.zone().id())
                .containsExactly("pad", "R");
    }

    /** Looked at once for any time and then in some hours is the same as looked at in those hours. */
    @Test
    void theHoursOfALookMayBeAskedOfAfterwards() {
        Position north = Geodesy.destination(new Position(46.61, -17.895), 0, 150);
        ZoneIndex index = new ZoneIndex(
                List.of(circle("H", ZoneKind.HELIPORT, LAUNCH, 100), circle("N", ZoneKind.RESTRICTED, north, 100)));
        TimeWindow evening =
                new TimeWindow(Instant.parse("2027-06-12T09:00:01Z"), Instant.parse("2027-06-12T12:00:00Z"));
        for (SiteLook.Plan p : List.of(
                plan(0, OptionalDouble.of(90), MORNING),
                plan(52, OptionalDouble.of(90), MORNING, evening),
                plan(52, OptionalDouble.empty(), evening))) {
            SiteLook any = SiteLook.of(p.atAnyTime(), index);
            SiteLook then = any.inHoursOf(p);
            SiteLook straight = SiteLook.of(p, index);
            assertThat(then).isEqualTo(straight);
        }
    }
}
