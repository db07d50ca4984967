package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;
import yarrek.formats.log.BrokenFileException;

/** The shipped packs read, and their bounds fall where the cited text puts them. */
class ShippedPacksTest {
    private static final ZoneId HOME = ZoneId.of("Atlantic/Azores");
    private static final RulePack EU = RulePackReader.shipped("eu.yaml");
    private static final RulePack HOUSE = RulePackReader.shipped("house.yaml");

    private static Facts.Builder openJob() {
        return Facts.builder(HOME)
                .window(new TimeWindow(
                        ZonedDateTime.of(2027, 3, 14, 10, 0, 0, 0, HOME).toInstant(),
                        ZonedDateTime.of(2027, 3, 14, 12, 0, 0, 0, HOME).toInstant()))
                .word("jurisdiction", "EU", "test")
                .word("category", "open", "test");
    }

    private static Finding finding(Facts facts, String id) {
        return Assessment.of(facts, List.of(EU, HOUSE)).findings().stream()
                .filter(f -> f.rule().id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({"eu, 75", "gb, 45", "ca, 100", "us, 80", "au, 35", "nz, 28", "house, 12"})
    void everyRuleOfAPackHasSourceRemedyAndDateRead(String pack, int least) {
        RulePack p = RulePackReader.shipped(pack + ".yaml");
        assertThat(p.rules()).hasSizeGreaterThanOrEqualTo(least).allSatisfy(r -> {
            assertThat(r.source().citation()).isNotBlank();
            assertThat(r.remedy()).isNotBlank();
            assertThat(r.source().readOn()).isAfter(LocalDate.of(2026, 1, 1));
            assertThat(r.source().confidence().equals("low") && r.source().ask().isEmpty())
                    .as(r.id() + " is of low confidence and asks nothing")
                    .isFalse();
        });
    }

    @ParameterizedTest
    @ValueSource(strings = {"eu", "gb", "ca", "us", "au", "nz"})
    void aRuleThatAsksIsNeverMet(String pack) {
        RulePack p = RulePackReader.shipped(pack + ".yaml");
        Facts nothing = Facts.builder(HOME)
                .window(new TimeWindow(
                        ZonedDateTime.of(2027, 3, 14, 10, 0, 0, 0, HOME).toInstant(),
                        ZonedDateTime.of(2027, 3, 14, 12, 0, 0, 0, HOME).toInstant()))
                .word("jurisdiction", p.jurisdiction().orElseThrow(), "t")
                .build();
        assertThat(Assessment.of(nothing, List.of(p)).findings())
                .filteredOn(f -> !f.rule().source().ask().isEmpty())
                .allSatisfy(f -> assertThat(f.verdict()).isIn(Verdict.NOT_KNOWN, Verdict.NOT_APPLICABLE));
        assertThat(Assessment.of(nothing, List.of(p)).findings())
                .as("nothing known is nothing met")
                .noneMatch(f -> f.verdict() == Verdict.MET
                        && !f.rule().requires().factNames().isEmpty());
    }

    @Test
    void anOverlayAddsToTheWiderPackAndReplacesWhatItOverrides() throws BrokenFileException {
        RulePack overlay = read("""
                pack: EU-XX
                title: X
                jurisdiction: EU-XX
                overlays: EU
                version: 1
                readOn: 2026-01-01
                head: h
                rules:
                  - {id: XX-AGE, title: t, severity: stop, cite: c, from: 2020-01-01, confidence: high, remedy: r, overrides: EU-AGE-16, requires: {fact: pilot.ageYears, atLeast: 12}}
                """);
        Facts facts = openJob()
                .word("jurisdiction", "EU-XX", "t")
                .quantity("pilot.ageYears", 14, 0, "t")
                .build();
        List<Finding> findings = Assessment.of(facts, List.of(EU, overlay)).findings();
        assertThat(findings).noneMatch(f -> f.rule().id().equals("EU-AGE-16"));
        assertThat(findings)
                .filteredOn(f -> f.rule().id().equals("XX-AGE"))
                .singleElement()
                .satisfies(f -> assertThat(f.verdict()).isEqualTo(Verdict.MET));
        assertThat(findings)
                .as("nothing is missing")
                .noneMatch(f -> f.rule().id().equals("NO-OVERLAY"));
        assertThat(Assessment.of(facts, List.of(EU)).findings())
                .anyMatch(f -> f.rule().id().equals("NO-OVERLAY") && f.verdict() == Verdict.NOT_KNOWN);
    }

    private static RulePack read(String yaml) throws BrokenFileException {
        return RulePackReader.read("t.yaml", yaml.getBytes(StandardCharsets.UTF_8));
    }

    /** What is wrong with a file is told with line, rule and what was expected; the whole message. */
    @ParameterizedTest(name = "{1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "from: 2020-01-01, confidence: high, requires: {fact: heigth, atMost: 3}| t.yaml, line 8, rule T-1: there is no fact called 'heigth'; the words are listed under Rulebook",
                "from: 2020-13-01, confidence: high, requires: {fact: assembly, is: true}| t.yaml, line 8, rule T-1: a date such as 2026-01-31 was expected, got '2020-13-01'",
                "from: 2020-01-01, confidence: high, requires: {fact: assembly, atMost: 3}| t.yaml, line 8, rule T-1: assembly cannot be compared so; it must say is: true or is: false",
                "from: 2020-01-01, confidence: high, requires: {fact: heightAboveGroundM, atMost: 3 lb}| t.yaml, line 8, rule T-1: 'lb' is no unit of this fact; it is measured in m",
                "from: 2020-01-01, confidence: low, requires: {fact: assembly, is: true}| t.yaml, line 8, rule T-1: a rule of low confidence needs 'ask', the question to settle it",
                "from: 2020-01-01, to: 2019-01-01, confidence: high, requires: {fact: assembly, is: true}| t.yaml, line 8, rule T-1: the rule can never apply: its last day 2019-01-01 is before its first, 2020-01-01",
                "from: 2020-01-01, confidence: high, appliesWhen: {all: [{fact: light, isOneOf: [day]}, {fact: light, isOneOf: [night]}]}, requires: {fact: assembly, is: true}| t.yaml, line 8, rule T-1: the rule can never apply: no light can be all of what it asks for",
                "from: 2020-01-01, confidence: high, appliesWhen: {all: [{fact: takeoffMassG, below: 250}, {fact: takeoffMassG, atLeast: 250}]}, requires: {fact: assembly, is: true}| t.yaml, line 8, rule T-1: the rule can never apply: no take-off mass can be all of what it asks for",
                "from: 2020-01-01, confidence: sure, requires: {fact: assembly, is: true}| t.yaml, line 8, rule T-1: one of [high, low, medium] was expected, got 'sure'",
                "from: 2020-01-01, confidence: high, color: red, requires: {fact: assembly, is: true}| t.yaml, line 8, rule T-1: unknown word 'color' in a rule; it takes [appliesWhen, ask, cite, confidence, coveredBy, exceptWhen, from, id, judges, layer, notes, onTheDay, overrides, phase, readOn, remedy, requires, severity, title, to]",
            })
    void aWrongRuleIsToldWithLineRuleAndWhatWasExpected(String rest, String message) {
        String yaml = "pack: T\ntitle: T\njurisdiction: T\nversion: 1\nreadOn: 2026-01-01\nhead: h\nrules:\n"
                + "  - {id: T-1, title: t, severity: stop, cite: c, remedy: r, " + rest + "}\n";
        assertThatThrownBy(() -> read(yaml))
                .isInstanceOf(BrokenFileException.class)
                .hasMessage(message);
    }

    @Test
    void overlappingVersionsAreRefusedWithTheRuleAndTheDay() {
        String rule =
                "  - {id: T-1, title: t, severity: stop, cite: c, remedy: r, confidence: high, requires: {fact: assembly, is: true}, from: ";
        String head = "pack: T\ntitle: T\njurisdiction: T\nversion: 1\nreadOn: 2026-01-01\nhead: h\nrules:\n";
        assertThatThrownBy(() -> read(head + rule + "2020-01-01}\n" + rule + "2024-01-01}\n"))
                .isInstanceOf(BrokenFileException.class)
                .hasMessage(
                        "t.yaml: rule T-1: two versions hold on 2024-01-01; give the older one a last day before it");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "\u0000", "pack: [", "- just\n- a list\n", "pack: T\npack: U\n"})
    void whatIsNoPackIsRefusedInWords(String text) {
        assertThatThrownBy(() -> read(text))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageStartingWith("t.yaml");
    }

    @ParameterizedTest(name = "{0} m is {1}")
    @CsvSource({"60, MET", "113.9, MET", "114, CLOSE", "120, CLOSE", "120.01, BREACHED", "121, BREACHED"})
    void heightLimitIsIncluded(double metres, Verdict verdict) {
        Facts facts = openJob()
                .quantity("heightAboveSurfaceM", metres, 0, "test")
                .yesNo("structure.artificial", false, "test")
                .build();
        assertThat(finding(facts, "EU-HEIGHT-120").verdict()).isEqualTo(verdict);
    }

    @Test
    void heightWithoutAFigureIsNotKnown() {
        assertThat(finding(openJob().yesNo("structure.artificial", false, "t").build(), "EU-HEIGHT-120")
                        .verdict())
                .isEqualTo(Verdict.NOT_KNOWN);
    }

    /** Three gates of UAS.OPEN.010(3): taller than 105 m, within 50 m, asked for; and 15 m above it, included. */
    @ParameterizedTest(name = "structure {0} m at {1} m, asked {2}, flown {3} m: {4} {5}")
    @CsvSource({
        "110, 50, true, 125, EU-HEIGHT-OBST, CLOSE",
        "110, 50, true, 125.1, EU-HEIGHT-OBST, BREACHED",
        "110, 50, true, 125, EU-HEIGHT-120, NOT_APPLICABLE",
        "105, 50, true, 119, EU-HEIGHT-OBST, NOT_APPLICABLE",
        "105, 50, true, 121, EU-HEIGHT-120, BREACHED",
        "110, 50.1, true, 121, EU-HEIGHT-120, BREACHED",
        "110, 50, false, 121, EU-HEIGHT-120, BREACHED",
    })
    void theStructureAllowanceHasThreeGates(
            double height, double distance, boolean asked, double flown, String rule, Verdict verdict) {
        Facts facts = openJob()
                .quantity("structure.heightM", height, 0, "t")
                .quantity("structure.distanceM", distance, 0, "t")
                .yesNo("structure.artificial", true, "t")
                .yesNo("structure.requestedByOwner", asked, "t")
                .quantity("heightAboveSurfaceM", flown, 0, "t")
                .quantity("heightAboveGroundM", flown, 0, "t")
                .build();
        assertThat(finding(facts, rule).verdict()).isEqualTo(verdict);
    }

    @Test
    void anUnknownRequestIsNoAllowanceAndIsAskedFor() {
        Facts facts = openJob()
                .quantity("structure.heightM", 110, 0, "t")
                .quantity("structure.distanceM", 40, 0, "t")
                .yesNo("structure.artificial", true, "t")
                .quantity("heightAboveSurfaceM", 121, 0, "t")
                .build();
        Finding finding = finding(facts, "EU-HEIGHT-120");
        assertThat(finding.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(finding.missing()).contains("structure.requestedByOwner");
    }

    @ParameterizedTest(name = "{0} ± {1} g is {2}")
    @CsvSource({
        "249.4, 0.5, MET",
        "249.6, 0.5, CLOSE",
        "249.7, 0.1, MET",
        "250, 0, BREACHED",
        "250.2, 0.5, CLOSE",
        "250.6, 0.5, BREACHED"
    })
    void massOfC0IsBelow250(double grams, double tolerance, Verdict verdict) {
        Facts facts = openJob()
                .word("classMark", "C0", "t")
                .quantity("takeoffMassG", grams, tolerance, "t")
                .quantity("maxTakeoffMassG", 200, 0, "t")
                .build();
        assertThat(finding(facts, "EU-CLASS-MASS").verdict()).isEqualTo(verdict);
    }

    /** Nothing declared: what weighs too much already is over, what does not may still be declared heavier. */
    @ParameterizedTest(name = "{0} g and nothing declared is {1}")
    @CsvSource({"240, NOT_KNOWN", "249.9, NOT_KNOWN", "250, BREACHED", "300, BREACHED"})
    void aMassThatNobodyDeclaredIsTheLeastThatItCanBe(double grams, Verdict verdict) {
        Finding finding = finding(
                openJob()
                        .word("classMark", "C0", "t")
                        .quantity("takeoffMassG", grams, 0, "t")
                        .build(),
                "EU-CLASS-MASS");
        assertThat(finding.verdict()).isEqualTo(verdict);
        assertThat(finding.missing())
                .containsExactlyElementsOf(
                        verdict == Verdict.NOT_KNOWN ? List.of("maxTakeoffMassG") : List.<String>of());
    }

    /** 248 ± 5 g is not below 250 g: a threshold in a condition is open where the uncertainty reaches over it. */
    @ParameterizedTest(name = "{0} ± {1} g: EU-REG-OP {2}")
    @CsvSource({
        "240, 5, NOT_APPLICABLE",
        "248, 5, NOT_KNOWN",
        "250, 5, NOT_KNOWN",
        "255, 5, BREACHED",
        "255.1, 5, BREACHED",
        "244.9, 5, NOT_APPLICABLE",
        "245, 5, NOT_KNOWN"
    })
    void aThresholdInAConditionIsThreeValued(double grams, double tolerance, Verdict verdict) {
        Facts facts = openJob()
                .quantity("takeoffMassG", grams, tolerance, "t")
                .quantity("maxTakeoffMassG", 100, 0, "t")
                .quantity("impactEnergyJ", 20, 0, "t")
                .yesNo("hasCamera", false, "t")
                .papers(List.of())
                .build();
        Finding finding = finding(facts, "EU-REG-OP");
        assertThat(finding.verdict()).isEqualTo(verdict);
        if (verdict == Verdict.NOT_KNOWN) {
            assertThat(finding.says()).contains("measure it");
        }
    }

    @ParameterizedTest(name = "{0} m from people, low speed {1}: {2} {3}")
    @CsvSource({
        "30, false, EU-A2-DIST30, CLOSE",
        "32, false, EU-A2-DIST30, MET",
        "29.9, false, EU-A2-DIST30, BREACHED",
        "5, true, EU-A2-DIST5, CLOSE",
        "4.9, true, EU-A2-DIST5, BREACHED",
        "10, true, EU-A2-DIST30, NOT_APPLICABLE"
    })
    void distanceToPeopleInA2(double metres, boolean lowSpeed, String rule, Verdict verdict) {
        Facts facts = openJob()
                .word("subcategory", "A2", "t")
                .yesNo("lowSpeedMode", lowSpeed, "t")
                .quantity("groundSpeedMps", 2, 0, "t")
                .word("overPeople", "none", "t")
                .quantity("peopleDistanceM", metres, 0, "t")
                .build();
        assertThat(finding(facts, rule).verdict()).isEqualTo(verdict);
    }

    @ParameterizedTest(name = "{0} m from a village is {1}")
    @CsvSource({"149.9, BREACHED", "150, CLOSE", "160, MET"})
    void distanceToBuiltUpAreasInA3(double metres, Verdict verdict) {
        Facts facts = openJob()
                .word("subcategory", "A3", "t")
                .quantity("builtUpDistanceM", metres, 0, "t")
                .build();
        assertThat(finding(facts, "EU-A3-150").verdict()).isEqualTo(verdict);
    }

    @Test
    void aCertificateHoldsThroughItsLastDayAndNoMinuteLonger() {
        PaperHeld a2 = new PaperHeld(
                "pilotCertificate",
                Optional.of("A2"),
                "pilot",
                "A2-1",
                "EU",
                Validity.between(LocalDate.of(2022, 3, 15), LocalDate.of(2027, 3, 14), HOME),
                true);
        Facts sameDay = night(ZonedDateTime.of(2027, 3, 14, 23, 30, 0, 0, HOME))
                .papers(List.of(a2))
                .build();
        Facts pastMidnight = night(ZonedDateTime.of(2027, 3, 15, 0, 10, 0, 0, HOME))
                .papers(List.of(a2))
                .build();
        assertThat(finding(sameDay, "EU-COMP-A2").verdict()).isEqualTo(Verdict.CLOSE);
        assertThat(finding(pastMidnight, "EU-COMP-A2").verdict()).isEqualTo(Verdict.BREACHED);
    }

    private static Facts.Builder night(ZonedDateTime landing) {
        return Facts.builder(HOME)
                .window(new TimeWindow(
                        ZonedDateTime.of(2027, 3, 14, 23, 0, 0, 0, HOME).toInstant(), landing.toInstant()))
                .word("jurisdiction", "EU", "t")
                .word("category", "open", "t")
                .word("subcategory", "A2", "t");
    }

    @Test
    void noPapersOnRecordIsNotTheSameAsNotKnowingThem() {
        Facts unknown = night(ZonedDateTime.of(2027, 3, 14, 23, 30, 0, 0, HOME)).build();
        Facts none = unknown.toBuilder().papers(List.of()).build();
        assertThat(finding(unknown, "EU-COMP-A2").verdict()).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(finding(none, "EU-COMP-A2").verdict()).isEqualTo(Verdict.BREACHED);
    }

    @Test
    void nightNeedsTheGreenLightAndDayDoesNot() {
        Facts.Builder dark = openJob()
                .word("light", "night", "t")
                .with("lights", new yarrek.core.rulebook.FactValue.Words(java.util.Set.of("position")), "t");
        assertThat(finding(dark.build(), "EU-NIGHT-LIGHT").verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(finding(openJob().word("light", "day", "t").build(), "EU-NIGHT-LIGHT")
                        .verdict())
                .isEqualTo(Verdict.NOT_APPLICABLE);
    }

    @Test
    void aZoneIsBreachedUnlessAnApprovalCoversIt() {
        ZoneMet zone =
                new ZoneMet("Z1", "Zone one", ZoneMet.Restriction.NEEDS_AUTHORISATION, false, "ask", Optional.empty());
        ZoneMet covered = new ZoneMet(
                "Z1", "Zone one", ZoneMet.Restriction.NEEDS_AUTHORISATION, false, "ask", Optional.of("AP-7"));
        assertThat(finding(openJob().zones(List.of(zone)).build(), "EU-ZONE-AUTH")
                        .verdict())
                .isEqualTo(Verdict.BREACHED);
        assertThat(finding(openJob().zones(List.of(covered)).build(), "EU-ZONE-AUTH")
                        .verdict())
                .isEqualTo(Verdict.MET);
        assertThat(finding(openJob().build(), "EU-ZONE-AUTH").verdict()).isEqualTo(Verdict.NOT_KNOWN);
    }

    @Test
    void theStricterLimitBindsAndNamesTheOneItBeats() {
        Facts facts = openJob()
                .quantity("pilotDistanceM", 40, 0, "t")
                .word("subcategory", "A1", "t")
                .word("sight", "followMe", "t")
                .build();
        assertThat(finding(facts, "EU-A1-FOLLOWME").beatenBy()).isEmpty();
        assertThat(finding(facts, "HOUSE-PILOT-DISTANCE").beatenBy()).contains("EU-A1-FOLLOWME");
    }

    @Test
    void aPlaceWithoutAPackIsNotKnownForTheLaw() {
        Facts facts = openJob().word("jurisdiction", "XX", "t").build();
        assertThat(finding(facts, "NO-PACK").verdict()).isEqualTo(Verdict.NOT_KNOWN);
    }

    @Test
    void rulesAreThoseOfTheDayOfTheFlight() {
        Facts old = Facts.builder(HOME)
                .window(new TimeWindow(
                        ZonedDateTime.of(2022, 6, 30, 22, 0, 0, 0, HOME).toInstant(),
                        ZonedDateTime.of(2022, 6, 30, 23, 0, 0, 0, HOME).toInstant()))
                .word("jurisdiction", "EU", "t")
                .build();
        assertThat(Assessment.of(old, List.of(EU)).findings())
                .noneMatch(f -> f.rule().id().equals("EU-NIGHT-LIGHT"));
    }
}
