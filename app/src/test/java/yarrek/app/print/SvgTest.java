package yarrek.app.print;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.NoSuchElementException;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.w3c.dom.Element;

class SvgTest {
    @Test
    void elementsStandInOneAnother() {
        assertThat(new Svg()
                        .open("g", "class", "a")
                        .draw("path", "d", Svg.path("M", 1.5, 2, "h12"))
                        .say("text", "N", "x", 4)
                        .close()
                        .written())
                .isEqualTo("<g class=\"a\"><path d=\"M 1.5 2 h12\"/><text x=\"4\">N</text></g>");
    }

    @Test
    void anAttributeWithoutAValueIsLeftOut() {
        assertThat(new Svg().draw("path", "stroke-dasharray", null, "d", "M0 0").written())
                .isEqualTo("<path d=\"M0 0\"/>");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "</text><script>alert(1)</script>",
                "\" onload=\"alert(1)",
                "Fish & Chips' <b>",
                "&lt;",
                "Þórshöfn – 東"
            })
    void whatIsWrittenComesBackAsItWas(String words) {
        Element e = Drawing.read(new Svg()
                        .open("svg", "aria-label", words)
                        .say("text", words)
                        .close()
                        .written())
                .root();
        assertThat(e.getAttribute("aria-label")).isEqualTo(words);
        assertThat(e.getTextContent()).isEqualTo(words);
        assertThat(e.getElementsByTagName("script").getLength()).isZero();
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0",
        "-0.0, 0",
        "1, 1",
        "1.005, 1",
        "1.015, 1.02",
        "-0.004, 0",
        "12.3456, 12.35",
        "1e7, 10000000",
        "100, 100"
    })
    void figuresHaveTwoDecimalsAtMostAndNoExponent(double d, String written) {
        assertThat(Svg.figure(d)).isEqualTo(written);
    }

    @Test
    void aFigureIsOffByHalfAHundredthAtMost() {
        Random r = new Random(7);
        for (int i = 0; i < 1000; i++) {
            double d = (r.nextDouble() - 0.5) * 1e5;
            assertThat(Math.abs(Double.parseDouble(Svg.figure(d)) - d)).isLessThanOrEqualTo(0.005 + 1e-9);
        }
    }

    @ParameterizedTest
    @ValueSource(doubles = {Double.NaN, Double.POSITIVE_INFINITY})
    void whatIsNoPlaceIsRefused(double d) {
        assertThatThrownBy(() -> Svg.figure(d)).hasMessageContaining("no place for");
    }

    @Test
    void whatIsNotClosedOrClosedTwiceIsRefused() {
        assertThatThrownBy(() -> new Svg().open("g").written()).hasMessage("still open: [g]");
        assertThatThrownBy(() -> new Svg().open("g").close().close()).isInstanceOf(NoSuchElementException.class);
        assertThatThrownBy(() -> new Svg().draw("g", "class")).hasMessageContaining("in pairs");
    }
}
