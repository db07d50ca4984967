package yarrek.core.time;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** In the Azores the clocks go on at 0:00 on 28 March 2027 and back at 1:00 on 31 October 2027. */
class LocalClockTest {
    private static final ZoneId AZORES = ZoneId.of("Atlantic/Azores");

    @ParameterizedTest
    @CsvSource({
        "2027-03-27T23:59, '', false",
        "2027-03-28T00:00, does not exist, true",
        "2027-03-28T00:59:59, does not exist, true",
        "2027-03-28T01:00, '', false",
        "2027-10-30T23:59, '', false",
        "2027-10-31T00:00, comes twice, false",
        "2027-10-31T00:59, comes twice, false",
        "2027-10-31T01:00, '', false",
        "2027-06-12T12:00, '', false"
    })
    void anHourThatIsSkippedOrComesTwiceIsNamed(LocalDateTime local, String fault, boolean skipped) {
        assertThat(LocalClock.fault(local, AZORES).orElse("")).endsWith(fault);
        assertThat(LocalClock.fault(local, AZORES).isPresent()).isEqualTo(!fault.isEmpty());
        assertThat(LocalClock.isSkipped(local, AZORES)).isEqualTo(skipped);
    }

    @Test
    void theTimeItselfIsSaid() {
        assertThat(LocalClock.fault(LocalDateTime.parse("2027-03-28T00:30"), AZORES))
                .contains("the clocks change that night and 00:30 does not exist");
    }

    @Test
    void whereTheClocksNeverChangeNothingIsWrong() {
        LocalDateTime t = LocalDateTime.parse("2027-01-01T00:00");
        for (int h = 0; h < 24 * 366; h++) {
            assertThat(LocalClock.fault(t.plusHours(h), ZoneOffset.UTC)).isEmpty();
        }
    }
}
