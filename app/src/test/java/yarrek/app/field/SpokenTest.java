package yarrek.app.field;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Position;

/** A position as it is said on the radio, and the length of a scale bar. */
class SpokenTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "46.608|-17.902|four six degrees three six decimal five minutes north, zero one seven degrees five four decimal one minutes west",
                "-0.001|5.5|zero zero degrees zero zero decimal one minutes south, zero zero five degrees three zero decimal zero minutes east"
            })
    void everyFigureIsSpokenByItself(double lat, double lon, String words) {
        assertThat(Emergency.spoken(new Position(lat, lon))).isEqualTo(words);
    }

    @Test
    void minutesThatRoundUpCarryIntoTheDegrees() {
        assertThat(Emergency.spoken(new Position(45.99999, 10)))
                .startsWith("four six degrees zero zero decimal zero minutes north");
    }

    @ParameterizedTest
    @CsvSource({"99, 50", "100, 100", "499, 200", "500, 500", "1999, 1000", "0.7, 0.5"})
    void aScaleBarHasARoundLengthThatFits(double room, double length) {
        assertThat(SiteDrawing.round(room)).isEqualTo(length);
    }
}
