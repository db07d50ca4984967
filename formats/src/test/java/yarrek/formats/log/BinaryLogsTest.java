package yarrek.formats.log;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightSummary;
import yarrek.core.geo.Position;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;
import yarrek.formats.logs.LogFormat;

/** Logs that say themselves what they hold, made by an independent simulator, each with its truth and tolerances beside it. */
class BinaryLogsTest {
    private static double greatest(Trace t, Channel c) {
        return Arrays.stream(t.column(c)).filter(v -> !Double.isNaN(v)).max().orElseThrow();
    }

    private static double least(Trace t, Channel c) {
        return Arrays.stream(t.column(c)).filter(v -> !Double.isNaN(v)).min().orElseThrow();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "orbit.ulg",
                "wind.ulg",
                "motor-stop.bin",
                "two-flights.bin",
                "home-never-set.bin",
                "grid-survey.kml",
                "hover.geojson",
                "climb-points.geojson"
            })
    void figuresLieWithinTheStatedTolerances(String name) throws Exception {
        LogReading reading = SampleLogsTest.read(name);
        JsonNode truth = SampleLogsTest.truth(name);
        JsonNode tolerance = truth.get("suggested_tolerance");
        JsonNode flight = truth.get("flight");
        assertThat(reading.problemCount()).as(reading.problems().toString()).isZero();
        assertThat(reading.truncated()).isFalse();
        List<FlightSummary> flights = SampleLogsTest.flights(reading);
        SampleLogsTest.takeOffsAndLandings(flights, truth);
        assertThat(flights.stream().mapToDouble(FlightSummary::pathM).sum())
                .as("path")
                .isCloseTo(
                        flight.get("path_length_m").asDouble(),
                        within(tolerance.get("path_length_m").asDouble()));
        Position first = flights.get(0).takeoffPosition().orElseThrow();
        assertThat(SampleLogsTest.greatest(FlightFinder.find(reading.trace()).stream()
                        .map(span -> FlightSummary.greatestDistanceFrom(reading.trace(), span, first))
                        .toList()))
                .as("distance")
                .isCloseTo(
                        flight.get("max_distance_m").asDouble(),
                        within(tolerance.get("max_distance_m").asDouble()));
        assertThat(SampleLogsTest.greatest(
                        flights.stream().map(FlightSummary::greatestHeightM).toList()))
                .as("height")
                .isCloseTo(
                        flight.get("max_height_m").asDouble(),
                        within(tolerance.get("max_height_m").asDouble()));
        observed(reading.trace(), flights, truth);
    }

    private static boolean has(JsonNode truth, String what) {
        for (JsonNode n : truth.get("observable")) {
            if (n.asString().equals(what)) {
                return true;
            }
        }
        return false;
    }

    /** What a file can show beside the place, as far as it says that it can. */
    private static void observed(Trace t, List<FlightSummary> flights, JsonNode truth) {
        JsonNode flight = truth.get("flight");
        JsonNode tolerance = truth.get("suggested_tolerance");
        JsonNode battery = flight.get("battery");
        if (has(truth, "battery_pct")) {
            assertThat(least(t, Channel.BATTERY_PCT))
                    .as("least charge")
                    .isCloseTo(
                            battery.get("min_pct").asDouble(),
                            within(tolerance.get("battery_min_pct").asDouble() + 0.01));
        }
        if (has(truth, "current") && has(truth, "battery_voltage")) {
            assertThat(flights.stream()
                            .mapToDouble(f -> f.chargeMah().orElseThrow())
                            .sum())
                    .as("charge")
                    .isCloseTo(
                            battery.get("energy_mah").asDouble(),
                            within(tolerance.get("energy_mah").asDouble()));
        }
        if (has(truth, "cells")) {
            int cells = battery.get("cells").asInt();
            assertThat(t.has(Channel.cell(cells))).isTrue();
            assertThat(t.has(Channel.cell(cells + 1))).isFalse();
            assertThat(IntStream.rangeClosed(1, cells)
                            .mapToDouble(c -> least(t, Channel.cell(c)))
                            .min()
                            .orElseThrow())
                    .as("least cell")
                    .isCloseTo(
                            battery.get("min_cell_voltage_v").asDouble(),
                            within(tolerance.get("min_cell_voltage_v").asDouble()));
        }
        if (has(truth, "temperature")) {
            assertThat(least(t, Channel.BATTERY_TEMPERATURE_C))
                    .isCloseTo(battery.get("min_temp_c").asDouble(), within(0.2));
        }
        if (has(truth, "satellites")) {
            assertThat(least(t, Channel.SATELLITES))
                    .isEqualTo(flight.get("satellites").get("min").asInt());
        }
        if (has(truth, "home")) {
            boolean before = IntStream.range(0, t.size())
                    .filter(i ->
                            t.instant(t.seconds()[i]).isBefore(flights.get(0).takeoff()))
                    .anyMatch(i -> t.at(Channel.HOME_SET, i) == 1);
            assertThat(before)
                    .as("home set before take-off")
                    .isEqualTo(flight.get("home").get("set_before_takeoff").asBoolean());
        }
        if (has(truth, "speed")) {
            assertThat(greatest(t, Channel.GROUND_SPEED_MPS))
                    .isCloseTo(flight.get("max_ground_speed_ms").asDouble(), within(0.25));
        }
        if (has(truth, "motors")) {
            int motors = flight.get("motors").asInt();
            assertThat(t.has(Channel.motorPct(motors))).isTrue();
            assertThat(t.has(Channel.motorPct(Math.min(8, motors + 1)))).isEqualTo(motors == 8);
        }
        if (has(truth, "messages")) {
            List<String> said = new ArrayList<>();
            for (JsonNode m : flight.get("messages")) {
                if (m.get("in_file").asBoolean()) {
                    said.add(m.get("text").asString());
                }
            }
            assertThat(t.messages().stream().map(Trace.Message::text).toList()).containsAll(said);
            if (!flight.get("first_error_utc").isNull()) {
                Trace.Message first = t.messages().stream()
                        .filter(m -> List.of("error", "critical", "alert", "emergency")
                                .contains(m.level()))
                        .findFirst()
                        .orElseThrow();
                assertThat(Duration.between(
                                        Instant.parse(
                                                flight.get("first_error_utc").asString()),
                                        t.instant(first.atS()))
                                .abs())
                        .isLessThan(Duration.ofMillis(60));
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"corrupt.bin", "corrupt.ulg", "truncated.ulg", "zero-fill.bin"})
    void ofADamagedLogTheRestIsReadAndTheDamageTold(String name) throws Exception {
        LogReading reading = SampleLogsTest.read("malformed/" + name);
        JsonNode truth = SampleLogsTest.truth("malformed/" + name);
        assertThat(reading.truncated() || reading.problemCount() > 0).isTrue();
        assertThat(SampleLogsTest.flights(reading)).isNotEmpty();
        Instant last = reading.trace()
                .instant(reading.trace().seconds()[reading.trace().size() - 1]);
        assertThat(last).isAfter(reading.trace().start().plusSeconds(20));
        JsonNode complete = truth.get("malformed").path("last_complete_utc");
        if (complete.isString()) {
            assertThat(Duration.between(Instant.parse(complete.asString()), last)
                            .abs())
                    .isLessThan(Duration.ofSeconds(1));
        }
    }

    /** Whatever stands in a file, it is read or refused in words, and soon. */
    @ParameterizedTest
    @ValueSource(strings = {"wind.ulg", "home-never-set.bin", "grid-survey.kml", "climb-points.geojson"})
    void bytesChangedAtWillNeverBreakAReader(String name) throws Exception {
        byte[] whole = SampleLogsTest.file(name);
        Random r = new Random(11);
        for (int n = 0; n < 40; n++) {
            byte[] some = Arrays.copyOf(whole, 2000 + r.nextInt(30_000));
            for (int i = 0; i < 1 + r.nextInt(40); i++) {
                some[20 + r.nextInt(some.length - 20)] = (byte) r.nextInt(256);
            }
            LogFormat format = LogFormat.of(some).orElseThrow();
            try {
                assertThat(format.read(some).trace().size()).isPositive();
            } catch (BrokenFileException e) {
                assertThat(e.getMessage()).isNotBlank();
            }
        }
    }

    @Test
    void aBinaryLogThatNeverSaysTheDateIsRefusedInWords() throws Exception {
        byte[] log = SampleLogsTest.file("home-never-set.bin");
        // without the records of its receiver
        byte[] blind = log.clone();
        for (int i = 0; i + 3 < blind.length; i++) {
            if ((blind[i] & 0xFF) == 0xA3 && (blind[i + 1] & 0xFF) == 0x95 && (blind[i + 2] & 0xFF) == 133) {
                Arrays.fill(blind, i + 3, i + 3 + 48, (byte) 0);
            }
        }
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> LogFormat.of(blind).orElseThrow().read(blind))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("never says the date");
    }
}
