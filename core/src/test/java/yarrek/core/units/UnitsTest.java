package yarrek.core.units;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.Vocabulary;

/** Quantities and the words for them. */
class UnitsTest {
    @ParameterizedTest
    @CsvSource({
        "12.5, 12.5",
        "0, 0",
        "-0.0, 0",
        "-3.1254, -3.125",
        "100, 100",
        "1e6, 1000000",
        "0.0004, 0",
        "0.0005, 0.001"
    })
    void figuresHaveThreePlacesAtMostAndNoTail(double value, String text) {
        assertThat(Finite.format(value)).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(doubles = {Double.NaN, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY})
    void whatIsNoFigureIsRefused(double v) {
        assertThatThrownBy(() -> Length.ofMetres(v))
                .hasMessageContaining("length must be a finite number of m, got " + v);
    }

    @Test
    void feetAndMetresGoThereAndBack() {
        assertThat(Length.ofFeet(400).toMetres()).isCloseTo(121.92, within(1e-12));
        for (double feet = -500; feet <= 500; feet += 12.5) {
            assertThat(Length.ofFeet(feet).toFeet()).isCloseTo(feet, within(1e-9));
        }
        assertThat(Length.ofMetres(-0.0)).isEqualTo(Length.ofMetres(0));
        assertThat(Length.ofMetres(2)).isGreaterThan(Length.ofMetres(1)).hasToString("2 m");
    }

    /** The unit stands last in the name of a quantity, so that nobody can mistake it. */
    @Test
    void everyFactSaysWhatItIsAndQuantitiesNameTheirUnit() {
        for (FactDefinition d : Vocabulary.all()) {
            assertThat(d.label()).as(d.name()).isNotBlank();
            assertThat(d.question()).as(d.name()).contains("?");
            assertThat(d.group()).as(d.name()).isNotBlank();
            assertThat(d.type() == FactType.QUANTITY)
                    .as(d.name())
                    .isEqualTo(!d.unit().isEmpty());
        }
        assertThat(Vocabulary.all())
                .filteredOn(d -> d.unit().equals("m"))
                .allMatch(d -> d.name().endsWith("M"));
        assertThatThrownBy(() -> Vocabulary.define("magic")).hasMessageContaining("no fact called 'magic'");
    }
}
