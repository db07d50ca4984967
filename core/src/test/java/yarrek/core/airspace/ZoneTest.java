package yarrek.core.airspace;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.MonthDay;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.ZoneMet;

/** Zones at their edge, at their heights, on the first and last day of their season. */
class ZoneTest {
    private static Area box(double south, double west) {
        return Area.of(List.of(
                new Position(south, west),
                new Position(south + 0.01, west),
                new Position(south + 0.01, west + 0.01),
                new Position(south, west + 0.01)));
    }

    private static Zone zone(double lower, Double upper, String from, String through) {
        return new Zone(
                "Z",
                "Zone",
                "reserve",
                ZoneMet.Restriction.PROHIBITED,
                box(46.60, -17.90),
                lower,
                Optional.ofNullable(upper),
                Optional.ofNullable(from).map(MonthDay::parse),
                Optional.ofNullable(through).map(MonthDay::parse),
                "");
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"2027-02-28, false", "2027-03-01, true", "2027-07-31, true", "2027-08-01, false"})
    void aSeasonHoldsFromItsFirstThroughItsLastDay(LocalDate day, boolean holds) {
        assertThat(zone(0, 100.0, "--03-01", "--07-31").inForceOn(day)).isEqualTo(holds);
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"2026-09-30, false", "2026-10-01, true", "2027-01-15, true", "2027-02-28, true", "2027-03-01, false"})
    void aWinterSeasonRunsOverTheNewYear(LocalDate day, boolean holds) {
        assertThat(zone(0, 100.0, "--10-01", "--02-28").inForceOn(day)).isEqualTo(holds);
    }

    @ParameterizedTest(name = "{0} m: {1}")
    @CsvSource({"29.9, false", "30, true", "120, true", "120.1, false"})
    void bothLimitsBelongToTheZone(double height, boolean inside) {
        assertThat(zone(30, 120.0, null, null).contains(46.605, -17.895, height))
                .isEqualTo(inside);
    }

    @Test
    void theEdgeBelongsToTheZone() {
        assertThat(zone(0, null, null, null).contains(46.60, -17.895, 10)).isTrue();
        assertThat(zone(0, null, null, null).contains(46.5999999, -17.895, 10)).isFalse();
    }

    @Test
    void aPlanBelowTheLowerLimitDoesNotMeetItAndOneAtItOnlyTouches() {
        Zone z = zone(30, 120.0, null, null);
        assertThat(z.touches(box(46.605, -17.895), Optional.of(29.0))).isEmpty();
        assertThat(z.touches(box(46.605, -17.895), Optional.of(30.0))).contains(true);
        assertThat(z.touches(box(46.605, -17.895), Optional.of(31.0))).contains(false);
        assertThat(z.touches(box(46.61, -17.90), Optional.of(60.0))).contains(true);
        assertThat(z.touches(box(46.62, -17.90), Optional.of(60.0))).isEmpty();
    }

    @Test
    void aPlanOfUnknownHeightIsTakenToReachTheZone() {
        assertThat(zone(30, 120.0, null, null).touches(box(46.605, -17.895), Optional.empty()))
                .contains(false);
    }
}
