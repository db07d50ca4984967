package yarrek.core.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.energy.Cold.Rest;

class HealthTest {
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            2000 | 0.90 | 0.55 | 5000 | only 35 % of the charge passed; 40 % are needed
            2000 | 0.55 | 0.90 | 5000 | only -35 % of the charge passed; 40 % are needed
            4000 | 0.90 | 0.40 | 5000 | it would be 160 %, which no pack has: look at capacity, counter and gauge
            2000 | 1.20 | 0.40 | 5000 | a state of charge lies from 0 to 100 %
            2000 | 0.90 | 0.40 | 0    | the model's capacity is not known
            -300 | 0.90 | 0.40 | 5000 | it would be -12 %, which no pack has: look at capacity, counter and gauge
            """)
    void whereThereIsNoneItIsSaidWhy(double mah, double before, double after, double design, String why) {
        Health.Answer a = Health.counted(mah, before, after, design, Health.GAUGE, Health.Way.GAUGE);
        assertThat(a.health()).isEmpty();
        assertThat(a.why()).isEqualTo(why);
    }

    @Test
    void exactlyTheLeastSpanIsEnough() {
        assertThat(Health.counted(2000, 0.75, 0.25, 4000, 0.015, Health.Way.GAUGE)
                        .health())
                .map(Health::value)
                .contains(1.0);
        assertThat(Health.counted(1600, 0.75, 0.35, 4000, 0.015, Health.Way.GAUGE)
                        .health())
                .isPresent();
    }

    @Test
    void aClaimOutOfReasonIsNone() {
        assertThat(Health.claimed(4500, 5000).health()).map(Health::value).contains(0.9);
        assertThat(Health.claimed(9000, 5000).why()).isEqualTo("the pack says 180 % of its design, which no pack has");
    }

    @Test
    void inTheFlatPartVoltsSayNothing() {
        List<Rest> table = List.of(new Rest(0, 3.3), new Rest(0.4, 3.8), new Rest(0.6, 3.86), new Rest(1, 4.2));
        assertThat(Health.sdOfRest(table, 3.84)).isEmpty();
        assertThat(Health.sdOfRest(table, 4.0))
                .hasValueSatisfying(sd -> assertThat(sd).isCloseTo(0.005 / 0.85, within(1e-9)));
        assertThat(Health.sdOfRest(table, 4.3)).isEmpty();
        assertThat(Health.chargeAtRest(table, 3.0)).isZero();
        assertThat(Health.chargeAtRest(table, 4.4)).isEqualTo(1);
    }

    @Test
    void twoThatAgreeArePooledTwoThatDoNotAreNamed() {
        Health gauge = new Health(0.90, 0.02, Health.Way.GAUGE);
        Health rest = new Health(0.80, 0.02, Health.Way.REST);
        assertThat(gauge.disagrees(rest)).isTrue();
        assertThat(gauge.disagrees(new Health(0.86, 0.02, Health.Way.REST))).isFalse();
        assertThat(Health.pooled(List.of(gauge, rest)).way()).isEqualTo(Health.Way.POOLED);
        assertThat(Health.pooled(List.of(gauge))).satisfies(h -> {
            assertThat(h.value()).isCloseTo(0.90, within(1e-12));
            assertThat(h.way()).isEqualTo(Health.Way.GAUGE);
        });
    }

    /** Volts of a cell under a current that swings while it empties. */
    private static Resistance.Stretch flown(double ohms, Random random, int rows, double swing) {
        double[] ampere = new double[rows];
        double[] volts = new double[rows];
        for (int i = 0; i < rows; i++) {
            double t = i / (double) rows;
            ampere[i] = 9 + swing * Math.sin(i) + 0.4 * t * t;
            volts[i] = 4.1 - 0.2 * t - 0.1 * t * t - ohms * ampere[i] + 0.001 * random.nextGaussian();
        }
        return new Resistance.Stretch(ampere, volts);
    }

    @Test
    void resistanceIsFoundThroughTheDriftOfAFlight() {
        Random random = new Random(2);
        Resistance r = Resistance.measured(List.of(flown(0.008, random, 300, 2), flown(0.008, random, 300, 3)))
                .orElseThrow();
        assertThat(r.ohms()).isCloseTo(0.008, within(4 * r.se()));
        assertThat(r.se()).isLessThan(0.0002);
    }

    @Test
    void aSteadyFlightAndAShortOneShowNone() {
        Random random = new Random(2);
        assertThat(Resistance.measured(List.of(flown(0.008, random, 300, 0.02))))
                .isEmpty();
        assertThat(Resistance.measured(List.of(flown(0.008, random, 100, 3)))).isEmpty();
        assertThat(Resistance.measured(List.of())).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"0.4, 10, true", "0.5, 10, false", "-0.6, 60, false", "0.4, 9.9, false"})
    void aRestIsLongAndWithoutCurrent(double ampere, double minutes, boolean rest) {
        assertThat(CellSpread.atRest(new double[] {3.9, 3.86, 3.91}, ampere, 5, minutes)
                        .isPresent())
                .isEqualTo(rest);
    }

    @Test
    void theCellThatIsAlwaysLowest() {
        List<double[]> rows = new ArrayList<>();
        IntStream.range(0, 10).forEach(i -> rows.add(new double[] {3.9, i < 8 ? 3.85 : 3.95, 3.9}));
        assertThat(CellSpread.alwaysLow(rows, 0.01)).hasValue(1);
        assertThat(CellSpread.alwaysLow(rows, 0.02)).isEmpty();
        rows.add(new double[] {3.8, 3.9, 3.9});
        assertThat(CellSpread.alwaysLow(rows, 0.01)).isEmpty();
        assertThat(CellSpread.alwaysLow(List.of(), 0.01)).isEmpty();
        assertThat(CellSpread.underLoad(rows).orElseThrow()).isCloseTo(0.05, within(1e-9));
    }
}
