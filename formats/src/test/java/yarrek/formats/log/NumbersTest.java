package yarrek.formats.log;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Cells that are numbers, to the last bit, and cells that are none. */
class NumbersTest {
    private static final Pattern DECIMAL = Pattern.compile("[+-]?[0-9]{1,19}([.][0-9]{0,18})?([eE][+-]?[0-9]{1,2})?");

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "-",
                "+",
                ".",
                ".5",
                "-.5",
                "1,5",
                "1.5.2",
                "1e",
                "1e+",
                "1e123",
                "e5",
                "NaN",
                "Infinity",
                "0x10",
                "1 ",
                " 1",
                "1_000",
                "1f",
                "12d",
                "--1",
                "12345678901234567890",
                "1.1234567890123456789",
                "1e-+5",
                "\u0661"
            })
    void whatIsNoNumberIsNone(String cell) {
        assertThat(Numbers.parse(cell, false)).isNaN();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"1,5|1.5", "-0,25|-0.25", "7|7", "3,|3", "12345678901234567,25|12345678901234567.25"})
    void aCommaIsAPointWhereTheFileSaysSo(String cell, double value) {
        assertThat(Numbers.parse(cell, true)).isEqualTo(value);
    }

    @ParameterizedTest
    @ValueSource(strings = {"1.5", "1,5e3", ",5"})
    void otherwiseItIsNot(String cell) {
        assertThat(Numbers.parse(cell, true)).isNaN();
    }

    /** Every cell that the grammar takes is the double that the language's own reading gives, and no other is taken. */
    @Test
    void everyFigureIsExact() {
        Random random = new Random(5);
        String letters = "0123456789012345678901234567890123456789..-+eE,";
        for (int i = 0; i < 200_000; i++) {
            StringBuilder cell = new StringBuilder();
            int length = 1 + random.nextInt(i % 3 == 0 ? 40 : 12);
            for (int k = 0; k < length; k++) {
                cell.append(letters.charAt(random.nextInt(letters.length())));
            }
            String s = cell.toString();
            double expected = DECIMAL.matcher(s).matches() ? Double.parseDouble(s) : Double.NaN;
            if (Double.doubleToRawLongBits(Numbers.parse(s, false)) != Double.doubleToRawLongBits(expected)) {
                assertThat(Numbers.parse(s, false)).as(s).isEqualTo(expected);
            }
        }
    }
}
