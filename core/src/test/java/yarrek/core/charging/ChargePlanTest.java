package yarrek.core.charging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ChargePlanTest {
    private static List<Double> some(Random random, int n, int most) {
        return random.ints(n, 1, most).mapToObj(i -> (double) i).toList();
    }

    private static void noTwoAtOncePlace(ChargePlan p) {
        for (int i = 0; i < p.places().size(); i++) {
            for (int j = 0; j < i; j++) {
                ChargePlan.Place a = p.places().get(i);
                ChargePlan.Place b = p.places().get(j);
                assertThat(a.slot() != b.slot() || a.end() <= b.start() + 1e-9 || b.end() <= a.start() + 1e-9)
                        .as("%s and %s", a, b)
                        .isTrue();
            }
        }
    }

    @Test
    void atAnHourForAllNoOtherWayLeavesLessStandingFull() {
        Random random = new Random(7);
        for (int k = 0; k < 100; k++) {
            int n = 1 + random.nextInt(5);
            int slots = 1 + random.nextInt(3);
            List<Double> minutes = some(random, n, 90);
            ChargePlan equal = ChargePlan.evenly(minutes, slots, 480);
            List<List<Double>> same = minutes.stream()
                    .map(m -> IntStream.range(0, slots).mapToObj(s -> m).toList())
                    .toList();
            noTwoAtOncePlace(equal);
            assertThat(equal.waiting(480))
                    .isCloseTo(ChargePlan.unevenly(same, 480).waiting(480), within(1e-6));
        }
    }

    @Test
    void placesThatDifferAreFilledAsWellAsAnyWayDoes() {
        Random random = new Random(8);
        for (int k = 0; k < 100; k++) {
            int n = 1 + random.nextInt(4);
            List<List<Double>> minutes =
                    IntStream.range(0, n).mapToObj(i -> some(random, 2, 90)).toList();
            ChargePlan p = ChargePlan.unevenly(minutes, 0);
            noTwoAtOncePlace(p);
            assertThat(p.waiting(0)).isCloseTo(least(minutes), within(1e-6));
        }
    }

    private static double least(List<List<Double>> minutes) {
        double least = Double.MAX_VALUE;
        for (int way = 0; way < 1 << minutes.size(); way++) {
            double sum = 0;
            for (int slot = 0; slot < 2; slot++) {
                int s = slot;
                int w = way;
                List<Double> here = IntStream.range(0, minutes.size())
                        .filter(i -> (w >> i & 1) == s)
                        .mapToObj(i -> minutes.get(i).get(s))
                        .sorted()
                        .toList();
                double load = 0;
                for (double m : here) {
                    sum += load;
                    load += m;
                }
            }
            least = Math.min(least, sum);
        }
        return least;
    }

    @Test
    void theListIsNoLaterThanItsBoundAndTheSearchIsNeverLater() {
        Random random = new Random(9);
        for (int k = 0; k < 200; k++) {
            int n = 1 + random.nextInt(6);
            int slots = 1 + random.nextInt(3);
            List<Double> minutes = some(random, n, 60);
            List<Double> hours = some(random, n, 120);
            ChargePlan list = ChargePlan.listed(minutes, hours, slots, 0);
            ChargePlan best = ChargePlan.soonest(minutes, hours, slots, 0);
            noTwoAtOncePlace(list);
            noTwoAtOncePlace(best);
            double longest = minutes.stream().mapToDouble(m -> m).max().orElseThrow();
            assertThat(list.lateness(hours))
                    .isBetween(best.lateness(hours), best.lateness(hours) + (1 - 1.0 / slots) * longest + 1e-9);
        }
    }

    @Test
    void fiveJobsOfThreeHoursAreNotLate() {
        List<Double> minutes = List.of(2.0, 2.0, 3.0, 3.0, 2.0);
        List<Double> hours = List.of(3.0, 4.0, 4.0, 6.0, 6.0);
        assertThat(ChargePlan.listed(minutes, hours, 2, 0).lateness(hours)).isBetween(0.0, 1.0);
        assertThat(ChargePlan.soonest(minutes, hours, 2, 0).lateness(hours)).isZero();
    }

    @Test
    void sixtyPacksArePlannedAtEightChargersOfTheirOwnWatts() {
        List<List<Double>> minutes = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            int pack = i;
            minutes.add(IntStream.range(0, 8)
                    .mapToObj(s -> 40.0 + pack % 7 + 10 * s)
                    .toList());
        }
        ChargePlan p = ChargePlan.unevenly(minutes, 0);
        noTwoAtOncePlace(p);
        assertThat(p.places()).allMatch(x -> x.end() <= 0);
        // the quick chargers take more of them than the slow ones
        assertThat(p.places().stream().filter(x -> x.slot() == 0).count())
                .isGreaterThan(p.places().stream().filter(x -> x.slot() == 7).count());
    }

    @Test
    void noPacksAndNoPlaces() {
        assertThat(ChargePlan.evenly(List.of(), 2, 0).places()).isEmpty();
        assertThat(ChargePlan.unevenly(List.of(), 0).span()).isZero();
        assertThat(ChargePlan.evenly(List.of(), 2, 0).earliest()).isInfinite();
        assertThatThrownBy(() -> ChargePlan.evenly(List.of(30.0), 0, 0))
                .hasMessage("without a place to charge there is no plan");
    }

    @Test
    void aPackThatCannotChargeSomewhereChargesElsewhere() {
        ChargePlan p = ChargePlan.unevenly(
                List.of(List.of(Double.POSITIVE_INFINITY, 90.0), List.of(Double.POSITIVE_INFINITY, 30.0)), 0);
        assertThat(p.places()).allMatch(x -> x.slot() == 1);
        assertThat(p.waiting(0)).isEqualTo(30);
    }
}
