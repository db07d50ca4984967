package yarrek.core.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Shapes as they are typed. */
class ShapeTextTest {
    private static final String SQUARE = "46.60, -17.90; 46.60, -17.89; 46.61, -17.89; 46.61, -17.90";

    @Test
    void cornersMayStandOnLinesOrBetweenSemicolonsInAnyNotation() {
        Area lines = ShapeText.area("46.60, -17.90\nN46 36 W017 53.4\n46°36'36\"N 17°53'24\"W\n46.61, -17.90\n");
        assertThat(lines.figures().areaM2())
                .isCloseTo(ShapeText.area(SQUARE).figures().areaM2(), within(1e-3));
    }

    @Test
    void piecesHolesAndCirclesAreTold() {
        Area a = ShapeText.area(SQUARE
                + "\n\nhole: 46.603, -17.896; 46.603, -17.894; 46.605, -17.895\n\ncircle 46.65, -17.9 radius 0,2 km");
        assertThat(a.patches()).hasSize(2);
        assertThat(a.patches().get(0).holes()).hasSize(1);
        assertThat(a.patches().get(1).outline()).hasSize(72);
    }

    /** Browsers send line ends as carriage return and line feed: one such is one line end, not an empty line. */
    @Test
    void lineEndsOfFormsAreOneLineEnd() {
        String typed =
                SQUARE.replace("; ", "\r\n") + "\r\n\r\nhole 46.603, -17.896\r\n46.603, -17.894\r\n46.605, -17.895";
        Area a = ShapeText.area(typed);
        assertThat(a.patches()).hasSize(1);
        assertThat(a.patches().get(0).holes()).hasSize(1);
    }

    @Test
    void whatIsWrittenIsReadBack() {
        Area a = ShapeText.area(
                SQUARE
                        + "\n\nhole 46.603, -17.896; 46.603, -17.894; 46.605, -17.895\n\n46.62, -17.9; 46.62, -17.89; 46.63, -17.89");
        assertThat(ShapeText.write(ShapeText.area(ShapeText.write(a)))).isEqualTo(ShapeText.write(a));
        for (String s : new String[] {"46.6, -17.9", SQUARE, "area " + SQUARE}) {
            ShapeText.Shape shape = ShapeText.shape(s);
            assertThat(ShapeText.shape(ShapeText.write(shape)).points()).isEqualTo(shape.points());
            assertThat(ShapeText.shape(ShapeText.write(shape)).area().isPresent())
                    .isEqualTo(shape.area().isPresent());
        }
    }

    @Test
    void theFirstWordTellsAnAreaFromALine() {
        assertThat(ShapeText.shape(SQUARE).area()).isEmpty();
        assertThat(ShapeText.shape("Area " + SQUARE).area()).isPresent();
        assertThat(ShapeText.shape("circle 46.6, -17.9 radius 50 m").area()).isPresent();
        assertThat(ShapeText.shape("line " + SQUARE).points()).hasSize(4);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "46.6, -17.9; nowhere|corner 2: “nowhere” is not a position",
                "''|a position is needed",
                "area 46.6, -17.9; 46.7, -17.9|at least three different corners, got 2",
                "area hole 46.6, -17.9|a hole needs the area before it",
                "circle 46.6, -17.9 radius 0 m|radius above 0 m"
            })
    void faultsNameTheCorner(String text, String told) {
        assertThatThrownBy(() -> ShapeText.shape(text)).hasMessageContaining(told);
    }
}
