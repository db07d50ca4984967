package yarrek.core.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class CellsTest {
    @ParameterizedTest
    @CsvSource({
        "3.6, 1",
        "3.85, 1",
        "7.2, 2",
        "7.7, 2",
        "11.1, 3",
        "11.55, 3",
        "14.8, 4",
        "15.4, 4",
        "22.2, 6",
        "44.4, 12",
        "46.2, 12"
    })
    void printedVoltagesGiveTheirCells(double nominalV, int cells) {
        assertThat(Cells.inSeries(nominalV)).isEqualTo(cells);
    }

    /** Whatever the chemistry: so many cells of 3.6 to 3.85 V are told for that many, up to twelve. */
    @Test
    void everyLithiumCellIsTold() {
        for (int cells = 1; cells <= 12; cells++) {
            for (double v : new double[] {3.6, 3.7, 3.8, 3.85}) {
                assertThat(Cells.inSeries(cells * v)).isEqualTo(cells);
            }
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, -3.7, Double.NaN, 5000})
    void whatIsNoVoltageIsRefused(double v) {
        assertThatThrownBy(() -> Cells.inSeries(v)).isInstanceOf(IllegalArgumentException.class);
    }
}
