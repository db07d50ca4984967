package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Turn-round and shots lost: worked figures of the field, F8. */
class ShotsTest {
    private static Shot shot(String what, Shot.Kind kind, Double minutes) {
        return new Shot(kind, what, null, null, minutes, "", null, "", "");
    }

    private static final Shots SIX = new Shots(List.of(
            shot("wide", Shot.Kind.WIDE, 6.0),
            shot("orbit", Shot.Kind.ORBIT, 5.0),
            shot("reveal", Shot.Kind.REVEAL, 4.0),
            shot("low pass", Shot.Kind.LOW, 5.0),
            shot("detail", Shot.Kind.DETAIL, 7.0),
            shot("closing", Shot.Kind.WIDE, 4.0)));

    private static Shots.Means means(double slot, double turnRound, int packs) {
        return new Shots.Means(slot, 15, 10, 22, 0.3, 2.4, turnRound, packs);
    }

    @ParameterizedTest
    @CsvSource({
        "70, 7.3, 3, 2, 3, 27, 66.6, 5, 14.6",
        "70, 6.6, 3, 2, 3, 31, 69.2, 6, 13.2",
        "60, 3.6, 3, 2, 3, 27, 59.2, 5, 7.2",
        "60, 7.3, 1, 0, 1, 11, 36, 2, 0"
    })
    void shotsAreTakenInTheirOrderAsFarAsPacksAndHoursGo(
            double slot,
            double turnRound,
            int packs,
            int swaps,
            int used,
            double airborne,
            double endsAt,
            int done,
            double lostToSwaps) {
        Shots.Means m = means(slot, turnRound, packs);
        assertThat(m.usable()).isCloseTo(13, within(1e-9));
        Shots.Walk w = SIX.walk(m);
        assertThat(w.swaps()).isEqualTo(swaps);
        assertThat(w.packsUsed()).isEqualTo(used);
        assertThat(w.airborne()).isCloseTo(airborne, within(1e-9));
        assertThat(w.endsAt()).isCloseTo(endsAt, within(1e-9));
        assertThat(w.done()).containsExactlyElementsOf(SIX.all().subList(0, done));
        assertThat(w.lost()).containsExactlyElementsOf(SIX.all().subList(done, 6));
        assertThat(w.lostToSwaps()).isCloseTo(lostToSwaps, within(1e-9));
    }

    @Test
    void aPackUsedToTheMinuteIsEnough() {
        // 22 x 0.7 - 2.4 is not 13 in binary
        Shots two = new Shots(List.of(shot("a", null, 6.5), shot("b", null, 6.5)));
        assertThat(two.walk(means(38, 5, 1)).lost()).isEmpty();
        assertThat(two.walk(means(37.9, 5, 1)).lost()).hasSize(1);
    }

    @Test
    void aShotLongerThanAPackTakesNoneFromTheOthers() {
        Shots s = new Shots(List.of(shot("a", null, 5.0), shot("long", null, 13.1), shot("b", null, 5.0)));
        Shots.Walk w = s.walk(means(120, 5, 2));
        assertThat(w.lost()).extracting(Shot::what).containsExactly("long");
        assertThat(w.swaps()).isZero();
    }

    @Test
    void oneThatDoesNotEndInTimeIsLeftOutAndTheNextTried() {
        Shots s = new Shots(List.of(shot("a", null, 10.0), shot("b", null, 9.0), shot("c", null, 2.0)));
        Shots.Walk w = s.walk(means(40, 7, 3));
        assertThat(w.done()).extracting(Shot::what).containsExactly("a", "c");
        assertThat(w.swaps()).isZero();
    }

    @Test
    void withoutAPackOrItsMinutesNothingIsDone() {
        assertThat(SIX.walk(means(70, 5, 0)).done()).isEmpty();
        assertThat(SIX.walk(means(70, 5, 0)).packsUsed()).isZero();
        assertThat(SIX.walk(new Shots.Means(70, 15, 10, 3, 0.3, 2.4, 5, 3)).done())
                .isEmpty();
        assertThatThrownBy(() -> new Shots(List.of(shot("a", null, null))).walk(means(70, 5, 1)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("“a”");
    }

    @Test
    void whatWouldSaveALostShotIsSaid() {
        assertThat(SIX.saving(means(70, 7.3, 3), 3).get(SIX.all().get(5)))
                .containsExactly(
                        "no unlock to be confirmed again", "a longer slot: all that the packs last for takes 71 min");
        assertThat(SIX.saving(means(200, 7.3, 1), 0).get(SIX.all().get(2))).containsExactly("one more pack");
        Shots s = new Shots(List.of(shot("long", null, 13.1)));
        assertThat(s.saving(means(200, 7.3, 3), 3).get(s.all().get(0)))
                .containsExactly("nothing alone; plan it as a job of its own");
        assertThat(SIX.saving(means(70, 6.6, 3), 3)).isEmpty();
    }

    /** More packs, a longer slot and a shorter turn-round never lose a minute; nothing is filmed beyond pack or slot. */
    @Test
    void moreNeverMeansLess() {
        Random r = new Random(4);
        for (int n = 0; n < 300; n++) {
            List<Shot> some = new ArrayList<>();
            for (int i = 0; i < 1 + r.nextInt(8); i++) {
                some.add(shot("s" + i, null, 3.0));
            }
            Shots shots = new Shots(some);
            double slot = 30 + r.nextInt(60);
            double turn = r.nextInt(9);
            int packs = 1 + r.nextInt(4);
            Shots.Walk w = shots.walk(means(slot, turn, packs));
            for (Shots.Means more : List.of(
                    means(slot + 10, turn, packs), means(slot, turn, packs + 1), means(slot, turn / 2, packs))) {
                assertThat(shots.walk(more).done())
                        .hasSizeGreaterThanOrEqualTo(w.done().size());
            }
            assertThat(w.done().isEmpty() ? 0 : w.endsAt()).isLessThanOrEqualTo(slot + 1e-6);
            assertThat(w.airborne()).isLessThanOrEqualTo(13.0 * packs + 1e-6);
            assertThat(w.done().size() + w.lost().size()).isEqualTo(some.size());
        }
    }

    @Test
    void aListAllAlikeIsSaid() {
        assertThat(SIX.sameness()).isEmpty();
        assertThat(SIX.minutes()).hasValue(31);
        assertThat(of(Shot.Kind.WIDE, Shot.Kind.WIDE, Shot.Kind.WIDE).sameness())
                .contains("all are wide shots");
        assertThat(of(Shot.Kind.WIDE, Shot.Kind.WIDE).sameness()).isEmpty();
        assertThat(of(Shot.Kind.WIDE, Shot.Kind.LOW, null).sameness()).contains("none is reveal, or detail");
        assertThat(of(null, null, null).sameness()).contains("no shot says how it is seen");
        assertThat(new Shots(List.of()).minutes()).isEmpty();
        assertThat(of(Shot.Kind.WIDE).minutes()).isEmpty();
    }

    private static Shots of(Shot.Kind... kinds) {
        return new Shots(Stream.of(kinds).map(k -> shot("", k, null)).toList());
    }

    @Test
    void aHouseReckonsAsUsualUntilItChooses() {
        assertThat(House.USUAL.clock()).isEqualTo(new DayClock.House(20, 5, 2, 120, 15, 15, 0.1));
        assertThat(House.USUAL.way()).isEqualTo(new Neighbours.Way(45, 30, 500, 10));
        House other = new House(java.util.Map.of(HouseFigure.KEEP_FREE, 25.0));
        assertThat(other.clock().keepFree()).isEqualTo(0.25);
        assertThat(HouseFigure.of("day.keepFree")).contains(HouseFigure.KEEP_FREE);
        for (HouseFigure f : HouseFigure.values()) {
            assertThat(f.usual()).isBetween(f.least(), f.most());
            assertThat(f.why()).isNotBlank();
        }
    }
}
