package yarrek.core.pack;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yarrek.core.pack.Rotation.Candidate;
import yarrek.core.pack.Rotation.Times;
import yarrek.core.pack.Rotation.Weights;

class RotationTest {
    private static Candidate pack(String label, double cycles, double minutes) {
        return new Candidate(label, cycles, minutes, 5, false, null);
    }

    @Test
    void theOrderInWhichPacksAreNamedDoesNotMatter() {
        Random random = new Random(21);
        List<Candidate> packs = new ArrayList<>(IntStream.range(0, 8)
                .mapToObj(i -> pack("K" + i, random.nextInt(200), 18 + random.nextInt(8)))
                .toList());
        List<Double> flights = List.of(15.0, 15.0, 12.0, 9.0);
        Rotation.Choice first = Rotation.choose(flights, packs, Weights.house(0.25));
        for (int k = 0; k < 20; k++) {
            Collections.shuffle(packs, random);
            assertThat(Rotation.choose(flights, packs, Weights.house(0.25))).isEqualTo(first);
        }
    }

    @Test
    void ofTwoLabelsThatAHandTakesForEachOtherOneFlies() {
        Rotation.Choice c = Rotation.choose(
                List.of(10.0, 10.0),
                List.of(pack("KO1", 5, 20), pack("k0i", 9, 20), pack("K2", 100, 20)),
                Weights.house(0.25));
        assertThat(c.packs()).extracting(Candidate::label).containsExactlyInAnyOrder("KO1", "K2");
        assertThat(Rotation.choose(
                                List.of(10.0, 10.0),
                                List.of(pack("KO1", 5, 20), pack("k0i", 9, 20)),
                                Weights.house(0.25))
                        .packs())
                .isEmpty();
    }

    @Test
    void aWatchedPackFliesOnlyWhereOthersDoNot() {
        Candidate watched = new Candidate("A", 10, 20, 5, true, null);
        assertThat(Rotation.choose(List.of(10.0), List.of(watched, pack("B", 12, 20)), Weights.house(0.25))
                        .packs())
                .extracting(Candidate::label)
                .containsExactly("B");
        assertThat(Rotation.choose(List.of(10.0), List.of(watched), Weights.house(0.25))
                        .packs())
                .hasSize(1);
    }

    @Test
    void whyThereIsNoChoiceIsSaid() {
        Rotation.Choice c = Rotation.choose(
                List.of(23.0, 12.0),
                List.of(pack("K1", 1, 20), new Candidate("K2", 1, 30, 5, false, "quarantined")),
                Weights.house(0.25));
        assertThat(c.refused())
                .containsExactly(
                        "flight 1 of 23 min: no pack lasts so long",
                        "flight 2 of 12 min: one pack lasts so long",
                        "K2: quarantined");
        assertThat(Rotation.choose(List.of(10.0), List.of(), Weights.house(0.25))
                        .packs())
                .isEmpty();
        assertThat(Rotation.choose(List.of(), List.of(), Weights.house(0.25)).refused())
                .isEmpty();
    }

    @Test
    void aFlightLongerThanAPackLastsHasNoNumberOfPacks() {
        assertThat(Rotation.inOrder(List.of(12.0, 22.0), 21)).isEmpty();
        assertThat(Rotation.inOrder(List.of(21.0, 21.0), 21)).contains(new Rotation.Needed(2, 2));
        assertThat(Rotation.inOrder(List.of(), 21)).contains(new Rotation.Needed(0, 0));
    }

    @Test
    void withMorePacksNobodyWaitsLonger() {
        Times t = new Times(4, 2, 15, 50);
        List<Double> flights = Collections.nCopies(10, 15.0);
        double before = Double.MAX_VALUE;
        for (int n = 1; n <= 10; n++) {
            double waiting = Rotation.onSite(flights, t, n, 3).waiting();
            assertThat(waiting).isLessThanOrEqualTo(before);
            before = waiting;
        }
        assertThat(Rotation.fewest(flights, t, 3, 0)).isEqualTo(4);
        assertThat(Rotation.onSite(flights, t, 4, 3).minutes())
                .isEqualTo(Rotation.minutes(flights, t.turn(), t.unlock()));
        // without a place to charge every flight takes its own
        assertThat(Rotation.fewest(flights, t, 0, 0)).isEqualTo(10);
    }
}
