package yarrek.formats.log;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightSummary;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;
import yarrek.formats.csv.ColumnRole;
import yarrek.formats.csv.CsvLogReader;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.csv.ReadingPlan;
import yarrek.formats.gpx.GpxReader;

/** Files that once came in wrong, and their kin. */
class FoundLogsTest {
    private static List<FlightSummary> flights(Trace trace) {
        return FlightFinder.find(trace).stream()
                .map(s -> FlightSummary.of(trace, s))
                .toList();
    }

    private static LogReading csv(String text) throws Exception {
        CsvSheet sheet = CsvSheet.look(text.getBytes(StandardCharsets.UTF_8));
        return CsvLogReader.read(sheet, PlanSuggester.suggest(sheet));
    }

    private static ReadingPlan plan(String text) throws Exception {
        return PlanSuggester.suggest(CsvSheet.look(text.getBytes(StandardCharsets.UTF_8)));
    }

    // --- clocks ------------------------------------------------------------------------------------------------------

    @ParameterizedTest
    @ValueSource(strings = {"clock-one-point-2034.gpx", "clock-one-point-hour19.gpx"})
    void oneWrongDigitInOneTimeCostsOneRow(String name) throws Exception {
        LogReading reading = SampleLogsTest.read("found/" + name);
        assertThat(reading.problems()).hasSize(1);
        assertThat(reading.problems().get(0).line()).isPositive();
        assertThat(flights(reading.trace()))
                .singleElement()
                .satisfies(f -> assertThat(f.duration()).isLessThan(Duration.ofMinutes(4)));
        assertThat(reading.notes()).noneMatch(n -> n.contains("steps back"));
    }

    private static String rows(long... seconds) {
        StringBuilder s = new StringBuilder("utc,lat,lon,height_m\n");
        Instant start = Instant.parse("2026-05-10T10:00:00Z");
        for (int i = 0; i < seconds.length; i++) {
            s.append(String.format(
                    Locale.ROOT, "%s,46.6%05d,-17.9,%d%n", start.plusSeconds(seconds[i]), i, Math.min(i, 5)));
        }
        return s.toString();
    }

    @Test
    void rowsThatRunAheadAreLeftOutWhereverTheyStand() throws Exception {
        long year = 366L * 24 * 3600;
        for (long[] bad : List.of(
                new long[] {5000, 1, 2, 3, 4, 5, 6, 7, 8},
                new long[] {0, 1, 2, 5000, 4, 5, 6, 7, 8},
                new long[] {0, 1, 2, 5000, 6000, 5, 6, 7, 8},
                new long[] {0, 1, 2, 3, 4, 5, 6, 7, 5000},
                new long[] {0, 1, 2, 3, 4, 5, 6, -year, 8})) {
            LogReading reading = csv(rows(bad));
            Trace t = reading.trace();
            assertThat(t.seconds()[t.size() - 1])
                    .as(java.util.Arrays.toString(bad))
                    .isLessThanOrEqualTo(8);
            assertThat(t.size()).isGreaterThanOrEqualTo(7);
            assertThat(reading.problemCount()).isEqualTo(9 - t.size());
        }
    }

    @Test
    void timesThatNoFlightCanHaveAreRefusedWithTheirLine() {
        assertThatThrownBy(() -> csv(rows(4_000_000_000L, 4_000_000_001L, 4_000_000_002L)))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("line 2")
                .hasMessageContaining("from the year 2000 to tomorrow");
    }

    // --- places ------------------------------------------------------------------------------------------------------

    @Test
    void theHundredAndEightiethMeridianIsNoJump() throws Exception {
        LogReading gpx = SampleLogsTest.read("found/antimeridian.gpx");
        assertThat(gpx.notes()).noneMatch(n -> n.contains("jump"));
        assertThat(flights(gpx.trace()).get(0).greatestDistanceM().orElseThrow())
                .isCloseTo(143.3, within(1.0));
        LogReading hover = SampleLogsTest.read("found/antimeridian-hover.csv");
        assertThat(flights(hover.trace()))
                .singleElement()
                .satisfies(f -> assertThat(f.endsInTheAir()).isFalse());
    }

    @Test
    void aPositionThatLeapsAwayAndBackIsLeftOutAndTold() throws Exception {
        StringBuilder s = new StringBuilder("utc,lat,lon,height_m\n");
        Instant start = Instant.parse("2026-05-10T10:00:00Z");
        for (int i = 0; i < 60; i++) {
            double lat = 46.6 + 1e-5 * i + (i == 30 || i == 31 ? 0.1 : 0);
            int height = Math.max(0, Math.min(20, Math.min(2 * (i - 10), 2 * (50 - i))));
            s.append(String.format(Locale.ROOT, "%s,%.7f,-17.9,%d%n", start.plusSeconds(i), lat, height));
        }
        LogReading reading = csv(s.toString());
        assertThat(reading.notes())
                .anyMatch(n -> n.contains("2 positions leap away and back") && n.contains("line 32"));
        assertThat(reading.trace().at(Channel.LATITUDE_DEG, 30)).isNaN();
        assertThat(flights(reading.trace()).get(0).pathM()).isLessThan(70);
    }

    @Test
    void rowsThatAreNotThereAreTold() throws Exception {
        assertThat(csv(rows(0, 1, 2, 3, 9, 10, 11, 12, 13)).notes())
                .anyMatch(n -> n.equals(
                        "the log has no rows for 6.0 s from 2026-05-10 10:00:03Z; what happened there is not known"));
        assertThat(csv(rows(0, 1, 2, 3, 8, 9, 10)).notes()).noneMatch(n -> n.contains("no rows"));
    }

    // --- columns -----------------------------------------------------------------------------------------------------

    @Test
    void heightAboveGroundInFeetIsReadAndWhatIsNotReadIsNamed() throws Exception {
        LogReading reading = SampleLogsTest.read("found/delta-agl-ft.tsv");
        assertThat(flights(reading.trace()).get(0).greatestHeightM()).isPresent();
        assertThat(reading.trace().has(Channel.CLIMB_MPS)).isTrue();
        assertThat(csv("utc,lat,lon,height_m,mystery,remark\n"
                                + "2026-05-10T10:00:00Z,46.6,-17.9,1,3.5,none\n".repeat(3))
                        .notes())
                .contains("one column with figures is not read: 'mystery'");
    }

    @ParameterizedTest
    @CsvSource({
        "agl_ft, HEIGHT_ABOVE_TAKEOFF, FEET",
        "AGL [m], HEIGHT_ABOVE_TAKEOFF, METRES",
        "vs_fpm, CLIMB, FEET_PER_MINUTE",
        "vs (ft/min), CLIMB, FEET_PER_MINUTE",
        "speed m/s, GROUND_SPEED, METRES_PER_SECOND",
        "gs_kt, GROUND_SPEED, KNOTS",
        "ground speed km/h, GROUND_SPEED, KILOMETRES_PER_HOUR",
        "alt_msl_m, ALTITUDE_MSL, METRES",
    })
    void unitsGoByTheirCommonNames(String header, ColumnRole role, yarrek.formats.csv.Unit unit) throws Exception {
        var column = plan("utc,lat,lon," + header
                        + "\n2026-05-10T10:00:00Z,46.6,-17.9,12\n2026-05-10T10:00:01Z,46.6,-17.9,13\n")
                .columns()
                .get(3);
        assertThat(column.role()).isEqualTo(role);
        assertThat(column.unit()).isEqualTo(unit);
        assertThat(column.assumed()).isFalse();
    }

    // --- days --------------------------------------------------------------------------------------------------------

    @Test
    void aMomentAboveTheHeaderIsTheStartOnlyWhereTheLineSaysSo() throws Exception {
        assertThatThrownBy(() -> SampleLogsTest.read("found/elapsed-exported.csv"))
                .hasMessageContaining("say when it started");
        String table = "elapsed_s,lat,lon,height_m\n0,46.6,-17.9,0\n1,46.6,-17.9,0\n";
        Instant said = Instant.parse("2024-05-14T09:12:00Z");
        assertThat(plan("Exported 2024-05-20T18:30:00Z\nStart: 2024-05-14T09:12:00Z\n" + table)
                        .start())
                .contains(said);
        assertThat(plan("started 2024-05-14 09:12:00Z, exported 2024-05-20 18:30:00Z\n" + table)
                        .start())
                .contains(said);
        assertThat(plan("2024-05-14T09:12:00Z\n" + table).start()).isEmpty();
        assertThat(plan("firmware built 2024-05-14T09:12:00Z\n" + table).start())
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "03/04/2026, NOT_SAID",
        "13/04/2026, DAY_MONTH_YEAR",
        "03/14/2026, MONTH_DAY_YEAR",
        "03.04.2026, DAY_MONTH_YEAR",
        "04/04/2026, DAY_MONTH_YEAR",
        "2026-04-03, YEAR_MONTH_DAY",
    })
    void theOrderOfDayAndMonthIsAskedWhereItCanBeBoth(String date, ReadingPlan.DateOrder order) throws Exception {
        ReadingPlan plan = plan("date,utc time,lat,lon\n" + (date + ",10:00:00,46.6,-17.9\n").repeat(3));
        assertThat(plan.dateOrder()).isEqualTo(order);
        assertThat(plan.gaps()).hasSize(order == ReadingPlan.DateOrder.NOT_SAID ? 1 : 0);
    }

    // --- what is no log ----------------------------------------------------------------------------------------------

    @Test
    void otherFilesAreCalledByTheirName() {
        assertThatThrownBy(() -> csv(
                        "{\"type\":\"Feature\",\"geometry\":{\"type\":\"LineString\",\"coordinates\":[[1,2],[3,4]]}}"))
                .hasMessageContaining("GeoJSON");
        assertThatThrownBy(() -> GpxReader.read(
                        "<kml xmlns=\"http://www.opengis.net/kml/2.2\"/>".getBytes(StandardCharsets.UTF_8)))
                .hasMessageContaining("KML");
        assertThatThrownBy(() -> csv("utc,lat,lon,height_m\n")).hasMessageContaining("no whole row");
    }

    @Test
    void zeroBytesInTextAreToldWhereverTheyStand() throws Exception {
        assertThat(SampleLogsTest.read("found/nul-alpha.csv").notes()).anyMatch(n -> n.contains("zero byte"));
        String text = rows(0, 1, 2, 3, 4, 5, 6, 7, 8).replace("00:04Z,46.600004", "00:04Z,46.60\000004");
        LogReading early = csv(text);
        assertThat(early.notes()).anyMatch(n -> n.contains("zero byte") && n.contains("line 6"));
        assertThat(early.problemCount()).isEqualTo(1);
        assertThatThrownBy(() -> csv("\0\0\0,\0\0,\0\0\n".repeat(20))).hasMessageContaining("not text");
    }

    @Test
    void aBadByteBehindAByteOrderMarkCostsItsCharacterOnly() throws Exception {
        byte[] good = ("\uFEFF" + rows(0, 1, 2, 3, 4, 5)).getBytes(StandardCharsets.UTF_8);
        byte[] bad = good.clone();
        bad[good.length - 2] = (byte) 0xFF;
        CsvSheet sheet = CsvSheet.look(bad);
        LogReading reading = CsvLogReader.read(sheet, PlanSuggester.suggest(sheet));
        assertThat(reading.trace().size()).isEqualTo(6);
        assertThat(reading.notes()).anyMatch(n -> n.contains("holds bytes that are not"));
    }
}
