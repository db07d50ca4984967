package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Which flight planned a flight was, and what differed. */
class PlannedFlownTest {
    private static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    private static final LocalDate DAY = LocalDate.of(2026, 12, 16);
    private static final UUID BIG = new UUID(0, 1);
    private static final UUID SMALL = new UUID(0, 2);
    private static final UUID ANNA = new UUID(1, 1);
    private static final UUID BEN = new UUID(1, 2);
    private static final Map<UUID, String> NAMES = Map.of(BIG, "Big", SMALL, "Small", ANNA, "Anna", BEN, "Ben");

    private static PlannedFlight plan(int day, String at, UUID build, UUID pilot) {
        return new PlannedFlight(
                DAY.plusDays(day),
                at == null ? null : LocalTime.parse(at),
                build,
                pilot,
                null,
                null,
                60.0,
                true,
                200.0,
                null,
                14.0,
                null,
                "");
    }

    private static FlightsPlanned planned(PlannedFlight... all) {
        return new FlightsPlanned(
                List.of(all),
                new FlightsPlanned.Job(DAY, DAY.plusDays(2), LocalTime.of(9, 0), LocalTime.of(15, 0), BIG, ANNA, null));
    }

    private static PlannedFlown.Flown flown(int n, int day, String at, UUID craft, UUID pilot) {
        Instant takeoff =
                DAY.plusDays(day).atTime(LocalTime.parse(at)).atZone(ZONE).toInstant();
        return new PlannedFlown.Flown(new UUID(9, n), takeoff, takeoff.plusSeconds(14 * 60), craft, pilot, 60.0, 200.0);
    }

    private static List<Integer> match(FlightsPlanned planned, PlannedFlown.Flown... flown) {
        Map<UUID, Integer> m = PlannedFlown.match(List.of(flown), planned, UnaryOperator.identity(), ZONE);
        return List.of(flown).stream().map(f -> m.getOrDefault(f.id(), 0)).toList();
    }

    @Test
    void flightsAreMatchedByDayThenAircraftThenPilotThenOrder() {
        FlightsPlanned p = planned(
                plan(0, null, null, null),
                plan(0, null, SMALL, BEN),
                plan(0, null, null, null),
                plan(1, null, null, null));
        assertThat(match(
                        p,
                        flown(1, 0, "09:30", SMALL, BEN),
                        flown(2, 0, "10:00", BIG, ANNA),
                        flown(3, 0, "10:30", BIG, ANNA),
                        flown(4, 0, "11:00", BIG, ANNA),
                        flown(5, 1, "09:30", SMALL, BEN)))
                .containsExactly(2, 1, 3, 0, 4);
    }

    @Test
    void ofTwoAlikeTheOneNearestInTimeIsTaken() {
        FlightsPlanned p = planned(plan(0, "09:30", null, null), plan(0, "12:00", null, null));
        assertThat(match(p, flown(1, 0, "11:50", BIG, ANNA))).containsExactly(2);
    }

    @Test
    void aFlightOfAnotherDayIsNoneOfThem() {
        assertThat(match(planned(plan(0, null, null, null)), flown(1, 2, "10:00", BIG, ANNA)))
                .containsExactly(0);
        assertThat(match(planned(), flown(1, 0, "10:00", BIG, ANNA))).containsExactly(0);
    }

    private static PlannedFlown compare(PlannedFlight as, PlannedFlown.Flown f) {
        return PlannedFlown.of(1, as, as.day(), f, UnaryOperator.identity(), NAMES, ZONE);
    }

    private static String differs(PlannedFlown p, String what) {
        return p.lines().stream()
                .filter(l -> l.what().startsWith(what))
                .map(PlannedFlown.Line::differs)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void flownAsPlannedDiffersInNothing() {
        PlannedFlown p = compare(plan(0, "10:00", BIG, ANNA), flown(1, 0, "10:00", BIG, ANNA));
        assertThat(p.differs()).isFalse();
        assertThat(p.lines()).hasSize(7);
    }

    @ParameterizedTest
    @CsvSource({"60.4, ''", "61.2, 1 m higher", "48, 12 m lower"})
    void aHeightDiffersByWholeMetres(double height, String words) {
        PlannedFlown.Flown f = flown(1, 0, "10:00", BIG, ANNA);
        PlannedFlown p = compare(
                plan(0, null, BIG, ANNA),
                new PlannedFlown.Flown(
                        f.id(), f.takeoff(), f.landing(), f.aircraftId(), f.pilotId(), height, f.distanceM()));
        assertThat(differs(p, "Greatest height")).isEqualTo(words);
    }

    @Test
    void whatDiffersIsSaidInWords() {
        PlannedFlown p = compare(plan(0, "10:00", BIG, ANNA), flown(1, 1, "09:48", SMALL, BEN));
        assertThat(differs(p, "Day")).isEqualTo("1 day later");
        assertThat(differs(p, "Aircraft")).isEqualTo("another aircraft");
        assertThat(differs(p, "Pilot")).isEqualTo("another pilot");
        PlannedFlown late = compare(plan(0, "10:00", BIG, ANNA), flown(1, 0, "10:12", BIG, ANNA));
        assertThat(differs(late, "Take-off")).isEqualTo("12 min later");
    }

    @Test
    void whatIsNotKnownDiffersInNothingAndSaysSo() {
        PlannedFlown p = compare(
                new PlannedFlight(DAY, null, null, null, null, null, 50.0, false, null, null, null, null, ""),
                new PlannedFlown.Flown(
                        new UUID(9, 1),
                        flown(1, 0, "10:00", BIG, ANNA).takeoff(),
                        flown(1, 0, "10:09", BIG, ANNA).takeoff(),
                        null,
                        null,
                        null,
                        null));
        assertThat(p.differs()).isFalse();
        assertThat(p.lines()).extracting(PlannedFlown.Line::planned).contains("not said", "50 m above ground");
        assertThat(p.lines()).extracting(PlannedFlown.Line::flown).contains("not known");
    }

    @Test
    void whoeverSupervisesOrIsSupervisedFliesAsPlanned() {
        PlannedFlight taught =
                new PlannedFlight(DAY, null, BIG, ANNA, BEN, null, null, null, null, null, null, null, "");
        assertThat(differs(compare(taught, flown(1, 0, "10:00", BIG, ANNA)), "Pilot"))
                .isEmpty();
        assertThat(differs(compare(taught, flown(1, 0, "10:00", BIG, BEN)), "Pilot"))
                .isEmpty();
        assertThat(differs(compare(taught, flown(1, 0, "10:00", BIG, SMALL)), "Pilot"))
                .isEqualTo("another pilot");
    }
}
