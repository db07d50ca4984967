package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Go or not, and the counts, over every way in which a finding may stand. */
class TallyTest {
    private record One(
            Verdict verdict, Severity severity, boolean law, boolean departed, boolean beaten, boolean onTheDay)
            implements Standing {}

    private static List<One> every() {
        List<One> all = new ArrayList<>();
        for (Verdict v : Verdict.values()) {
            for (Severity s : Severity.values()) {
                for (int bits = 0; bits < 16; bits++) {
                    all.add(new One(v, s, (bits & 1) > 0, (bits & 2) > 0, (bits & 4) > 0, (bits & 8) > 0));
                }
            }
        }
        return all;
    }

    @Test
    void oneThatBlocksIsNoGoAndOneThatWaitsIsForTheDay() {
        for (One f : every()) {
            Tally t = Tally.of(List.of(f));
            Tally.Go expected = f.blocks() ? Tally.Go.NO_GO : f.waitsForTheDay() ? Tally.Go.ON_THE_DAY : Tally.Go.GO;
            assertThat(t.go()).as(f.toString()).isEqualTo(expected);
            assertThat(t.breached() + t.notKnown() + t.close()).as(f.toString()).isEqualTo(f.isOpen() ? 1 : 0);
        }
    }

    @Test
    void aBreachOfLawBlocksWhateverItsWeightAndWhateverBeatsIt() {
        assertThat(every())
                .filteredOn(f -> f.verdict() == Verdict.BREACHED && f.law() && !f.departed())
                .allMatch(f -> f.blocks() && f.isOpen());
        assertThat(every())
                .filteredOn(f -> f.verdict() == Verdict.MET || f.verdict() == Verdict.NOT_APPLICABLE)
                .noneMatch(f -> f.blocks() || f.isOpen());
    }

    @Test
    void moreFindingsNeverMakeItMoreOfAGo() {
        Random random = new Random(7);
        List<One> all = every();
        for (int n = 0; n < 500; n++) {
            List<One> some = new ArrayList<>();
            for (int i = random.nextInt(6); i >= 0; i--) {
                some.add(all.get(random.nextInt(all.size())));
            }
            Tally before = Tally.of(some);
            some.add(all.get(random.nextInt(all.size())));
            Tally after = Tally.of(some);
            assertThat(after.go()).isGreaterThanOrEqualTo(before.go());
            assertThat(after.law()).isGreaterThanOrEqualTo(before.law());
        }
    }

    @Test
    void aGoSaysWhatItDepartsFrom() {
        assertThat(Tally.Go.GO.words(0)).isEqualTo("go");
        assertThat(Tally.Go.GO.words(1)).isEqualTo("go, 1 departure from house rules");
        assertThat(Tally.Go.ON_THE_DAY.says(2)).endsWith("said then, 2 departures from house rules");
        assertThat(Tally.Go.NO_GO.words(3)).isEqualTo("no-go");
    }
}
