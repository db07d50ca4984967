package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.judging.Inputs.DAY;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yarrek.core.airspace.ZoneIndex;
import yarrek.core.airspace.ZonesOnFile;
import yarrek.core.flight.FlightJudge;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactType;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.SomePapers;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.TimeWindow;

/** What a flight takes over from its plan, and what it never does. */
class FlightInputTest {
    private static final TimeWindow FLOWN = new TimeWindow(
            Inputs.hours(DAY).start().plusSeconds(600),
            Inputs.hours(DAY).start().plusSeconds(1500));

    private static FlightJudge.Context context(Inputs in) {
        in.windows = List.of(FLOWN);
        return new FlightInput(FLOWN, OptionalDouble.of(40), Optional.empty(), Optional.of(in.input()), null).context();
    }

    static List<String> figuresOfTheirOwn() {
        return Vocabulary.all().stream()
                .filter(d -> d.saidOf() == FactDefinition.SaidOf.OWN && d.type() == FactType.QUANTITY)
                .map(FactDefinition::name)
                .filter(n -> !n.startsWith("approval."))
                .toList();
    }

    @ParameterizedTest
    @MethodSource("figuresOfTheirOwn")
    void aPlannedFigureNeverJudgesWhatWasFlown(String fact) {
        Inputs in = new Inputs();
        in.said.put(fact, new FactValue.Quantity(7, 0));
        in.answers.add(new Said(true, fact, new FactValue.Quantity(7, 0), "said of this job"));
        assertThat(context(in).constant().get(fact)).isEmpty();
        assertThat(PlanFacts.of(in.input()).get(fact)).isPresent();
    }

    @Test
    void whatNoLogRecordsIsTakenOverAsPlannedAndThePlaceAsItIs() {
        Inputs in = new Inputs();
        in.heightM = OptionalDouble.of(120);
        in.reliefM = 5.0;
        in.said.put("overPeople", new FactValue.Word("none"));
        in.said.put("purpose", new FactValue.Word("work"));
        FlightJudge.Context c = context(in);
        Facts f = c.constant();
        assertThat(f.get("overPeople").orElseThrow().source()).isEqualTo("as planned: job");
        assertThat(f.get("purpose").orElseThrow().source()).isEqualTo("job");
        assertThat(f.get("heightAboveGroundM")).isEmpty();
        assertThat(c.reliefM()).hasValue(5);
        assertThat(c.site()).isPresent();
        assertThat(f.get("flight.onJobDay").orElseThrow().value()).isEqualTo(new FactValue.YesNo(true));
    }

    @Test
    void aDayBesideTheJobsDaysIsSaid() {
        Inputs in = new Inputs();
        TimeWindow next = Inputs.hours(DAY.plusDays(1));
        PlanInput plan = in.input();
        in.windows = List.of(next);
        PlanInput flown = new PlanInput(
                plan.operatorJurisdiction(),
                plan.place(),
                plan.plan().in(List.of(next)),
                plan.craft(),
                plan.build(),
                plan.pilot(),
                plan.elsewhere(),
                plan.answers(),
                plan.kinds(),
                plan.papers(),
                plan.jobPapers(),
                plan.requests(),
                plan.waivers(),
                plan.liabilitySdr(),
                plan.rulesRead(),
                plan.recency(),
                plan.zones(),
                plan.weather(),
                plan.house());
        Facts f = new FlightInput(next, OptionalDouble.empty(), Optional.empty(), Optional.of(flown), null)
                .context()
                .constant();
        assertThat(f.get("flight.onJobDay").orElseThrow().value()).isEqualTo(new FactValue.YesNo(false));
    }

    @Test
    void whatThePlannedPilotSaidIsNotSaidOfAnother() {
        Inputs in = new Inputs();
        in.pilot = Optional.of(new Person("Odd Varga", null, null));
        in.said.put("pilot.fit", new FactValue.YesNo(true));
        in.said.put("sight", new FactValue.Word("VLOS"));
        Plan other = in.input().plan().byAnotherPilot();
        assertThat(other.said()).containsOnlyKeys("sight");
    }

    private static ZonesOnFile zones(boolean brought) {
        Instant now = FLOWN.end();
        UUID source = UUID.randomUUID();
        return new ZonesOnFile(
                now,
                new ZoneIndex(List.of()),
                brought ? List.of(new ZonesOnFile.Source(source, now, 28, false, true)) : List.of(),
                brought ? Set.of(source) : Set.of(),
                Set.of(),
                Set.of());
    }

    private static FlightJudge.Context ofNoJob(Optional<String> category, boolean authorised, boolean brought) {
        return new FlightInput(
                        FLOWN,
                        OptionalDouble.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        new FlightInput.Home(
                                Inputs.ZONE,
                                "EU",
                                category,
                                Optional.empty(),
                                Optional.empty(),
                                List.of(),
                                SomePapers.KINDS,
                                authorised
                                        ? List.of(Inputs.paper("operationalAuthorisation", "operator", DAY, DAY))
                                        : List.of(),
                                OptionalDouble.empty(),
                                zones(brought)))
                .context();
    }

    @Test
    void aFlightOfNoJobFallsIntoACategoryOnlyWhereTheLawKnowsOne() {
        assertThat(ofNoJob(Optional.of("open"), false, true).constant().get("category"))
                .isPresent();
        assertThat(ofNoJob(Optional.of("open"), true, true).constant().get("category"))
                .isEmpty();
        assertThat(ofNoJob(Optional.empty(), false, true).constant().get("category"))
                .isEmpty();
    }

    @Test
    void zonesThatNobodyBroughtInAreNotNoZones() {
        assertThat(ofNoJob(Optional.empty(), false, false).zones()).isEmpty();
        assertThat(ofNoJob(Optional.empty(), false, false).constant().get("zoneDataCurrent"))
                .isEmpty();
        assertThat(ofNoJob(Optional.empty(), false, true).zones()).contains(List.of());
        assertThat(ofNoJob(Optional.empty(), false, true).constant().get("zoneDataCurrent"))
                .isPresent();
    }
}
