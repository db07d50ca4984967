package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.rulebook.SomeRules.atMost;
import static yarrek.core.rulebook.SomeRules.holds;
import static yarrek.core.rulebook.SomeRules.law;
import static yarrek.core.rulebook.SomeRules.pack;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Which papers rules want, of whom, and when that is certain. */
class PaperWantedTest {
    private static final LocalDate DAY = LocalDate.of(2027, 6, 12);
    private static final Condition WORK = new WordIsOneOf("purpose", Set.of("work"));

    private static Facts purpose(String word) {
        Facts.Builder b = Facts.builder(ZoneOffset.UTC).word("jurisdiction", "EU", "t");
        return (word == null ? b : b.word("purpose", word, "t")).build();
    }

    @Test
    void everyPaperAskedForInAnyCaseIsWantedAndNoneOfAlternatives() {
        Rule both = law(
                "R",
                Condition.always(),
                new AllOf(List.of(
                        holds("pilot", "pilotCertificate", "A2"),
                        holds("operator", "liabilityInsurance"),
                        new AnyOf(List.of(holds("operator", "x"), holds("operator", "y"))))));
        assertThat(PaperWanted.of(both, SomePapers.KINDS))
                .containsExactly(
                        new PaperWanted("R", "pilot", "pilotCertificate", "pilotCertificate", Set.of("A2")),
                        new PaperWanted("R", "operator", "liabilityInsurance", "liabilityInsurance", Set.of()));
    }

    @Test
    void aRuleThatAsksForTheMarkWantsItsCheckOfTheAircraft() {
        assertThat(PaperWanted.of(law("MARK", Condition.always(), new YesNoIs("marked", true)), SomePapers.KINDS))
                .singleElement()
                .matches(w -> w.role().equals("aircraft") && w.kind().equals("markOnAircraft"));
    }

    @Test
    void onlyARuleThatIsKnownToApplyWantsForCertain() {
        RulePack p = pack(law("R", WORK, holds("operator", "liabilityInsurance")));
        assertThat(PaperWanted.certainly(p, SomePapers.KINDS, purpose("work"), DAY))
                .hasSize(1);
        assertThat(PaperWanted.certainly(p, SomePapers.KINDS, purpose("recreation"), DAY))
                .isEmpty();
        assertThat(PaperWanted.certainly(p, SomePapers.KINDS, purpose(null), DAY))
                .isEmpty();
    }

    @Test
    void aCautionWantsNothing() {
        Rule caution = SomeRules.rule("C", Severity.CAUTION, Layer.LAW, Condition.always(), holds("operator", "x"));
        assertThat(PaperWanted.certainly(pack(caution), SomePapers.KINDS, purpose("work"), DAY))
                .isEmpty();
    }

    @Test
    void theLeastARequirementAsksForIsThatOfItsStrictestPart() {
        Requirement amount =
                new QuantityWithin("insurance.amountSdr", Bound.AT_LEAST, new Limit.Constant(750_000), Closeness.NONE);
        Requirement more =
                new QuantityWithin("insurance.amountSdr", Bound.AT_LEAST, new Limit.Constant(900_000), Closeness.NONE);
        assertThat(amount.least("insurance.amountSdr")).hasValue(750_000);
        assertThat(new AllOf(List.of(amount, more)).least("insurance.amountSdr"))
                .hasValue(900_000);
        assertThat(amount.least("heightAboveGroundM")).isEmpty();
        assertThat(atMost("insurance.amountSdr", 5).least("insurance.amountSdr"))
                .isEmpty();
    }
}
