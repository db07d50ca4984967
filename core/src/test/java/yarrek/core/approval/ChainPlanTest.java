package yarrek.core.approval;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The chain of approvals forward and backward in time. */
class ChainPlanTest {
    private static final LocalDate JUNE_12 = LocalDate.of(2026, 6, 12);
    private static final WorkDays PLAIN = new WorkDays(Set.of());

    private static ChainPlan.Settings on(LocalDate today) {
        return new ChainPlan.Settings(today, PLAIN, 6, 3);
    }

    private static Step permission() {
        return Step.open("permission", "special permission", Set.of(), 12, Lead.ofDays(30), JUNE_12);
    }

    private static Step request(int day) {
        return Step.open(
                "request" + day,
                "request of " + day + " June",
                Set.of("permission"),
                0,
                Lead.ofDays(10),
                JUNE_12.withDayOfMonth(day));
    }

    /** 12 June less 10 less 30 less a margin of 3 days: the permission is sent by 30 April, work begins two working days before. */
    @Test
    void theWorkedChainIsSentByTheThirtiethOfApril() {
        ChainPlan p = ChainPlan.of(
                List.of(permission(), request(12), request(13), request(14)), on(LocalDate.of(2026, 3, 2)));
        ChainPlan.Planned permission = p.step("permission").orElseThrow();
        assertThat(permission.latestSend()).isEqualTo(LocalDate.of(2026, 4, 30));
        assertThat(permission.latestStart()).isEqualTo(LocalDate.of(2026, 4, 28));
        // 30 May is a Saturday, on which nobody takes it
        assertThat(p.step("request12").orElseThrow().movedFrom()).contains(LocalDate.of(2026, 5, 30));
        assertThat(p.step("request12").orElseThrow().latestSend()).isEqualTo(LocalDate.of(2026, 5, 29));
        assertThat(p.step("request14").orElseThrow().latestSend()).isEqualTo(LocalDate.of(2026, 6, 1));
        assertThat(p.toSend().get(0).step().id()).isEqualTo("permission");
    }

    /** The unlock of one day needs both and takes the last day of slack. */
    @Test
    void anUnlockThatNeedsBothLeavesNoSlack() {
        Step unlock = Step.open("unlock", "unlock", Set.of("permission", "request12"), 0, Lead.ofDays(1), JUNE_12);
        // ready to be sent on 29 April: two working days of work before it
        ChainPlan p = ChainPlan.of(List.of(unlock, request(12), permission()), on(LocalDate.of(2026, 4, 27)));
        assertThat(p.steps()).extracting(x -> x.step().id()).containsExactly("permission", "request12", "unlock");
        assertThat(p.step("permission").orElseThrow().latestSend()).isEqualTo(LocalDate.of(2026, 4, 29));
        assertThat(p.steps()).allMatch(x -> x.slackDays() == 0 && x.standing().equals("tight"));
        assertThat(p.critical()).containsExactly("permission", "request12", "unlock");
        assertThat(p.earliestJobDay()).isEqualTo(JUNE_12);
    }

    @Test
    void aDayTooLateIsToldWithTheFirstDayThatWouldDo() {
        ChainPlan p = ChainPlan.of(List.of(permission(), request(12)), on(LocalDate.of(2026, 5, 4)));
        ChainPlan.Planned x = p.step("request12").orElseThrow();
        // 4 May, two working days of work, 30 and 10 days: granted on 15 June
        assertThat(x.earliestGrant()).isEqualTo(LocalDate.of(2026, 6, 15));
        assertThat(x.slackDays()).isEqualTo(-6);
        assertThat(x.standing()).isEqualTo("too late");
        assertThat(p.earliestJobDay()).isEqualTo(LocalDate.of(2026, 6, 18));
    }

    @Test
    void whatIsGrantedHoldsNothingUpAndWhatIsOverdueMayComeAnyDay() {
        LocalDate today = LocalDate.of(2026, 5, 25);
        Step granted = new Step(
                "permission",
                "special permission",
                Set.of(),
                12,
                Lead.ofDays(30),
                Lead.ofDays(11),
                JUNE_12,
                Optional.empty(),
                Optional.of(LocalDate.of(2026, 5, 1)),
                Optional.of(LocalDate.of(2026, 5, 12)),
                Optional.empty());
        ChainPlan p = ChainPlan.of(List.of(granted, request(12)), on(today));
        assertThat(p.step("permission").orElseThrow().standing()).isEqualTo("granted");
        assertThat(p.step("request12").orElseThrow().earliestGrant()).isEqualTo(LocalDate.of(2026, 6, 4));
        Step overdue = new Step(
                "permission",
                "special permission",
                Set.of(),
                12,
                Lead.ofDays(10),
                Lead.ofDays(5),
                JUNE_12,
                Optional.empty(),
                Optional.of(LocalDate.of(2026, 5, 1)),
                Optional.empty(),
                Optional.empty());
        assertThat(ChainPlan.of(List.of(overdue), on(today)).steps().get(0).earliestGrant())
                .isEqualTo(today);
    }

    @Test
    void nothingIsSentBeforeItMayBe() {
        Step x = new Step(
                "r",
                "request",
                Set.of(),
                0,
                Lead.ofDays(2),
                Lead.ofDays(1),
                JUNE_12,
                Optional.of(LocalDate.of(2026, 6, 5)),
                Optional.empty(),
                Optional.empty(),
                Optional.empty());
        ChainPlan.Planned p =
                ChainPlan.of(List.of(x), on(LocalDate.of(2026, 5, 1))).steps().get(0);
        assertThat(p.earliestSend()).isEqualTo(LocalDate.of(2026, 6, 5));
        assertThat(p.usualGrant()).isEqualTo(LocalDate.of(2026, 6, 6));
    }

    @Test
    void aCircleIsNamed() {
        Step a = Step.open("a", "permit", Set.of("b"), 0, Lead.ofDays(1), JUNE_12);
        Step b = Step.open("b", "insurance proof", Set.of("c"), 0, Lead.ofDays(1), JUNE_12);
        Step c = Step.open("c", "invitation", Set.of("a"), 0, Lead.ofDays(1), JUNE_12);
        Step outside = Step.open("d", "unlock", Set.of("a"), 0, Lead.ofDays(1), JUNE_12);
        assertThatThrownBy(() -> ChainPlan.of(List.of(outside, a, b, c), on(JUNE_12)))
                .isInstanceOf(ChainPlan.CircleException.class)
                .hasMessage("these approvals wait for each other: permit → insurance proof → invitation → permit");
    }

    @Test
    void aStepThatNeedsOneThatIsNotThereIsRefused() {
        assertThatThrownBy(() -> ChainPlan.of(List.of(request(12)), on(JUNE_12)))
                .hasMessageContaining("request of 12 June needs 'permission', which is not in the chain");
    }

    @ParameterizedTest(name = "{1} working days after {0}: {2}")
    @CsvSource({
        "2026-04-30, 0, 2026-04-30",
        "2026-04-30, 1, 2026-05-04",
        "2026-05-02, 1, 2026-05-04",
        "2026-04-29, 2, 2026-05-04"
    })
    void workingDaysPassOverWeekendsAndHolidays(LocalDate from, int days, LocalDate to) {
        // 1 May is a holiday, 2 and 3 May a weekend
        WorkDays w = new WorkDays(Set.of(LocalDate.of(2026, 5, 1)));
        assertThat(w.after(from, days)).isEqualTo(to);
        assertThat(w.isWorkDay(LocalDate.of(2026, 5, 1))).isFalse();
        assertThat(w.onOrAfter(LocalDate.of(2026, 5, 1))).isEqualTo(LocalDate.of(2026, 5, 4));
        assertThat(w.onOrBefore(LocalDate.of(2026, 5, 3))).isEqualTo(LocalDate.of(2026, 4, 30));
    }

    /** Sent by the latest day, at worst it is granted by the latest day; a day later it may not be. */
    @Test
    void latestDatesAreLatest() {
        Random random = new Random(6);
        WorkDays w = new WorkDays(Set.of(LocalDate.of(2026, 5, 1), LocalDate.of(2026, 6, 10)));
        for (int round = 0; round < 60; round++) {
            List<Step> steps = new ArrayList<>();
            int n = 1 + random.nextInt(12);
            for (int i = 0; i < n; i++) {
                Set<String> needs = i == 0 || random.nextInt(3) == 0 ? Set.of() : Set.of("s" + random.nextInt(i));
                Lead lead =
                        random.nextBoolean() ? Lead.ofDays(random.nextInt(30)) : Lead.ofWorkDays(random.nextInt(15));
                steps.add(Step.open(
                        "s" + i, "step " + i, needs, random.nextInt(20), lead, JUNE_12.plusDays(random.nextInt(4))));
            }
            ChainPlan p = ChainPlan.of(steps, new ChainPlan.Settings(LocalDate.of(2026, 1, 5), w, 6, 2));
            for (ChainPlan.Planned x : p.steps()) {
                assertThat(x.step().lead().grantedIfSent(x.latestSend(), w)).isBeforeOrEqualTo(x.latestGrant());
                assertThat(x.step().lead().grantedIfSent(x.latestSend().plusDays(4), w))
                        .isAfter(x.latestGrant());
                assertThat(x.latestGrant())
                        .isBeforeOrEqualTo(x.step().neededOn().minusDays(2));
                assertThat(x.latestStart()).isBeforeOrEqualTo(x.latestSend());
                for (String need : x.step().needs()) {
                    assertThat(p.step(need).orElseThrow().latestGrant())
                            .isBeforeOrEqualTo(x.movedFrom().orElse(x.latestSend()));
                    assertThat(x.earliestSend())
                            .isAfterOrEqualTo(p.step(need).orElseThrow().earliestGrant());
                }
            }
            // a job moved to the earliest day it can be flown has slack everywhere
            long move = java.time.temporal.ChronoUnit.DAYS.between(
                    steps.stream().map(Step::neededOn).min(LocalDate::compareTo).orElseThrow(), p.earliestJobDay());
            List<Step> moved = steps.stream()
                    .map(s -> Step.open(
                            s.id(),
                            s.name(),
                            s.needs(),
                            s.prepareHours(),
                            s.lead(),
                            s.neededOn().plusDays(move)))
                    .toList();
            ChainPlan there = ChainPlan.of(moved, new ChainPlan.Settings(LocalDate.of(2026, 1, 5), w, 6, 2));
            assertThat(there.steps())
                    .allMatch(
                            x -> x.earliestGrant().compareTo(x.step().neededOn().minusDays(2)) <= 0);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"7|7.0|7|1", "3 9|6.0|9|2", "1 2 3 4 5 6 7 8 9 30|5.5|9|10", "11 10 12|11.0|12|3"})
    void historyGivesMedianNinetiethAndNumber(String days, double median, int ninetieth, int n) {
        List<Integer> d =
                java.util.Arrays.stream(days.split(" ")).map(Integer::valueOf).toList();
        assertThat(History.of(d)).contains(new History(median, ninetieth, n));
        assertThat(History.of(List.of())).isEmpty();
    }
}
