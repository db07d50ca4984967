package yarrek.core.units;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class NamedUnitTest {
    /** The double is the nearest there is, so that a figure times it never lands beside the exact product of a law. */
    @ParameterizedTest
    @EnumSource(NamedUnit.class)
    void theFactorIsTheNearestDouble(NamedUnit u) {
        double f = u.factor();
        BigDecimal off = new BigDecimal(f).subtract(u.exact()).abs();
        assertThat(new BigDecimal(Math.nextUp(f)).subtract(u.exact()).abs()).isGreaterThanOrEqualTo(off);
        assertThat(new BigDecimal(Math.nextDown(f)).subtract(u.exact()).abs()).isGreaterThanOrEqualTo(off);
    }
}
