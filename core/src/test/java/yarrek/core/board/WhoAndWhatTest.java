package yarrek.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import yarrek.core.rulebook.Tally;

class WhoAndWhatTest {
    private static final WhoAndWhat.Person HANNE = new WhoAndWhat.Person(UUID.randomUUID(), "Hanne");
    private static final WhoAndWhat.Person RUFUS = new WhoAndWhat.Person(UUID.randomUUID(), "Rufus");
    private static final WhoAndWhat.Person LIGHT = new WhoAndWhat.Person(UUID.randomUUID(), "Sorrel, light");
    private static final WhoAndWhat.Person HEAVY = new WhoAndWhat.Person(UUID.randomUUID(), "Juniper, standard");
    private static final Tally GO = new Tally(0, 0, 0, 0, Tally.Go.GO);
    private static final Tally NO_GO = new Tally(1, 0, 0, 0, Tally.Go.NO_GO);

    private static WhoAndWhat of(Map<String, List<String>> lacking) {
        List<WhoAndWhat.Judged> judged = new ArrayList<>();
        for (WhoAndWhat.Person p : List.of(RUFUS, HANNE)) {
            for (WhoAndWhat.Person b : List.of(LIGHT, HEAVY)) {
                List<String> open = new ArrayList<>(List.of("wind not known"));
                open.addAll(lacking.getOrDefault(p.name() + " " + b.name(), List.of()));
                judged.add(new WhoAndWhat.Judged(p.id(), b.id(), open.size() > 1 ? NO_GO : GO, open));
            }
        }
        return WhoAndWhat.of(List.of(RUFUS, HANNE), List.of(LIGHT, HEAVY), judged, HANNE.id(), HEAVY.id());
    }

    @Test
    void whatLacksForAllIsSaidOnceAndNoReason() {
        WhoAndWhat w = of(Map.of());
        assertThat(w.always()).containsExactly("wind not known");
        assertThat(w.pilots())
                .allSatisfy(p -> assertThat(p.cells()).allMatch(c -> c.lacks().isEmpty() && c.isGo()));
        assertThat(w.opens()).isEmpty();
    }

    @Test
    void whoCanFlyTheMostComesFirst() {
        WhoAndWhat w = of(Map.of("Rufus Juniper, standard", List.of("certificate A2")));
        assertThat(w.pilots()).extracting(WhoAndWhat.Pilot::name).containsExactly("Hanne", "Rufus");
        assertThat(w.pilots()).extracting(WhoAndWhat.Pilot::may).containsExactly(2L, 1L);
        assertThat(w.builds()).extracting(WhoAndWhat.Build::may).containsExactly(2L, 1L);
        assertThat(w.best().chosen()).isTrue();
    }

    @Test
    void whatAloneIsLackingOpensThePairsWithIt() {
        WhoAndWhat w = of(Map.of(
                "Rufus Juniper, standard", List.of("certificate A2"),
                "Rufus Sorrel, light", List.of("certificate A2"),
                "Hanne Juniper, standard", List.of("mast sign-off", "certificate A2")));
        assertThat(w.opens()).containsExactly(new WhoAndWhat.Opens("Rufus: certificate A2", 2));
        WhoAndWhat.Cell two = w.pilots().get(0).cells().get(1);
        assertThat(two.first()).isEqualTo("mast sign-off");
        assertThat(two.more()).isEqualTo(1);
        assertThat(two.shape()).isEqualTo("notch");
        // as planned it does not go: the best is the one that does
        assertThat(w.best().build()).isEqualTo(LIGHT.id());
    }
}
