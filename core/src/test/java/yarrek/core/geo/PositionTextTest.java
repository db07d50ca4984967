package yarrek.core.geo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Positions however they are written. */
class PositionTextTest {
    /** All of these are 46°35'15"N 17°56'06"W. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "46.5875, -17.935",
                "46.5875 -17.935",
                "46,5875; -17,935",
                "46.5875N 17.935W",
                "N46.5875 W17.935",
                "W17.935 N46.5875",
                "17.935W, 46.5875N",
                "46.5875° N, 17.935° W",
                "46°35'15\"N 17°56'06\"W",
                "46° 35′ 15″ N, 17° 56′ 6″ W",
                "46 35 15 N 017 56 06 W",
                "46:35:15N 017:56:06W",
                "N46 35.25 W017 56.1",
                "46 35.25 -17 56.1",
                "46°35.25'N, 17°56.1'W",
                "463515N0175606W",
                "4635.25N01756.10W",
                "463515N 0175606W",
                "n46 35 15 w017 56 06",
                "46.5875, −17.935"
            })
    void everyUsualWritingIsRead(String typed) {
        Position p = PositionText.parse(typed);
        assertThat(p.latitudeDeg()).isCloseTo(46.5875, within(1e-9));
        assertThat(p.longitudeDeg()).isCloseTo(-17.935, within(1e-9));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "46.5",
                "here",
                "46, 17, 12",
                "46 60 0 N 17 0 0 W",
                "46.5N 17.9N",
                "-46.5N 17.9W",
                "46.5.1, 17",
                "1e2, 17",
                "NaN, 17",
                "46 35.5 15 N 17 W",
                "46.5N 17.9"
            })
    void whatIsNoPositionIsRefusedInWords(String typed) {
        assertThatThrownBy(() -> PositionText.parse(typed))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("“");
    }

    @Test
    void swappedCoordinatesAreSuspected() {
        assertThatThrownBy(() -> PositionText.parse("117.9, 46.6")).hasMessageContaining("perhaps the two are swapped");
    }

    @Test
    void theLetterOIsEastForSomeAndWestForOthers() {
        assertThatThrownBy(() -> PositionText.parse("46.6N 17.9O")).hasMessageContaining("use E or W");
    }

    @ParameterizedTest
    @EnumSource(PositionText.Notation.class)
    void whatIsWrittenIsReadBack(PositionText.Notation n) {
        double tolerance =
                n == PositionText.Notation.DECIMAL ? 6e-7 : n == PositionText.Notation.MINUTES ? 9e-6 : 1.5e-5;
        Random random = new Random(4);
        for (int i = 0; i < 500; i++) {
            Position p = new Position(random.nextDouble() * 180 - 90, random.nextDouble() * 360 - 180);
            Position back = PositionText.parse(PositionText.format(p, n));
            assertThat(back.latitudeDeg()).isCloseTo(p.latitudeDeg(), within(tolerance));
            assertThat(back.longitudeDeg()).isCloseTo(p.longitudeDeg(), within(tolerance));
        }
    }

    @Test
    void secondsThatRoundUpCarryOver() {
        assertThat(PositionText.format(new Position(45.9999999, -17), PositionText.Notation.SECONDS))
                .isEqualTo("46°00'00.0\"N 017°00'00.0\"W");
    }

    /** What other programs, publications and telephones put on the clipboard. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "46.612300000000003, -17.893399999999996",
                "(46.6123, -17.8934)",
                "[46.6123,-17.8934]",
                "46.6123, –17.8934",
                "46,6123, -17,8934",
                "46,6123 -17,8934",
                "46,6123; -17,8934",
                "N463644.28 W0175336.24",
                "463644.28N0175336.24W",
                "geo:46.6123,-17.8934",
                "geo:46.6123,-17.8934,120?z=17",
                "46.6123, -17.8934, 120.5",
            })
    void whatPeoplePasteIsRead(String typed) {
        Position p = PositionText.parse(typed);
        assertThat(p.latitudeDeg()).isCloseTo(46.6123, org.assertj.core.api.Assertions.within(1e-6));
        assertThat(p.longitudeDeg()).isCloseTo(-17.8934, org.assertj.core.api.Assertions.within(1e-6));
    }

    @ParameterizedTest
    @ValueSource(strings = {"28T CT 12345 67890", "28TCT1234567890", "28T 431234 5162345", "NT 1234 5678"})
    void gridsAreNamedAsNotRead(String typed) {
        assertThatThrownBy(() -> PositionText.parse(typed)).hasMessageContaining("grids are not read");
    }
}
