package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Hours of days that differ, people without a flight, reasons of builds. */
class ArrangedTest {
    private static final LocalDate DAY = LocalDate.of(2027, 3, 27);
    private static final UUID ANNA = new UUID(0, 1);
    private static final UUID BEN = new UUID(0, 2);
    private static final UUID BUILD = new UUID(0, 3);
    private static final Arranged.Hours EARLY = new Arranged.Hours(LocalTime.of(6, 0), LocalTime.of(8, 30));
    private static final Arranged TWO = new Arranged(
            Map.of(DAY.plusDays(1), EARLY),
            List.of(
                    new Arranged.Helper(ANNA, FlightsPlanned.Role.PAYLOAD, null),
                    new Arranged.Helper(BEN, FlightsPlanned.Role.OBSERVER, DAY.plusDays(1))),
            Map.of(BUILD, "lighter over the crowd"));

    private static FlightsPlanned flights(PlannedFlight... all) {
        return new FlightsPlanned(
                List.of(all),
                new FlightsPlanned.Job(
                        DAY, DAY.plusDays(2), LocalTime.of(10, 0), LocalTime.of(13, 0), BUILD, ANNA, null, TWO));
    }

    private static PlannedFlight at(int day, String at, double minutes) {
        return new PlannedFlight(
                DAY.plusDays(day),
                LocalTime.parse(at),
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                minutes,
                null,
                null);
    }

    @ParameterizedTest
    @CsvSource({
        "0, 10:00, 20, ''",
        "0, 06:10, 20, startsAt",
        "1, 06:10, 20, ''",
        "1, 10:00, 20, startsAt",
        "1, 08:10, 20, ''",
        "1, 08:10, 21, minutes",
    })
    void aFlightLiesWithinTheHoursOfItsDay(int day, String at, double minutes, String wrong) {
        assertThat(flights(at(day, at, minutes)).faults())
                .extracting(FlightsPlanned.Fault::field)
                .containsExactlyElementsOf(wrong.isEmpty() ? List.of() : List.of(wrong));
    }

    @Test
    void theClockOfADayReckonsWithItsHours() {
        List<DayClock> clocks = DayClock.of(flights(at(0, "10:00", 20), at(1, "06:10", 20)), House.USUAL.clock(), false)
                .orElseThrow();
        assertThat(clocks).extracting(DayClock::hours).containsExactly(180.0, 150.0);
    }

    @Test
    void whoIsThereWithoutAFlightIsOfTheCrew() {
        assertThat(flights().crew())
                .containsEntry(ANNA, Set.of(FlightsPlanned.Role.COMMAND, FlightsPlanned.Role.PAYLOAD))
                .containsEntry(BEN, Set.of(FlightsPlanned.Role.OBSERVER));
    }

    @Test
    void oneDayWithAnObserverIsNotAllOfThem() {
        assertThat(TWO.isWatched(DAY.plusDays(1), DAY.plusDays(1))).isTrue();
        assertThat(TWO.isWatched(DAY, DAY.plusDays(1))).isFalse();
    }

    @Test
    void itMovesWithTheJobAndBack() {
        Arranged moved = TWO.later(9);
        assertThat(moved.hours()).containsOnlyKeys(DAY.plusDays(10));
        assertThat(moved.crew()).extracting(Arranged.Helper::day).containsExactly(null, DAY.plusDays(10));
        assertThat(moved.later(-9)).isEqualTo(TWO);
    }

    @Test
    void whatIsForOtherDaysIsLeftOut() {
        Arranged first = TWO.within(DAY, DAY);
        assertThat(first.hours()).isEmpty();
        assertThat(first.crew()).extracting(Arranged.Helper::personId).containsExactly(ANNA);
        assertThat(first.reasons()).isEqualTo(TWO.reasons());
        assertThat(TWO.within(DAY, DAY.plusDays(2))).isEqualTo(TWO);
    }

    @Test
    void daysOutsideTheJobAreRefused() {
        assertThat(TWO.wrong(DAY, DAY.plusDays(1))).isEmpty();
        assertThat(TWO.wrong(DAY, DAY)).hasValueSatisfying(w -> assertThat(w).contains("2027-03-28"));
        Arranged crew = new Arranged(Map.of(), TWO.crew(), Map.of());
        assertThat(crew.wrong(DAY, DAY)).hasValueSatisfying(w -> assertThat(w).contains("of the crew"));
        Arranged many = new Arranged(
                Map.of(), Collections.nCopies(Arranged.MOST_CREW + 1, TWO.crew().get(0)), Map.of());
        assertThat(many.wrong(DAY, DAY)).hasValueSatisfying(w -> assertThat(w).startsWith("61 people"));
    }

    @ParameterizedTest
    @CsvSource({"10:00, 13:00, false", "22:00, 02:00, true", "10:00, 10:00, true"})
    void hoursThatEndAtOrBeforeTheirBeginningRunPastMidnight(String from, String to, boolean past) {
        assertThat(new Arranged.Hours(LocalTime.parse(from), LocalTime.parse(to)).isPastMidnight())
                .isEqualTo(past);
    }
}
