package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.judging.Inputs.DAY;
import static yarrek.core.judging.Inputs.ZONE;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import yarrek.core.approval.ApprovalKind;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Lead;
import yarrek.core.approval.Terms;
import yarrek.core.approval.UnlockLife;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.time.Validity;

/** What is granted for a job: what it lifts and settles, and only where every hour is covered. */
class GrantedTest {
    private static JobPaper paper(UUID id, LocalDate from, LocalDate through, String... lifts) {
        Map<String, FactValue> settles = new java.util.HashMap<>();
        for (String l : lifts) {
            if (l.contains("=")) {
                settles.put(l, new FactValue.YesNo(l.endsWith("=yes")));
            }
        }
        return new JobPaper(id, "A-" + from, Set.of(lifts), settles, Validity.between(from, through, ZONE));
    }

    private static ApprovalKind kind(
            String code, String paper, Map<String, String> facts, boolean unlock, String... quotes) {
        return new ApprovalKind(
                code,
                code,
                Set.of("EU"),
                "granter",
                new ApprovalKind.Trigger(Set.of(), Set.of(), false, Condition.never()),
                Set.of(),
                Set.of(),
                1,
                1,
                Lead.ofDays(1),
                Lead.ofDays(2),
                0,
                0,
                Optional.empty(),
                Set.of(quotes),
                new ApprovalKind.Gives(paper, "", facts),
                unlock,
                "",
                List.of(),
                "");
    }

    private static ApprovalOnFile approval(
            ApprovalKind kind, boolean held, Terms terms, UUID paper, UnlockLife.Stage... done) {
        return new ApprovalOnFile(
                UUID.randomUUID(),
                kind.code(),
                Optional.of(kind),
                null,
                null,
                DAY,
                DAY.plusDays(1),
                held,
                held ? DAY : null,
                "R-" + kind.code(),
                "the tower",
                terms,
                "",
                paper,
                Set.of(done));
    }

    private static Terms terms(Set<Cover.Dimension> open, List<String> pilots) {
        return new Terms(
                DAY.atTime(9, 0).atZone(ZONE).toInstant(),
                DAY.atTime(12, 0).atZone(ZONE).toInstant(),
                "",
                100.0,
                "100 m",
                List.of("S-1"),
                pilots,
                "",
                List.of(),
                open);
    }

    private static Inputs twoDays() {
        Inputs in = new Inputs();
        in.windows = List.of(Inputs.hours(DAY), Inputs.hours(DAY.plusDays(1)));
        return in;
    }

    @Test
    void aLiftCountsOnlyWhenEveryHourIsCovered() {
        Inputs in = twoDays();
        in.jobPapers.add(paper(UUID.randomUUID(), DAY, DAY, "RULE-1"));
        assertThat(PlanFacts.of(in.input()).lifted()).isEmpty();
        in.jobPapers.add(paper(UUID.randomUUID(), DAY.plusDays(1), DAY.plusDays(1), "RULE-1"));
        assertThat(PlanFacts.of(in.input()).lifted())
                .isEqualTo(Map.of("RULE-1", "A-" + DAY + ", A-" + DAY.plusDays(1)));
    }

    @Test
    void aFactIsSettledWhenNoOtherRequestThatWouldSettleItIsOpen() {
        Inputs in = new Inputs();
        in.jobPapers.add(paper(UUID.randomUUID(), DAY, DAY, "launchPermission=yes"));
        Facts granted = PlanFacts.of(in.input());
        assertThat(granted.get("launchPermission").orElseThrow().value()).isEqualTo(new FactValue.YesNo(true));
        in.requests.add(approval(kind("land", "x", Map.of("launchPermission", "yes"), false), false, Terms.NONE, null));
        assertThat(PlanFacts.of(in.input()).get("launchPermission")).isEmpty();
        assertThat(PlanFacts.of(in.input().bare()).get("launchPermission")).isEmpty();
    }

    @Test
    void anApprovalCoversByItsTermsNotByThePapersDays() {
        Inputs in = new Inputs().flyingWith(Inputs.aBuild(890));
        in.heightM = OptionalDouble.of(90);
        in.pilot = Optional.of(new Person("Ailsa Fenwright", null, null));
        in.said.put("purpose", new FactValue.Word("work"));
        UUID paper = UUID.randomUUID();
        in.jobPapers.add(paper(paper, DAY, DAY, "RULE-1"));
        Set<Cover.Dimension> open = Set.of(Cover.Dimension.AREA, Cover.Dimension.PURPOSE);
        ApprovalKind zone = kind("zone", "x", Map.of(), false);
        in.requests.add(approval(zone, true, terms(open, List.of("Ailsa Fenwright")), paper));
        Facts f = PlanFacts.of(in.input());
        assertThat(f.lifted()).containsKey("RULE-1");
        assertThat(f.get("approval.pilotNamed").orElseThrow().value()).isEqualTo(new FactValue.YesNo(true));
        assertThat(f.get("approval.outsideMinutes").orElseThrow().value()).isEqualTo(new FactValue.Quantity(0, 0));
        in.requests.set(0, approval(zone, true, terms(open, List.of("Somebody Else")), paper));
        Facts other = PlanFacts.of(in.input());
        assertThat(other.lifted()).isEmpty();
        assertThat(other.get("approval.pilotNamed").orElseThrow().value()).isEqualTo(new FactValue.YesNo(false));
        // exactly at the ceiling it still covers, above it no longer
        in.requests.set(0, approval(zone, true, terms(open, List.of("Ailsa Fenwright")), paper));
        in.heightM = OptionalDouble.of(100);
        assertThat(PlanFacts.of(in.input()).lifted()).containsKey("RULE-1");
        in.heightM = OptionalDouble.of(100.1);
        assertThat(PlanFacts.of(in.input()).lifted()).isEmpty();
    }

    @Test
    void anAuthorisationSaysWhatItCoversAndWhatItDoesNotSayIsNotKnown() {
        Inputs in = new Inputs().flyingWith(Inputs.aBuild(890));
        in.heightM = OptionalDouble.of(90);
        in.pilot = Optional.of(new Person("Ailsa Fenwright", null, null));
        ApprovalKind authorisation = kind("oa", "operationalAuthorisation", Map.of(), false);
        in.requests.add(approval(authorisation, true, terms(Set.of(), List.of("Somebody Else")), null));
        Facts f = PlanFacts.of(in.input());
        assertThat(f.get("authorisation.timeCovered").orElseThrow().value()).isEqualTo(new FactValue.YesNo(true));
        assertThat(f.get("authorisation.aircraftCovered").orElseThrow().value()).isEqualTo(new FactValue.YesNo(true));
        assertThat(f.get("authorisation.pilotCovered").orElseThrow().value()).isEqualTo(new FactValue.YesNo(false));
        assertThat(f.get("authorisation.placeCovered")).isEmpty();
        assertThat(f.get("authorisation.allows")).isEmpty();
        assertThat(f.get("authorisation.heightM").orElseThrow().value()).isEqualTo(new FactValue.Quantity(100, 0));
    }

    @Test
    void anUnlockIsReadyWhenEveryStageIsSaid() {
        Inputs in = new Inputs();
        ApprovalKind unlock = kind("unlock", "", Map.of(), true);
        in.requests.add(approval(unlock, false, Terms.NONE, null));
        assertThat(PlanFacts.of(in.input()).get("unlock.ready").orElseThrow().source())
                .isEqualTo("not yet granted");
        in.requests.set(0, approval(unlock, true, Terms.NONE, null, UnlockLife.Stage.GRANTED));
        assertThat(PlanFacts.of(in.input()).get("unlock.ready").orElseThrow().source())
                .isEqualTo("not yet loaded on the aircraft");
        in.requests.set(0, approval(unlock, true, Terms.NONE, null, UnlockLife.Stage.values()));
        assertThat(PlanFacts.of(in.input()).get("unlock.ready").orElseThrow().value())
                .isEqualTo(new FactValue.YesNo(true));
    }

    @Test
    void itQuotesWhatIsHeldForTheSameDays() {
        ApprovalOnFile tower = approval(kind("tower", "x", Map.of(), false), true, Terms.NONE, null);
        ApprovalOnFile open = approval(kind("land", "x", Map.of(), false), false, Terms.NONE, null);
        ApprovalOnFile asking = approval(kind("unlock", "", Map.of(), true, "tower", "land"), false, Terms.NONE, null);
        assertThat(asking.toQuote(List.of(tower, open, asking))).containsExactly("R-tower");
        assertThat(tower.toQuote(List.of(tower, open, asking))).isEmpty();
    }
}
