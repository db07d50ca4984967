package yarrek.core.approval;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
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
        "2026-04-30 bridge day, 2026-04-30",
        "06-20+sat Midsummer Day, 2026-06-20",
        "06-19+fri Midsummer Eve, 2026-06-19",
        "05-24-mon Victoria Day, 2026-05-18",
        "04-27 else 04-26 if sun King's Day, 2026-04-27",
        "02-mon-1 else 02-01 if fri Saint Brigid, 2026-02-02",
        "10-04 from 2026 Saint Francis, 2026-10-04"
    })
    void eachWayOfWritingNamesItsDay(String line, LocalDate day) {
        assertThat(Holidays.of(line, 2026, 2026)).containsExactly(day);
    }

    /** Each form in a year in which it does what the plain form does not. */
    @ParameterizedTest
    @CsvSource({
        "04-27 else 04-26 if sun, 2031, 2031-04-26",
        "02-mon-1 else 02-01 if fri, 2030, 2030-02-01",
        "03-17 lieu, 2029, 2029-03-17 2029-03-19",
        "03-17 lieu mon, 2030, 2030-03-17 2030-03-18",
        "12-26 lieu Boxing Day, 2026, 2026-12-26 2026-12-28",
        "07-04 observed, 2026, 2026-07-03 2026-07-04",
        "07-04 observed, 2027, 2027-07-04 2027-07-05",
        // New Year 2028 is a Saturday: what is observed lies in the year before
        "01-01 observed, 2027, 2027-01-01 2027-12-31",
        "10-04 from 2026, 2025, ''",
        "12-24 to 2026, 2027, ''",
        // a month without a fifth Monday has none
        "09-mon-5, 2026, ''",
        "08-mon-5, 2026, 2026-08-31"
    })
    void whatMovesIsMoved(String line, int year, String days) {
        assertThat(Holidays.of(line, year, year).stream()
                        .map(LocalDate::toString)
                        .toList())
                .isEqualTo(days.isEmpty() ? List.of() : List.of(days.split(" ")));
    }

    @Test
    void substitutesNeverFallOnAnotherHoliday() {
        assertThat(Holidays.named("12-25 lieu Christmas\n12-26 lieu Boxing Day", 2027))
                .containsExactly(
                        "2027-12-25 Christmas",
                        "2027-12-26 Boxing Day",
                        "2027-12-27 in lieu of Christmas",
                        "2027-12-28 in lieu of Boxing Day");
        // a Sunday with the Monday taken: the Tuesday
        assertThat(Holidays.of("12-25 lieu\n12-26 lieu", 2033, 2033))
                .containsExactly(LocalDate.of(2033, 12, 25), LocalDate.of(2033, 12, 26), LocalDate.of(2033, 12, 27));
    }

    @Test
    void aSpanOfYearsHasEachYearlyDayInEach() {
        assertThat(Holidays.of("01-01\n\n12-25\n2027-04-30", 2026, 2028)).hasSize(7);
        assertThat(Holidays.of("2025-04-30", 2026, 2028)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Christmas",
                "13-01",
                "02-31",
                "05-xyz-1",
                "05-mon-0",
                "2026-13-01",
                "easter",
                "12-25Christmas",
                "06-20+xyz",
                "02-30+sat",
                "04-27 else 04-31 if sun"
            })
    void whatIsNoHolidayIsRefusedWithItsLine(String line) {
        assertThatThrownBy(() -> Holidays.of("01-01\n" + line, 2026, 2026))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("line 2")
                .hasMessageContaining("easter+1");
    }
}
