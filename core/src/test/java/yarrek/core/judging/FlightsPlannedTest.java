package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.UUID;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is judged as one of the planned flights of a job, what is wrong with them, and whether they fit their hours. */
class FlightsPlannedTest {
    private static final LocalDate DAY = LocalDate.of(2026, 12, 28);
    private static final UUID LEAD = UUID.randomUUID();
    private static final UUID LEARNER = UUID.randomUUID();
    private static final UUID OBSERVER = UUID.randomUUID();
    private static final UUID BIG = UUID.randomUUID();
    private static final UUID SMALL = UUID.randomUUID();
    private static final FlightsPlanned.Job JOB =
            new FlightsPlanned.Job(DAY, DAY.plusDays(2), LocalTime.of(10, 0), LocalTime.of(13, 0), BIG, LEAD, OBSERVER);

    private static PlannedFlight flight(int day, String at, UUID build, UUID pilot, UUID supervised, Double minutes) {
        return new PlannedFlight(
                DAY.plusDays(day),
                at == null ? null : LocalTime.parse(at),
                build,
                pilot,
                supervised,
                null,
                null,
                null,
                null,
                null,
                minutes,
                null,
                null);
    }

    private static PlannedFlight plain(int day, Double minutes) {
        return flight(day, null, null, null, null, minutes);
    }

    private static FlightsPlanned of(PlannedFlight... flights) {
        return new FlightsPlanned(List.of(flights), JOB);
    }

    private static List<String> wrong(PlannedFlight... flights) {
        return of(flights).faults().stream()
                .map(f -> f.number() + " " + f.field())
                .toList();
    }

    @Test
    void flightsAlikeOnDaysThatFollowAreOnePart() {
        List<FlightsPlanned.Part> parts =
                of(plain(0, 12.0), plain(0, 9.0), plain(1, null)).parts();
        assertThat(parts).hasSize(1);
        assertThat(parts.get(0).flights()).containsExactly(1, 2, 3);
        assertThat(parts.get(0).last()).isEqualTo(DAY.plusDays(1));
        assertThat(parts.get(0).as().buildId()).isEqualTo(BIG);
        assertThat(parts.get(0).atControls()).isEqualTo(LEAD);
    }

    @Test
    void aDayWithoutOneBetweenMakesTwo() {
        assertThat(of(plain(0, null), plain(2, null)).parts())
                .extracting(FlightsPlanned.Part::flights)
                .containsExactly(List.of(1), List.of(2));
    }

    @Test
    void anotherBuildIsAPartOfItsOwnAndSayingTheJobsOwnIsNot() {
        List<FlightsPlanned.Part> parts = of(
                        flight(0, null, BIG, null, null, null),
                        flight(0, null, SMALL, null, null, null),
                        plain(0, null))
                .parts();
        assertThat(parts).extracting(FlightsPlanned.Part::flights).containsExactly(List.of(1, 3), List.of(2));
    }

    @Test
    void whoFliesSupervisedIsJudgedBesideThePilotInCommand() {
        List<FlightsPlanned.Part> parts =
                of(flight(0, null, null, null, LEARNER, null)).parts();
        assertThat(parts).extracting(FlightsPlanned.Part::atControls).containsExactly(LEAD, LEARNER);
        assertThat(parts).extracting(FlightsPlanned.Part::supervised).containsExactly(false, true);
    }

    @Test
    void theCrewAndTheBuildsAreEverybodyAndEverything() {
        FlightsPlanned f = of(flight(0, null, SMALL, null, LEARNER, null));
        assertThat(f.people()).containsExactlyInAnyOrder(LEAD, LEARNER, OBSERVER);
        assertThat(f.builds()).containsExactly(SMALL);
        assertThat(of().builds()).containsExactly(BIG);
    }

    @Test
    void aDayThatIsNoneOfTheJobsIsRefused() {
        assertThat(wrong(plain(-1, null), plain(0, null), plain(2, null), plain(3, null)))
                .containsExactly("1 day", "4 day");
    }

    @ParameterizedTest
    @CsvSource({
        "09:59, 1 startsAt",
        "10:00, ''",
        "12:50, ''",
        "12:51, 1 minutes",
        "13:00, 1 startsAt",
        "13:01, 1 startsAt"
    })
    void aFlightLiesWithinTheHours(String at, String expected) {
        assertThat(String.join(",", wrong(flight(0, at, null, null, null, 10.0))))
                .isEqualTo(expected);
    }

    @Test
    void hoursPastMidnightHoldBothSides() {
        FlightsPlanned.Job night =
                new FlightsPlanned.Job(DAY, DAY, LocalTime.of(22, 0), LocalTime.of(2, 0), BIG, LEAD, null);
        for (String at : List.of("22:00", "23:59", "00:00", "01:30")) {
            assertThat(new FlightsPlanned(List.of(flight(0, at, null, null, null, 30.0)), night).faults())
                    .as(at)
                    .isEmpty();
        }
        assertThat(new FlightsPlanned(List.of(flight(0, "21:59", null, null, null, 1.0)), night).faults())
                .hasSize(1);
    }

    @Test
    void onePilotAndOneAircraftAreInOnePlaceAtATime() {
        PlannedFlight first = flight(0, "10:00", BIG, LEAD, null, 20.0);
        assertThat(wrong(first, flight(0, "10:20", BIG, LEAD, null, 20.0))).isEmpty();
        assertThat(wrong(first, flight(0, "10:19", BIG, LEARNER, null, 20.0))).containsExactly("2 startsAt");
        assertThat(wrong(first, flight(0, "10:19", SMALL, LEAD, null, 20.0))).containsExactly("2 startsAt");
        assertThat(wrong(first, flight(0, "10:19", SMALL, LEARNER, null, 20.0))).isEmpty();
        assertThat(wrong(first, flight(1, "10:19", BIG, LEAD, null, 20.0))).isEmpty();
        assertThat(wrong(first, flight(0, null, BIG, LEAD, null, 20.0))).isEmpty();
    }

    @Test
    void nobodySupervisesThemselvesOrWatchesWhatTheyFly() {
        assertThat(wrong(flight(0, null, null, null, LEAD, null))).containsExactly("1 supervisedId");
        assertThat(wrong(flight(0, null, null, OBSERVER, null, null))).containsExactly("1 observerId");
        // beside a learner the pilot in command may be the observer's colleague, the learner may not be the observer
        assertThat(wrong(flight(0, null, null, null, OBSERVER, null))).containsExactly("1 observerId");
        FlightsPlanned nobody = new FlightsPlanned(
                List.of(flight(0, null, null, null, LEARNER, null)),
                new FlightsPlanned.Job(DAY, DAY, LocalTime.NOON, LocalTime.of(13, 0), null, null, null));
        assertThat(nobody.faults()).extracting(FlightsPlanned.Fault::field).containsExactly("supervisedId");
    }

    @Test
    void tooManyAreRefusedAtOnce() {
        List<PlannedFlight> all = new ArrayList<>(Collections.nCopies(FlightsPlanned.MOST, plain(0, null)));
        assertThat(new FlightsPlanned(all, JOB).faults()).isEmpty();
        all.add(plain(9, null));
        assertThat(new FlightsPlanned(all, JOB).faults())
                .singleElement()
                .satisfies(f -> assertThat(f.words()).contains("201 flights"));
    }

    @ParameterizedTest
    @CsvSource({"0, false", "-1, false", "0.5, true", "600, true", "601, false"})
    void minutesAreThoseOfAFlight(double minutes, boolean fine) {
        assertThat(wrong(plain(0, minutes)).isEmpty()).isEqualTo(fine);
    }

    /** Every flight is in a part; nobody else's is; and the parts do not depend on flights of other builds between. */
    @Test
    void partsHoldEveryFlightOnce() {
        Random random = new Random(16);
        List<UUID> builds = List.of(BIG, SMALL);
        for (int n = 0; n < 200; n++) {
            List<PlannedFlight> flights = IntStream.range(0, random.nextInt(20))
                    .mapToObj(i -> flight(i / 7, null, builds.get(random.nextInt(2)), null, null, null))
                    .toList();
            List<FlightsPlanned.Part> parts = new FlightsPlanned(flights, JOB).parts();
            assertThat(parts.stream().flatMap(p -> p.flights().stream()).sorted())
                    .containsExactlyElementsOf(
                            IntStream.rangeClosed(1, flights.size()).boxed().toList());
            parts.forEach(p -> p.flights()
                    .forEach(i -> assertThat(flights.get(i - 1).buildId()).isEqualTo(p.as().buildId())));
        }
    }

    // --- whether they fit their hours --------------------------------------------------------------------------------

    /** 20 + (3 × 12 + 2 × 5) + 15 = 81, no break within 120, a tenth kept free: 89.1. */
    @Test
    void aDayIsSetUpFliesChangesPacksAndPacksUp() {
        DayClock d = DayClock.of(of(plain(0, 12.0), plain(0, 12.0), plain(0, 12.0)), House.USUAL.clock(), false)
                .orElseThrow()
                .get(0);
        assertThat(d.needed()).isCloseTo(89.1, within(1e-9));
        assertThat(d.hours()).isEqualTo(180);
        assertThat(d.shortBy()).isZero();
        assertThat(d.steps()).contains("changes of pack 10 min", "in the air 36 min");
    }

    /** With an unlock each change takes 2 minutes more: 85 and its tenth. */
    @Test
    void anUnlockIsConfirmedAgainWithEachPack() {
        DayClock d = DayClock.of(of(plain(0, 12.0), plain(0, 12.0), plain(0, 12.0)), House.USUAL.clock(), true)
                .orElseThrow()
                .get(0);
        assertThat(d.needed()).isCloseTo(93.5, within(1e-9));
    }

    /** 20 + (9 × 15 + 8 × 5) + 15 = 210, one break: 225, a tenth: 247.5 of 180. */
    @Test
    void tooManyFlightsAreShortOfTheHours() {
        PlannedFlight[] nine = Collections.nCopies(9, plain(0, 15.0)).toArray(PlannedFlight[]::new);
        DayClock d =
                DayClock.of(of(nine), House.USUAL.clock(), false).orElseThrow().get(0);
        assertThat(d.shortBy()).isCloseTo(67.5, within(1e-9));
    }

    @Test
    void twoPilotsWithTwoAircraftFlyMeanwhile() {
        PlannedFlight a = flight(0, null, BIG, LEAD, null, 20.0);
        PlannedFlight b = flight(0, null, SMALL, LEARNER, null, 10.0);
        DayClock both =
                DayClock.of(of(a, b), House.USUAL.clock(), false).orElseThrow().get(0);
        DayClock alone =
                DayClock.of(of(a), House.USUAL.clock(), false).orElseThrow().get(0);
        assertThat(both.needed()).isEqualTo(alone.needed());
        // one aircraft flown by two flies one after the other
        PlannedFlight same = flight(0, null, BIG, LEARNER, null, 10.0);
        assertThat(DayClock.of(of(a, same), House.USUAL.clock(), false)
                        .orElseThrow()
                        .get(0)
                        .needed())
                .isGreaterThan(alone.needed() + 10);
    }

    @Test
    void aFlightOfUnknownLengthLeavesItNotKnown() {
        assertThat(DayClock.of(of(plain(0, 12.0), plain(1, null)), House.USUAL.clock(), false))
                .isEmpty();
    }

    /** One more flight never takes less time. */
    @Test
    void moreFlightsNeverTakeLess() {
        Random random = new Random(4);
        for (int n = 0; n < 200; n++) {
            List<PlannedFlight> flights = new ArrayList<>();
            double before = 0;
            for (int i = 0; i < 8; i++) {
                flights.add(flight(
                        0,
                        null,
                        random.nextBoolean() ? BIG : SMALL,
                        random.nextBoolean() ? LEAD : LEARNER,
                        null,
                        1.0 + random.nextInt(20)));
                double needed = DayClock.of(new FlightsPlanned(flights, JOB), House.USUAL.clock(), false)
                        .orElseThrow()
                        .get(0)
                        .needed();
                assertThat(needed).isGreaterThanOrEqualTo(before);
                before = needed;
            }
        }
    }

    @Test
    void theSameLaterIsTheSameOnItsDay() {
        PlannedFlight f = flight(1, "11:00", SMALL, LEAD, LEARNER, 9.0);
        assertThat(f.later(3).later(-3)).isEqualTo(f);
        assertThat(f.later(3).day()).isEqualTo(DAY.plusDays(4));
    }
}
