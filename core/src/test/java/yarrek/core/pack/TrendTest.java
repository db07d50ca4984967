package yarrek.core.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yarrek.core.pack.Trend.Point;

class TrendTest {
    private static List<Point> series(Random random, int n, double slopeBefore, double slopeAfter, double noise) {
        return IntStream.range(0, n)
                .mapToObj(i -> {
                    double day = i * 20.0;
                    double knee = n * 10.0;
                    double value = 1 + slopeBefore * Math.min(day, knee) + slopeAfter * Math.max(0, day - knee);
                    return new Point(day, value + noise * random.nextGaussian());
                })
                .toList();
    }

    @Test
    void orderShiftAndScaleDoNotMatter() {
        Random random = new Random(5);
        for (int k = 0; k < 50; k++) {
            List<Point> points = series(random, 4 + random.nextInt(20), -0.0003, -0.0003, 0.01);
            Trend t = Trend.of(points).orElseThrow();
            List<Point> mixed = new ArrayList<>(points);
            Collections.shuffle(mixed, random);
            assertThat(Trend.of(mixed)).contains(t);
            Trend moved = Trend.of(points.stream()
                            .map(p -> new Point(p.day() + 100, 2 * p.value()))
                            .toList())
                    .orElseThrow();
            assertThat(moved.perDay()).isCloseTo(2 * t.perDay(), within(1e-12));
            assertThat(moved.low().orElseThrow()).isCloseTo(2 * t.low().orElseThrow(), within(1e-12));
            assertThat(moved.at(150)).isCloseTo(2 * t.at(50), within(1e-9));
        }
    }

    @Test
    void theIntervalHoldsTheSlopeNineTimesInTen() {
        Random random = new Random(6);
        for (int n : new int[] {4, 6, 10, 20}) {
            int held = 0;
            for (int k = 0; k < 400; k++) {
                Trend t = Trend.of(series(random, n, -0.0002, -0.0002, 0.012)).orElseThrow();
                if (t.low().orElseThrow() <= -0.0002 && t.high().orElseThrow() >= -0.0002) {
                    held++;
                }
            }
            assertThat(held).as("of 400 with %d measurements", n).isGreaterThan(350);
        }
    }

    @Test
    void threeHaveNoIntervalAndOneDayNoTrend() {
        assertThat(Trend.of(List.of(new Point(0, 1), new Point(1, 0.9), new Point(2, 0.8)))
                        .orElseThrow()
                        .low())
                .isEmpty();
        assertThat(Trend.of(List.of(new Point(3, 1), new Point(3, 0.9)))).isEmpty();
        assertThat(Trend.of(List.of())).isEmpty();
        assertThatThrownBy(() -> Trend.of(List.of(new Point(0, Double.NaN)))).hasMessageContaining("no number");
    }

    @Test
    void manyMeasurementsAreThinnedToOneAWeek() {
        List<Point> daily = IntStream.range(0, 700)
                .mapToObj(i -> new Point(i, 1 - 0.0003 * i))
                .toList();
        Trend t = Trend.of(daily).orElseThrow();
        assertThat(t.measured()).isEqualTo(100);
        assertThat(t.perDay()).isCloseTo(-0.0003, within(1e-9));
    }

    @Test
    void aKneeIsSeenWhereItIsAndSeldomWhereNoneIs() {
        Random random = new Random(12);
        int seen = 0;
        int false12 = 0;
        for (int k = 0; k < 100; k++) {
            seen += Trend.knee(series(random, 30, -0.00008, -0.0008, 0.01)).isPresent() ? 1 : 0;
            false12 += Trend.knee(series(random, 20, -0.0003, -0.0003, 0.01)).isPresent() ? 1 : 0;
        }
        assertThat(seen).isGreaterThan(90);
        assertThat(false12).isLessThan(4);
        assertThat(Trend.knee(series(random, 11, 0, -0.01, 0))).isEmpty();
    }

    @Test
    void aGrossErrorIsNamedAndStays() {
        List<Point> points = new ArrayList<>(series(new Random(1), 15, -0.0003, -0.0003, 0.004));
        points.set(7, new Point(140, 0.6));
        Trend t = Trend.of(points).orElseThrow();
        assertThat(t.farOff(points)).containsExactly(new Point(140, 0.6));
        assertThat(t.measured()).isEqualTo(15);
        assertThat(t.perDay()).isCloseTo(-0.0003, within(0.0001));
    }

    @Test
    void aRisingLineNeverMeetsALimitBelow() {
        Trend t = Trend.of(List.of(new Point(0, 0.9), new Point(10, 0.91))).orElseThrow();
        assertThat(t.meets(0.75, t.perDay())).isEmpty();
        assertThat(t.meets(0.75, 0)).isEmpty();
        assertThat(t.meets(0.75, -0.01).orElseThrow()).isCloseTo(5 + 15.5, within(1e-9));
    }
}
