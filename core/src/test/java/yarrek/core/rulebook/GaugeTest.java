package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GaugeTest {
    /** A figure is no finer than it is known, and rounding never takes it to the limit or over it. */
    @ParameterizedTest
    @CsvSource({
        "128.1, 9, 128 ± 9 m, 8 m beyond",
        "128.1, 0.5, 128.1 ± 0.5 m, 8.1 m beyond",
        "128.1, 0, 128.1 m, 8.1 m beyond",
        "120.4, 9, 120.4 ± 9 m, 0.4 m beyond",
        "119.6, 9, 119.6 ± 9 m, 0.4 m left",
        "120, 9, 120 ± 9 m, exactly on the limit",
        "70.1, 18.5, 70 ± 18.5 m, 50 m left"
    })
    void aFigureIsNoFinerThanItIsKnown(double value, double uncertainty, String shown, String margin) {
        Gauge g = new Gauge("heightAboveSurfaceM", "m", value, uncertainty, value, value, 120, Bound.AT_MOST, "");
        assertThat(g.valueText()).isEqualTo(shown);
        assertThat(g.marginText()).isEqualTo(margin);
    }
}
