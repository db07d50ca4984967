package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yarrek.core.judging.Inputs.DAY;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;

/** Other planned jobs of the same pilot, aircraft and place. */
class NeighboursTest {
    private static final UUID SITE = UUID.randomUUID();
    private static final UUID PILOT = UUID.randomUUID();
    private static final UUID BUILD = UUID.randomUUID();
    private static final UUID WATCHES = UUID.randomUUID();
    private static final UUID SELF = UUID.randomUUID();
    private static final TimeWindow MORNING = Inputs.hours(DAY);
    private static final TimeWindow AFTER =
            new TimeWindow(MORNING.end(), MORNING.end().plusSeconds(3600));

    private static Neighbours.Planned planned(UUID id, String name, boolean emergency, List<TimeWindow> hours) {
        return new Neighbours.Planned(
                id, name, SITE, Inputs.LAUNCH, emergency, DAY, Map.of(PILOT, hours, BUILD, hours, WATCHES, hours));
    }

    private static Neighbours.Uses uses(UUID pilot, Set<UUID> builds) {
        return new Neighbours.Uses(pilot, Set.of(), builds, Inputs.LAUNCH);
    }

    private static Neighbours one(UUID id, TimeWindow hours, boolean emergency) {
        return new Neighbours(
                List.of(planned(id, "Roof", emergency, List.of(hours))), MORNING.start(), House.USUAL.way());
    }

    private static Elsewhere of(Neighbours n, UUID self, UUID pilot, Set<UUID> builds) {
        return n.of(self, SITE, uses(pilot, builds), List.of(MORNING));
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

    @Test
    void whoeverElseOfTheCrewIsInAnotherJobIsTold() {
        Neighbours n = one(UUID.randomUUID(), MORNING, false);
        Neighbours.Uses watching = new Neighbours.Uses(null, Set.of(WATCHES), Set.of(), Inputs.LAUNCH);
        assertThat(n.of(SELF, SITE, watching, List.of(MORNING)).ofCrew()).contains("Roof");
        assertThat(n.of(SELF, SITE, watching, List.of(AFTER)).ofCrew()).isEmpty();
    }

    private static Elsewhere from(double kmAway, long minutesBetween, Position known) {
        Instant end = MORNING.start().minusSeconds(60 * minutesBetween);
        Position there = Geodesy.destination(Inputs.LAUNCH, 90, kmAway * 1000);
        Neighbours.Planned before = new Neighbours.Planned(
                UUID.randomUUID(),
                "Roof",
                UUID.randomUUID(),
                known == null ? null : there,
                false,
                DAY,
                Map.of(PILOT, List.of(new TimeWindow(end.minusSeconds(3600), end))));
        return new Neighbours(List.of(before), MORNING.start(), new Neighbours.Way(45, 30, 500, 10))
                .of(SELF, SITE, uses(PILOT, Set.of()), List.of(MORNING));
    }

    /** 45 km at 45 km/h and half an hour to settle: 90 minutes. */
    @Test
    void theWayFromTheJobBeforeTakesItsTime() {
        assertThat(from(45, 90, Inputs.LAUNCH).late()).isEmpty();
        assertThat(from(45, 89, Inputs.LAUNCH).late().orElseThrow().shortMin()).isCloseTo(1, within(0.01));
        assertThat(from(45, 0, Inputs.LAUNCH).late().orElseThrow().needsMin()).isCloseTo(90, within(0.01));
    }

    @Test
    void oneAtTheSamePlaceOrAfterANightOrAtAPlaceNotKnownMakesNobodyLate() {
        assertThat(from(0.4, 0, Inputs.LAUNCH).late()).isEmpty();
        assertThat(from(1000, 600, Inputs.LAUNCH).late()).isEmpty();
        assertThat(from(1000, 599, Inputs.LAUNCH).late()).isPresent();
        assertThat(from(45, 0, null).late()).isEmpty();
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
                all.add(planned(i == 0 ? SELF : UUID.randomUUID(), "job " + i, false, windows));
            }
            TimeWindow asked = new TimeWindow(
                    MORNING.start().plusSeconds(60L * random.nextInt(300)),
                    MORNING.start().plusSeconds(60L * (300 + random.nextInt(60))));
            Optional<String> expected = all.stream()
                    .filter(j -> !j.id().equals(SELF)
                            && j.uses().get(PILOT).stream()
                                    .anyMatch(w -> w.start().isBefore(asked.end())
                                            && asked.start().isBefore(w.end())))
                    .map(Neighbours.Planned::name)
                    .min(Comparator.naturalOrder());
            assertThat(new Neighbours(all, MORNING.start(), House.USUAL.way())
                            .of(SELF, SITE, uses(PILOT, Set.of()), List.of(asked))
                            .ofPilot())
                    .isEqualTo(expected);
        }
    }
}
