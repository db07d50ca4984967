package yarrek.core.paper;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import yarrek.core.paper.HolderStanding.Held;

class HolderStandingTest {
    private static final LocalDate OCT = LocalDate.of(2026, 10, 23);

    private static PaperState any(Random random) {
        List<PaperState> all = List.of(PaperState.values());
        return all.get(random.nextInt(all.size()));
    }

    private static Held paper(String series, PaperState state) {
        return new Held(series, series, state, OCT, OCT.minusDays(20));
    }

    @Test
    void withoutAnyPaperNothingIsKnown() {
        HolderStanding s = HolderStanding.of(List.of());
        assertThat(s.state()).isEqualTo(PaperState.UNKNOWN);
        assertThat(s.words()).isEqualTo("no paper on file");
    }

    @Test
    void theMostPressingPaperSpeaksForAll() {
        HolderStanding s = HolderStanding.of(List.of(
                paper("insurance", PaperState.IN_FORCE),
                paper("release", PaperState.RUN_OUT),
                paper("certificate", PaperState.ACT_SOON)));
        assertThat(s.state()).isEqualTo(PaperState.RUN_OUT);
        assertThat(s.reasons()).containsExactly("release ran out on 23 Oct 2026", "certificate: act by 3 Oct 2026");
    }

    @Test
    void aPaperThatWasRenewedDoesNotPress() {
        HolderStanding s =
                HolderStanding.of(List.of(paper("release", PaperState.RUN_OUT), paper("release", PaperState.IN_FORCE)));
        assertThat(s.state()).isEqualTo(PaperState.IN_FORCE);
        assertThat(s.reasons()).isEmpty();
    }

    @Test
    void aRenewalThatBeginsLaterLeavesItsDayOpen() {
        HolderStanding s = HolderStanding.of(
                List.of(paper("release", PaperState.RUN_OUT), paper("release", PaperState.NOT_YET_VALID)));
        assertThat(s.state()).isEqualTo(PaperState.NOT_YET_VALID);
        assertThat(s.reasons()).containsExactly("release is not yet valid");
    }

    @ParameterizedTest
    @EnumSource(PaperState.class)
    void onePaperAloneStandsAsItself(PaperState state) {
        assertThat(HolderStanding.of(List.of(paper("one", state))).state()).isEqualTo(state);
    }

    @Test
    void anEndThatIsNotSaidIsLeftOut() {
        HolderStanding s = HolderStanding.of(List.of(new Held("one", "one", PaperState.RUN_OUT, null, null)));
        assertThat(s.reasons()).containsExactly("one ran out");
    }

    /** The order in which papers are on file says nothing, and a paper of another series never betters a standing. */
    @Test
    void orderIsOfNoAccountAndMorePapersNeverPressLess() {
        Random random = new Random(16);
        for (int n = 0; n < 300; n++) {
            List<Held> papers = new ArrayList<>();
            for (int i = 0; i < 1 + random.nextInt(6); i++) {
                papers.add(paper("series" + random.nextInt(4), any(random)));
            }
            HolderStanding s = HolderStanding.of(papers);
            List<Held> shuffled = new ArrayList<>(papers);
            Collections.shuffle(shuffled, random);
            assertThat(HolderStanding.of(shuffled).state()).isEqualTo(s.state());
            papers.add(paper("another", any(random)));
            assertThat(HolderStanding.MOST_PRESSING.compare(HolderStanding.of(papers), s))
                    .isNotPositive();
        }
    }
}
