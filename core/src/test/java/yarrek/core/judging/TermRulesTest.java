package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;
import yarrek.core.rulebook.Layer;
import yarrek.core.rulebook.Rule;

/** What is granted binds as rules: its own ceiling and conditions on its days, its limits with those of the others. */
class TermRulesTest {
    private static final UUID ID = UUID.fromString("cb82e533-0000-4000-8000-000000000000");
    private static final LocalDate DAY = Inputs.DAY;

    private static ApprovalOnFile approval(boolean held, Terms terms, String conditions) {
        return new ApprovalOnFile(
                ID,
                "zoneEU",
                Optional.empty(),
                null,
                null,
                DAY,
                DAY.plusDays(2),
                held,
                held ? DAY.minusDays(20) : null,
                "TAR-2290",
                "the tower",
                terms,
                conditions,
                null,
                Set.of());
    }

    private static Terms terms(Double ceilingM, Cover.Dimension... open) {
        return new Terms(
                null,
                null,
                "a field",
                ceilingM,
                "",
                List.of("S-1"),
                List.of(),
                "",
                List.of(),
                Set.copyOf(Arrays.asList(open)));
    }

    private static List<String> ids(ApprovalOnFile... a) {
        return TermRules.of(List.of(a)).stream().map(Rule::id).toList();
    }

    @Test
    void nothingFollowsFromWhatIsOnlyAskedFor() {
        assertThat(ids(approval(false, terms(50.0), "Ring the tower."))).isEmpty();
        assertThat(ids(approval(true, Terms.NONE, ""))).isEmpty();
    }

    @Test
    void aCeilingAndEveryConditionBindOnTheDaysOfTheApproval() {
        List<Rule> rules = TermRules.of(List.of(approval(true, terms(50.0), "Ring the tower.\n\nKeep the line open.")));
        assertThat(rules).extracting(Rule::id).startsWith("APP-CB82E533-CEILING", "APP-CB82E533-C1", "APP-CB82E533-C2");
        Rule ceiling = rules.get(0);
        assertThat(ceiling.requires().words()).isEqualTo("Height above ground at most 50 m");
        assertThat(ceiling.layer()).isEqualTo(Layer.APPROVAL);
        assertThat(ceiling.source().citation()).isEqualTo("approval TAR-2290 of the tower");
        assertThat(rules).allMatch(r -> r.source().readOn().equals(DAY.minusDays(20)));
        assertThat(ceiling.inForceOn(DAY)).isTrue();
        assertThat(ceiling.inForceOn(DAY.plusDays(2))).isTrue();
        assertThat(ceiling.inForceOn(DAY.minusDays(1))).isFalse();
        assertThat(ceiling.inForceOn(DAY.plusDays(3))).isFalse();
        assertThat(rules.get(2).requires().words()).isEqualTo("Keep the line open.");
        assertThat(rules.get(2).isDuty()).isTrue();
    }

    @Test
    void aDimensionBindsWhenAnyApprovalLimitsIt() {
        ApprovalOnFile open = approval(
                true,
                terms(
                        null,
                        Cover.Dimension.AREA,
                        Cover.Dimension.TIME,
                        Cover.Dimension.AIRCRAFT,
                        Cover.Dimension.PILOTS),
                "");
        assertThat(ids(open)).doesNotContain("APPROVED-AREA", "APPROVED-HOURS", "APPROVED-AIRCRAFT", "APPROVED-PILOT");
        ApprovalOnFile areaOnly =
                approval(true, terms(null, Cover.Dimension.TIME, Cover.Dimension.AIRCRAFT, Cover.Dimension.PILOTS), "");
        assertThat(ids(open, areaOnly)).containsExactly("APPROVED-AREA");
    }
}
