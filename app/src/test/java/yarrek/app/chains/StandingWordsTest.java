package yarrek.app.chains;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a request to be sent and a choice are said to be; what is not known is never said as if it were. */
class StandingWordsTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 12, 1);

    @ParameterizedTest
    @CsvSource({
        "2026-11-30, true,  false, notch, late",
        "2026-11-30, false, true,  notch, late",
        "2026-12-01, true,  false, cut,   to be sent",
        "2026-12-01, true,  true,  cut,   waits for another",
        "2026-12-02, false, true,  dots,  may be needed",
    })
    void aRequestToBeSent(LocalDate sendBy, boolean known, boolean waits, String shape, String says) {
        Chains.Due due = new Chains.Due(null, "", "", "", sendBy, known, waits);
        assertThat(due.shape(TODAY)).isEqualTo(shape);
        assertThat(due.says(TODAY)).isEqualTo(says);
    }

    @ParameterizedTest
    @CsvSource({
        "true,  0, '',        full,  in time",
        "true,  1, '',        dots,  'in time, if'",
        "false, 1, '',        notch, too late",
        "true,  0, a reserve, notch, no approval lifts it",
    })
    void anotherAircraftOrDay(boolean inTime, long notKnown, String nothing, String shape, String says) {
        Chains.Choice c = new Chains.Choice(
                "",
                null,
                TODAY,
                List.of(),
                1,
                TODAY,
                1,
                inTime,
                notKnown,
                nothing.isEmpty() ? List.of() : List.of(nothing));
        assertThat(c.shape()).isEqualTo(shape);
        assertThat(c.says()).isEqualTo(says);
    }
}
