package yarrek.core.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yarrek.core.pack.PackLife.Flown;

class PackLifeTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 6, 1);

    private static PackLife life(List<Flown> flights) {
        return PackLife.of(flights, 5000, 90, TODAY.minusYears(1), TODAY, Retirement.Ends.HOUSE);
    }

    /** Every ten days, three quarters of a charge that shrinks. */
    private static List<Flown> flights(int n, double lossADay) {
        return IntStream.range(0, n)
                .mapToObj(
                        i -> new Flown(TODAY.minusDays(10L * (n - 1 - i)), 3750 * (1 - lossADay * 10 * i), 0.95, 0.20))
                .toList();
    }

    @Test
    void fromTheFirstFlightToItsEnd() {
        PackLife l = life(flights(20, 0.0005));
        assertThat(l.days()).hasSize(20).allMatch(d -> !d.farOff());
        assertThat(l.goesOn().orElseThrow().perDay()).isCloseTo(-0.0005, within(1e-6));
        Retirement.Reached first = l.retirement().first().orElseThrow();
        assertThat(first.limit()).isEqualTo(Retirement.Limit.HEALTH);
        // 25 % at 0.05 % a day, from 190 days before
        assertThat(first.middle()).isEqualTo(TODAY.plusDays(310));
        assertThat(l.retirement().missing()).noneMatch(m -> m.contains("use a month"));
    }

    @Test
    void severalOfOneDayAreOneMeasurement() {
        List<Flown> twice = new ArrayList<>(flights(4, 0.0005));
        twice.addAll(flights(4, 0.0005));
        assertThat(life(twice).days()).hasSize(4);
        assertThat(life(twice).measured()).hasSize(8);
        assertThat(life(twice).trend().orElseThrow().measured()).isEqualTo(4);
    }

    @Test
    void aFlightThatShowsNothingKeepsItsReasonAndOneWithoutFiguresIsNone() {
        PackLife l = life(List.of(
                new Flown(TODAY, 500.0, 0.95, 0.85),
                new Flown(TODAY, null, 0.95, 0.2),
                new Flown(TODAY, 3700.0, null, 0.2)));
        assertThat(l.measured()).hasSize(1);
        assertThat(l.measured().get(0).answer().why()).startsWith("only 10 % of the charge passed");
        assertThat(l.days()).isEmpty();
        assertThat(life(flights(1, 0)).retirement().missing())
                .anyMatch(m -> m.endsWith("health are needed, 1 on file"));
        assertThat(l.trend()).isEmpty();
        assertThat(l.retirement().missing()).anyMatch(m -> m.contains("0 on file"));
    }

    @Test
    void monthsBeforeTheFirstFlightAreNoMonthsOfRest() {
        // seven flights over sixty days: two whole months, three flights in the older, three in the newer
        PackLife l = PackLife.of(flights(7, 0), 5000, 395.5, null, TODAY, Retirement.Ends.HOUSE);
        assertThat(l.retirement().first().orElseThrow().limit()).isEqualTo(Retirement.Limit.CYCLES);
        // 4.5 cycles at 2.25 a month
        assertThat(l.retirement().first().orElseThrow().middle()).isEqualTo(TODAY.plusDays(60));
        assertThat(PackLife.of(flights(6, 0), 5000, 395.5, null, TODAY, Retirement.Ends.HOUSE)
                        .retirement()
                        .missing())
                .anyMatch(m -> m.startsWith("its use a month"));
    }

    @Test
    void aGrossErrorIsMarked() {
        List<Flown> f = new ArrayList<>(flights(12, 0.0005));
        for (int i = 0; i < 12; i += 2) {
            f.set(i, new Flown(f.get(i).on(), f.get(i).mah() + 10, 0.95, 0.20));
        }
        f.set(5, new Flown(f.get(5).on(), 2600.0, 0.95, 0.20));
        assertThat(life(f).days().stream().filter(PackLife.Day::farOff).map(PackLife.Day::on))
                .containsExactly(f.get(5).on());
    }
}
