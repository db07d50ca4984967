package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.rulebook.ApprovalHeld;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.PaperKinds;
import yarrek.core.rulebook.Remedies;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.StateFacts;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.WaiverHeld;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;
import yarrek.formats.log.BrokenFileException;

/** How findings come to a standing: what stops a job, what lifts a rule, whose law it is, what a change may be. */
class JudgingTest {
    private static final TimeWindow NOON =
            new TimeWindow(Instant.parse("2027-03-14T12:00:00Z"), Instant.parse("2027-03-14T13:00:00Z"));
    private static final RulePack EU = RulePackReader.shipped("eu.yaml");

    private static Facts.Builder at(String place) {
        return Facts.builder(ZoneOffset.UTC).window(NOON).word("jurisdiction", place, "t");
    }

    /** One law with these rules; each as a pack writes it, without id, source and dates. */
    private static RulePack law(String place, String... rules) throws BrokenFileException {
        StringBuilder s = new StringBuilder("pack: " + place + "\ntitle: t\njurisdiction: " + place
                + "\nversion: 1\nreadOn: 2026-01-01\nhead: h\nrules:\n");
        for (int i = 0; i < rules.length; i++) {
            s.append("  - {id: R-")
                    .append(i + 1)
                    .append(", title: t, cite: c, from: 2020-01-01, confidence: high, remedy: r, ")
                    .append(rules[i])
                    .append("}\n");
        }
        return RulePackReader.read("t.yaml", s.toString().getBytes(StandardCharsets.UTF_8));
    }

    private static Finding of(Assessment a, String id) {
        return a.findings().stream()
                .filter(f -> f.rule().id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest(name = "a breach of layer {0}, weight {1}, stops the job: {2}")
    @CsvSource({
        "law, stop, true",
        "law, act, true",
        "law, caution, false",
        "landowner, act, true",
        "by-law, act, true",
        "approval, act, true",
        "house, stop, true",
        "house, act, false",
        "maker, act, false"
    })
    void whatBindsIsNoGoWhateverItsWeight(String layer, String weight, boolean stops) throws BrokenFileException {
        RulePack pack =
                law("GB", "layer: " + layer + ", severity: " + weight + ", requires: {fact: assembly, is: false}");
        Assessment a = Assessment.of(at("GB").yesNo("assembly", true, "t").build(), List.of(pack));
        assertThat(of(a, "R-1").blocks()).isEqualTo(stops);
        assertThat(a.noGo().isPresent()).isEqualTo(stops);
    }

    @Test
    void aDepartureFreesWhatTheHouseRulesAndNeverTheLaw() throws BrokenFileException {
        RulePack pack = law(
                "GB",
                "layer: house, severity: stop, requires: {fact: assembly, is: false}",
                "severity: act, requires: {fact: assembly, is: false}");
        Facts f = at("GB").yesNo("assembly", true, "t")
                .waiver(new WaiverHeld("R-1", "why", "who", LocalDate.of(2027, 3, 14)))
                .waiver(new WaiverHeld("R-2", "why", "who", LocalDate.of(2027, 3, 14)))
                .build();
        Assessment a = Assessment.of(f, List.of(pack));
        assertThat(of(a, "R-1").blocks()).isFalse();
        assertThat(of(a, "R-2").blocks()).isTrue();
    }

    /** Permission is asked on the day; once somebody has said that there is an emergency it has to be said now. */
    @ParameterizedTest(name = "emergency {0}, permission {1}: stops {2}, waits {3}")
    @CsvSource({
        "true, , true, false",
        "true, false, true, false",
        "true, true, false, false",
        "false, , false, false",
        ", , false, true"
    })
    void aDeclaredEmergencyStopsUntilPermissionIsSaid(
            Boolean emergency, Boolean permission, boolean stops, boolean waits) {
        Facts.Builder b = at("EU");
        if (emergency != null) {
            b.yesNo("emergency.ongoing", emergency, "t");
        }
        if (permission != null) {
            b.yesNo("emergency.permission", permission, "t");
        }
        Finding f = of(Assessment.of(b.build(), List.of(EU)), "EU-EMERG");
        assertThat(f.blocks()).isEqualTo(stops);
        assertThat(f.waitsForTheDay()).isEqualTo(waits);
    }

    @Test
    void onlyARuleThatNamesWhatCoversItIsLifted() {
        Facts f = at("EU").word("category", "open", "t")
                .quantity("heightAboveSurfaceM", 150, 0, "t")
                .yesNo("structure.artificial", false, "t")
                .quantity("pilot.ageYears", 9, 0, "t")
                .yesNo("pilot.supervised", false, "t")
                .word("subcategory", "A3", "t")
                .yesNo("privatelyBuilt", false, "t")
                .yesNo("assembly", true, "t")
                .yesNo("pilot.fit", false, "t")
                .approval(new ApprovalHeld("A-1", Set.of("EU-HEIGHT-120", "EU-AGE-16", "EU-ASSEMBLY", "EU-FITNESS")))
                .build();
        Assessment a = Assessment.of(f, List.of(EU));
        assertThat(of(a, "EU-HEIGHT-120").verdict()).isEqualTo(Verdict.MET);
        assertThat(of(a, "EU-HEIGHT-120").liftedBy()).contains("A-1");
        for (String never : List.of("EU-AGE-16", "EU-ASSEMBLY", "EU-FITNESS")) {
            assertThat(of(a, never).verdict()).as(never).isEqualTo(Verdict.BREACHED);
            assertThat(of(a, never).says()).contains("A-1");
        }
    }

    /** Of the whole law: what is said of people, drink, age and the maker is never lifted by a paper. */
    @ParameterizedTest
    @ValueSource(strings = {"eu.yaml", "gb.yaml", "ca.yaml", "us.yaml", "au.yaml", "nz.yaml", "house.yaml"})
    void nothingLiftsAlcoholFitnessAgeAndTheMakersLimits(String pack) {
        assertThat(RulePackReader.shipped(pack).rules())
                .filteredOn(r -> r.requires().factNames().stream()
                        .anyMatch(n -> n.equals("pilot.fit")
                                || n.startsWith("pilot.hoursSince")
                                || n.startsWith("pilot.blood")
                                || n.equals("pilot.ageYears")
                                || n.startsWith("maker.")))
                .allSatisfy(r -> assertThat(r.isCoverable()).as(r.id()).isFalse());
    }

    @Test
    void aLawThatAnApprovalLiftedBeatsNothing() throws BrokenFileException {
        RulePack pack = law(
                "GB",
                "severity: stop, coveredBy: an approval, requires: {fact: heightAboveGroundM, atMost: 120}",
                "layer: approval, severity: act, requires: {fact: heightAboveGroundM, atMost: 150}");
        Facts f = at("GB").quantity("heightAboveGroundM", 149, 0, "t")
                .approval(new ApprovalHeld("A-1", Set.of("R-1")))
                .build();
        Finding ceiling = of(Assessment.of(f, List.of(pack)), "R-2");
        assertThat(ceiling.verdict()).isEqualTo(Verdict.CLOSE);
        assertThat(ceiling.beatenBy()).isEmpty();
        assertThat(ceiling.isOpen()).isTrue();
    }

    @Test
    void bareUnionSaysThatTheStateIsNotKnown() {
        assertThat(of(Assessment.of(at("EU").build(), List.of(EU)), "NO-OVERLAY")
                        .says())
                .contains("which state");
        assertThat(of(Assessment.of(at("EU-HU").build(), List.of(EU)), "NO-OVERLAY")
                        .says())
                .contains("EU-HU");
        assertThat(Assessment.of(at("EU-DE").build(), List.of(EU, RulePackReader.shipped("eu-de.yaml")))
                        .findings())
                .noneMatch(f -> f.rule().id().equals("NO-OVERLAY"));
        assertThat(Assessment.of(at("GB").build(), List.of(RulePackReader.shipped("gb.yaml")))
                        .findings())
                .noneMatch(f -> f.rule().id().equals("NO-OVERLAY"));
    }

    @Test
    void anOverridingRuleStandsInOnlyWhereItApplies() throws BrokenFileException {
        RulePack overlay = RulePackReader.read("t.yaml", """
                pack: EU-QQ
                title: Q
                jurisdiction: EU-QQ
                overlays: EU
                version: 1
                readOn: 2026-01-01
                head: h
                rules:
                  - {id: QQ-AGE, title: t, severity: stop, cite: c, from: 2020-01-01, confidence: high, remedy: r, overrides: EU-AGE-16, appliesWhen: {fact: category, isOneOf: [open]}, requires: {fact: pilot.ageYears, atLeast: 14, closePercent: 0}}
                """.getBytes(StandardCharsets.UTF_8));
        for (String category : List.of("open", "specific")) {
            Facts f = at("EU-QQ")
                    .word("category", category, "t")
                    .quantity("pilot.ageYears", 15, 0, "t")
                    .build();
            boolean wider = Assessment.of(f, List.of(EU, overlay)).findings().stream()
                    .anyMatch(x -> x.rule().id().equals("EU-AGE-16"));
            assertThat(wider).as(category).isEqualTo(category.equals("specific"));
        }
        // which category is not known: both stand
        Facts open = at("EU-QQ").quantity("pilot.ageYears", 15, 0, "t").build();
        assertThat(Assessment.of(open, List.of(EU, overlay)).findings())
                .anyMatch(x -> x.rule().id().equals("EU-AGE-16"))
                .anyMatch(x -> x.rule().id().equals("QQ-AGE"));
    }

    @ParameterizedTest(name = "a policy for {0} counts in {1}: {2}")
    @CsvSource({
        "EU, EU-DE, MET",
        "EU, EU-CH, BREACHED",
        "EU, EU-NO, BREACHED",
        "EU EU-CH, EU-CH, MET",
        "EU-DE, EU-FR, BREACHED",
        "EU-DE, EU-DE, MET",
        "'', EU-FR, MET",
        "GB, EU-FR, BREACHED"
    })
    void aPolicyCountsWhereItsTerritoryNamesThePlace(String territory, String place, Verdict verdict) {
        Facts f = at(place)
                .word("purpose", "work", "t")
                .papers(List.of(new PaperHeld(
                        "liabilityInsurance",
                        Optional.empty(),
                        "operator",
                        "P",
                        territory,
                        new Validity(Optional.empty(), Optional.empty(), ZoneOffset.UTC),
                        true)))
                .build();
        assertThat(of(Assessment.of(f, List.of(EU)), "EU-INSURANCE").verdict()).isEqualTo(verdict);
    }

    private static PaperHeld certificate(String from, String to) {
        return new PaperHeld(
                "pilotCertificate",
                Optional.of("A2"),
                "pilot",
                from,
                "EU",
                Validity.between(LocalDate.parse(from), LocalDate.parse(to), ZoneOffset.UTC),
                true);
    }

    @Test
    void aGapIsNamedByItsDayAndPapersMayFollowOneAnother() {
        TimeWindow week = new TimeWindow(Instant.parse("2027-03-10T10:00:00Z"), Instant.parse("2027-03-16T12:00:00Z"));
        Facts.Builder b = Facts.builder(ZoneOffset.UTC)
                .window(week)
                .word("jurisdiction", "EU", "t")
                .word("category", "open", "t")
                .word("subcategory", "A2", "t");
        Facts gap = b.papers(List.of(certificate("2022-03-13", "2027-03-12"), certificate("2027-03-14", "2032-03-13")))
                .build();
        Finding f = of(Assessment.of(gap, List.of(EU)), "EU-COMP-A2");
        assertThat(f.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(f.says()).contains("in force on 13 Mar 2027").doesNotContain("10 Mar 2027");
        assertThat(f.otherDay()).isTrue();
        Facts whole = b.papers(
                        List.of(certificate("2022-03-13", "2027-03-12"), certificate("2027-03-13", "2032-03-13")))
                .build();
        assertThat(of(Assessment.of(whole, List.of(EU)), "EU-COMP-A2").verdict())
                .isEqualTo(Verdict.MET);
    }

    @Test
    void thePapersOfNobodyAreNotKnown() {
        Facts f = at("EU").word("category", "open", "t")
                .word("subcategory", "A2", "t")
                .papers(List.of())
                .unnamed("pilot")
                .build();
        assertThat(of(Assessment.of(f, List.of(EU)), "EU-COMP-A2").verdict()).isEqualTo(Verdict.NOT_KNOWN);
    }

    /** A law that speaks of no zones at all says nothing of what they ask: that is asked. */
    @ParameterizedTest
    @CsvSource({"PROHIBITED, true", "NEEDS_AUTHORISATION, true", "CONDITIONAL, false"})
    void aZoneUnderALawThatSpeaksOfNoneIsNotKnown(ZoneMet.Restriction restriction, boolean stops)
            throws BrokenFileException {
        RulePack pack = law("QZ", "severity: stop, requires: {fact: assembly, is: false}");
        ZoneMet zone = new ZoneMet("z", "Old fort", restriction, false, "keep out", Optional.empty());
        Facts f = at("QZ").yesNo("assembly", false, "t").zones(List.of(zone)).build();
        Finding found = of(Assessment.of(f, List.of(pack)), "ZONE-" + restriction);
        assertThat(found.verdict()).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(found.says()).contains("Old fort");
        assertThat(found.blocks()).isEqualTo(stops);
        assertThat(Assessment.of(f.toBuilder().zones(List.of()).build(), List.of(pack))
                        .findings())
                .noneMatch(x -> x.rule().id().startsWith("ZONE-"));
    }

    // --- the smallest changes ----------------------------------------------------------------------------------------

    private static Map<String, List<Remedies.Change>> changes(Facts f, RulePack... packs) {
        List<RulePack> all = List.of(packs);
        Map<String, List<Remedies.Change>> byRule = new java.util.HashMap<>();
        Remedies.of(f, all, Assessment.of(f, all))
                .forEach((k, v) -> byRule.put(k.rule().id(), v));
        return byRule;
    }

    @Test
    void massGoesDownAndDistanceOut() {
        Facts f = at("CA").quantity("takeoffMassG", 900, 0, "t")
                .quantity("maxTakeoffMassG", 1000, 0, "t")
                .quantity("peopleDistanceM", 20, 0, "t")
                .with("modelDeclarations", new FactValue.Words(Set.of()), "t")
                .papers(List.of())
                .build();
        List<Remedies.Change> changes =
                changes(f, RulePackReader.shipped("ca.yaml")).get("CA-DIST-01");
        assertThat(changes).isNotEmpty().allSatisfy(c -> {
            assertThat(c.words()).doesNotContain("25000");
            assertThat(c.fact()).isIn("peopleDistanceM", "");
        });
        assertThat(changes)
                .extracting(Remedies.Change::words)
                .contains("Distance to uninvolved people from 20 to 30.48 m");
    }

    @Test
    void whatIsNotThePlannersToChooseIsNotOfferedAndTheApprovalIs() {
        Facts f = at("US").word("purpose", "work", "t")
                .word("airspace.class", "D", "t")
                .yesNo("airspace.authorised", false, "t")
                .quantity("airspace.authorisedHeightM", 100, 0, "t")
                .quantity("heightAboveGroundM", 50, 0, "t")
                .quantity("pilot.ageYears", 15, 0, "t")
                .yesNo("pilot.supervised", false, "t")
                .yesNo("emergency.ongoing", true, "t")
                .yesNo("emergency.permission", false, "t")
                .build();
        Map<String, List<Remedies.Change>> changes = changes(f, RulePackReader.shipped("us.yaml"));
        assertThat(changes.values().stream().flatMap(List::stream).map(Remedies.Change::fact))
                .doesNotContain("airspace.class", "airspace.authorised", "pilot.ageYears", "emergency.ongoing");
        assertThat(changes.get("US-AIR-01"))
                .extracting(Remedies.Change::words)
                .anySatisfy(w -> assertThat(w).startsWith("Approval:"));
    }

    @Test
    void aChangeThatBreaksAnotherLawIsNoRemedy() {
        // in A2 at 10 m; A3 would ask 30 m and so is no way out
        Facts f = at("EU").word("category", "open", "t")
                .word("subcategory", "A2", "t")
                .word("classMark", "C2", "t")
                .quantity("takeoffMassG", 3000, 0, "t")
                .quantity("maxTakeoffMassG", 3500, 0, "t")
                .yesNo("lowSpeedMode", false, "t")
                .word("overPeople", "none", "t")
                .quantity("peopleDistanceM", 10, 0, "t")
                .build();
        assertThat(changes(f, EU).get("EU-A2-DIST30"))
                .extracting(Remedies.Change::fact)
                .contains("peopleDistanceM")
                .doesNotContain("subcategory");
    }

    /** More uncertainty never makes an answer surer: nothing that was breached or not known is met, or without force, by it. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void lessPrecisionNeverMendsAFinding(long seed) {
        Random r = new Random(seed);
        for (String law : List.of("eu", "gb", "ca", "us", "au", "nz")) {
            RulePack pack = RulePackReader.shipped(law + ".yaml");
            double mass = 200 + r.nextInt(120);
            double distance = 20 + r.nextInt(40);
            Facts sharp = masses(law, mass, 0, distance, 0);
            Facts vague = masses(law, mass, 1 + r.nextInt(60), distance, 1 + r.nextInt(15));
            Assessment a = Assessment.of(sharp, List.of(pack));
            Assessment b = Assessment.of(vague, List.of(pack));
            for (Finding f : b.findings()) {
                Verdict was = of(a, f.rule().id()).verdict();
                if (f.verdict() == Verdict.MET) {
                    assertThat(was).as(f.rule().id()).isIn(Verdict.MET, Verdict.CLOSE, Verdict.NOT_APPLICABLE);
                }
                if (f.verdict() == Verdict.NOT_APPLICABLE) {
                    assertThat(was).as(f.rule().id()).isEqualTo(Verdict.NOT_APPLICABLE);
                }
            }
        }
    }

    private static Facts masses(String law, double mass, double give, double distance, double distanceGive) {
        return at(law.toUpperCase(java.util.Locale.ROOT))
                .word("category", "open", "t")
                .word("purpose", "work", "t")
                .quantity("takeoffMassG", mass, give, "t")
                .quantity("maxTakeoffMassG", mass, 0, "t")
                .quantity("peopleDistanceM", distance, distanceGive, "t")
                .quantity("heightAboveGroundM", 60, 0, "t")
                .papers(List.of())
                .build();
    }

    // --- whose law ---------------------------------------------------------------------------------------------------

    @ParameterizedTest(name = "operator of {0} in {1}: third country {2}, another member state {3}")
    @CsvSource({
        "EU-DE, EU-DE, false, false",
        "EU-DE, EU-FR, false, true",
        "EU-NO, EU-FR, false, true",
        "GB, EU-FR, true, ",
        "EU, EU-FR, false, ",
        "EU-DE, EU, false, ",
        "EU-DE, GB, , "
    })
    void theOperatorsHomeAndThePlaceDecideWhatIsForeign(String home, String place, Boolean third, Boolean other) {
        Facts.Builder b = at(place);
        StateFacts.put(b, home, place, List.of(), PaperKinds.NONE);
        assertThat(yesNo(b, "thirdCountryOperator")).isEqualTo(Optional.ofNullable(third));
        assertThat(yesNo(b, "foreignState")).isEqualTo(Optional.ofNullable(other));
    }

    private static Optional<Boolean> yesNo(Facts.Builder b, String fact) {
        return b.build().get(fact).map(k -> ((FactValue.YesNo) k.value()).value());
    }

    @ParameterizedTest(name = "{0} to {1} UTC is in the night rest: {2}")
    @CsvSource({
        "2027-03-14T06:00:00Z, 2027-03-14T21:59:59Z, false",
        "2027-03-14T05:59:59Z, 2027-03-14T07:00:00Z, true",
        "2027-03-14T21:00:00Z, 2027-03-14T22:00:00Z, true",
        "2027-03-14T10:00:00Z, 2027-03-15T10:00:00Z, true"
    })
    void theNightRestHasItsFirstMinuteAndNotItsLast(Instant from, Instant to, boolean quiet) {
        Facts.Builder b = Facts.builder(ZoneOffset.UTC);
        StateFacts.hours(b, List.of(new TimeWindow(from, to)));
        assertThat(yesNo(b, "quietHours")).contains(quiet);
    }

    @Test
    void everyRemedySaysWhatToDoNext() {
        for (String name : RulePackReader.shippedNames()) {
            assertThat(RulePackReader.shipped(name).rules()).allSatisfy(r -> {
                assertThat(r.remedy().split(" ").length)
                        .as(r.id() + ": " + r.remedy())
                        .isGreaterThanOrEqualTo(4);
                assertThat(r.remedy())
                        .as(r.id())
                        .doesNotContain("Nothing to settle")
                        .doesNotContain("Not cleared");
            });
        }
    }
}
