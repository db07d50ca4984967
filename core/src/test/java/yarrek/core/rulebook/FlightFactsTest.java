package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yarrek.core.time.TimeWindow;

/** Rules over time: intervals cross the limit where the value does, holes are not known. */
class FlightFactsTest {
    private static final double[] TIMES = {0, 1, 2, 3, 4, 5, 6};

    private static Rule rule(Condition applies, Requirement requires) {
        return SomeRules.rule("T", Severity.STOP, Layer.LAW, applies, requires);
    }

    private static final Rule HEIGHT = rule(
            Condition.always(),
            new QuantityWithin("heightAboveGroundM", Bound.AT_MOST, new Limit.Constant(120), Closeness.USUAL));

    private static FlightFacts flight(double uncertainty, double... heights) {
        double[] times = java.util.Arrays.copyOf(TIMES, heights.length);
        return flight(times, uncertainty, heights);
    }

    private static FlightFacts flight(double[] times, double uncertainty, double... heights) {
        Facts constant = Facts.builder(ZoneOffset.UTC)
                .window(new TimeWindow(Instant.EPOCH, Instant.EPOCH.plusSeconds(60)))
                .build();
        return new FlightFacts(
                constant,
                times,
                Map.of("heightAboveGroundM", new FlightFacts.Series(heights, uncertainty, "test")),
                Optional.empty());
    }

    @Test
    void aBreachBeginsAndEndsWhereTheLimitIsCrossed() {
        Finding f = flight(0, 100, 110, 130, 140, 130, 110, 100).judge(HEIGHT);
        assertThat(f.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(f.intervals()).hasSize(1);
        Interval i = f.intervals().get(0);
        assertThat(i.fromS()).isCloseTo(1.5, within(1e-9)); // 110 at 1 s, 130 at 2 s
        assertThat(i.toS()).isCloseTo(4.5, within(1e-9));
        assertThat(i.worst()).isEqualTo(140);
        assertThat(i.worstS()).isEqualTo(3);
    }

    @Test
    void exactlyTheLimitIsNoBreach() {
        Finding f = flight(0, 100, 120, 120, 100).judge(HEIGHT);
        assertThat(f.verdict()).isEqualTo(Verdict.CLOSE);
        assertThat(f.intervals()).isEmpty();
    }

    @Test
    void twoBreachesAreTwoIntervalsAndTheGaugeShowsTheSpread() {
        Finding f = flight(0, 130, 100, 130, 90).judge(HEIGHT);
        assertThat(f.intervals()).hasSize(2);
        assertThat(f.gauge().orElseThrow().least()).isEqualTo(90);
        assertThat(f.gauge().orElseThrow().greatest()).isEqualTo(130);
    }

    @Test
    void aHoleInTheFiguresIsNotKnownButABreachBesideItIsOne() {
        double[] times = {0, 1, 20, 21};
        double[] gappy = {0, 1, 10, 20, 21};
        assertThat(flight(gappy, 0, 50, 50, Double.NaN, 50, 50).judge(HEIGHT).verdict())
                .isEqualTo(Verdict.NOT_KNOWN);
        assertThat(flight(gappy, 0, 50, 50, Double.NaN, 150, 150).judge(HEIGHT).verdict())
                .isEqualTo(Verdict.BREACHED);
        assertThat(flight(times, 0, Double.NaN, Double.NaN, Double.NaN, Double.NaN)
                        .judge(HEIGHT)
                        .verdict())
                .isEqualTo(Verdict.NOT_KNOWN);
    }

    /** More than 5 s without a row is a hole as one with empty rows is; exactly 5 s is none. */
    @Test
    void missingRowsAreAHole() {
        double[] edge = {0, 1, 6, 7};
        double[] beyond = {0, 1, 6.001, 7};
        assertThat(flight(edge, 0, 50, 50, 50, 50).judge(HEIGHT).verdict()).isEqualTo(Verdict.MET);
        Finding f = flight(beyond, 0, 50, 50, 50, 50).judge(HEIGHT);
        assertThat(f.verdict()).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(f.says()).contains("no figures for 5 s");
        Rule general = rule(Condition.always(), new AllOf(List.of(HEIGHT.requires())));
        assertThat(flight(beyond, 0, 50, 50, 50, 50).judge(general).verdict()).isEqualTo(Verdict.NOT_KNOWN);
        // a breach never reaches over a hole: who knows what was between
        double[] long_ = {0, 1, 2, 30, 31};
        assertThat(flight(long_, 0, 50, 150, 150, 150, 50).judge(HEIGHT).intervals())
                .extracting(Interval::fromS)
                .containsExactly(0.7, 30.0);
    }

    @Test
    void flickerWithinTheUncertaintyIsOneBreach() {
        assertThat(flight(3, 100, 121, 119, 121, 118, 122, 100).judge(HEIGHT).intervals())
                .hasSize(1);
        assertThat(flight(3, 100, 121, 116, 121, 100).judge(HEIGHT).intervals()).hasSize(2);
    }

    @Test
    void aBreachOfOneFigureSaysSo() {
        assertThat(flight(0, 50, 50, 312, 50, 50).judge(HEIGHT).says()).contains("single figures");
        assertThat(flight(0, 50, 150, 312, 50, 50).judge(HEIGHT).says()).doesNotContain("single figures");
    }

    @Test
    void aFigureThatRestsOnAnUnknownGroundIsNotMet() {
        assertThat(flight(Double.NaN, 50, 60, 50).judge(HEIGHT).verdict()).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(flight(Double.NaN, 50, 160, 50).judge(HEIGHT).verdict()).isEqualTo(Verdict.BREACHED);
    }

    /** The quick way over arrays and the general way moment by moment give the same answer. */
    @Test
    void bothWaysOfJudgingAgree() {
        Rule general = rule(Condition.always(), new AllOf(List.of(HEIGHT.requires())));
        java.util.Random random = new java.util.Random(9);
        for (int round = 0; round < 200; round++) {
            double[] h = new double[7];
            for (int i = 0; i < h.length; i++) {
                h[i] = 100 + random.nextInt(40);
            }
            FlightFacts facts = flight(0, h);
            assertThat(facts.judge(general).verdict())
                    .isEqualTo(facts.judge(HEIGHT).verdict());
            assertThat(facts.judge(general).intervals())
                    .hasSameSizeAs(facts.judge(HEIGHT).intervals());
        }
    }

    @Test
    void unknownLogicFollowsKleene() {
        assertThat(Truth.UNKNOWN.and(Truth.NO)).isEqualTo(Truth.NO);
        assertThat(Truth.UNKNOWN.or(Truth.YES)).isEqualTo(Truth.YES);
        assertThat(Truth.UNKNOWN.and(Truth.YES)).isEqualTo(Truth.UNKNOWN);
        assertThat(Truth.UNKNOWN.not()).isEqualTo(Truth.UNKNOWN);
    }

    private static Verdict zoneVerdict(double[] distances, Optional<List<FlightFacts.ZoneSeries>> zones) {
        return zoneVerdict(new double[] {0, 1, 5, 9, 10}, distances, zones);
    }

    private static Verdict zoneVerdict(
            double[] times, double[] distances, Optional<List<FlightFacts.ZoneSeries>> zones) {
        Facts planned = Facts.builder(ZoneOffset.UTC).zones(List.of()).build();
        Rule rule = rule(Condition.always(), new NoZone(ZoneMet.Restriction.PROHIBITED));
        return new FlightFacts(
                        planned, times, Map.of("pilotDistanceM", new FlightFacts.Series(distances, 3, "t")), zones)
                .judge(rule)
                .verdict();
    }

    @Test
    void aFlightNobodyCouldFollowIsNotClearOfZones() {
        double[] followed = {0, 1, 2, 2, 2};
        double[] lost = {0, 1, Double.NaN, 2, 2};
        ZoneMet zone = new ZoneMet("Z", "Z", ZoneMet.Restriction.PROHIBITED, false, "", Optional.empty());
        var met = List.of(new FlightFacts.ZoneSeries(zone, List.of(new Interval(3, 3, 3, Double.NaN))));
        assertThat(zoneVerdict(followed, Optional.of(List.of()))).isEqualTo(Verdict.MET);
        assertThat(zoneVerdict(lost, Optional.of(List.of()))).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(zoneVerdict(lost, Optional.of(met))).isEqualTo(Verdict.BREACHED);
        assertThat(zoneVerdict(followed, Optional.empty())).isEqualTo(Verdict.NOT_KNOWN);
        // rows that are not there at all, and a track of one point in half a minute
        assertThat(zoneVerdict(new double[] {0, 1, 5, 31, 32}, followed, Optional.of(List.of())))
                .isEqualTo(Verdict.NOT_KNOWN);
        assertThat(zoneVerdict(new double[] {0, 30, 60, 90, 120}, followed, Optional.of(List.of())))
                .isEqualTo(Verdict.NOT_KNOWN);
    }

    private static Rule reserve(String id, Condition when, double percent) {
        return SomeRules.rule(
                id,
                Severity.STOP,
                Layer.HOUSE,
                when,
                new QuantityWithin("batteryPct", Bound.AT_LEAST, new Limit.Constant(percent), Closeness.USUAL));
    }

    /** 25 % over land, 35 % over water, and nobody has said which: 4 % breaches the milder, 30 % is not known, 40 % is met. */
    @Test
    void whereEveryAnswerEndsInABreachThereIsOne() {
        Condition water = new YesNoIs("overWater", true);
        Condition land = new Not(water);
        RulePack house = new RulePack(
                "house",
                "House",
                Optional.empty(),
                Optional.empty(),
                false,
                "1",
                LocalDate.EPOCH,
                "",
                List.of(),
                Optional.empty(),
                Optional.empty(),
                List.of(),
                List.of(reserve("LAND", land, 25), reserve("WATER", water, 35)));
        for (double[] c : new double[][] {{4, 1}, {25, 0}, {30, 0}, {40, 0}}) {
            FlightFacts f = new FlightFacts(
                    Facts.builder(ZoneOffset.UTC).build(),
                    new double[] {0, 1, 2},
                    Map.of("batteryPct", new FlightFacts.Series(new double[] {90, 50, c[0]}, 0, "test")),
                    Optional.empty());
            List<Finding> breached = Assessment.of(f, List.of(house)).with(Verdict.BREACHED);
            assertThat(breached).as(c[0] + " %").hasSize((int) c[1]);
            breached.forEach(b -> {
                assertThat(b.rule().id()).isEqualTo("LAND");
                assertThat(b.says()).contains("whichever it is");
            });
        }
    }

    @Test
    void whatWasPlannedIsNoRecordOfWhatWasFlown() {
        Facts flown = Facts.ofFlight(ZoneOffset.UTC)
                .quantity("peopleDistanceM", 100, 0, "the plan")
                .quantity("flight.outsideSiteM", 0, 0, "the plan")
                .word("sight", "VLOS", "the plan")
                .yesNo("overWater", true, "the site")
                .measured()
                .quantity("heightAboveGroundM", 40, 1, "the log")
                .build();
        assertThat(flown.get("peopleDistanceM")).isEmpty();
        assertThat(flown.get("flight.outsideSiteM")).isEmpty();
        assertThat(flown.get("overWater").orElseThrow().source()).isEqualTo("the site");
        assertThat(flown.get("heightAboveGroundM").orElseThrow().source()).isEqualTo("the log");
        Rule sight = rule(Condition.always(), new WordIsOneOf("sight", java.util.Set.of("VLOS")));
        FlightFacts f = new FlightFacts(flown, TIMES, Map.of(), Optional.empty());
        assertThat(f.judge(sight).verdict()).isEqualTo(Verdict.MET);
        assertThat(f.judge(sight).says()).contains("as planned");
    }

    @Test
    void howLongABreachLastedIsSaidInSecondsThenInMinutes() {
        assertThat(FlightFacts.lasting(27.46)).isEqualTo("27.5 s");
        assertThat(FlightFacts.lasting(89.94)).isEqualTo("89.9 s");
        assertThat(FlightFacts.lasting(90)).isEqualTo("1 min 30 s");
        assertThat(FlightFacts.lasting(317.3)).isEqualTo("5 min 17 s");
        assertThat(FlightFacts.lasting(119.7)).isEqualTo("2 min 0 s");
    }
}
