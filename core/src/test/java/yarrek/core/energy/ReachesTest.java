package yarrek.core.energy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class ReachesTest {
    private static final double DENSITY = Air.density(Air.pressure(850), 4);

    private static Reaches.Build build(Endurance.Stated stated) {
        return new Reaches.Build(0.935, 0.895, 34, stated, 0.18096, 0.012, null);
    }

    private static Charge charge(double reserve) {
        return new Charge(77, 0.91, 1, reserve, Cold.HOUSE.factor(4));
    }

    private static Reaches in(double wind) {
        return Reaches.of(
                build(Endurance.Stated.HOVER), charge(0.25), new Reaches.Flown(12, wind, 270, false, 0, 2), DENSITY);
    }

    private static Reach at(Reaches r, double deg) {
        return r.all().stream()
                .filter(b -> b.deg() == deg)
                .findFirst()
                .orElseThrow()
                .middle();
    }

    @Test
    void theWorkedBuild() {
        Reaches r = in(10.49);
        assertThat(r.curve().hoverW()).isCloseTo(149.72, within(0.2));
        assertThat(at(r, 90).metres()).isCloseTo(2161, within(11.0));
        assertThat(at(r, 0).metres()).isCloseTo(4449, within(22.0));
        // the hover comes at the end: it belongs to the way home
        assertThat(100 * at(r, 90).turnAt()).isCloseTo(95.8, within(0.3));
        assertThat(r.tooNear()).isTrue();
        assertThat(r.all()).allMatch(b -> b.careful().metres() == 0);
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, 2, 5, 7.5, 9, 11, 11.9})
    void theCarefulFigureIsNeverMoreAndBothAreTheSameThereAndBack(double wind) {
        Reaches r = in(wind);
        for (int i = 0; i < r.all().size() / 2; i++) {
            Reaches.Bearing one = r.all().get(i);
            Reaches.Bearing opposite = r.all().get(i + r.all().size() / 2);
            assertThat(one.careful().metres()).isLessThanOrEqualTo(one.middle().metres());
            assertThat(one.middle().metres()).isCloseTo(opposite.middle().metres(), within(1e-6));
            assertThat(one.careful().metres()).isCloseTo(opposite.careful().metres(), within(1e-6));
        }
    }

    @Test
    void moreWindAndMoreReserveNeverReachFarther() {
        assertThat(Stream.of(0.0, 3.0, 6.0, 9.0, 11.0).map(w -> at(in(w), 40).metres()))
                .isSortedAccordingTo((a, b) -> Double.compare(b, a));
        List<Double> byReserve = Stream.of(0.1, 0.3, 0.5)
                .map(k -> at(
                                Reaches.of(
                                        build(Endurance.Stated.HOVER),
                                        charge(k),
                                        new Reaches.Flown(12, 5, 0, true, 1, 2),
                                        DENSITY),
                                40)
                        .metres())
                .toList();
        assertThat(byReserve).isSortedAccordingTo((a, b) -> Double.compare(b, a));
    }

    @ParameterizedTest
    @ValueSource(doubles = {12, 13, 30})
    void atOrAboveTheAirSpeedThereIsNoWay(double wind) {
        assertThat(in(wind).all()).allSatisfy(b -> {
            assertThat(b.middle().gap()).isNotNull();
            assertThat(b.careful().gap()).isNotNull();
        });
    }

    @ParameterizedTest
    @EnumSource(Endurance.Stated.class)
    void minutesNotSaidHowAreReadAsTheDearerWhereItMatters(Endurance.Stated stated) {
        Reaches r = Reaches.of(build(stated), charge(0.25), new Reaches.Flown(12, 3, 0, false, 0, 2), DENSITY);
        double hover = in(3).curve().hoverW();
        if (stated == Endurance.Stated.BEST_SPEED) {
            assertThat(r.curve().hoverW()).isGreaterThan(1.3 * hover);
        } else {
            assertThat(r.curve().hoverW()).isEqualTo(hover);
        }
        assertThat(r.carefulCurve().hoverW() > 1.3 * hover).isEqualTo(stated != Endurance.Stated.HOVER);
    }

    @Test
    void minutesAtTheBestSpeedAreThoseThatTheCurveGivesBack() {
        Reaches r = Reaches.of(
                new Reaches.Build(0.895, 0.895, 34, Endurance.Stated.BEST_SPEED, 0.18096, 0.012, null),
                new Charge(77, 1, 1, 0, 1),
                new Reaches.Flown(12, 0, 0, false, 0, 0),
                Air.STANDARD);
        assertThat(Endurance.minutes(77, r.curve().endurance(30).value())).isCloseTo(34, within(1e-3));
    }

    @Test
    void whenAllIsSpentBesidesTheWayNothingIsLeftForIt() {
        Reaches r = Reaches.of(
                build(Endurance.Stated.HOVER), charge(0.25), new Reaches.Flown(12, 3, 0, false, 60, 2), DENSITY);
        assertThat(r.all()).allSatisfy(b -> assertThat(b.middle().gap()).isEqualTo(Reach.Gap.NOTHING_LEFT));
    }

    @ParameterizedTest
    @CsvSource({
        "0,0.9,0.9,0.25",
        "77,0,1,0.25",
        "77,1.2,1,0.25",
        "77,0.9,-0.03,0.25",
        "77,0.9,1.01,0.25",
        "77,0.9,1,1.5"
    })
    void aPackThatCannotBeIsRefused(double wh, double health, double charge, double reserve) {
        assertThatThrownBy(() -> new Charge(wh, health, charge, reserve, 1))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @ParameterizedTest
    @CsvSource({"0,5,0", "12,-1,0", "12,NaN,0", "12,5,400"})
    void aFlightThatCannotBeIsRefused(double speed, double wind, double from) {
        assertThatThrownBy(() -> new Reaches.Flown(speed, wind, from, false, 0, 0))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
