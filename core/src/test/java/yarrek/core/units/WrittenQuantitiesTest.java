package yarrek.core.units;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Quantities as people read them. */
class WrittenQuantitiesTest {
    @ParameterizedTest
    @CsvSource({
        "0, '0'",
        "9999, '9999'",
        "9999.5, '9999.5'",
        "10000, '10,000'",
        "12000.125, '12,000.125'",
        "1500000, '1,500,000'",
        "-25000, '-25,000'"
    })
    void thousandsStandApartFromTenThousandOn(double value, String written) {
        assertThat(Finite.words(value)).isEqualTo(written);
    }

    @ParameterizedTest
    @CsvSource({
        "923.4, 923.4 g",
        "9999.9, 9999.9 g",
        "10000, 10 kg",
        "25000, 25 kg",
        "12345.678, 12.3457 kg",
        "-10000, -10 kg"
    })
    void aMassFromTenKilogramsOnIsInKilogramsToTheTenthOfAGram(double grams, String written) {
        assertThat(Mass.ofGrams(grams)).hasToString(written);
    }
}
