package yarrek.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import yarrek.core.geo.Geodesy;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/** One flight worked by hand: ten seconds on the ground, up, out and back, down, ten seconds on the ground. */
class FlightSummaryTest {
    private static final int STAND = 10;
    private static final int AIR = 40;
    private static final int N = STAND + AIR + STAND;
    private static final double LAT = 46.6;
    private static final double LON = -17.9;

    /** North by a ten-thousandth of a degree a second for twenty seconds, and back. */
    private static double[] latitudes() {
        double[] lat = new double[N];
        for (int i = 0; i < N; i++) {
            int air = Math.max(0, Math.min(AIR, i - STAND));
            lat[i] = LAT + 1e-4 * Math.min(air, AIR - air);
        }
        return lat;
    }

    private static Trace trace(boolean battery) {
        double[] t = new double[N];
        double[] lon = new double[N];
        double[] height = new double[N];
        double[] current = new double[N];
        double[] volts = new double[N];
        Arrays.fill(lon, LON);
        for (int i = 0; i < N; i++) {
            t[i] = i;
            int air = Math.max(0, Math.min(AIR, i - STAND));
            height[i] = Math.min(30, 5.0 * Math.min(air, AIR - air));
            current[i] = 10;
            volts[i] = 15;
        }
        Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
        columns.put(Channel.LATITUDE_DEG, latitudes());
        columns.put(Channel.LONGITUDE_DEG, lon);
        columns.put(Channel.HEIGHT_ABOVE_TAKEOFF_M, height);
        if (battery) {
            columns.put(Channel.CURRENT_A, current);
            columns.put(Channel.VOLTAGE_V, volts);
        }
        return new Trace(Instant.parse("2026-05-10T10:00:00Z"), t, columns, List.of(), List.of());
    }

    private static FlightSummary only(Trace trace) {
        List<FlightFinder.Span> spans = FlightFinder.find(trace);
        assertThat(spans).hasSize(1);
        return FlightSummary.of(trace, spans.get(0));
    }

    @Test
    void durationHeightDistanceAndPathAreThoseFlown() {
        FlightSummary s = only(trace(false));
        double out = Geodesy.distanceM(LAT, LON, LAT + 20e-4, LON);
        assertThat(s.duration()).isBetween(Duration.ofSeconds(AIR - 2), Duration.ofSeconds(AIR + 2));
        assertThat(s.greatestHeightM().orElseThrow()).isEqualTo(30);
        // the first and last sample in the air lie a step from the take-off point
        double step = out / 20;
        assertThat(s.greatestDistanceM().orElseThrow()).isCloseTo(out, within(step * 1.01));
        assertThat(s.pathM()).isCloseTo(2 * out, within(2.02 * step));
        assertThat(s.beginsInTheAir()).isFalse();
        assertThat(s.endsInTheAir()).isFalse();
    }

    /** 10 A for 59 s between the first and the last sample is 163.9 mAh, at 15 V 2.458 Wh. */
    @Test
    void chargeAndEnergyAreCurrentAndPowerOverTime() {
        FlightSummary s = only(trace(true));
        assertThat(s.chargeMah().orElseThrow()).isCloseTo(10.0 * (N - 1) / 3600 * 1000, within(0.1));
        assertThat(s.energyWh().orElseThrow()).isCloseTo(150.0 * (N - 1) / 3600, within(0.01));
        assertThat(s.equivalentCycles(1639).orElseThrow()).isCloseTo(0.1, within(1e-3));
        assertThatThrownBy(() -> s.equivalentCycles(0)).hasMessageContaining("more than 0 mAh");
    }

    @Test
    void whatTheLogDoesNotSayIsEmpty() {
        FlightSummary s = only(trace(false));
        assertThat(s.chargeMah()).isEmpty();
        assertThat(s.energyWh()).isEmpty();
        assertThat(s.leastCellV()).isEmpty();
        assertThat(s.greatestWindMps()).isEmpty();
        assertThat(s.equivalentCycles(1000)).isEmpty();
    }

    @Test
    void aTraceThatNeverLeavesTheGroundHasNoFlight() {
        double[] t = {0, 1, 2, 3, 4, 5};
        double[] still = new double[6];
        Trace ground = new Trace(Instant.EPOCH, t, Map.of(Channel.HEIGHT_ABOVE_TAKEOFF_M, still), List.of(), List.of());
        assertThat(FlightFinder.find(ground)).isEmpty();
    }

    @Test
    void timesThatFallAndColumnsOfAnotherLengthAreRefused() {
        assertThatThrownBy(() -> new Trace(Instant.EPOCH, new double[] {0, 2, 1}, Map.of(), List.of(), List.of()))
                .hasMessageContaining("got 2.0 then 1.0");
        assertThatThrownBy(() -> new Trace(
                        Instant.EPOCH,
                        new double[] {0, 1},
                        Map.of(Channel.ALTITUDE_MSL_M, new double[3]),
                        List.of(),
                        List.of()))
                .hasMessageContaining("3 figures for 2 times");
    }
}
