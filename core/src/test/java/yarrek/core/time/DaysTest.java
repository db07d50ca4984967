package yarrek.core.time;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.time.Days.Counting;

class DaysTest {
    @ParameterizedTest
    @CsvSource({
        "2026-01-31, 1, SAME_DAY, 2026-02-28",
        "2028-01-31, 1, SAME_DAY, 2028-02-29",
        "2026-01-15, 24, SAME_DAY, 2028-01-15",
        "2026-01-01, 24, CALENDAR_MONTHS, 2028-01-31",
        "2026-01-31, 1, CALENDAR_MONTHS, 2026-02-28"
    })
    void monthsEndOnTheDayOfTheSameNumberOrWithTheMonth(LocalDate from, int months, Counting how, LocalDate last) {
        assertThat(Days.lastWithin(from, months, how)).isEqualTo(last);
    }

    @Test
    void severalDaysAreSaidByFirstAndLast() {
        LocalDate day = LocalDate.of(2026, 12, 1);
        assertThat(Days.show(day, day)).isEqualTo("1 Dec 2026");
        assertThat(Days.show(day, day.plusDays(31))).isEqualTo("1 Dec 2026 to 1 Jan 2027");
        assertThat(Days.show(day.plusDays(4), day.plusDays(6))).isEqualTo("5 to 7 Dec 2026");
        assertThat(Days.show(day.minusDays(2), day.plusDays(1))).isEqualTo("29 Nov to 2 Dec 2026");
    }

    @ParameterizedTest
    @CsvSource({
        "'ended 2025-12-31, not before', 'ended 31 Dec 2025, not before'",
        "'no day: 2026-02-30', 'no day: 2026-02-30'",
        "'order 12026-01-021', 'order 12026-01-021'",
        "'from 2026-03-01T10:00:11.700Z on', 'from 1 Mar 2026 10:00:11.700 UTC on'",
        "'2026-03-01T10:00Z', '1 Mar 2026 10:00 UTC'",
        "'', ''"
    })
    void daysInATextAreWorded(String text, String worded) {
        assertThat(Days.inWords(text)).isEqualTo(worded);
    }
}
