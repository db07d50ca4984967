package yarrek.core.pack;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.pack.PackStanding.Keep;
import yarrek.core.pack.PackStanding.Limits;
import yarrek.core.pack.PackStanding.OnFile;

class PackStandingTest {
    private static final LocalDate DAY = LocalDate.of(2026, 12, 1);

    private static PackStanding of(double cycles, int without, LocalDate bought, LocalDate flown) {
        return PackStanding.of(new OnFile(cycles, without, bought, flown), DAY, Limits.HOUSE);
    }

    /** Each limit just before it, on it, and past it. */
    @ParameterizedTest
    @CsvSource({
        "199.9, 2026-01-01, 2026-11-20, IN_SERVICE",
        "200.0, 2026-01-01, 2026-11-20, WATCH",
        "399.9, 2026-01-01, 2026-11-20, WATCH",
        "400.0, 2026-01-01, 2026-11-20, RETIRE",
        "10.0, 2021-12-02, 2026-11-20, IN_SERVICE",
        "10.0, 2021-12-01, 2026-11-20, RETIRE",
        "10.0, 2026-01-01, 2026-10-03, IN_SERVICE",
        "10.0, 2026-01-01, 2026-10-02, EXERCISE",
        "0.0, 2026-10-03, , IN_SERVICE",
        "0.0, 2026-10-02, , EXERCISE",
        "10.0, , 2026-11-20, NOT_KNOWN",
        "450.0, , 2026-11-20, RETIRE"
    })
    void limits(double cycles, LocalDate bought, LocalDate flown, Keep keep) {
        assertThat(of(cycles, 0, bought, flown).keep()).isEqualTo(keep);
    }

    @Test
    void theMostPressingReasonStandsFirstAndTheOthersBesideIt() {
        PackStanding s = of(210, 0, LocalDate.of(2020, 2, 29), LocalDate.of(2026, 9, 1));
        assertThat(s.keep()).isEqualTo(Keep.RETIRE);
        assertThat(s.reasons())
                .isEqualTo(List.of(
                        "5 years old since 28 Feb 2025, the house's limit",
                        "210.0 cycles, watched from 200",
                        "not flown for 91 days; exercised every 60"));
    }

    /** A flight that says nothing of its charge may have drawn a full one: a count with such flights is never taken as low. */
    @Test
    void flightsWithoutAFigureAreNotTakenForNone() {
        assertThat(of(150, 49, DAY.minusYears(1), DAY).keep()).isEqualTo(Keep.IN_SERVICE);
        PackStanding s = of(150, 50, DAY.minusYears(1), DAY);
        assertThat(s.keep()).isEqualTo(Keep.NOT_KNOWN);
        assertThat(s.reasons().get(0)).startsWith("at least 150.0 cycles (50 flights without a figure)");
    }

    @Test
    void whatIsNotMeasuredIsSaid() {
        assertThat(of(3, 0, DAY.minusYears(1), DAY).reasons())
                .containsExactly("3.0 cycles, watched from 200; no measurement of its health");
    }
}
