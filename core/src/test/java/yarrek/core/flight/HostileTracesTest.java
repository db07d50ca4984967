package yarrek.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import yarrek.core.airspace.Ground;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.Interval;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/** The 180th meridian, holes, jumps and zones thinner than a step. */
class HostileTracesTest {
    private static final double LAT = -16.8;

    /** Ten seconds on the ground, a minute out and back east, ten on the ground; a sample a second. */
    private static Trace outAndBack(double lon0, double eastDeg) {
        double[] t = new double[81];
        double[] lat = new double[t.length];
        double[] lon = new double[t.length];
        double[] height = new double[t.length];
        Arrays.fill(lat, LAT);
        for (int i = 0; i < t.length; i++) {
            t[i] = i;
            int air = Math.max(0, Math.min(60, i - 10));
            double share = Math.min(air, 60 - air) / 30.0;
            double east = lon0 + eastDeg * share;
            lon[i] = east > 180 ? east - 360 : east;
            height[i] = Math.min(20, 100 * share);
        }
        Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
        columns.put(Channel.LATITUDE_DEG, lat);
        columns.put(Channel.LONGITUDE_DEG, lon);
        columns.put(Channel.HEIGHT_ABOVE_TAKEOFF_M, height);
        return new Trace(Instant.parse("2026-05-10T10:00:00Z"), t, columns, List.of(), List.of());
    }

    private static FlightSummary only(Trace trace) {
        List<FlightFinder.Span> spans = FlightFinder.find(trace);
        assertThat(spans).hasSize(1);
        return FlightSummary.of(trace, spans.get(0));
    }

    @Test
    void theHundredAndEightiethMeridianIsALineLikeAnyOther() {
        FlightSummary here = only(outAndBack(20, 0.001));
        FlightSummary there = only(outAndBack(179.9995, 0.001));
        assertThat(there.greatestDistanceM().orElseThrow())
                .isCloseTo(here.greatestDistanceM().orElseThrow(), within(0.01))
                .isGreaterThan(100);
        assertThat(there.pathM()).isCloseTo(here.pathM(), within(0.01));
        assertThat(there.takeoffS()).isEqualTo(here.takeoffS());
        assertThat(there.landingS()).isEqualTo(here.landingS());
        assertThat(there.endsInTheAir()).isFalse();
    }

    @Test
    void aJumpOfTheLogIsNeitherPathNorSpeed() {
        Trace clean = outAndBack(20, 0.001);
        double[] lat = clean.column(Channel.LATITUDE_DEG).clone();
        Arrays.fill(lat, 30, lat.length, LAT + 0.1); // eleven kilometres further for good
        Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
        clean.channels().forEach(c -> columns.put(c, clean.column(c)));
        columns.put(Channel.LATITUDE_DEG, lat);
        FlightSummary s = only(new Trace(clean.start(), clean.seconds(), columns, List.of(), List.of()));
        assertThat(s.pathM()).isLessThan(250);
        assertThat(s.greatestSpeedMps().orElseThrow()).isLessThan(10);
    }

    /** Eleven minutes without a row in the air: nobody knows of one flight; ten are still one. */
    @Test
    void aLogThatIsSilentForLongGoesOnWithAnotherFlight() {
        for (int silence : new int[] {600, 601}) {
            Trace clean = outAndBack(20, 0.001);
            double[] t = clean.seconds().clone();
            for (int i = 40; i < t.length; i++) {
                t[i] += silence - 1;
            }
            Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
            clean.channels().forEach(c -> columns.put(c, clean.column(c)));
            List<FlightFinder.Span> spans =
                    FlightFinder.find(new Trace(clean.start(), t, columns, List.of(), List.of()));
            assertThat(spans).hasSize(silence == 600 ? 1 : 2);
            assertThat(spans.get(0).endsInTheAir()).isEqualTo(silence > 600);
        }
    }

    /** A satellite altitude that stands at 100 m and is already rising in the last sample before it counts as up. */
    @Test
    void heightFromAltitudeCountsFromWhereItStood() {
        double[] t = new double[400];
        double[] altitude = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = i / 10.0;
            double air = Math.max(0, Math.min(t[i] - 10, 30 - t[i]));
            altitude[i] = 100 + Math.min(20, 2 * air);
        }
        Trace trace = new Trace(Instant.EPOCH, t, Map.of(Channel.ALTITUDE_MSL_M, altitude), List.of(), List.of());
        assertThat(only(trace).greatestHeightM().orElseThrow()).isCloseTo(20, within(1e-9));
    }

    // --- zones -------------------------------------------------------------------------------------------------------

    private static Zone strip(double westDeg, double eastDeg, HeightLimit lower, HeightLimit upper) {
        Area area = Area.of(List.of(
                new Position(LAT - 0.01, westDeg),
                new Position(LAT - 0.01, eastDeg),
                new Position(LAT + 0.01, eastDeg),
                new Position(LAT + 0.01, westDeg)));
        return new Zone(
                "Z",
                "Z",
                ZoneKind.RESTRICTED,
                Optional.empty(),
                ZoneMet.Restriction.PROHIBITED,
                area,
                lower,
                upper,
                Timetable.ALWAYS,
                OptionalDouble.empty(),
                "",
                "",
                "");
    }

    private static List<Interval> met(Zone zone, double[] t, double[] lon, double[] height) {
        double[] lat = new double[t.length];
        Arrays.fill(lat, LAT);
        return ZonePassage.of(zone, new Ground(OptionalDouble.empty(), OptionalDouble.of(0)), t, lat, lon, height);
    }

    @Test
    void aZoneThinnerThanAStepIsMetBetweenTwoSamples() {
        Zone strip = strip(20.00021, 20.00023, HeightLimit.SURFACE, HeightLimit.UNLIMITED);
        double[] t = {0, 1, 2, 3, 4, 5, 6};
        double[] lon = {20, 20.0001, 20.0002, 20.0003, 20.0002, 20.0001, 20};
        List<Interval> met = met(strip, t, lon, null);
        assertThat(met).hasSize(2);
        assertThat(met.get(0).fromS()).isCloseTo(2.1, within(1e-6));
        assertThat(met.get(0).toS()).isCloseTo(2.3, within(1e-6));
        assertThat(met.get(1).fromS()).isCloseTo(3.7, within(1e-6));
        assertThat(met.get(1).toS()).isCloseTo(3.9, within(1e-6));
    }

    @Test
    void edgesLieBetweenSamplesAlsoInHeight() {
        Zone from50 = strip(19, 21, HeightLimit.aboveGround(50), HeightLimit.UNLIMITED);
        double[] t = {0, 4, 8, 12};
        double[] lon = {20, 20.0001, 20.0002, 20.0001};
        List<Interval> met = met(from50, t, lon, new double[] {0, 40, 80, 0});
        assertThat(met).hasSize(1);
        assertThat(met.get(0).fromS()).isCloseTo(5, within(2e-3));
        assertThat(met.get(0).toS()).isCloseTo(9.5, within(2e-3));
        assertThat(met(from50, t, lon, new double[] {0, 49, 49, 0})).isEmpty();
        assertThat(met(from50, t, lon, null)).as("a height not known").hasSize(1);
    }

    @Test
    void nothingIsAssumedAcrossAHole() {
        Zone strip = strip(20.0002, 20.0004, HeightLimit.SURFACE, HeightLimit.UNLIMITED);
        double[] lon = {20, 20.0001, 20.0006, 20.0007};
        assertThat(met(strip, new double[] {0, 1, 6, 7}, lon, null)).hasSize(1);
        assertThat(met(strip, new double[] {0, 1, 6.1, 7}, lon, null)).isEmpty();
    }

    @Test
    void aStepAcrossTheMeridianMeetsTheZoneThere() {
        Zone strip = strip(179.9999, 180, HeightLimit.SURFACE, HeightLimit.UNLIMITED);
        List<Interval> met = met(strip, new double[] {0, 1}, new double[] {179.9998, -179.9998}, null);
        assertThat(met).hasSize(1);
        assertThat(met.get(0).fromS()).isCloseTo(0.25, within(1e-6));
        assertThat(met.get(0).toS()).isCloseTo(0.5, within(1e-6));
    }

    /** Motors stop at 10 m, one and a half seconds of fall, and the log lives on for 0.8 s; 10 Hz. */
    private static Trace motorStop(double restsAtM) {
        int n = 10 * 10 + 200 + 14 + 9;
        double[] t = new double[n];
        double[] height = new double[n];
        double[] current = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i / 10.0;
            int air = i - 100;
            double fall = (air - 200) / 10.0;
            height[i] =
                    air < 0 ? 0 : air < 200 ? Math.min(10, air / 5.0) : Math.max(restsAtM, 10 - 9.81 / 2 * fall * fall);
            current[i] = air < 0 ? 0.4 : air < 200 ? 14 : 0.3;
        }
        Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
        columns.put(Channel.HEIGHT_ABOVE_TAKEOFF_M, height);
        columns.put(Channel.CURRENT_A, current);
        return new Trace(Instant.parse("2026-05-10T10:00:00Z"), t, columns, List.of(), List.of());
    }

    /** It came down at 31.4 s, though too shortly before the end to be a stand; falling still, it has not. */
    @Test
    void whatLiesInTheWaterHasLanded() {
        FlightSummary down = only(motorStop(0.5));
        assertThat(down.endsInTheAir()).isFalse();
        assertThat(down.landingS()).isCloseTo(31.4, within(0.25));
        assertThat(only(motorStop(-100)).endsInTheAir()).isTrue();
    }
}
