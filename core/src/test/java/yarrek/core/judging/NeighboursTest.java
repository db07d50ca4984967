package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.judging.Inputs.DAY;

import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import yarrek.core.time.TimeWindow;

/** Other planned jobs of the same pilot, aircraft and place. */
class NeighboursTest {
    private static final UUID SITE = UUID.randomUUID();
    private static final UUID PILOT = UUID.randomUUID();
    private static final UUID BUILD = UUID.randomUUID();
    private static final UUID SELF = UUID.randomUUID();
    private static final TimeWindow MORNING = Inputs.hours(DAY);
    private static final TimeWindow AFTER =
            new TimeWindow(MORNING.end(), MORNING.end().plusSeconds(3600));

    private static Neighbours one(UUID id, TimeWindow hours, boolean emergency) {
        return new Neighbours(
                List.of(new Neighbours.Planned(id, "Roof", SITE, PILOT, BUILD, emergency, DAY, List.of(hours))),
                MORNING.start());
    }

    private static Elsewhere of(Neighbours n, UUID self, UUID pilot, Set<UUID> builds) {
        return n.of(self, SITE, pilot, builds, List.of(MORNING));
    }

    @Test
    void whoeverIsInAnotherJobOfTheseHoursIsTaken() {
        Elsewhere e = of(one(UUID.randomUUID(), MORNING, false), SELF, PILOT, Set.of(BUILD, UUID.randomUUID()));
        assertThat(e.ofPilot()).contains("Roof");
        assertThat(e.ofCraft()).contains("Roof");
        assertThat(e.emergency()).isEmpty();
    }

    @Test
    void oneThatBeginsWhenThisEndsDoesNotOverlap() {
        Elsewhere e = of(one(UUID.randomUUID(), AFTER, false), SELF, PILOT, Set.of(BUILD));
        assertThat(e.ofPilot()).isEmpty();
        assertThat(e.ofCraft()).isEmpty();
    }

    @Test
    void aJobIsNotItsOwnNeighbour() {
        assertThat(of(one(SELF, MORNING, true), SELF, PILOT, Set.of(BUILD))).isEqualTo(Elsewhere.NOTHING);
        // while it is not stored every other is another
        assertThat(of(one(SELF, MORNING, true), null, PILOT, Set.of(BUILD)).ofPilot())
                .contains("Roof");
    }

    @Test
    void nobodyNamedIsNowhereElse() {
        assertThat(of(one(UUID.randomUUID(), MORNING, true), SELF, null, Set.of())
                        .ofPilot())
                .isEmpty();
        assertThat(of(one(UUID.randomUUID(), AFTER, true), SELF, null, Set.of()).emergency())
                .contains("Roof");
    }
}
