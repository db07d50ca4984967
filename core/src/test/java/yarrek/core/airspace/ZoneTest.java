package yarrek.core.airspace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.MonthDay;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;

/** Zones at their edge, at their heights, on the first and last day of their season, in and out of their hours. */
class ZoneTest {
    private static final ZoneId AZORES = ZoneId.of("Atlantic/Azores");
    private static final Ground AT_40_M = Ground.of(40.0, 10.0);

    static Area box(double south, double west) {
        return Area.of(List.of(
                new Position(south, west),
                new Position(south + 0.01, west),
                new Position(south + 0.01, west + 0.01),
                new Position(south, west + 0.01)));
    }

    static Zone zone(HeightLimit lower, HeightLimit upper, Timetable times) {
        return new Zone(
                "Z",
                "Zone",
                ZoneKind.PARK,
                Optional.empty(),
                ZoneMet.Restriction.PROHIBITED,
                box(46.60, -17.90),
                lower,
                upper,
                times,
                OptionalDouble.empty(),
                "",
                "",
                "");
    }

    private static Zone heights(HeightLimit lower, HeightLimit upper) {
        return zone(lower, upper, Timetable.ALWAYS);
    }

    private static TimeWindow window(String from, String to) {
        return new TimeWindow(Instant.parse(from), Instant.parse(to));
    }

    // --- times -------------------------------------------------------------------------------------------------------

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"2027-02-28, false", "2027-03-01, true", "2027-07-31, true", "2027-08-01, false"})
    void aSeasonHoldsFromItsFirstThroughItsLastDay(LocalDate day, boolean holds) {
        assertThat(Timetable.season(MonthDay.of(3, 1), MonthDay.of(7, 31)).inSeason(day))
                .isEqualTo(holds);
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"2026-09-30, false", "2026-10-01, true", "2027-01-15, true", "2027-02-28, true", "2027-03-01, false"})
    void aWinterSeasonRunsOverTheNewYear(LocalDate day, boolean holds) {
        assertThat(Timetable.season(MonthDay.of(10, 1), MonthDay.of(2, 28)).inSeason(day))
                .isEqualTo(holds);
    }

    @Test
    void aSeasonBeginsAtLocalMidnight() {
        Timetable t = Timetable.season(MonthDay.of(3, 1), MonthDay.of(7, 31));
        // the Azores are an hour behind UTC in winter
        assertThat(t.meets(window("2027-03-01T00:30:00Z", "2027-03-01T00:59:59Z"), AZORES))
                .isFalse();
        assertThat(t.within(window("2027-03-01T00:30:00Z", "2027-03-01T02:00:00Z"), AZORES))
                .containsExactly(window("2027-03-01T01:00:00Z", "2027-03-01T02:00:00Z"));
    }

    @Test
    void anIntervalIncludesBothItsEnds() {
        Timetable t = Timetable.between(Instant.parse("2027-06-12T08:00:00Z"), Instant.parse("2027-06-12T18:00:00Z"));
        assertThat(t.meets(window("2027-06-12T07:00:00Z", "2027-06-12T08:00:00Z"), AZORES))
                .isTrue();
        assertThat(t.meets(window("2027-06-12T07:00:00Z", "2027-06-12T07:59:59Z"), AZORES))
                .isFalse();
        assertThat(t.meets(window("2027-06-12T18:00:00Z", "2027-06-12T19:00:00Z"), AZORES))
                .isTrue();
        assertThat(t.meets(window("2027-06-12T18:00:01Z", "2027-06-12T19:00:00Z"), AZORES))
                .isFalse();
    }

    @Test
    void hoursOfTheWeekRunOverMidnightFromTheDayTheyBegin() {
        Timetable t = new Timetable(
                List.of(new Timetable.Period(
                        Optional.empty(),
                        Optional.empty(),
                        List.of(new Timetable.Weekly(
                                Set.of(DayOfWeek.FRIDAY), LocalTime.of(22, 0), LocalTime.of(4, 0))))),
                Optional.empty(),
                Optional.empty(),
                "");
        // 11 June 2027 is a Friday
        assertThat(t.within(window("2027-06-11T20:00:00Z", "2027-06-12T12:00:00Z"), AZORES))
                .containsExactly(window("2027-06-11T22:00:00Z", "2027-06-12T04:00:00Z"));
        assertThat(t.meets(window("2027-06-12T22:00:00Z", "2027-06-13T03:00:00Z"), AZORES))
                .isFalse();
        assertThat(t.words()).contains("Fri 22:00 to 04:00 UTC");
    }

    @Test
    void equalEndsOfADayAreTwentyFourHoursAndJoin() {
        Timetable t = new Timetable(
                List.of(new Timetable.Period(
                        Optional.empty(),
                        Optional.empty(),
                        List.of(new Timetable.Weekly(Set.of(), LocalTime.MIDNIGHT, LocalTime.MIDNIGHT)))),
                Optional.empty(),
                Optional.empty(),
                "");
        TimeWindow three = window("2027-06-11T05:00:00Z", "2027-06-14T05:00:00Z");
        assertThat(t.within(three, AZORES)).containsExactly(three);
    }

    @Test
    void aPeriodThatEndsBeforeItBeginsIsRefused() {
        org.assertj.core.api.Assertions.assertThatThrownBy(() ->
                        Timetable.between(Instant.parse("2027-06-12T08:00:00Z"), Instant.parse("2027-06-12T07:00:00Z")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("before it begins");
    }

    // --- heights -----------------------------------------------------------------------------------------------------

    @ParameterizedTest(name = "{0} m: {1}")
    @CsvSource({"29.9, false", "30, true", "120, true", "120.1, false"})
    void bothLimitsBelongToTheZone(double height, boolean inside) {
        Zone z = heights(HeightLimit.aboveGround(30), HeightLimit.aboveGround(120));
        assertThat(z.mayContain(46.605, -17.895, height, Ground.UNKNOWN)).isEqualTo(inside);
    }

    @Test
    void theEdgeBelongsToTheZone() {
        Zone z = heights(HeightLimit.SURFACE, HeightLimit.UNLIMITED);
        assertThat(z.mayContain(46.60, -17.895, 10, Ground.UNKNOWN)).isTrue();
        assertThat(z.mayContain(46.5999999, -17.895, 10, Ground.UNKNOWN)).isFalse();
    }

    @ParameterizedTest(name = "a plan up to {0} m: {1}")
    @CsvSource({"29, CLEAR", "30, TOUCHES", "31, MEETS"})
    void aPlanBelowTheLowerLimitIsClearAndOneAtItOnlyTouches(double height, Zone.Meeting meeting) {
        Zone z = heights(HeightLimit.aboveGround(30), HeightLimit.aboveGround(120));
        assertThat(z.heights(OptionalDouble.of(height), Ground.UNKNOWN)).isEqualTo(meeting);
    }

    @Test
    void aPlanOfUnknownHeightIsTakenToReachTheZone() {
        assertThat(heights(HeightLimit.aboveGround(30), HeightLimit.UNLIMITED)
                        .heights(OptionalDouble.empty(), Ground.UNKNOWN))
                .isEqualTo(Zone.Meeting.MEETS);
    }

    /** Launch point at 40 m, ground up to 10 m different: 150 m above sea level is 100 to 120 m above the ground. */
    @ParameterizedTest(name = "a plan up to {0} m under 150 m above sea level: {1}")
    @CsvSource({"99.9, CLEAR", "100, NOT_KNOWN", "119, NOT_KNOWN", "120, NOT_KNOWN", "120.1, MEETS"})
    void heightsAboveSeaLevelAreComparedThroughTheElevation(double height, Zone.Meeting meeting) {
        Zone z = heights(HeightLimit.aboveSea(150), HeightLimit.UNLIMITED);
        assertThat(z.heights(OptionalDouble.of(height), AT_40_M)).isEqualTo(meeting);
    }

    @Test
    void withoutTheElevationHeightsAboveSeaLevelAreNotKnown() {
        Zone z = heights(HeightLimit.aboveSea(150), HeightLimit.UNLIMITED);
        assertThat(z.heights(OptionalDouble.of(10), Ground.UNKNOWN)).isEqualTo(Zone.Meeting.NOT_KNOWN);
        assertThat(z.heights(OptionalDouble.of(10), Ground.of(40.0, null))).isEqualTo(Zone.Meeting.NOT_KNOWN);
        Zone fromGround = heights(HeightLimit.SURFACE, HeightLimit.aboveSea(600));
        assertThat(fromGround.heights(OptionalDouble.of(10), Ground.UNKNOWN)).isEqualTo(Zone.Meeting.NOT_KNOWN);
        assertThat(fromGround.heights(OptionalDouble.of(10), AT_40_M)).isEqualTo(Zone.Meeting.MEETS);
    }

    /** The reason names what decides: the ground above the zone, the figure that is missing, or the spread. */
    @Test
    void theReasonIsTheOneThatDecides() {
        Zone deep = heights(HeightLimit.SURFACE, HeightLimit.aboveSea(20));
        OptionalDouble ten = OptionalDouble.of(10);
        assertThat(deep.why(deep.heights(ten, AT_40_M), ten, AT_40_M))
                .isEqualTo("it ends at 20 m above sea level, below the ground here");
        Zone high = heights(HeightLimit.aboveSea(150), HeightLimit.UNLIMITED);
        assertThat(high.why(high.heights(ten, AT_40_M), ten, AT_40_M))
                .isEqualTo("it begins at 150 m above sea level; the plan stays at or below 10 m above ground");
        assertThat(high.why(Zone.Meeting.NOT_KNOWN, ten, Ground.of(40.0, null)))
                .endsWith("the site's relief is not on file");
        assertThat(high.why(Zone.Meeting.NOT_KNOWN, ten, Ground.of(null, 5.0)))
                .endsWith("the site's elevation is not on file");
        assertThat(high.why(Zone.Meeting.NOT_KNOWN, ten, Ground.UNKNOWN))
                .endsWith("the site's elevation and relief are not on file");
        OptionalDouble near = OptionalDouble.of(110);
        assertThat(high.why(high.heights(near, AT_40_M), near, AT_40_M)).contains("elevation 40 m ± 10 m");
        assertThat(high.why(Zone.Meeting.MEETS, near, AT_40_M)).isEmpty();
    }

    @Test
    void belowALowerLimitAboveGroundTheUpperLimitDoesNotMatter() {
        Zone z = heights(HeightLimit.aboveGround(300), HeightLimit.aboveSea(760));
        assertThat(z.heights(OptionalDouble.of(100), Ground.UNKNOWN)).isEqualTo(Zone.Meeting.CLEAR);
        assertThat(z.heights(OptionalDouble.of(310), Ground.UNKNOWN)).isEqualTo(Zone.Meeting.NOT_KNOWN);
    }

    @Test
    void aZoneThatEndsBelowTheGroundIsClear() {
        Zone z = heights(HeightLimit.SURFACE, HeightLimit.aboveSea(20));
        assertThat(z.heights(OptionalDouble.of(10), AT_40_M)).isEqualTo(Zone.Meeting.CLEAR);
        assertThat(z.heights(OptionalDouble.of(10), Ground.of(25.0, 10.0))).isEqualTo(Zone.Meeting.NOT_KNOWN);
    }

    @Test
    void aFlightLevelIsReachedForCertainOrNotOnlyBeyondItsSpread() {
        // FL 20 is 609.6 m of pressure altitude; between about 15 and 983 m above the sea
        Zone z = heights(
                new HeightLimit(20, HeightLimit.Unit.LEVEL, HeightLimit.Reference.STANDARD), HeightLimit.UNLIMITED);
        HeightLimit.Span span = z.lower().aboveGround(Ground.of(0.0, 0.0)).orElseThrow();
        assertThat(span.leastM()).isCloseTo(609.6 * 0.88 - 63.25 * 27 * 0.3048, within(0.01));
        assertThat(span.greatestM()).isCloseTo(609.6 * 1.12 + 36.75 * 27 * 0.3048, within(0.01));
        assertThat(z.heights(OptionalDouble.of(100), Ground.of(0.0, 0.0))).isEqualTo(Zone.Meeting.NOT_KNOWN);
        assertThat(z.lower().words()).isEqualTo("flight level 20");
    }

    @Test
    void publishedFeetAreShownWithMetresBesideThem() {
        assertThat(new HeightLimit(1500, HeightLimit.Unit.FEET, HeightLimit.Reference.SEA).words())
                .isEqualTo("1500 ft (457.2 m) above sea level");
    }

    @ParameterizedTest
    @CsvSource({
        "control zone, CONTROL_ZONE",
        "CTR, CONTROL_ZONE",
        "reserve, PARK",
        "BUILT_UP, BUILT_UP",
        "maker's geofence, MAKER",
        "never heard of, OTHER"
    })
    void kindsAreReadByTheirUsualWords(String text, ZoneKind kind) {
        assertThat(ZoneKind.of(text)).isEqualTo(kind);
    }
}
