package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.rulebook.SomeRules.atMost;
import static yarrek.core.rulebook.SomeRules.pack;
import static yarrek.core.rulebook.SomeRules.rule;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.time.Days;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;

/** Comparing plans, what would clear a finding, what a law opens to a build and a pilot, and what can never hold. */
class LookingAheadTest {
    private static final LocalDate DAY = LocalDate.of(2026, 5, 10);

    private static Facts.Builder facts() {
        return Facts.builder(ZoneOffset.UTC)
                .word("jurisdiction", "EU", "t")
                .window(new TimeWindow(Instant.parse("2026-05-10T10:00:00Z"), Instant.parse("2026-05-10T11:00:00Z")))
                .papers(List.of());
    }

    private static final Rule HEIGHT =
            rule("HEIGHT", Severity.STOP, Layer.LAW, Condition.always(), atMost("heightAboveGroundM", 120));
    private static final Rule PEOPLE = rule(
            "PEOPLE",
            Severity.STOP,
            Layer.LAW,
            new YesNoIs("lowSpeedMode", false),
            new QuantityWithin("peopleDistanceM", Bound.AT_LEAST, new Limit.Constant(30), Closeness.USUAL));

    @Test
    void aBreachThatAppearsAndOneThatVanishesAreToldApart() {
        RulePack pack = pack(HEIGHT, PEOPLE);
        Facts before = facts().quantity("heightAboveGroundM", 130, 0, "t")
                .quantity("peopleDistanceM", 100, 0, "t")
                .yesNo("lowSpeedMode", false, "t")
                .build();
        Facts after = before.toBuilder()
                .quantity("heightAboveGroundM", 60, 0, "t")
                .quantity("peopleDistanceM", 10, 0, "t")
                .build();
        Comparison c = Comparison.of(Assessment.of(before, List.of(pack)), Assessment.of(after, List.of(pack)));
        assertThat(c.appear()).extracting(f -> f.rule().id()).containsExactly("PEOPLE");
        assertThat(c.vanish()).extracting(f -> f.rule().id()).containsExactly("HEIGHT");
        assertThat(c.shifted()).isEmpty();
    }

    @Test
    void comparingAPlanWithItselfFindsNothing() {
        Facts f = facts().quantity("heightAboveGroundM", 130, 0, "t").build();
        Assessment a = Assessment.of(f, List.of(pack(HEIGHT, PEOPLE)));
        assertThat(Comparison.of(a, a).isEmpty()).isTrue();
    }

    @Test
    void theSmallestChangeOfAQuantityIsToItsLimit() {
        RulePack pack = pack(HEIGHT);
        Facts f = facts().quantity("heightAboveGroundM", 130, 0, "t").build();
        Map<Finding, List<Remedies.Change>> remedies = Remedies.of(f, List.of(pack), Assessment.of(f, List.of(pack)));
        assertThat(remedies.values())
                .singleElement()
                .satisfies(changes -> assertThat(changes)
                        .extracting(Remedies.Change::words)
                        .containsExactly("Height above ground from 130 to 120 m"));
    }

    @Test
    void anotherWayOutIsToMakeTheRuleNotApplyAndTheSmallerChangeComesFirst() {
        RulePack pack = pack(PEOPLE);
        Facts f = facts().quantity("peopleDistanceM", 28, 0, "t")
                .yesNo("lowSpeedMode", false, "t")
                .build();
        List<Remedies.Change> changes = Remedies.of(f, List.of(pack), Assessment.of(f, List.of(pack)))
                .values()
                .iterator()
                .next();
        assertThat(changes)
                .extracting(Remedies.Change::words)
                .containsExactly(
                        "Distance to uninvolved people from 28 to 30 m", "Low-speed mode active from no to yes");
    }

    @Test
    void aChangeThatOpensSomethingElseSaysSo() {
        Rule low = rule(
                "LOW",
                Severity.ACT,
                Layer.HOUSE,
                Condition.always(),
                new QuantityWithin("heightAboveGroundM", Bound.AT_LEAST, new Limit.Constant(125), Closeness.USUAL));
        RulePack pack = pack(HEIGHT, low);
        Facts f = facts().quantity("heightAboveGroundM", 140, 0, "t").build();
        Remedies.Change change = Remedies.of(f, List.of(pack), Assessment.of(f, List.of(pack)))
                .values()
                .iterator()
                .next()
                .get(0);
        assertThat(change.opens()).containsExactly("LOW (breached)");
    }

    @Test
    void aMissingPaperIsAChangeOfItsOwn() {
        Rule paper = rule(
                "PAPER",
                Severity.STOP,
                Layer.LAW,
                Condition.always(),
                new HoldsPaper("pilotCertificate", "certificate", Set.of("A2"), "pilot", Optional.of("EU"), false));
        RulePack pack = pack(paper);
        Facts f = facts().build();
        assertThat(Remedies.of(f, List.of(pack), Assessment.of(f, List.of(pack)))
                        .values())
                .singleElement()
                .satisfies(c -> assertThat(c)
                        .extracting(Remedies.Change::words)
                        .containsExactly("certificate A2 of the pilot in force for the whole job"));
    }

    @Test
    void whatAnAircraftIsByBirthIsNeverOfferedForChange() {
        Rule mark =
                rule("MARK", Severity.STOP, Layer.LAW, Condition.always(), new WordIsOneOf("classMark", Set.of("C2")));
        RulePack pack = pack(mark);
        Facts f = facts().word("classMark", "none", "t").build();
        assertThat(Remedies.of(f, List.of(pack), Assessment.of(f, List.of(pack)))
                        .values())
                .singleElement()
                .satisfies(c -> assertThat(c).isEmpty());
    }

    @Test
    void theNarrowerOfPilotAndAircraftDecidesAndIsNamed() {
        Operation advanced = new Operation(
                "ADV",
                "advanced",
                "near people",
                Condition.always(),
                new WordsContain("modelDeclarations", "nearPeople"),
                new HoldsPaper(
                        "pilotCertificate", "certificate", Set.of("advanced"), "pilot", Optional.of("CA"), false),
                new Duty("no paper asked for", 0, java.time.temporal.ChronoUnit.DAYS, "occurrence.awareAt"),
                "c");
        RulePack ca = new RulePack(
                "CA",
                "t",
                Optional.of("CA"),
                Optional.empty(),
                false,
                "1",
                DAY,
                "h",
                List.of(),
                Optional.empty(),
                Optional.empty(),
                List.of(advanced),
                List.of());
        PaperHeld held = new PaperHeld(
                "pilotCertificate",
                Optional.of("advanced"),
                "pilot",
                "N",
                "CA",
                new Validity(Optional.empty(), Optional.empty(), ZoneOffset.UTC),
                true);
        Facts undeclared = facts().with("modelDeclarations", new FactValue.Words(Set.of()), "t")
                .papers(List.of(held))
                .build();
        OperationFit limited = OperationFit.of(undeclared, ca).get(0);
        assertThat(limited.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(limited.limits()).containsExactly("aircraft");
        Facts declared = undeclared.toBuilder()
                .with("modelDeclarations", new FactValue.Words(Set.of("nearPeople")), "t")
                .build();
        assertThat(OperationFit.of(declared, ca).get(0).verdict()).isEqualTo(Verdict.MET);
        assertThat(OperationFit.of(declared.toBuilder().papers(List.of()).build(), ca)
                        .get(0)
                        .limits())
                .containsExactly("pilot");
    }

    @Test
    void aWaiverSilencesAHouseRuleUntilItsLastDayAndNeverTheLaw() {
        Rule house = rule("HOUSE", Severity.STOP, Layer.HOUSE, Condition.always(), atMost("pilotDistanceM", 500));
        RulePack pack = pack(house, HEIGHT);
        Facts.Builder b = facts().quantity("pilotDistanceM", 600, 0, "t")
                .quantity("heightAboveGroundM", 130, 0, "t")
                .waiver(new WaiverHeld("HEIGHT", "r", "m", DAY));
        Facts inTime = b.waiver(new WaiverHeld("HOUSE", "open bog", "m", DAY)).build();
        Map<String, Finding> found = byId(Assessment.of(inTime, List.of(pack)));
        assertThat(found.get("HOUSE").waiver()).isPresent();
        assertThat(found.get("HOUSE").blocks()).isFalse();
        assertThat(found.get("HEIGHT").waiver()).isEmpty();
        assertThat(found.get("HEIGHT").blocks()).isTrue();
        Facts late = facts().quantity("pilotDistanceM", 600, 0, "t")
                .waiver(new WaiverHeld("HOUSE", "r", "m", DAY.minusDays(1)))
                .build();
        assertThat(byId(Assessment.of(late, List.of(pack))).get("HOUSE").waiver())
                .isEmpty();
    }

    private static Map<String, Finding> byId(Assessment a) {
        return a.findings().stream()
                .collect(java.util.stream.Collectors.toMap(f -> f.rule().id(), f -> f));
    }

    /** Interpretation Act (RSC 1985 c I-21) s. 28; "calendar months" of 14 CFR 107.65. */
    @ParameterizedTest
    @CsvSource({
        "2024-05-15, 24, SAME_DAY, 2026-05-15",
        "2024-02-29, 24, SAME_DAY, 2026-02-28",
        "2024-03-10, 24, CALENDAR_MONTHS, 2026-03-31",
        "2024-12-31, 2, CALENDAR_MONTHS, 2025-02-28",
        "2024-08-31, 6, SAME_DAY, 2025-02-28"
    })
    void monthsAreCountedAsTheLawCountsThem(LocalDate day, int months, Days.Counting counting, LocalDate last) {
        assertThat(Days.lastWithin(day, months, counting)).isEqualTo(last);
    }

    @Test
    void theActivityThatCountsLongestDecidesRecencyAndForeignOnesDoNotCount() {
        Recency recency = new Recency(24, Days.Counting.SAME_DAY, Set.of("examPass", "flightReview"), "x", "c");
        List<PaperHeld> papers = List.of(
                proof("examPass", "CA", LocalDate.of(2024, 1, 3)),
                proof("flightReview", "CA", LocalDate.of(2025, 2, 1)),
                proof("flightReview", "US", LocalDate.of(2026, 2, 1)),
                proof("trainingCourse", "CA", LocalDate.of(2026, 3, 1)));
        assertThat(recency.last(papers, Optional.of("CA"))).contains(LocalDate.of(2025, 2, 1));
        assertThat(recency.through(LocalDate.of(2025, 2, 1))).isEqualTo(LocalDate.of(2027, 2, 1));
    }

    private static PaperHeld proof(String kind, String law, LocalDate on) {
        return new PaperHeld(
                kind,
                Optional.empty(),
                "pilot",
                "N",
                law,
                new Validity(Optional.of(on), Optional.empty(), ZoneOffset.UTC),
                true);
    }

    @Test
    void whatNoFactsCanMeetIsFoundAndWhatSomeCanIsNot() {
        Condition light = new QuantityWithin("takeoffMassG", Bound.BELOW, new Limit.Constant(250));
        Condition heavy = new QuantityWithin("takeoffMassG", Bound.AT_LEAST, new Limit.Constant(250));
        Condition exactly = new QuantityWithin("takeoffMassG", Bound.AT_MOST, new Limit.Constant(250));
        Condition night = new WordIsOneOf("light", Set.of("night"));
        Condition day = new WordIsOneOf("light", Set.of("day"));
        assertThat(Contradiction.of(new All(List.of(light, heavy)))).isPresent();
        assertThat(Contradiction.of(new All(List.of(exactly, heavy)))).isEmpty();
        assertThat(Contradiction.of(new All(List.of(night, new Any(List.of(day, light))))))
                .isEmpty();
        assertThat(Contradiction.of(new All(List.of(night, new Any(List.of(day))))))
                .isPresent();
        assertThat(Contradiction.of(Condition.never())).isPresent();
        assertThat(Contradiction.of(Condition.always())).isEmpty();
    }

    /** Of several ways that are all closed the nearest is told, not all of them. */
    @Test
    void ofClosedWaysTheNearestIsTold() {
        Requirement far = new AllOf(List.of(new YesNoIs("siteClosed", true), new YesNoIs("rotorsGuarded", true)));
        Requirement near = new YesNoIs("recognisedArea", true);
        Facts f = facts().yesNo("siteClosed", false, "t")
                .yesNo("rotorsGuarded", false, "t")
                .yesNo("recognisedArea", false, "t")
                .build();
        Outcome o = new AnyOf(List.of(far, near)).judge(f);
        assertThat(o.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(o.says()).isEqualTo("In a recognised identification area: no");
    }
}
