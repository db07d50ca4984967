package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.judging.Inputs.DAY;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
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

    /** Found by the order of their hours as by asking each of them. */
    @Test
    void whoIsTakenDoesNotDependOnHowItIsLookedFor() {
        Random random = new Random(11);
        for (int n = 0; n < 200; n++) {
            List<Neighbours.Planned> all = new ArrayList<>();
            for (int i = random.nextInt(12); i >= 0; i--) {
                List<TimeWindow> windows = new ArrayList<>();
                for (int w = random.nextInt(3); w >= 0; w--) {
                    Instant start = MORNING.start().plusSeconds(60L * random.nextInt(600));
                    windows.add(new TimeWindow(start, start.plusSeconds(60L * (1 + random.nextInt(200)))));
                }
                all.add(new Neighbours.Planned(
                        i == 0 ? SELF : UUID.randomUUID(), "job " + i, SITE, PILOT, null, false, DAY, windows));
            }
            TimeWindow asked = new TimeWindow(
                    MORNING.start().plusSeconds(60L * random.nextInt(300)),
                    MORNING.start().plusSeconds(60L * (300 + random.nextInt(60))));
            Optional<String> expected = all.stream()
                    .filter(j -> !j.id().equals(SELF)
                            && j.windows().stream()
                                    .anyMatch(w -> w.start().isBefore(asked.end())
                                            && asked.start().isBefore(w.end())))
                    .map(Neighbours.Planned::name)
                    .min(Comparator.naturalOrder());
            assertThat(new Neighbours(all, MORNING.start())
                            .of(SELF, SITE, PILOT, Set.of(), List.of(asked))
                            .ofPilot())
                    .isEqualTo(expected);
        }
    }
}
