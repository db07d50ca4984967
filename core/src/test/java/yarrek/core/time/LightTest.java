package yarrek.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Position;

/** The sun against the low-precision almanac formula worked by hand in {@link #almanacAltitudeDeg}. */
class LightTest {
    private static final Position TARROW = new Position(46.6, -17.9);

    @ParameterizedTest
    @CsvSource({
        "2026-11-24T13:00:00Z",
        "2026-11-24T18:10:00Z",
        "2026-06-21T05:00:00Z",
        "2027-03-20T19:15:00Z",
        "2026-09-19T11:30:08Z"
    })
    void altitudeAgreesWithASecondMethod(String at) {
        // the almanac formula is good to 0.01 degrees in declination and right ascension until 2050
        assertThat(Light.sunAltitudeDeg(Instant.parse(at), TARROW))
                .isCloseTo(almanacAltitudeDeg(Instant.parse(at), TARROW), within(0.1));
    }

    /** Astronomical Almanac, page C5, low-precision formulas for the sun. */
    private static double almanacAltitudeDeg(Instant at, Position p) {
        double n = at.toEpochMilli() / 86_400_000.0 + 2440587.5 - 2451545.0;
        double l = 280.460 + 0.9856474 * n;
        double g = Math.toRadians(357.528 + 0.9856003 * n);
        double lambda = Math.toRadians(l + 1.915 * Math.sin(g) + 0.020 * Math.sin(2 * g));
        double epsilon = Math.toRadians(23.439 - 0.0000004 * n);
        double ra = Math.atan2(Math.cos(epsilon) * Math.sin(lambda), Math.cos(lambda));
        double dec = Math.asin(Math.sin(epsilon) * Math.sin(lambda));
        double siderealDeg = 280.46061837 + 360.98564736629 * n + p.longitudeDeg();
        double hour = Math.toRadians(siderealDeg) - ra;
        double lat = Math.toRadians(p.latitudeDeg());
        return Math.toDegrees(
                Math.asin(Math.sin(lat) * Math.sin(dec) + Math.cos(lat) * Math.cos(dec) * Math.cos(hour)));
    }

    @Test
    void oneMinuteOfNightMakesAJobNight() {
        Instant noon = Instant.parse("2026-11-24T13:00:00Z");
        Instant night = noon;
        while (Light.at(night, TARROW) != Light.NIGHT) {
            night = night.plusSeconds(60);
        }
        assertThat(Light.darkestIn(new TimeWindow(noon, night.minusSeconds(60)), TARROW))
                .isEqualTo(Light.CIVIL_TWILIGHT);
        assertThat(Light.darkestIn(new TimeWindow(noon, night), TARROW)).isEqualTo(Light.NIGHT);
    }

    /** End of evening civil twilight as worked: Brussels 20:13:50 and Berlin 22:20:36 local, good to half a minute. */
    @ParameterizedTest
    @CsvSource({"50.8503, 4.3517, 2026-09-22T18:13:50Z", "52.52, 13.405, 2026-06-14T20:20:36Z"})
    void eveningTwilightEndsWhenWorked(double lat, double lon, String end) {
        Instant worked = Instant.parse(end);
        assertThat(Light.at(worked.minusSeconds(30), new Position(lat, lon))).isEqualTo(Light.CIVIL_TWILIGHT);
        assertThat(Light.at(worked.plusSeconds(30), new Position(lat, lon))).isEqualTo(Light.NIGHT);
    }

    /** London on 21 December 2026: sunset 15:53:25, end of evening civil twilight 16:33:45 UTC; a minute of slack. */
    @Test
    void theHalfHourNightOfTheOrderBeginsBeforeCivilTwilightEnds() {
        Position london = new Position(51.5, -0.12);
        assertThat(Light.meetsHalfHourNight(window("2026-12-21T16:10:00Z", "2026-12-21T16:22:00Z"), london))
                .isFalse();
        assertThat(Light.meetsHalfHourNight(window("2026-12-21T16:10:00Z", "2026-12-21T16:25:00Z"), london))
                .isTrue();
        assertThat(Light.darkestIn(window("2026-12-21T16:10:00Z", "2026-12-21T16:32:00Z"), london))
                .isEqualTo(Light.CIVIL_TWILIGHT);
    }

    /** Darwin in late September: civil twilight lasts about 21 minutes, so night comes before sunset plus 30 minutes. */
    @Test
    void inTheTropicsNightComesBeforeTheHalfHourIsOver() {
        Position darwin = new Position(-12.46, 130.84);
        TimeWindow soonAfterSunset = window("2026-09-22T09:20:00Z", "2026-09-22T09:40:00Z");
        assertThat(Light.darkestIn(soonAfterSunset, darwin)).isEqualTo(Light.NIGHT);
        assertThat(Light.meetsHalfHourNight(soonAfterSunset, darwin)).isFalse();
        assertThat(Light.meetsHalfHour(soonAfterSunset, darwin)).isTrue();
    }

    /** At 61 N in June the sun never sinks 6 degrees: no night, yet a night by the half hour. */
    @Test
    void whereTwilightLastsAllNightThereIsNoNight() {
        Position far = new Position(61.0, -1.0);
        TimeWindow around = window("2026-06-20T21:00:00Z", "2026-06-21T03:00:00Z");
        assertThat(Light.darkestIn(around, far)).isEqualTo(Light.CIVIL_TWILIGHT);
        assertThat(Light.meetsHalfHourNight(around, far)).isTrue();
    }

    /** The darkest moment lies inside the window, between its ends, and is found. */
    @Test
    void aNightBetweenTwoTwilightsIsFound() {
        Position north = new Position(59.9, 10.7);
        TimeWindow around = window("2026-07-28T20:00:00Z", "2026-07-29T03:00:00Z");
        assertThat(Light.at(around.start(), north)).isNotEqualTo(Light.NIGHT);
        assertThat(Light.at(around.end(), north)).isNotEqualTo(Light.NIGHT);
        assertThat(Light.darkestIn(around, north)).isEqualTo(Light.NIGHT);
    }

    private static TimeWindow window(String from, String to) {
        return new TimeWindow(Instant.parse(from), Instant.parse(to));
    }
}
