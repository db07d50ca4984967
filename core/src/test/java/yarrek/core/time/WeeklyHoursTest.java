package yarrek.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDateTime;
import java.time.ZoneId;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Hours of the week: ends included, over midnight, around clock changes. */
class WeeklyHoursTest {
    private static final ZoneId HOME = ZoneId.of("Atlantic/Azores");

    private static TimeWindow window(String from, String to) {
        return new TimeWindow(
                LocalDateTime.parse(from).atZone(HOME).toInstant(),
                LocalDateTime.parse(to).atZone(HOME).toInstant());
    }

    // 15 March 2027 is a Monday; the clocks go forward on Sunday 28 March at 0:00
    @ParameterizedTest(name = "{0}: {1} to {2} is outside for {3} min")
    @CsvSource({
        "mon-fri 08:00-18:00, 2027-03-15T08:00, 2027-03-15T18:00, 0",
        "mon-fri 08:00-18:00, 2027-03-15T07:59, 2027-03-15T18:00, 1",
        "mon-fri 08:00-18:00, 2027-03-15T08:00, 2027-03-15T18:30, 30",
        "mon-fri 08:00-18:00, 2027-03-20T10:00, 2027-03-20T11:00, 60",
        "mon-fri 8:00-18:00; sat 9:00-12:00, 2027-03-20T10:00, 2027-03-20T11:00, 0",
        "fri-mon 20:00-02:00, 2027-03-15T23:00, 2027-03-16T02:00, 0",
        "fri-mon 20:00-02:00, 2027-03-15T23:00, 2027-03-16T02:10, 10",
        "'mon,wed 08:00-10:00', 2027-03-16T08:00, 2027-03-16T09:00, 60",
        "daily 00:00-00:00, 2027-03-15T00:00, 2027-03-18T00:00, 0",
        "sat 22:00-02:00, 2027-03-27T22:00, 2027-03-28T02:00, 0",
        "'', 2027-03-15T08:00, 2027-03-15T09:00, 60"
    })
    void minutesOutsideAreCountedInTheTimeOfThePlace(String hours, String from, String to, double minutes) {
        assertThat(WeeklyHours.parse(hours).minutesOutside(window(from, to), HOME))
                .isEqualTo(minutes);
        assertThat(WeeklyHours.parse(hours).covers(window(from, to), HOME)).isEqualTo(minutes == 0);
    }

    @ParameterizedTest
    @ValueSource(strings = {"weekdays 8-18", "mon 8", "mon-fun 08:00-18:00", "mon 25:00-26:00", "08:00-18:00"})
    void whatIsNoHoursIsRefusedWithWhatIs(String text) {
        assertThatThrownBy(() -> WeeklyHours.parse(text)).hasMessageContaining("mon-fri 08:00-18:00");
    }
}
