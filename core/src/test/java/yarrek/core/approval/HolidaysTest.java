package yarrek.core.approval;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Days on which nobody decides anything. */
class HolidaysTest {
    /** From the printed tables of Easter. */
    @ParameterizedTest
    @CsvSource({
        "1961, 1961-04-02",
        "2000, 2000-04-23",
        "2025, 2025-04-20",
        "2026, 2026-04-05",
        "2027, 2027-03-28",
        "2038, 2038-04-25"
    })
    void easterFallsAsTheTablesHaveIt(int year, LocalDate sunday) {
        assertThat(Holidays.easter(year)).isEqualTo(sunday);
    }

    @ParameterizedTest
    @CsvSource({
        "12-25 Christmas, 2026-12-25",
        "easter+1 Easter Monday, 2026-04-06",
        "easter-2, 2026-04-03",
        "09-mon-1 first Monday, 2026-09-07",
        "05-mon-last, 2026-05-25",
        "11-thu-4, 2026-11-26",
        "2026-04-30 bridge day, 2026-04-30"
    })
    void eachWayOfWritingNamesItsDay(String line, LocalDate day) {
        assertThat(Holidays.of(line, 2026, 2026)).containsExactly(day);
    }

    @Test
    void aSpanOfYearsHasEachYearlyDayInEach() {
        assertThat(Holidays.of("01-01\n\n12-25\n2027-04-30", 2026, 2028)).hasSize(7);
        assertThat(Holidays.of("2025-04-30", 2026, 2028)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"Christmas", "13-01", "02-31", "05-xyz-1", "05-mon-0", "2026-13-01", "easter", "12-25Christmas"})
    void whatIsNoHolidayIsRefusedWithItsLine(String line) {
        assertThatThrownBy(() -> Holidays.of("01-01\n" + line, 2026, 2026))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("line 2")
                .hasMessageContaining("easter+1");
    }
}
