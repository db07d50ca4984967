package yarrek.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import yarrek.core.approval.ChainPlan;

class PatienceTest {
    @AfterEach
    void patient() {
        assertThat(Thread.interrupted()).as("the interruption stands").isTrue();
    }

    @Test
    void whoeverGaveUpEndsTheWork() {
        assertThatCode(Patience::ask).doesNotThrowAnyException();
        Thread.currentThread().interrupt();
        assertThatThrownBy(Patience::ask)
                .isInstanceOf(Patience.GivenUpException.class)
                .hasMessage("it took too long and was ended");
    }

    @Test
    void aChainIsNotPlannedForNobody() {
        Thread.currentThread().interrupt();
        assertThatThrownBy(() -> ChainPlan.of(List.of(), null)).isInstanceOf(Patience.GivenUpException.class);
    }
}
