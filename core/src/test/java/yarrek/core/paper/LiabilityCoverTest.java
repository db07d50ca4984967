package yarrek.core.paper;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A liability policy against the least amounts of the laws it counts under. */
class LiabilityCoverTest {
    private static final OptionalDouble NONE = OptionalDouble.empty();

    @ParameterizedTest(name = "{0} SDR of 750,000: {1}")
    @CsvSource({
        "749999.99, too little: EU asks for 750000 SDR",
        "750000, at least what the law asks",
        "1000000, at least what the law asks"
    })
    void theVeryAmountIsEnough(double amount, String says) {
        assertThat(LiabilityCover.of(Map.of("EU", OptionalDouble.of(750_000)), OptionalDouble.of(amount))
                        .says())
                .isEqualTo(says);
    }

    @Test
    void eachLawIsHeldAgainstItByItself() {
        Map<String, OptionalDouble> least = new LinkedHashMap<>();
        least.put("EU", OptionalDouble.of(750_000));
        least.put("US", NONE);
        least.put("CA", OptionalDouble.of(1_000_000));
        LiabilityCover c = LiabilityCover.of(least, OptionalDouble.of(800_000));
        assertThat(c.below()).containsExactly("CA asks for 1000000 SDR");
        assertThat(c.unknown()).isEmpty();
    }

    @Test
    void anUnknownAmountIsNotKnownToBeEnoughWhereALawAsksForOne() {
        LiabilityCover c = LiabilityCover.of(Map.of("EU", OptionalDouble.of(750_000)), NONE);
        assertThat(c.says()).isEqualTo("amount in SDR not known for EU");
        assertThat(LiabilityCover.of(Map.of("US", NONE), NONE).says()).isEmpty();
    }
}
