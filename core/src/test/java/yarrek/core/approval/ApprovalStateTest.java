package yarrek.core.approval;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.EnumSet;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How a request comes on, and working days. */
class ApprovalStateTest {
    @ParameterizedTest
    @CsvSource({
        "PREPARING, GRANTED SENT WITHDRAWN",
        "SENT, ASKED_BACK GRANTED REFUSED WITHDRAWN",
        "ASKED_BACK, GRANTED REFUSED SENT WITHDRAWN",
        "GRANTED, AMENDED WITHDRAWN",
        "AMENDED, AMENDED WITHDRAWN",
        "REFUSED, PREPARING",
        "WITHDRAWN, PREPARING",
        "RUN_OUT, ''"
    })
    void eachStateLeadsToThese(ApprovalState from, String to) {
        Set<String> may = new TreeSet<>();
        for (ApprovalState s : ApprovalState.values()) {
            if (from.may(s)) {
                may.add(s.name());
            }
        }
        assertThat(String.join(" ", may)).isEqualTo(to);
    }

    /** Run out is what the days say of a grant; nobody moves a request there. */
    @Test
    void everyStateButRunOutCanBeReached() {
        Set<ApprovalState> reached = EnumSet.of(ApprovalState.PREPARING);
        for (int i = 0; i < ApprovalState.values().length; i++) {
            for (ApprovalState from : EnumSet.copyOf(reached)) {
                for (ApprovalState s : ApprovalState.values()) {
                    if (from.may(s)) {
                        reached.add(s);
                    }
                }
            }
        }
        assertThat(reached).isEqualTo(EnumSet.complementOf(EnumSet.of(ApprovalState.RUN_OUT)));
    }

    @Test
    void whatIsOutIsNotHeldAndOnlyWhatIsHeldIsFull() {
        for (ApprovalState s : ApprovalState.values()) {
            assertThat(s.isOut() && s.isHeld()).isFalse();
            assertThat(s.shape().equals("full")).isEqualTo(s.isHeld());
        }
    }

    // --- working days ------------------------------------------------------------------------------------------------

    /** 25 December 2026 is a Friday. */
    private static final WorkDays CHRISTMAS =
            new WorkDays(Set.of(LocalDate.of(2026, 12, 25), LocalDate.of(2026, 12, 28)));

    @ParameterizedTest
    @CsvSource({
        "2026-12-24, 0, 2026-12-24",
        "2026-12-24, 1, 2026-12-29",
        "2026-12-26, 1, 2026-12-29",
        "2026-12-23, 3, 2026-12-30"
    })
    void holidaysAndWeekendsAreLeftOut(LocalDate from, int days, LocalDate to) {
        assertThat(CHRISTMAS.after(from, days)).isEqualTo(to);
    }

    /** What is sent on the day counted back is there on the day it was counted from, and a day later it is not. */
    @Test
    void countingBackAndOnAgreesOnEveryDay() {
        Random random = new Random(3);
        for (int i = 0; i < 1000; i++) {
            LocalDate day = LocalDate.of(2026, 1, 1).plusDays(random.nextInt(800));
            int days = 1 + random.nextInt(40);
            LocalDate sent = CHRISTMAS.before(day, days);
            assertThat(CHRISTMAS.after(sent, days)).isBeforeOrEqualTo(day);
            assertThat(CHRISTMAS.after(CHRISTMAS.after(sent, 1), days)).isAfter(CHRISTMAS.onOrBefore(day));
            assertThat(CHRISTMAS.isWorkDay(CHRISTMAS.onOrAfter(day))).isTrue();
            assertThat(CHRISTMAS.onOrBefore(day)).isBeforeOrEqualTo(day);
        }
    }

    @Test
    void lessThanNoDaysAreRefused() {
        assertThatThrownBy(() -> CHRISTMAS.after(LocalDate.of(2026, 1, 1), -1)).hasMessageContaining("got -1");
        assertThatThrownBy(() -> Lead.ofDays(-1)).hasMessageContaining("0 days or more");
    }

    @Test
    void leadTimesSayThemselves() {
        assertThat(Lead.ofDays(1).words()).isEqualTo("1 day");
        assertThat(Lead.ofWorkDays(20).words()).isEqualTo("20 working days");
    }
}
