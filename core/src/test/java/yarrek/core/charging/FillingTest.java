package yarrek.core.charging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class FillingTest {
    private static final Filling PACK = Filling.of(70, 1.2);

    /** Half the watts do not take twice as long: the end of the charge is the pack's own. */
    @Test
    void lowerWattsLengthenTheFirstPartOnly() {
        assertThat(PACK.minutes(65, 0.2, 1)).isCloseTo(68.8, within(0.1));
        assertThat(PACK.minutes(120, 0.2, 1)).isCloseTo(61.2, within(0.1));
    }

    @Test
    void aChargeInTwoStepsTakesAsLongAsInOne() {
        Random random = new Random(3);
        for (int k = 0; k < 200; k++) {
            double a = random.nextDouble();
            double b = a + (1 - a) * random.nextDouble();
            double w = 20 + 200 * random.nextDouble();
            assertThat(PACK.minutes(w, 0, a) + PACK.minutes(w, a, b)).isCloseTo(PACK.minutes(w, 0, b), within(1e-9));
            assertThat(PACK.minutes(w + 10, 0, b)).isLessThanOrEqualTo(PACK.minutes(w, 0, b) + 1e-12);
        }
    }

    @Test
    void whatIsOutOfRangeIsSaid() {
        assertThatThrownBy(() -> PACK.minutes(0, 0, 1)).hasMessage("a charger gives more than 0 W, got 0.0");
        assertThatThrownBy(() -> PACK.minutes(60, -0.03, 1)).hasMessageContaining("got -0.03");
        assertThatThrownBy(() -> Filling.of(0, 1)).hasMessageContaining("above 0");
        assertThatThrownBy(() -> Filling.of(70, Double.NaN)).hasMessageContaining("above 0");
        assertThatThrownBy(() -> new Filling(70, 1, 1, 0.6, 0.97)).hasMessageContaining("between 0 and 1");
    }

    /** Two that share what one could take: the second waits for the tail of the first, and nothing is lost. */
    @Test
    void packsThatShareTakeNoLongerThanOneAfterAnother() {
        Sharing.Taker low = new Sharing.Taker(PACK, 0.2, 1);
        List<Double> both = Sharing.minutes(List.of(low, low), 100, 100);
        assertThat(both.get(0)).isCloseTo(both.get(1), within(1e-6));
        assertThat(both.get(0)).isGreaterThan(PACK.minutes(100, 0.2, 1)).isLessThan(2 * PACK.minutes(100, 0.2, 1));
        Sharing.Taker nearlyFull = new Sharing.Taker(PACK, 0.8, 1);
        List<Double> mixed = Sharing.minutes(List.of(low, nearlyFull), 100, 100);
        assertThat(mixed.get(1)).isCloseTo(PACK.minutes(100, 0.8, 1), within(1e-6));
        assertThat(mixed.get(0)).isLessThan(both.get(0));
    }

    @Test
    void sharingGivesNoMoreThanThereIsAndNoMoreThanAsked() {
        Random random = new Random(4);
        for (int k = 0; k < 200; k++) {
            double[] asks = random.doubles(1 + random.nextInt(6), 0, 100).toArray();
            double total = random.nextDouble() * 300;
            double[] given = Sharing.shares(asks, total);
            double sum = 0;
            for (int i = 0; i < asks.length; i++) {
                assertThat(given[i]).isLessThanOrEqualTo(asks[i] + 1e-9);
                sum += given[i];
            }
            assertThat(sum)
                    .isCloseTo(Math.min(total, java.util.Arrays.stream(asks).sum()), within(1e-6));
        }
    }

    @Test
    void aFullPackIsDoneAtOnceAndAChargerWithoutPowerIsSaid() {
        assertThat(Sharing.minutes(List.of(new Sharing.Taker(PACK, 1, 1)), 60, 60))
                .containsExactly(0.0);
        assertThatThrownBy(() -> Sharing.minutes(List.of(), 0, 60)).hasMessageContaining("got 0.0");
    }

    @Test
    void aPackLowersItselfFromTheDayItBeginsToItsFloor() {
        Storing s = Storing.SELF_MANAGING;
        assertThat(s.after(1, 5)).isEqualTo(1);
        assertThat(s.after(1, 10)).isCloseTo(0.8, within(1e-9));
        assertThat(s.after(1, 15)).isCloseTo(0.6, within(1e-9));
        assertThat(s.after(1, 300)).isEqualTo(0.6);
        assertThat(Storing.MANUAL.after(1, 300)).isEqualTo(1);
    }
}
