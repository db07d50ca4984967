package yarrek.core.charging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yarrek.core.charging.ChargeDay.Charger;
import yarrek.core.charging.ChargeDay.Low;

class ChargeDayTest {
    private static final Instant NOW = Instant.parse("2026-06-01T05:02:00Z");
    private static final Instant BY = Instant.parse("2026-06-01T09:00:00Z");
    private static final List<Charger> TWO = List.of(new Charger("row", 2, 120), new Charger("lamp", 1, 30));

    private static List<Low> packs(int n) {
        return IntStream.range(0, n)
                .mapToObj(i -> new Low("K" + i, Filling.of(70, 1.2), 0.2, 1))
                .toList();
    }

    @Test
    void allAreFullAtTheHourAndNotLongBefore() {
        ChargeDay d = ChargeDay.of(packs(3), TWO, NOW, BY);
        assertThat(d.verdict()).isEqualTo("all 3 are ready by the hour");
        assertThat(d.plugged()).allSatisfy(p -> {
            assertThat(p.full()).isBeforeOrEqualTo(BY);
            assertThat(p.in().getEpochSecond() % 300).isZero();
            assertThat(p.in()).isBeforeOrEqualTo(p.full()).isAfterOrEqualTo(NOW);
        });
        assertThat(ChargeDay.of(packs(3), TWO, NOW.plusNanos(540), BY).plugged())
                .isEqualTo(d.plugged());
        // less than five minutes each, since people plug in on the five minutes
        assertThat(d.waiting()).isLessThan(15);
        assertThat(d.plugged()).extracting(ChargeDay.Plugged::charger).contains("lamp");
        assertThat(d.plugged().get(0).in()).isEqualTo("2026-06-01T07:55:00Z");
    }

    @Test
    void placesOfOneChargerAreNumbered() {
        assertThat(ChargeDay.of(packs(2), List.of(new Charger("row", 2, 120)), NOW, BY)
                        .plugged())
                .extracting(ChargeDay.Plugged::place)
                .containsExactlyInAnyOrder(1, 2);
    }

    @Test
    void whenItDoesNotFitItBeginsNowAndSaysHowManyAreReady() {
        ChargeDay d =
                ChargeDay.of(packs(5), List.of(new Charger("row", 1, 120)), NOW, NOW.plus(Duration.ofMinutes(130)));
        assertThat(d.inTime()).isEqualTo(2);
        assertThat(d.verdict()).startsWith("2 of 5 are ready by the hour: ");
        assertThat(d.plugged().stream().map(ChargeDay.Plugged::in).min(Instant::compareTo))
                .contains(NOW);
    }

    @Test
    void aFullPackIsNotChargedAndNothingIsNothing() {
        ChargeDay d = ChargeDay.of(List.of(new Low("K", Filling.of(70, 1.2), 1, 1)), TWO, NOW, BY);
        assertThat(Duration.between(d.plugged().get(0).in(), BY)).isLessThanOrEqualTo(Duration.ofMinutes(5));
        assertThat(d.verdict()).isEqualTo("it is ready by the hour");
        assertThat(ChargeDay.of(List.of(), TWO, NOW, BY).verdict()).isEqualTo("nothing to charge");
    }

    @Test
    void noPackIsPluggedInWhereAnotherStillCharges() {
        for (int n = 1; n <= 12; n++) {
            List<Low> low = IntStream.range(0, n)
                    .mapToObj(i -> new Low("K" + i, Filling.of(60 + 3 * i, 1.1), 0.1 + 0.05 * i, 1))
                    .toList();
            ChargeDay d = ChargeDay.of(low, TWO, NOW, NOW.plus(Duration.ofHours(9)));
            for (ChargeDay.Plugged a : d.plugged()) {
                assertThat(d.plugged())
                        .filteredOn(b -> !b.equals(a) && b.charger().equals(a.charger()) && b.place() == a.place())
                        .allMatch(b -> !b.in().isBefore(a.full()) || !a.in().isBefore(b.full()));
            }
            assertThat(d.plugged()).allMatch(p -> !p.in().isBefore(NOW) && p.in().getEpochSecond() % 300 == 0);
            assertThat(d.inTime()).isEqualTo(n);
        }
    }

    @Test
    void whatCannotBeIsSaid() {
        assertThatThrownBy(() -> ChargeDay.of(packs(1), List.of(), NOW, BY)).hasMessageStartingWith("no charger");
        assertThatThrownBy(() -> ChargeDay.of(packs(1), TWO, BY, NOW)).hasMessageContaining("before now");
        assertThatThrownBy(() -> new Charger("row", 0, 60)).hasMessageContaining("got 0 of 60");
        assertThatThrownBy(() ->
                        ChargeDay.of(packs(1), List.of(new Charger("a", 60, 60), new Charger("b", 1, 60)), NOW, BY))
                .hasMessage("a plan holds at most 60 places, got 61");
        assertThatThrownBy(() -> new Charger("row", 1, Double.NaN)).hasMessageContaining("NaN W");
    }
}
