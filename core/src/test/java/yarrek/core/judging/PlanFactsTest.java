package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.judging.Inputs.DAY;
import static yarrek.core.judging.Inputs.paper;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.weather.Report;
import yarrek.core.weather.SomeWeather;
import yarrek.core.weather.Wind;

/** From what is on file to the facts of a plan. */
class PlanFactsTest {
    private static double number(Facts f, String fact) {
        return ((FactValue.Quantity) f.get(fact).orElseThrow().value()).value();
    }

    private static boolean yes(Facts f, String fact) {
        return ((FactValue.YesNo) f.get(fact).orElseThrow().value()).value();
    }

    private static String source(Facts f, String fact) {
        return f.get(fact).orElseThrow().source();
    }

    @Test
    void whatNobodySaidIsNoFact() {
        Facts f = PlanFacts.of(new Inputs().input());
        // place, sun and clock alone are known
        assertThat(f.values().keySet())
                .allMatch(k -> k.equals("jurisdiction")
                        || k.startsWith("light")
                        || k.equals("quietHours")
                        || k.equals("foreignState")
                        || k.equals("thirdCountryOperator")
                        || k.equals("plan.flights"));
        assertThat(f.zones()).isEmpty();
        assertThat(f.papers()).contains(List.of());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "pilotDistanceM",
                "peopleDistanceM",
                "groundSpeedMps",
                "structure.heightM",
                "structure.distanceM",
                "weather.windMps",
                "weather.temperatureC"
            })
    void whatThePlanSaysIsAFactWithItsSource(String fact) {
        Inputs in = new Inputs();
        in.said.put(fact, new FactValue.Quantity(7, 0));
        Facts f = PlanFacts.of(in.input());
        assertThat(number(f, fact)).isEqualTo(7);
        assertThat(source(f, fact)).startsWith("job");
    }

    @ParameterizedTest(name = "{0} m {1}, relief {2}: {3} m above ground")
    @CsvSource(
            nullValues = "-",
            value = {
                "90, ground, -, 90",
                "90, ground, 15, 90",
                "90, takeoff, 15, 105",
                "90, takeoff, -, -",
                "-, ground, 15, -"
            })
    void aHeightAboveTakeoffIsOneAboveGroundOnlyWhereTheReliefIsKnown(
            Double height, String from, Double relief, Double aboveGround) {
        Inputs in = new Inputs();
        in.heightM = height == null ? OptionalDouble.empty() : OptionalDouble.of(height);
        in.aboveTakeoff = from.equals("takeoff");
        in.reliefM = relief;
        Facts f = PlanFacts.of(in.input());
        for (String fact : List.of("heightAboveGroundM", "heightAboveSurfaceM")) {
            assertThat(f.get(fact).isPresent()).as(fact).isEqualTo(aboveGround != null);
            if (aboveGround != null) {
                assertThat(number(f, fact)).isEqualTo(aboveGround);
            }
        }
        assertThat(f.get("heightAboveTakeoffM").isPresent()).isEqualTo(height != null && in.aboveTakeoff);
    }

    @Test
    void theNearestAnswerWinsAndThePlansOwnWordBeforeTheOperators() {
        Inputs in = new Inputs();
        in.answers.add(new Said(false, "sight", new FactValue.Word("VLOS"), "said of the operator"));
        in.answers.add(new Said(true, "overWater", new FactValue.YesNo(true), "said of this job"));
        in.said.put("sight", new FactValue.Word("BVLOS"));
        Facts f = PlanFacts.of(in.input());
        assertThat(source(f, "sight")).isEqualTo("job");
        assertThat(yes(f, "overWater")).isTrue();
    }

    @Test
    void whatWasSaidOnTheDayStandsBeforeWhatThePlanTookForGranted() {
        Inputs in = new Inputs();
        in.pilot = Optional.of(new Person("Ailsa Fenwright", LocalDate.of(1990, 6, 13), DAY.minusDays(3)));
        in.said.put("pilot.fit", new FactValue.YesNo(true));
        in.answers.add(new Said(true, "pilot.fit", new FactValue.YesNo(false), "said of this job"));
        Facts f = PlanFacts.of(in.input());
        assertThat(yes(f, "pilot.fit")).isFalse();
        // the birthday is the day after
        assertThat(number(f, "pilot.ageYears")).isEqualTo(36);
        assertThat(yes(f, "pilot.bookedElsewhere")).isFalse();
    }

    @ParameterizedTest(name = "said to hold until {0} h after the flying begins")
    @CsvSource({"1, true", "0, true", "-0.001, false", "-24, false"})
    void whatWasSaidOfADaySaysNothingOfTheNext(double hoursAfterBegin, boolean holds) {
        Inputs in = new Inputs();
        in.windows = List.of(Inputs.hours(DAY));
        Instant until = in.windows.get(0).start().plusMillis((long) (hoursAfterBegin * 3_600_000));
        in.answers.add(
                new Said(true, "aircraft.checked", new FactValue.YesNo(true), "said of this job", Optional.of(until)));
        assertThat(PlanFacts.of(in.input()).get("aircraft.checked").isPresent()).isEqualTo(holds);
        // over two days it has to hold for the last as well
        in.windows = List.of(Inputs.hours(DAY), Inputs.hours(DAY.plusDays(1)));
        assertThat(PlanFacts.of(in.input()).get("aircraft.checked")).isEmpty();
    }

    @Test
    void whatAPilotSaysOfHimselfNeedsAPilot() {
        Inputs in = new Inputs();
        in.said.put("pilot.fit", new FactValue.YesNo(true));
        assertThat(PlanFacts.of(in.input()).get("pilot.fit")).isEmpty();
    }

    @Test
    void otherJobsSayWhoIsTakenAndWhereAnEmergencyIs() {
        Inputs in = new Inputs().flyingWith(Inputs.aBuild(890));
        in.pilot = Optional.of(new Person("Ailsa Fenwright", null, null));
        in.elsewhere = new Elsewhere(
                Optional.of("Flood"), Optional.of("Roof"), Optional.empty(), Optional.empty(), Optional.empty());
        in.said.put("emergency.ongoing", new FactValue.YesNo(false));
        Facts f = PlanFacts.of(in.input());
        assertThat(yes(f, "emergency.ongoing")).isTrue();
        assertThat(yes(f, "pilot.bookedElsewhere")).isTrue();
        assertThat(source(f, "pilot.bookedElsewhere")).isEqualTo("job Roof");
        assertThat(yes(f, "aircraft.bookedElsewhere")).isFalse();
    }

    @Test
    void theMarkCountsWhenACheckCoversEveryDay() {
        Inputs in = new Inputs().flyingWith(Inputs.aBuild(890));
        in.windows = List.of(Inputs.hours(DAY), Inputs.hours(DAY.plusDays(1)));
        assertThat(yes(PlanFacts.of(in.input()), "marked")).isFalse();
        in.papers.add(paper("markOnAircraft", "aircraft", DAY.minusDays(30), DAY));
        assertThat(yes(PlanFacts.of(in.input()), "marked")).isFalse();
        in.papers.add(paper("markOnAircraft", "aircraft", DAY.plusDays(1), DAY.plusDays(1)));
        assertThat(yes(PlanFacts.of(in.input()), "marked")).isTrue();
    }

    @Test
    void anAuthorisationGrantedForTheJobCountsAsTheOperatorsForIt() {
        Inputs in = new Inputs();
        in.papers.add(paper("operationalAuthorisation", "job", DAY, DAY));
        in.papers.add(paper("overflightConsent", "job", DAY, DAY));
        assertThat(PlanFacts.of(in.input()).papers().orElseThrow())
                .extracting(p -> p.kind() + " of " + p.role())
                .containsExactlyInAnyOrder("operationalAuthorisation of operator", "overflightConsent of job");
        assertThat(PlanFacts.of(in.input().bare()).papers().orElseThrow()).isEmpty();
    }

    @Test
    void anAircraftWithoutItsBuildHasNoMassAndLightsOnlyWhenAllBuildsAgree() {
        Inputs in = new Inputs();
        in.craft = Optional.of(Inputs.aCraft(List.of(Set.of("position"), Set.of())));
        Facts f = PlanFacts.of(in.input());
        assertThat(f.get("takeoffMassG")).isEmpty();
        assertThat(f.get("lights")).isEmpty();
        assertThat(number(f, "maker.windMps")).isEqualTo(10);
        in.craft = Optional.of(Inputs.aCraft(List.of(Set.of("position"), Set.of("position"))));
        assertThat(source(PlanFacts.of(in.input()), "lights")).isEqualTo("every build of Kite");
    }

    private static Report report(Instant at, double wind) {
        return SomeWeather.report(Report.Kind.FORECAST, SomeWeather.wind(at, wind));
    }

    @Test
    void weatherOnFileStandsBeforeThePlansOwnWhenItCoversAllHours() {
        Inputs in = new Inputs();
        in.terrain = Wind.Terrain.OPEN_LAND;
        in.heightM = OptionalDouble.of(10);
        in.said.put("weather.windMps", new FactValue.Quantity(3, 0));
        Instant ten = in.windows.get(0).start();
        in.weather = List.of(report(ten, 8));
        assertThat(number(PlanFacts.of(in.input()), "weather.windMps")).isEqualTo(3);
        in.weather = List.of(report(ten, 8), report(ten.plusSeconds(3600), 9));
        assertThat(number(PlanFacts.of(in.input()), "weather.windMps")).isGreaterThanOrEqualTo(9);
        in.terrain = null;
        assertThat(number(PlanFacts.of(in.input()), "weather.windMps")).isEqualTo(3);
    }

    private static PlannedFlight flight(UUID pilot, Double minutes) {
        return new PlannedFlight(Inputs.DAY, null, null, pilot, null, null, null, null, null, null, minutes, null, "");
    }

    private static Inputs planned(PlannedFlight... flights) {
        Inputs in = new Inputs();
        in.flights = Optional.of(new FlightsPlanned(
                List.of(flights),
                new FlightsPlanned.Job(
                        Inputs.DAY,
                        Inputs.DAY,
                        LocalTime.of(10, 0),
                        LocalTime.of(11, 0),
                        null,
                        UUID.randomUUID(),
                        null)));
        return in;
    }

    private static double figure(Facts f, String fact) {
        return ((FactValue.Quantity) f.get(fact).orElseThrow().value()).value();
    }

    /** 20 + (30 + 5 + 30) + 15 = 100, a tenth kept free: 110 minutes of 60. */
    @Test
    void flightsThatDoNotFitTheirHoursAreShortByMinutes() {
        Facts f = PlanFacts.of(planned(flight(null, 30.0), flight(null, 30.0)).input());
        assertThat(figure(f, "plan.flights")).isEqualTo(2);
        assertThat(figure(f, "schedule.shortMin")).isEqualTo(50);
        assertThat(source(f, "schedule.shortMin")).contains("110 min of 60").contains("changes of pack 5 min");
    }

    @Test
    void aFlightOfUnknownLengthLeavesItNotKnownWhetherTheyFit() {
        Facts f = PlanFacts.of(planned(flight(null, 30.0), flight(null, null)).input());
        assertThat(f.get("schedule.shortMin")).isEmpty();
    }

    @Test
    void whetherOthersOfTheCrewAreFreeIsKnownAsSoonAsThereAreOthers() {
        Inputs in = planned(flight(UUID.randomUUID(), 5.0));
        assertThat(yes(PlanFacts.of(in.input()), "crew.bookedElsewhere")).isFalse();
        in.elsewhere = new Elsewhere(
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.of("Roof"),
                Optional.of(new Elsewhere.Late("Roof", 10, 45)));
        Facts f = PlanFacts.of(in.input());
        assertThat(yes(f, "crew.bookedElsewhere")).isTrue();
        assertThat(figure(f, "crew.travelShortMin")).isEqualTo(35);
        assertThat(source(f, "crew.travelShortMin")).contains("Roof").contains("10 min between, 45 needed");
        assertThat(PlanFacts.of(new Inputs().input()).get("crew.bookedElsewhere"))
                .isEmpty();
    }
}
