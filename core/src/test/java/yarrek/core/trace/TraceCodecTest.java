package yarrek.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What is stored comes back. */
class TraceCodecTest {
    @Test
    void anyTraceComesBackToTheStepOfItsChannels() {
        Random random = new Random(5);
        for (int round = 0; round < 20; round++) {
            int n = random.nextInt(300);
            double[] t = new double[n];
            for (int i = 1; i < n; i++) {
                t[i] = t[i - 1] + random.nextInt(3000) / 10_000.0;
            }
            EnumMap<Channel, double[]> columns = new EnumMap<>(Channel.class);
            for (Channel c : Channel.values()) {
                if (random.nextBoolean()) {
                    double[] v = new double[n];
                    for (int i = 0; i < n; i++) {
                        v[i] = random.nextInt(9) == 0 ? Double.NaN : (random.nextDouble() - 0.5) * 360;
                    }
                    columns.put(c, v);
                }
            }
            Trace trace = new Trace(
                    Instant.parse("2026-09-14T09:12:30.123456Z"),
                    t,
                    columns,
                    List.of(new Trace.Message(0, "info", "Grüße =1+1")),
                    List.of(new Trace.ModeChange(0, "P")));
            Trace back = TraceCodec.decode(TraceCodec.encode(trace));
            assertThat(back.start()).isEqualTo(trace.start());
            assertThat(back.channels()).isEqualTo(trace.channels());
            assertThat(back.messages()).isEqualTo(trace.messages());
            assertThat(back.modes()).isEqualTo(trace.modes());
            for (Channel c : trace.channels()) {
                for (int i = 0; i < n; i++) {
                    double was = trace.at(c, i);
                    if (Double.isNaN(was)) {
                        assertThat(back.at(c, i)).isNaN();
                    } else {
                        assertThat(back.at(c, i)).isCloseTo(was, within(c.step() / 2 + 1e-12));
                    }
                }
            }
            for (int i = 0; i < n; i++) {
                assertThat(back.seconds()[i]).isCloseTo(t[i], within(1e-9));
            }
        }
    }

    @Test
    void otherBytesAreRefused() {
        assertThatThrownBy(() -> TraceCodec.decode(new byte[] {1, 2, 3, 4}))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("damaged");
    }

    @Test
    void fallingTimesAreNoTrace() {
        assertThatThrownBy(() -> new Trace(
                        Instant.EPOCH, new double[] {1, 0.5}, new EnumMap<>(Channel.class), List.of(), List.of()))
                .hasMessage("times must not fall, got 1.0 then 0.5");
    }
}
