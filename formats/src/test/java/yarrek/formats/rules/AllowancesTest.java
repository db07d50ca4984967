package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.airspace.Allowance;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Verdict;
import yarrek.core.time.TimeWindow;

/** The heights drawn beside structures say the same as the rules that judge: at the height met or close, above it breached. */
class AllowancesTest {
    private static Verdict judged(Allowance a, double structureM, double distanceM, double heightM) {
        RulePack pack = RulePackReader.shipped(a.jurisdiction().toLowerCase(Locale.ROOT) + ".yaml");
        Facts facts = Facts.builder(ZoneOffset.UTC)
                .window(new TimeWindow(Instant.parse("2027-03-14T11:00:00Z"), Instant.parse("2027-03-14T12:00:00Z")))
                .word("jurisdiction", a.jurisdiction(), "t")
                .word("category", "open", "t")
                .word("purpose", "work", "t")
                .quantity("takeoffMassG", 900, 0, "t")
                .quantity("heightAboveGroundM", heightM, 0, "t")
                .quantity("structure.heightM", structureM, 0, "t")
                .quantity("structure.distanceM", distanceM, 0, "t")
                .yesNo("structure.artificial", true, "t")
                .yesNo("structure.requestedByOwner", true, "t")
                .yesNo("airspace.controlled", false, "t")
                .build();
        return Assessment.of(facts, List.of(pack)).findings().stream()
                .filter(f -> f.rule().id().equals(a.ruleId()))
                .map(Finding::verdict)
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest(name = "{0}: structure {1} m, {2} m away")
    @CsvSource({
        "EU, 110, 50",
        "EU, 150, 1",
        "GB, 110, 50",
        "CA, 110, 60.9",
        "CA, 200, 5",
        "US, 100, 121.92",
        "US, 300, 10"
    })
    void besideAStructure(String law, double structureM, double distanceM) {
        Allowance a = Allowance.of(law).orElseThrow();
        double height = structureM + a.aboveTopM();
        assertThat(judged(a, structureM, distanceM, height)).isIn(Verdict.MET, Verdict.CLOSE);
        assertThat(judged(a, structureM, distanceM, height + 0.1)).isEqualTo(Verdict.BREACHED);
    }

    @ParameterizedTest(name = "{0}: structure {1} m, {2} m away")
    @CsvSource({"CA, 110, 60.96", "US, 100, 121.93", "AU, 200, 1", "NZ, 200, 101"})
    void outOfReachOfOneTheGeneralLimitHolds(String law, double structureM, double distanceM) {
        Allowance a = Allowance.of(law).orElseThrow();
        assertThat(judged(a, structureM, distanceM, a.baseM())).isIn(Verdict.MET, Verdict.CLOSE);
        assertThat(judged(a, structureM, distanceM, a.baseM() + 0.2)).isIn(Verdict.BREACHED, Verdict.CLOSE);
        assertThat(judged(a, structureM, distanceM, a.baseM() + 1)).isEqualTo(Verdict.BREACHED);
    }

    @ParameterizedTest
    @CsvSource({"EU", "GB"})
    void aStructureNotTallEnoughRaisesNothing(String law) {
        assertThat(judged(Allowance.of(law).orElseThrow(), 105, 10, 119)).isEqualTo(Verdict.NOT_APPLICABLE);
    }
}
