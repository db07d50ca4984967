package yarrek.app.today;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TodayTest {
    private static final ZoneId AZORES = ZoneId.of("Atlantic/Azores");
    private static final LocalDate DAY = LocalDate.of(2026, 12, 1);

    private static Today.Item by(String instant, boolean late) {
        return new Today.Item(Instant.parse(instant), false, "cut", "", "", "", "", "renew", late);
    }

    /** The day is that of the operator's clock; what is over is late, also where nobody called it so. */
    @ParameterizedTest
    @CsvSource({
        "2026-12-01T10:00:00Z, false, TODAY",
        "2026-12-01T00:59:00Z, false, LATE",
        "2026-12-01T01:00:00Z, false, TODAY",
        "2026-12-02T00:59:00Z, true, TODAY",
        "2026-11-30T18:00:00Z, true, LATE",
        "2026-11-30T18:00:00Z, false, LATE",
        "2026-12-02T01:00:00Z, false, WEEK",
        "2026-12-09T00:59:00Z, false, WEEK",
        "2026-12-09T01:00:00Z, false, LATER"
    })
    void eachStandsInItsGroup(String instant, boolean late, Today.When when) {
        assertThat(by(instant, late).when(DAY, AZORES)).isEqualTo(when);
    }

    @Test
    void groupsThatAreEmptyAreLeftOutAndTheOthersKeepTheirOrder() {
        Today.Page page = new Today.Page(
                DAY,
                AZORES,
                List.of(
                        by("2026-12-20T10:00:00Z", false),
                        by("2026-11-01T10:00:00Z", true),
                        by("2026-12-01T10:00:00Z", false)),
                0,
                null,
                List.of());
        assertThat(page.groups().keySet()).containsExactly(Today.When.TODAY, Today.When.LATE, Today.When.LATER);
    }

    @Test
    void whoeverChangesNothingIsOnlyAskedToLook() {
        assertThat(by("2026-12-01T10:00:00Z", false).toLookAt().action()).isEqualTo("look");
    }
}
