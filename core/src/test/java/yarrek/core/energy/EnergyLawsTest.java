package yarrek.core.energy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What holds of air, rotors, tracks and cold whatever the figures. */
class EnergyLawsTest {
    private static final PowerCurve WORKED = new PowerCurve(0.935, 0.18096, 1.1504, 149.72, 0.75, 0.02);

    @ParameterizedTest
    @ValueSource(doubles = {0.5, 3, 4.693, 8, 20})
    void inducedSpeedAtRestIsThatOfHoverAndObeysItsLaw(double hover) {
        assertThat(Induced.level(hover, 0)).isCloseTo(hover, within(1e-9));
        assertThat(Induced.tilted(hover, 0, 0)).isCloseTo(hover, within(1e-8));
        assertThat(Induced.climbing(hover, 0)).isCloseTo(hover, within(1e-12));
        for (double v : new double[] {0.1, 1, 5, 12, 25, 40}) {
            double vi = Induced.level(hover, v);
            assertThat(vi * Math.hypot(v, vi)).isCloseTo(hover * hover, within(1e-6 * hover * hover));
            assertThat(Induced.tilted(hover, v, 0)).isCloseTo(vi, within(1e-6));
            assertThat(vi).isLessThan(hover);
        }
    }

    @Test
    void moreAirThroughTheDiscNeedsLessInducedSpeed() {
        assertThat(DoubleStream.iterate(0, c -> c + 1)
                        .limit(12)
                        .mapToObj(c -> Induced.tilted(5, 8, c))
                        .toList())
                .isSortedAccordingTo((a, b) -> Double.compare(b, a));
    }

    @Test
    void outAndBackMakeTheSameProductOnEveryBearing() {
        Random random = new Random(1);
        for (int i = 0; i < 500; i++) {
            double v = 5 + 20 * random.nextDouble();
            Track out = new Track(v, random.nextDouble() * v * 0.9, 360 * random.nextDouble());
            if (out.groundSpeed().isPresent() && out.back().groundSpeed().isPresent()) {
                assertThat(out.groundSpeed().getAsDouble()
                                * out.back().groundSpeed().getAsDouble())
                        .isCloseTo(v * v - out.wind() * out.wind(), within(1e-6 * v * v));
            }
        }
    }

    @Test
    void atOrAboveTheAirSpeedOneOfTheTwoWaysIsMissingOnEveryBearing() {
        for (int bearing = 0; bearing < 360; bearing += 5) {
            for (double wind : new double[] {12, 12.5, 20}) {
                Track out = new Track(12, wind, bearing);
                assertThat(out.groundSpeed().isPresent()
                                && out.back().groundSpeed().isPresent())
                        .isFalse();
            }
        }
    }

    @Test
    void powerFallsFromHoverAndRisesAgainWithOneLeast() {
        List<Double> curve =
                IntStream.range(0, 61).mapToObj(i -> WORKED.at(i * 0.5)).toList();
        int turns = 0;
        for (int i = 2; i < curve.size(); i++) {
            turns += (curve.get(i) - curve.get(i - 1)) * (curve.get(i - 1) - curve.get(i - 2)) < 0 ? 1 : 0;
        }
        assertThat(turns).isEqualTo(1);
        assertThat(WORKED.at(0)).isCloseTo(149.72, within(1e-9));
        PowerCurve.Best stay = WORKED.endurance(30);
        assertThat(stay.airSpeed()).isCloseTo(10.9, within(0.1));
        assertThat(stay.value()).isCloseTo(99.9, within(0.7));
        assertThat(stay.atTheLimit()).isFalse();
        assertThat(WORKED.range(0, 30).airSpeed()).isCloseTo(16.4, within(0.1));
    }

    @ParameterizedTest
    @CsvSource({"0,16.4", "2,17", "5,18.4", "8,20.2"})
    void theMoreItBlowsAgainstTheFasterOneFlies(double head, double atLeast) {
        assertThat(WORKED.range(head, 30).airSpeed()).isGreaterThan(atLeast - 0.1);
    }

    @Test
    void whereTheModeEndsBeforeItsBestThatIsSaid() {
        PowerCurve.Best slow = WORKED.range(5, 12);
        assertThat(slow.atTheLimit()).isTrue();
        assertThat(slow.airSpeed()).isCloseTo(12, within(1e-3));
    }

    @Test
    void aSlowClimbIsNoDearerASecondThanHoverAndWorkIsAdded() {
        assertThat(WORKED.climbing(0)).isCloseTo(WORKED.hoverW(), within(1e-9));
        // 60 m at 2 m/s: 1.273 Wh
        assertThat(WORKED.climbing(2) * 30 / 3600).isCloseTo(1.273, within(0.02));
    }

    @Test
    void airThinsWithHeightWarmthAndMoisture() {
        assertThat(Air.density(Air.pressure(0), 15)).isCloseTo(Air.STANDARD, within(0.0005));
        assertThat(Air.density(Air.pressure(850), 4)).isCloseTo(1.1504, within(0.0002));
        assertThat(Air.density(Air.pressure(1000), 15)).isLessThan(Air.density(Air.pressure(0), 15));
        assertThat(Air.density(101_325, 30)).isLessThan(Air.density(101_325, 10));
        assertThat(Air.density(101_325, 30, 0.9)).isLessThan(Air.density(101_325, 30));
    }

    @ParameterizedTest
    @CsvSource({"0,15,0", "101325,-70,0", "101325,15,1.1", "101325,15,-0.1", "NaN,15,0"})
    void airThatCannotBeIsRefused(double pressure, double temperature, double humidity) {
        assertThatThrownBy(() -> Air.density(pressure, temperature, humidity))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void theColdRisesWithTheTemperatureAndStandsAtTheEnds() {
        List<Double> factors =
                IntStream.rangeClosed(-40, 50).mapToObj(Cold.HOUSE::factor).toList();
        assertThat(factors).isSorted();
        assertThat(Cold.HOUSE.factor(-20)).isEqualTo(0.60);
        assertThat(Cold.HOUSE.factor(25)).isEqualTo(1);
        assertThatThrownBy(() -> new Cold(List.of(new Cold.Point(0, 0.9), new Cold.Point(0, 0.8))))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Cold(List.of())).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void colderAndHarderLoadedACellIsEmptyEarlier() {
        List<Cold.Rest> rest = List.of(
                new Cold.Rest(0, 2.8), new Cold.Rest(0.1, 3.32), new Cold.Rest(0.3, 3.55), new Cold.Rest(0.7, 3.89));
        double warm = Cold.lowestCharge(rest, 100, 4, 0.012, 1.8, 20, 3.0);
        assertThat(Cold.lowestCharge(rest, 100, 4, 0.012, 1.8, -5, 3.0)).isGreaterThan(warm);
        assertThat(Cold.lowestCharge(rest, 200, 4, 0.012, 1.8, 20, 3.0)).isGreaterThan(warm);
        assertThat(Cold.lowestCharge(rest, 5000, 4, 0.012, 1.8, -20, 3.0)).isEqualTo(1);
    }

    @ParameterizedTest
    @ValueSource(doubles = {-20, -5, 4, 15, 25})
    void theColdReadAtTheBottomNeverLeavesMore(double packC) {
        for (double reserve : new double[] {0, 0.2, 0.5, 0.95}) {
            Charge c = new Charge(77, 0.9, 0.98, reserve, Cold.HOUSE.factor(packC));
            assertThat(c.usableAtLeast()).isLessThanOrEqualTo(c.usable()).isNotNegative();
        }
    }

    @Test
    void aLossWithinItsDoubtIsNotShown() {
        assertThat(Endurance.loss(72, 0.25, 0.99, 0.02, 97, 97, 0.02).shown()).isFalse();
        assertThat(Endurance.loss(72, 0.25, 0.99, 0.02, 97, 97, 0.02).words()).startsWith("no loss shown");
        assertThat(Endurance.loss(72, 0.25, 0.89, 0.015, 97, 101, 0.02).words())
                .isEqualTo("291 s ± 74 s less than when new");
    }
}
