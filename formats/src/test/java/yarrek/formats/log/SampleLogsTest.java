package yarrek.formats.log;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightSummary;
import yarrek.core.geo.Position;
import yarrek.core.trace.Channel;
import yarrek.formats.csv.CsvLogReader;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.gpx.GpxReader;
import yarrek.formats.logs.LogFormat;

/** Logs made by an independent simulator, each with its truth and tolerances beside it. */
class SampleLogsTest {
    private static final double EXACT_FIGURE = 0.011; // the coarsest cell of these files is 0.1, most are 0.01

    static byte[] file(String name) throws IOException {
        try (InputStream in = SampleLogsTest.class.getResourceAsStream("/logs/" + name)) {
            return in.readAllBytes();
        }
    }

    static JsonNode truth(String name) throws IOException {
        return JsonMapper.shared().readTree(file(name + ".truth.json"));
    }

    static LogReading read(String name) throws Exception {
        Optional<LogFormat> format = LogFormat.of(file(name));
        if (format.isPresent()) {
            return format.get().read(file(name));
        }
        CsvSheet sheet = CsvSheet.look(file(name));
        return CsvLogReader.read(sheet, PlanSuggester.suggest(sheet));
    }

    static List<FlightSummary> flights(LogReading reading) {
        return FlightFinder.find(reading.trace()).stream()
                .map(s -> FlightSummary.of(reading.trace(), s))
                .toList();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "orbit.gpx",
                "height-breach.gpx",
                "linear-inspection.csv",
                "distance-breach.csv",
                "out-and-back.csv",
                "two-flights.csv"
            })
    void figuresLieWithinTheStatedTolerances(String name) throws Exception {
        LogReading reading = read(name);
        JsonNode truth = truth(name);
        JsonNode tolerance = truth.get("suggested_tolerance");
        JsonNode flight = truth.get("flight");
        JsonNode rows = truth.get("logged").get("rows");
        if (rows == null || rows.isNumber()) {
            rows = truth.get("logged");
        }
        if (rows.has("track")) {
            rows = rows.get("track");
        }
        List<FlightSummary> flights = flights(reading);
        assertThat(reading.trace().size()).isEqualTo(rows.get("rows").asInt());
        assertThat(reading.problemCount()).isZero();
        assertThat(reading.truncated()).isFalse();
        takeOffsAndLandings(flights, truth);
        double path = flights.stream().mapToDouble(FlightSummary::pathM).sum();
        assertThat(path)
                .as("path")
                .isCloseTo(
                        rows.get("path_length_m").asDouble(),
                        within(tolerance.get("path_length_m").asDouble()));
        // the truth measures the whole log from its first take-off
        Position first = flights.get(0).takeoffPosition().orElseThrow();
        assertThat(greatest(FlightFinder.find(reading.trace()).stream()
                        .map(span -> FlightSummary.greatestDistanceFrom(reading.trace(), span, first))
                        .toList()))
                .as("distance")
                .isCloseTo(
                        rows.get("max_distance_from_takeoff_m").asDouble(),
                        within(tolerance.get("max_distance_m").asDouble()));
        assertThat(greatest(flights.stream().map(FlightSummary::greatestHeightM).toList()))
                .as("height")
                .isCloseTo(
                        flight.get("max_height_m").asDouble(),
                        within(tolerance.get("max_height_m").asDouble()));
        if (rows.has("energy_trapezoid_mah")) {
            assertThat(flights.stream()
                            .mapToDouble(f -> f.chargeMah().orElseThrow())
                            .sum())
                    .as("charge")
                    .isCloseTo(
                            flight.get("battery").get("energy_mah").asDouble(),
                            within(tolerance.get("energy_mah").asDouble()));
            assertThat(flights.stream()
                            .mapToDouble(f -> f.energyWh().orElseThrow())
                            .sum())
                    .as("energy")
                    .isCloseTo(
                            flight.get("battery").get("energy_wh").asDouble(),
                            within(tolerance.get("energy_wh").asDouble()));
            assertThat(greatest(flights.stream()
                            .map(FlightSummary::greatestSpeedMps)
                            .toList()))
                    .as("speed")
                    .isCloseTo(rows.get("max_ground_speed_ms").asDouble(), within(EXACT_FIGURE));
            assertThat(flights.stream()
                            .mapToDouble(f -> f.leastCellV().orElseThrow())
                            .min()
                            .orElseThrow())
                    .as("least cell")
                    .isCloseTo(rows.get("min_cell_voltage_v").asDouble(), within(1e-6));
            assertThat(greatest(flights.stream()
                            .map(FlightSummary::greatestCellSpreadV)
                            .toList()))
                    .as("cell spread")
                    .isCloseTo(rows.get("max_cell_spread_v").asDouble(), within(1e-6));
            assertThat(flights.stream()
                            .mapToDouble(f -> f.leastChargePct().orElseThrow())
                            .min()
                            .orElseThrow())
                    .as("least charge")
                    .isCloseTo(rows.get("battery_min_pct").asDouble(), within(1e-6));
        }
    }

    /** Each flight begins and ends when it was simulated to, within what the truth allows. */
    static void takeOffsAndLandings(List<FlightSummary> flights, JsonNode truth) {
        JsonNode flight = truth.get("flight");
        JsonNode tolerance = truth.get("suggested_tolerance");
        assertThat(flights).hasSize(flight.get("flights").size());
        Instant start = Instant.parse(flight.get("start_utc").asString());
        for (int i = 0; i < flights.size(); i++) {
            JsonNode t = flight.get("flights").get(i);
            assertThat(seconds(start, flights.get(i).takeoff()))
                    .as("take-off " + i)
                    .isCloseTo(
                            t.get("takeoff_s").asDouble(),
                            within(tolerance.get("takeoff_s").asDouble()));
            assertThat(seconds(start, flights.get(i).landing()))
                    .as("landing " + i)
                    .isCloseTo(
                            t.get("landing_s").asDouble(),
                            within(tolerance.get("landing_s").asDouble()));
        }
    }

    static double seconds(Instant start, Instant at) {
        return java.time.Duration.between(start, at).toNanos() / 1e9;
    }

    static double greatest(List<OptionalDouble> values) {
        return values.stream().mapToDouble(OptionalDouble::orElseThrow).max().orElseThrow();
    }

    @Test
    void anExternalEntityIsNeverRead() {
        assertThatThrownBy(() -> read("malformed/external-entity.gpx"))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("DOCTYPE")
                .hasMessageNotContaining("CANARY");
    }

    @Test
    void anExpansionBombIsRefusedUnexpanded() {
        assertThatThrownBy(() -> read("malformed/entity-bomb.gpx"))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("DOCTYPE");
    }

    @ParameterizedTest
    @ValueSource(strings = {"malformed/truncated.gpx", "malformed/truncated.csv"})
    void aTruncatedLogYieldsTheFlightUpToThere(String name) throws Exception {
        LogReading reading = read(name);
        JsonNode truth = truth(name);
        assertThat(reading.truncated()).isTrue();
        assertThat(reading.notes()).anyMatch(n -> n.contains("up to there"));
        assertThat(reading.trace()
                        .instant(reading.trace().seconds()[reading.trace().size() - 1]))
                .isEqualTo(Instant.parse(
                        truth.get("malformed").get("last_complete_utc").asString()));
        List<FlightSummary> flights = flights(reading);
        assertThat(flights).hasSize(1);
        assertThat(flights.get(0).endsInTheAir()).isTrue();
    }

    @Test
    void zeroPositionsBeforeTheFixAreNoPositions() throws Exception {
        LogReading reading = read("malformed/zero-before-fix.gpx");
        JsonNode rows = truth("malformed/zero-before-fix.gpx").get("logged").get("track");
        assertThat(reading.trace().start()).isAfter(Instant.parse("2026-09-20T09:59:59Z"));
        List<FlightSummary> flights = flights(reading);
        assertThat(flights).hasSize(1);
        assertThat(flights.get(0).pathM())
                .isCloseTo(rows.get("path_length_airborne_m").asDouble(), within(0.2));
        assertThat(flights.get(0).greatestHeightM().orElseThrow()).isCloseTo(13.66, within(1.0));
    }

    @Test
    void notANumberPositionsAreLeftOut() throws Exception {
        LogReading reading = read("malformed/nan-position.csv");
        double[] lat = reading.trace().column(Channel.LATITUDE_DEG);
        long known = java.util.Arrays.stream(lat).filter(v -> !Double.isNaN(v)).count();
        assertThat(known).isEqualTo(829);
        List<FlightSummary> flights = flights(reading);
        assertThat(flights).hasSize(1);
        assertThat(flights.get(0).pathM()).isCloseTo(2.0, within(0.2));
        assertThat(flights.get(0).greatestDistanceM().orElseThrow()).isCloseTo(0.609, within(0.15));
        assertThat(reading.notes()).anyMatch(n -> n.contains("NaN"));
    }

    @Test
    void aClockThatStepsBackGivesNoNegativeStepAndIsTold() throws Exception {
        LogReading reading = read("malformed/time-backwards.csv");
        double[] t = reading.trace().seconds();
        for (int i = 1; i < t.length; i++) {
            assertThat(t[i]).isGreaterThanOrEqualTo(t[i - 1]);
        }
        assertThat(reading.notes()).anyMatch(n -> n.contains("steps back by 12.0 s"));
        assertThat(flights(reading)).hasSize(1);
        assertThat(flights(reading).get(0).landingS()).isCloseTo(82.4, within(2.0));
    }

    @Test
    void westernTextIsReadWithoutReplacementCharacters() throws Exception {
        LogReading reading = read("malformed/latin1.csv");
        CsvSheet sheet = CsvSheet.look(file("malformed/latin1.csv"));
        assertThat(sheet.headers()).contains("Höhe über Start [m]").noneMatch(h -> h.contains("\uFFFD"));
        assertThat(reading.notes()).anyMatch(n -> n.contains("not UTF-8"));
        assertThat(flights(reading)).hasSize(1);
        assertThat(flights(reading).get(0).greatestHeightM().orElseThrow()).isEqualTo(12.0);
    }

    @Test
    void formulaCellsAreText() throws Exception {
        LogReading reading = read("malformed/formula-cells.csv");
        assertThat(reading.trace().messages()).anyMatch(m -> m.text().equals("=cmd|' /C calc'!A0"));
        assertThat(reading.trace().modes()).anyMatch(m -> m.mode().equals("=1+1"));
        assertThat(flights(reading)).hasSize(1);
    }

    @Test
    void aTrackThatSaysUtf8ButIsWesternTextIsReadAndTold() throws Exception {
        byte[] western = new String(file("orbit.gpx"), java.nio.charset.StandardCharsets.UTF_8)
                .replace("flight orbit 301</name><time>", "Flug über Land</name><time>")
                .getBytes(java.nio.charset.StandardCharsets.ISO_8859_1);
        LogReading reading = GpxReader.read(western);
        assertThat(reading.notes()).anyMatch(n -> n.contains("not; it is read as Western European"));
        assertThat(reading.trace().size()).isEqualTo(164);
    }

    @Test
    void anUnclosedQuoteIsToldWithItsLineInTheFile() throws Exception {
        byte[] broken = new String(file("two-flights.csv"), java.nio.charset.StandardCharsets.UTF_8)
                .replaceFirst("\"POSCTL\"", "\"POSCTL")
                .getBytes(java.nio.charset.StandardCharsets.UTF_8);
        CsvSheet sheet = CsvSheet.look(broken);
        // five lines of preamble, an empty one, the header: the broken record is on line 8
        assertThatThrownBy(() -> CsvLogReader.read(sheet, PlanSuggester.suggest(sheet)))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("starting at line 8");
    }
}
