package yarrek.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.trace.Channel;
import yarrek.formats.log.LogReading;

/** Suggested meanings and units, and what is asked when a file does not say. */
class ReadingPlanTest {
    private static CsvSheet sheet(String text) throws Exception {
        return CsvSheet.look(text.getBytes(StandardCharsets.UTF_8));
    }

    @ParameterizedTest(name = "{0} with {1}: {2} in {3}")
    @CsvSource({
        "height_m, 12.0, HEIGHT_ABOVE_TAKEOFF, METRES, false",
        "Height above takeoff (ft), 12.0, HEIGHT_ABOVE_TAKEOFF, FEET, false",
        "height, 12.0, HEIGHT_ABOVE_TAKEOFF, METRES, true",
        "Altitude MSL (ft), 1351.7, ALTITUDE_MSL, FEET, false",
        "Höhe ü. M. [m], 412, ALTITUDE_MSL, METRES, false",
        "altitude, 0.1, HEIGHT_ABOVE_TAKEOFF, METRES, true",
        "altitude, 412, ALTITUDE_MSL, METRES, true",
        "speed_ms, 3.0, GROUND_SPEED, METRES_PER_SECOND, false",
        "Geschwindigkeit [km/h], 3, GROUND_SPEED, KILOMETRES_PER_HOUR, false",
        "Battery voltage (mV), 16570, VOLTAGE, MILLIVOLTS, false",
        "battery_v, 16.5, VOLTAGE, VOLTS, false",
        "battery_a, 0.5, CURRENT, AMPERES, false",
        "battery_pct, 98, BATTERY_PCT, PERCENT, false",
        "used_mah, 12, CHARGE_USED, MILLIAMPERE_HOURS, false",
        "cell3_v, 4.1, CELL, VOLTS, false",
        "Zelle 2 [V], 4.1, CELL, VOLTS, false",
        "wind_from_deg, 180, WIND_FROM, DEGREES, false",
        "Air temperature (F), 56.1, AIR_TEMPERATURE, FAHRENHEIT, false",
        "lat, 466050979, LATITUDE, DEGREES_E7, false",
        "gimbal_tilt, 3, IGNORE, TEXT, false"
    })
    void headersAndFiguresSuggestMeaningAndUnit(
            String header, String value, ColumnRole role, Unit unit, boolean guessed) throws Exception {
        CsvSheet sheet =
                sheet("time_ms;" + header + ";x\n1789554000000;" + value + ";1\n1789554000100;" + value + ";2\n");
        ColumnPlan plan = PlanSuggester.suggest(sheet).columns().get(1);
        assertThat(plan.role()).isEqualTo(role);
        assertThat(plan.unit()).isEqualTo(unit);
        assertThat(plan.assumed()).isEqualTo(guessed);
    }

    @Test
    void aTimeWithoutAZoneIsAskedForAndNeverTakenAsUtc() throws Exception {
        CsvSheet sheet = sheet("time,lat,lon\n2026-09-16 10:20:00,46.6,-17.9\n2026-09-16 10:20:01,46.6,-17.9\n");
        ReadingPlan plan = PlanSuggester.suggest(sheet);
        assertThat(plan.gaps()).containsExactly("times carry no zone: say in which time zone they are");
        ReadingPlan said = new ReadingPlan(
                plan.columns(),
                plan.decimalComma(),
                Optional.of(ZoneId.of("Atlantic/Azores")),
                plan.dateOrder(),
                plan.start());
        assertThat(CsvLogReader.read(sheet, said).trace().start()).isEqualTo(Instant.parse("2026-09-16T10:20:00Z"));
    }

    @Test
    void elapsedTimesNeedAStart() throws Exception {
        ReadingPlan plan = PlanSuggester.suggest(sheet("elapsed_s,lat,lon\n0.0,46.6,-17.9\n0.2,46.6,-17.9\n"));
        assertThat(plan.gaps()).containsExactly("times count from the start of the log: say when it started (UTC)");
    }

    @Test
    void aMonthFirstDateIsTakenWhenADayOverTwelveShowsIt() throws Exception {
        ReadingPlan plan = PlanSuggester.suggest(
                sheet("date,time,lat,lon\n09/16/2026,10:20:00,46.6,-17.9\n09/17/2026,10:20:01,46.6,-17.9\n"));
        assertThat(plan.dateOrder()).isEqualTo(ReadingPlan.DateOrder.MONTH_DAY_YEAR);
    }

    @Test
    void badCellsAreToldWithLineAndColumnAndLeftOut() throws Exception {
        CsvSheet sheet = sheet(
                "time_ms,lat,lon,height_m\n1789554000000,46.6,-17.9,12abc\n1789554000100,46.6,-17.9,1.5\n1789554000200,95,-17.9,2\n");
        LogReading reading = CsvLogReader.read(sheet, PlanSuggester.suggest(sheet));
        assertThat(reading.problems()).hasSize(2);
        assertThat(reading.problems().get(0).sentence())
                .isEqualTo("line 2 [height_m]: found \"12abc\"; a number in m, such as 12.5; the cell is left out");
        assertThat(reading.problems().get(1).sentence())
                .startsWith("line 4 [position]: found \"95.0, -17.9\"; degrees north -90 to 90");
        assertThat(reading.trace().column(Channel.HEIGHT_ABOVE_TAKEOFF_M)[0]).isNaN();
        assertThat(reading.trace().column(Channel.HEIGHT_ABOVE_TAKEOFF_M)[1]).isCloseTo(1.5, within(1e-12));
    }

    @ParameterizedTest
    @CsvSource({
        "FEET, 100, 30.48",
        "KNOTS, 10, 5.144444",
        "MILES_PER_HOUR, 10, 4.4704",
        "FAHRENHEIT, 50, 10",
        "STICK_MICROSECONDS, 1500, 0",
        "FRACTION, 0.98, 98"
    })
    void unitsConvertExactly(Unit unit, double value, double si) {
        assertThat(unit.convert(value)).isCloseTo(si, within(1e-6));
    }
}
