package yarrek.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/**
 * Flights in logs that are told in a line: "stand 10; rise 20; hover 30; sink 20; stand 10" stands ten seconds, climbs 20 m
 * at 2 m/s, and so on; "go 50" flies 50 m north at 5 m/s. Ten samples a second.
 */
class FlightFinderTest {
    private static final double RATE_HZ = 10;
    private static final double CLIMB_MPS = 2;
    private static final double SPEED_MPS = 5;
    private static final double METRES_PER_DEGREE = 111_195;
    private static final double HOVER_A = 12;

    /** What a log says moment by moment, before it is made one. */
    private static final class Told {
        private final List<double[]> rows = new ArrayList<>();
        private double height;
        private double north;

        static Told of(String story) {
            Told told = new Told();
            told.rows.add(new double[] {0, 0, 0});
            for (String step : story.split(";")) {
                String[] words = step.strip().split(" ");
                double much = Double.parseDouble(words[1]);
                switch (words[0]) {
                    case "stand" -> told.last(much, 0, 0, 0.2);
                    case "hover" -> told.last(much, 0, 0, HOVER_A);
                    case "rise" -> told.last(much / CLIMB_MPS, CLIMB_MPS, 0, HOVER_A);
                    case "sink" -> told.last(much / CLIMB_MPS, -CLIMB_MPS, 0, HOVER_A);
                    case "go" -> told.last(much / SPEED_MPS, 0, SPEED_MPS, HOVER_A);
                    default -> throw new IllegalArgumentException(step);
                }
            }
            return told;
        }

        private void last(double seconds, double climb, double speed, double amperes) {
            for (int i = 0; i < Math.round(seconds * RATE_HZ); i++) {
                height += climb / RATE_HZ;
                north += speed / RATE_HZ;
                rows.add(new double[] {height, north, amperes});
            }
        }

        private double[] column(int c) {
            return rows.stream().mapToDouble(r -> r[c]).toArray();
        }

        /** The log with these channels; heights as an instrument would show them. */
        Trace log(DoubleUnaryOperator error, Channel... channels) {
            Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
            double[] t = new double[rows.size()];
            for (int i = 0; i < t.length; i++) {
                t[i] = i / RATE_HZ;
            }
            double[] heights = column(0);
            for (int i = 0; i < t.length; i++) {
                heights[i] += error.applyAsDouble(t[i]);
            }
            for (Channel c : channels) {
                switch (c) {
                    case HEIGHT_ABOVE_TAKEOFF_M, ALTITUDE_MSL_M -> columns.put(c, heights);
                    case CURRENT_A -> columns.put(c, column(2));
                    case LATITUDE_DEG -> {
                        double[] lat = column(1);
                        for (int i = 0; i < lat.length; i++) {
                            lat[i] = 46.6 + lat[i] / METRES_PER_DEGREE;
                        }
                        columns.put(c, lat);
                    }
                    case LONGITUDE_DEG -> {
                        double[] lon = new double[t.length];
                        java.util.Arrays.fill(lon, -17.9);
                        columns.put(c, lon);
                    }
                    default -> throw new IllegalArgumentException(c.name());
                }
            }
            return new Trace(Instant.parse("2026-05-10T10:00:00Z"), t, columns, List.of(), List.of());
        }

        Trace barometer() {
            return log(x -> 0, Channel.HEIGHT_ABOVE_TAKEOFF_M, Channel.LATITUDE_DEG, Channel.LONGITUDE_DEG);
        }
    }

    private static List<FlightFinder.Span> flights(String story) {
        return FlightFinder.find(Told.of(story).barometer());
    }

    private static final String PLAIN = "stand 10; rise 20; go 50; hover 30; sink 20; stand 10";

    @Test
    void takeOffAndLandingAreGoodToASecond() {
        Trace log = Told.of(PLAIN).barometer();
        FlightFinder.Span s = FlightFinder.find(log).get(0);
        assertThat(log.seconds()[s.takeoff()]).isCloseTo(10, within(1.0));
        assertThat(log.seconds()[s.landing()]).isCloseTo(70, within(1.0));
        assertThat(s.beginsInTheAir()).isFalse();
        assertThat(s.endsInTheAir()).isFalse();
    }

    /** Standing still in the air is no landing, with a sensor of current or without. */
    @Test
    void aLongHoverIsPartOfTheFlight() {
        String story = "stand 10; rise 20; hover 300; sink 20; stand 10";
        assertThat(flights(story)).hasSize(1);
        assertThat(FlightFinder.find(Told.of(story).log(x -> 0, Channel.HEIGHT_ABOVE_TAKEOFF_M, Channel.CURRENT_A)))
                .hasSize(1);
    }

    /** A barometer holds to 0.1 m; a hop below 0.7 m is not told from standing. */
    @ParameterizedTest
    @CsvSource({"0.4, 0", "0.6, 0", "0.8, 1", "1.2, 1"})
    void aHopCountsFromSevenTenthsOfAMetre(String metres, int flights) {
        assertThat(flights("stand 10; rise " + metres + "; hover 20; sink " + metres + "; stand 10"))
                .hasSize(flights);
    }

    /** A satellite's altitude wanders by some 2 m while the aircraft stands; that is no flight, and 5 m are. */
    @ParameterizedTest
    @CsvSource({"1.0, 0", "1.25, 0", "5, 1"})
    void altitudesThatWanderAreNoFlight(double swing, int flights) {
        Told stands = Told.of("stand 400");
        Trace log = stands.log(
                t -> 120 + swing * Math.sin(2 * Math.PI * t / 100),
                Channel.ALTITUDE_MSL_M,
                Channel.LATITUDE_DEG,
                Channel.LONGITUDE_DEG);
        assertThat(FlightFinder.find(log).size()).isGreaterThanOrEqualTo(flights);
        if (flights == 0) {
            assertThat(FlightFinder.find(log)).isEmpty();
        }
    }

    @Test
    void aFlightOverAWanderingAltitudeIsStillOne() {
        Trace log = Told.of(PLAIN)
                .log(t -> 120 + Math.sin(t / 20), Channel.ALTITUDE_MSL_M, Channel.LATITUDE_DEG, Channel.LONGITUDE_DEG);
        assertThat(FlightFinder.find(log)).hasSize(1);
    }

    /** A touch of a moment belongs to one flight, a stand of some seconds parts two; longer never joins them again. */
    @Test
    void longerStandsNeverMakeFewerFlights() {
        int before = 1;
        for (double stand = 0.5; stand <= 12; stand += 0.5) {
            int found = flights("stand 10; rise 20; sink 20; stand " + stand + "; rise 20; sink 20; stand 10")
                    .size();
            assertThat(found).as("a stand of " + stand + " s").isBetween(before, 2);
            before = found;
        }
        assertThat(flights("stand 10; rise 20; sink 20; stand 1.9; rise 20; sink 20; stand 10"))
                .hasSize(1);
        assertThat(before).isEqualTo(2);
    }

    @Test
    void whatBeginsOrEndsInTheAirSaysSo() {
        Trace late = Told.of("rise 20; go 50; sink 20; stand 10").barometer();
        Trace whole = Told.of(PLAIN).barometer();
        FlightFinder.Span s = FlightFinder.find(part(whole, 150, whole.size())).get(0);
        assertThat(s.beginsInTheAir()).isTrue();
        assertThat(s.endsInTheAir()).isFalse();
        FlightFinder.Span cut = FlightFinder.find(part(whole, 0, 400)).get(0);
        assertThat(cut.beginsInTheAir()).isFalse();
        assertThat(cut.endsInTheAir()).isTrue();
        assertThat(cut.landing()).isEqualTo(399);
        assertThat(FlightFinder.find(late)).hasSize(1);
    }

    private static Trace part(Trace log, int from, int to) {
        Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
        log.channels().forEach(c -> columns.put(c, java.util.Arrays.copyOfRange(log.column(c), from, to)));
        double[] t = java.util.Arrays.copyOfRange(log.seconds(), from, to);
        for (int i = t.length - 1; i >= 0; i--) {
            t[i] -= t[0];
        }
        return new Trace(log.start(), t, columns, List.of(), List.of());
    }

    /** Landed on a roof: still, higher than it stood, and the motors say it is down. */
    @Test
    void aLandingHigherUpIsFoundByTheCurrent() {
        Told told = Told.of("stand 10; rise 30; go 50; sink 15; stand 20");
        List<FlightFinder.Span> found =
                FlightFinder.find(told.log(x -> 0, Channel.HEIGHT_ABOVE_TAKEOFF_M, Channel.CURRENT_A));
        assertThat(found).hasSize(1);
        assertThat(found.get(0).endsInTheAir()).isFalse();
    }

    /** Without a height it is the way that tells: 8 m of it. */
    @ParameterizedTest
    @CsvSource({"4, 0", "7, 0", "9, 1", "40, 1"})
    void withoutAHeightTheWayTells(String metres, int flights) {
        Trace log = Told.of("stand 10; go " + metres + "; stand 10")
                .log(x -> 0, Channel.LATITUDE_DEG, Channel.LONGITUDE_DEG);
        assertThat(FlightFinder.find(log)).hasSize(flights);
    }

    @ParameterizedTest
    @ValueSource(ints = {3, 10, 25})
    void missingHeightsSplitNothing(int each) {
        Trace log = Told.of(PLAIN).barometer();
        double[] h = log.column(Channel.HEIGHT_ABOVE_TAKEOFF_M).clone();
        for (int i = 200; i < 500; i += each) {
            h[i] = Double.NaN;
        }
        Map<Channel, double[]> columns = new EnumMap<>(Channel.class);
        log.channels().forEach(c -> columns.put(c, log.column(c)));
        columns.put(Channel.HEIGHT_ABOVE_TAKEOFF_M, h);
        assertThat(FlightFinder.find(new Trace(log.start(), log.seconds(), columns, List.of(), List.of())))
                .hasSize(1);
    }

    @Test
    void aLogOfOneMomentHasNoFlight() {
        assertThat(FlightFinder.find(part(Told.of(PLAIN).barometer(), 0, 1))).isEmpty();
        assertThat(flights("stand 60")).isEmpty();
    }

    /** However a log goes, each of its samples counts to one flight and to one only, and the flights are in order. */
    @Test
    void theChargeOfAllFlightsIsThatOfTheLog() {
        Random r = new Random(11);
        for (int n = 0; n < 60; n++) {
            StringBuilder story = new StringBuilder("stand 8");
            int flown = 1 + r.nextInt(4);
            for (int k = 0; k < flown; k++) {
                int up = 5 + r.nextInt(40);
                story.append("; rise " + up + "; go " + r.nextInt(60) + "; hover " + r.nextInt(20) + "; sink " + up
                        + "; stand " + (8 + r.nextInt(20)));
            }
            Trace log = Told.of(story.toString()).barometer();
            List<FlightFinder.Span> spans = FlightFinder.find(log);
            assertThat(spans).as(story.toString()).hasSize(flown);
            int next = 0;
            for (FlightFinder.Span s : spans) {
                assertThat(s.shareFrom()).isEqualTo(next);
                assertThat(s.takeoff()).isBetween(s.shareFrom(), s.landing());
                assertThat(s.shareTo()).isGreaterThanOrEqualTo(s.landing());
                next = s.shareTo() + 1;
            }
            assertThat(next).isEqualTo(log.size());
        }
    }

    /** Where the sea lies is nothing to the finder, but for a sample at a threshold that rounds the other way. */
    @ParameterizedTest
    @ValueSource(doubles = {-400, 0.3, 35, 3200})
    void theSameLogHigherUpHasTheSameFlights(double up) {
        Told told = Told.of("stand 10; rise 20; sink 20; stand 12; rise 30; go 30; sink 30; stand 10");
        Channel[] channels = {Channel.ALTITUDE_MSL_M, Channel.LATITUDE_DEG, Channel.LONGITUDE_DEG};
        List<FlightFinder.Span> low = FlightFinder.find(told.log(x -> 0, channels));
        List<FlightFinder.Span> high = FlightFinder.find(told.log(x -> up, channels));
        assertThat(high).hasSize(2).hasSameSizeAs(low);
        for (int i = 0; i < 2; i++) {
            assertThat(Math.abs(high.get(i).takeoff() - low.get(i).takeoff())).isLessThanOrEqualTo(1);
            assertThat(Math.abs(high.get(i).landing() - low.get(i).landing())).isLessThanOrEqualTo(1);
        }
    }
}
