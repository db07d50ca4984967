package yarrek.core.approval;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.WordIsOneOf;
import yarrek.core.time.TimeWindow;

/** What is needed, in how many requests, and what waits for what. */
class RequestTest {
    private static final LocalDate JUNE_12 = LocalDate.of(2026, 6, 12);
    private static final WorkDays PLAIN = new WorkDays(Set.of());
    private static final ApprovalKind.Gives APPROVAL = new ApprovalKind.Gives("approval", "", Map.of());

    private static ApprovalKind kind(
            String code, ApprovalKind.Trigger trigger, Set<String> needs, Set<String> after, int longest) {
        return new ApprovalKind(
                code,
                "the " + code,
                Set.of(),
                "somebody",
                trigger,
                needs,
                after,
                2,
                0.5,
                Lead.ofDays(5),
                Lead.ofDays(10),
                0,
                longest,
                Optional.empty(),
                Set.of(),
                APPROVAL,
                false,
                "",
                List.of(),
                "test");
    }

    private static ApprovalKind.Trigger zones(ZoneKind... kinds) {
        return new ApprovalKind.Trigger(Set.of(), Set.of(kinds), false, Condition.never());
    }

    private static final ApprovalKind.Trigger NOTHING = zones();
    private static final ApprovalKind TOWER = kind("tower", zones(ZoneKind.CONTROL_ZONE), Set.of("proof"), Set.of(), 1);
    private static final ApprovalKind PROOF = kind("proof", NOTHING, Set.of(), Set.of(), 0);
    private static final ApprovalKind UNLOCK = kind(
            "unlock",
            new ApprovalKind.Trigger(Set.of(), Set.of(), true, Condition.never()),
            Set.of(),
            Set.of("tower"),
            0);
    private static final ApprovalKind EVENT = kind(
            "event",
            new ApprovalKind.Trigger(Set.of(), Set.of(), false, new WordIsOneOf("event", Set.of("advertised"))),
            Set.of(),
            Set.of(),
            0);
    private static final List<ApprovalKind> KINDS = List.of(PROOF, TOWER, UNLOCK, EVENT);

    private static Facts facts(String event) {
        Facts.Builder b = Facts.builder(ZoneId.of("UTC"));
        if (event != null) {
            b.word("event", event, "test");
        }
        return b.build();
    }

    private static List<Needed> needed(Facts f, Needed.ZoneHit... hits) {
        return Needed.of(KINDS, "EU", Assessment.of(f, List.of()), f, List.of(hits));
    }

    @Test
    void eachZoneOfItsKindIsAskedForAndPullsInWhatItNeeds() {
        List<Needed> n = needed(
                facts("none"),
                new Needed.ZoneHit("Z1", "Tarrow control zone", ZoneKind.CONTROL_ZONE, true),
                new Needed.ZoneHit("Z2", "Skarn control zone", ZoneKind.CONTROL_ZONE, false),
                new Needed.ZoneHit("P1", "reserve", ZoneKind.PARK, true));
        assertThat(n).extracting(Needed::key).containsExactly("proof", "tower@Z1", "tower@Z2");
        assertThat(n).extracting(Needed::known).containsExactly(true, true, false);
        assertThat(n.get(0).because()).containsExactly("the tower asks for it");
    }

    /** A light build that no zone binds still needs the maker's unlock. */
    @Test
    void aBuildThatNoZoneBindsMayStillNeedTheUnlock() {
        assertThat(needed(facts("none"), new Needed.ZoneHit("M", "maker's circle", ZoneKind.MAKER, true)))
                .extracting(Needed::key)
                .containsExactly("unlock");
    }

    @Test
    void whatIsNotKnownMayBeNeededAndIsNeverLeftOut() {
        assertThat(needed(facts(null))).singleElement().satisfies(n -> {
            assertThat(n.key()).isEqualTo("event");
            assertThat(n.known()).isFalse();
            assertThat(n.because().get(0)).startsWith("not known whether");
        });
        assertThat(needed(facts("none"))).isEmpty();
        assertThat(needed(facts("advertised"))).singleElement().matches(Needed::known);
    }

    @Test
    void aWindowOfOneDayMakesThreeRequestsOfThreeDaysAndCopiesCostLess() {
        List<Request> r = Request.of(
                needed(facts("none"), new Needed.ZoneHit("Z1", "zone", ZoneKind.CONTROL_ZONE, true)),
                JUNE_12,
                JUNE_12.plusDays(2));
        assertThat(r).extracting(Request::id).containsExactly("proof#1", "tower@Z1#1", "tower@Z1#2", "tower@Z1#3");
        assertThat(r).extracting(Request::prepareHours).containsExactly(2.0, 2.0, 0.5, 0.5);
        assertThat(r.get(3).firstDay()).isEqualTo(r.get(3).lastDay()).isEqualTo(JUNE_12.plusDays(2));
        assertThat(r.get(0).lastDay()).isEqualTo(JUNE_12.plusDays(2));
    }

    @ParameterizedTest
    @CsvSource({"1, 7, 7", "2, 7, 4", "7, 7, 1", "30, 7, 1", "0, 60, 1", "7, 8, 2"})
    void windowsAreCutWithoutGapOrOverlap(int longest, int days, int requests) {
        Needed n = new Needed(kind("k", NOTHING, Set.of(), Set.of(), longest), Optional.empty(), "", true, List.of());
        List<Request> r = Request.of(List.of(n), JUNE_12, JUNE_12.plusDays(days - 1L));
        assertThat(r).hasSize(requests);
        assertThat(r.get(0).firstDay()).isEqualTo(JUNE_12);
        assertThat(r.get(requests - 1).lastDay()).isEqualTo(JUNE_12.plusDays(days - 1L));
        for (int i = 1; i < requests; i++) {
            assertThat(r.get(i).firstDay()).isEqualTo(r.get(i - 1).lastDay().plusDays(1));
        }
    }

    /** An unlock equals the approvals it rests on, so it is cut as they are. */
    @Test
    void anUnlockIsCutAsTheShortestOfWhatItQuotes() {
        ApprovalKind u = new ApprovalKind(
                "unlock",
                "unlock",
                Set.of(),
                "maker",
                NOTHING,
                Set.of(),
                Set.of(),
                1,
                0.5,
                Lead.ofDays(1),
                Lead.ofDays(2),
                0,
                0,
                Optional.empty(),
                Set.of("tower", "proof"),
                APPROVAL,
                true,
                "",
                List.of(),
                "test");
        Needed unlock = new Needed(u, Optional.empty(), "", true, List.of());
        Needed tower = new Needed(TOWER, Optional.of("Z1"), "zone", true, List.of());
        assertThat(Request.of(List.of(tower, unlock), JUNE_12, JUNE_12.plusDays(2)))
                .hasSize(6);
        assertThat(Request.longest(unlock, List.of(unlock))).isZero();
        assertThat(Request.longest(tower, List.of(tower, unlock))).isEqualTo(1);
    }

    @Test
    void daysThatDoNotNeedItPartItsRequests() {
        Needed n = new Needed(kind("k", NOTHING, Set.of(), Set.of(), 2), Optional.empty(), "", true, List.of());
        List<Request> r =
                Request.of(n, List.of(JUNE_12, JUNE_12.plusDays(1), JUNE_12.plusDays(2), JUNE_12.plusDays(5)));
        assertThat(r).extracting(Request::firstDay).containsExactly(JUNE_12, JUNE_12.plusDays(2), JUNE_12.plusDays(5));
        assertThat(r).extracting(Request::title).first().isEqualTo("the k, 1 of 3");
    }

    @Test
    void aStepWaitsForThoseOfTheDaysItShares() {
        List<Needed> n = needed(
                facts("none"),
                new Needed.ZoneHit("Z1", "zone", ZoneKind.CONTROL_ZONE, true),
                new Needed.ZoneHit("M", "maker", ZoneKind.MAKER, true));
        List<Step> steps = Request.steps(Request.of(n, JUNE_12, JUNE_12.plusDays(1)), Map.of(), true);
        Step unlock = steps.stream()
                .filter(s -> s.id().equals("unlock#1"))
                .findFirst()
                .orElseThrow();
        assertThat(unlock.needs()).containsExactlyInAnyOrder("tower@Z1#1", "tower@Z1#2");
        assertThat(steps.stream()
                        .filter(s -> s.id().equals("tower@Z1#2"))
                        .findFirst()
                        .orElseThrow()
                        .needs())
                .containsExactly("proof#1");
    }

    /** More days at the granter never bring a grant forward; a later job never costs slack. */
    @Test
    void longerLeadsNeverHelpAndLaterJobsNeverHurt() {
        Random random = new Random(7);
        for (int i = 0; i < 200; i++) {
            int lead = random.nextInt(40);
            int later = random.nextInt(60);
            LocalDate today = JUNE_12.minusDays(random.nextInt(120));
            ChainPlan.Settings s = new ChainPlan.Settings(today, PLAIN, 6, random.nextInt(5));
            ChainPlan a = plan(lead, JUNE_12, s);
            ChainPlan b = plan(lead + 1 + random.nextInt(10), JUNE_12, s);
            ChainPlan c = plan(lead, JUNE_12.plusDays(later), s);
            assertThat(b.steps().get(1).earliestGrant())
                    .isAfterOrEqualTo(a.steps().get(1).earliestGrant());
            assertThat(b.steps().get(0).latestSend())
                    .isBeforeOrEqualTo(a.steps().get(0).latestSend());
            assertThat(c.steps().get(0).slackDays()).isEqualTo(a.steps().get(0).slackDays() + later);
        }
    }

    private static ChainPlan plan(int lead, LocalDate job, ChainPlan.Settings s) {
        return ChainPlan.of(
                List.of(
                        Step.open("a", "a", Set.of(), 4, Lead.ofDays(5), job),
                        Step.open("b", "b", Set.of("a"), 0, Lead.ofDays(lead), job)),
                s);
    }

    // --- unlock and waiting ------------------------------------------------------------------------------------------

    @Test
    void anUnlockIsReadyOnlyWithItsLastStageAndALaterOneDoesNotStandForAnEarlier() {
        UnlockLife life = UnlockLife.of(
                EnumSet.of(UnlockLife.Stage.GRANTED, UnlockLife.Stage.LOADED, UnlockLife.Stage.CONFIRMED), true);
        assertThat(life.next()).contains(UnlockLife.Stage.SWITCHED_ON);
        assertThat(life.isReady()).isFalse();
        assertThat(UnlockLife.of(EnumSet.allOf(UnlockLife.Stage.class), true).isReady())
                .isTrue();
        assertThat(UnlockLife.of(Set.of(), true).next()).contains(UnlockLife.Stage.GRANTED);
    }

    @Test
    void confirmingCostsItsMinutesAtEveryChangeOfPackOrOnceADay() {
        assertThat(UnlockLife.of(Set.of(), true).minutesADay(3, 6)).isEqualTo(18);
        assertThat(UnlockLife.of(Set.of(), false).minutesADay(3, 6)).isEqualTo(3);
    }

    @ParameterizedTest
    @CsvSource({
        "2026-06-12T07:59:59Z, NOT_YET",
        "2026-06-12T08:00:00Z, VALID",
        "2026-06-12T18:00:00Z, VALID",
        "2026-06-12T18:00:01Z, OVER"
    })
    void bothEndsOfTheWindowCount(Instant powerOn, UnlockLife.Hour hour) {
        TimeWindow w = new TimeWindow(Instant.parse("2026-06-12T08:00:00Z"), Instant.parse("2026-06-12T18:00:00Z"));
        assertThat(UnlockLife.at(w, powerOn)).isEqualTo(hour);
    }

    /** 12 June 2026 is a Friday; five days before is a Sunday, so the Friday before it. */
    @Test
    void theRehearsalFallsOnAWorkingDay() {
        assertThat(UnlockLife.rehearseBy(JUNE_12, 5, PLAIN)).isEqualTo(LocalDate.of(2026, 6, 5));
        assertThat(UnlockLife.rehearseBy(JUNE_12, 3, PLAIN)).isEqualTo(LocalDate.of(2026, 6, 9));
    }

    @Test
    void theClockOfARequestNamesTheNextNudge() {
        LocalDate sent = LocalDate.of(2026, 6, 1); // a Monday
        Waiting w = Waiting.of(sent, LocalDate.of(2026, 6, 4), Lead.ofWorkDays(3), Lead.ofDays(10), null, 5, PLAIN);
        assertThat(w.days()).isEqualTo(3);
        assertThat(w.usualBy()).isEqualTo(LocalDate.of(2026, 6, 4));
        assertThat(w.nudgeOn()).isEqualTo(LocalDate.of(2026, 6, 5));
        assertThat(w.worstBy()).isEqualTo(LocalDate.of(2026, 6, 11));
        Waiting again = Waiting.of(
                sent,
                LocalDate.of(2026, 6, 9),
                Lead.ofWorkDays(3),
                Lead.ofDays(10),
                LocalDate.of(2026, 6, 8),
                5,
                PLAIN);
        assertThat(again.nudgeOn()).isEqualTo(LocalDate.of(2026, 6, 15)); // the 13th is a Saturday
    }

    /** The kind says 5 days as a rule and 10 at worst. */
    @ParameterizedTest
    @CsvSource({"2, 40, 2, 5, 10", "6.5, 9, 3, 7, 10", "14, 20, 3, 14, 14", "6, 8, 10, 6, 8"})
    void aGrantersOwnHistoryTakesOverAsItGrows(double median, int ninetieth, int n, int usual, int worst) {
        History.Leads l = History.leads(TOWER, Optional.of(new History(median, ninetieth, n)));
        assertThat(l.usual().days()).isEqualTo(usual);
        assertThat(l.worst().days()).isEqualTo(worst);
        assertThat(History.leads(TOWER, Optional.empty()).worst()).isEqualTo(TOWER.worst());
    }
}
