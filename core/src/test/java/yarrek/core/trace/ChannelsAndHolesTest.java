package yarrek.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class ChannelsAndHolesTest {
    private static final double NONE = Double.NaN;

    private static Trace at(double... seconds) {
        return new Trace(Instant.EPOCH, seconds, Map.of(), List.of(), List.of());
    }

    @Test
    void motorsAreCountedFromOne() {
        assertThat(Channel.motorPct(1)).isEqualTo(Channel.MOTOR_1_PCT);
        assertThat(Channel.motorPct(8)).isEqualTo(Channel.MOTOR_8_PCT);
        assertThat(Channel.motorRpm(3)).isEqualTo(Channel.MOTOR_3_RPM);
        assertThatThrownBy(() -> Channel.motorPct(0)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Channel.motorRpm(9)).hasMessageContaining("1 to 8, got 9");
        assertThat(Channel.MOTOR_1_PCT.isCell()).isFalse();
    }

    @Test
    void betweenTwoSamplesLiesTheStraightLine() {
        double[] b = at(0, 1, 2, 4).bridged(new double[] {10, NONE, NONE, 18});
        assertThat(b).containsExactly(10, 12, 14, 18);
    }

    @Test
    void aHoleStaysAndSoDoesWhatLiesBeforeAndBehind() {
        assertThat(at(0, 2.5, 5).bridged(new double[] {0, NONE, 10})[1]).isCloseTo(5, within(1e-9));
        assertThat(at(0, 2.5, 5.001).bridged(new double[] {0, NONE, 10})[1]).isNaN();
        double[] ends = at(0, 1, 2).bridged(new double[] {NONE, 7, NONE});
        assertThat(ends[0]).isNaN();
        assertThat(ends[2]).isNaN();
    }

    @Test
    void whatIsThereIsNotChanged() {
        double[] column = {1, NONE, 3};
        at(0, 0, 0).bridged(column);
        assertThat(column[1]).isNaN();
    }
}
