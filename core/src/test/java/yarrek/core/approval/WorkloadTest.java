package yarrek.core.approval;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import yarrek.core.approval.Workload.Slot;
import yarrek.core.approval.Workload.Task;

/** One person does not write four applications in the same hours. */
class WorkloadTest {
    /** A Monday. */
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 30);

    private static final WorkDays PLAIN = new WorkDays(Set.of());

    @Test
    void fourApplicationsOfADayEachAreReadyOneAfterTheOther() {
        LocalDate due = LocalDate.of(2027, 2, 1);
        Map<String, Slot> slots = Workload.share(
                List.of(new Task("a", 24, due), new Task("b", 24, due), new Task("c", 24, due), new Task("d", 24, due)),
                TODAY,
                PLAIN,
                6);
        // 24 h at 6 a day are four working days: Friday, Thursday, Wednesday, Tuesday
        assertThat(List.of("a", "b", "c", "d"))
                .extracting(k -> slots.get(k).ready().toString())
                .containsExactly("2026-12-04", "2026-12-10", "2026-12-16", "2026-12-22");
        assertThat(slots.get("b").begins()).isEqualTo(LocalDate.of(2026, 12, 7));
        // the last of them: four working days before the Monday; the first: sixteen
        assertThat(slots.get("d").beginBy()).isEqualTo(LocalDate.of(2027, 1, 26));
        assertThat(slots.get("a").beginBy()).isEqualTo(LocalDate.of(2027, 1, 8));
    }

    @Test
    void aStepOfHalfAnHourSharesItsDayWithTheNext() {
        Map<String, Slot> slots = Workload.share(
                List.of(new Task("a", 24.5, TODAY.plusDays(30)), new Task("b", 0.5, TODAY.plusDays(40))),
                TODAY,
                PLAIN,
                6);
        assertThat(slots.get("a").ready()).isEqualTo(LocalDate.of(2026, 12, 7));
        assertThat(slots.get("b").begins()).isEqualTo(slots.get("b").ready()).isEqualTo(LocalDate.of(2026, 12, 7));
    }

    @Test
    void whatIsDueFirstIsDoneFirstAndWhatNeedsNoWorkIsReadyToday() {
        Map<String, Slot> slots = Workload.share(
                List.of(
                        new Task("late", 6, TODAY.plusDays(50)),
                        new Task("soon", 6, TODAY.plusDays(5)),
                        new Task("nothing", 0, TODAY.plusDays(60))),
                TODAY,
                PLAIN,
                6);
        assertThat(slots.get("soon").ready()).isEqualTo(LocalDate.of(2026, 12, 1));
        assertThat(slots.get("late").ready()).isEqualTo(LocalDate.of(2026, 12, 2));
        assertThat(slots.get("nothing").ready()).isEqualTo(TODAY);
        assertThat(slots.get("nothing").beginBy()).isEqualTo(TODAY.plusDays(60));
    }

    @Test
    void whatIsOverdueShouldHaveBegunBeforeToday() {
        Map<String, Slot> slots = Workload.share(List.of(new Task("a", 12, TODAY.minusDays(3))), TODAY, PLAIN, 6);
        // due on Friday: two working days before it
        assertThat(slots.get("a").beginBy()).isEqualTo(LocalDate.of(2026, 11, 25));
        assertThat(slots.get("a").ready()).isEqualTo(LocalDate.of(2026, 12, 2));
    }

    /** By brute force over every order of four. */
    @Test
    void noOrderIsLessLateThanByDueDate() {
        Random random = new Random(20261130);
        for (int n = 0; n < 100; n++) {
            List<Task> tasks = new ArrayList<>();
            for (String id : List.of("a", "b", "c", "d")) {
                tasks.add(new Task(id, random.nextInt(60) / 2.0, TODAY.plusDays(random.nextInt(30))));
            }
            Map<String, Slot> slots = Workload.share(tasks, TODAY, PLAIN, 6);
            long ours = tasks.stream()
                    .filter(t -> t.hours() > 0)
                    .mapToLong(t ->
                            ChronoUnit.DAYS.between(t.due(), slots.get(t.id()).ready()))
                    .max()
                    .orElse(0);
            assertThat(ours).isEqualTo(least(tasks, new ArrayList<>()));
        }
    }

    private static long least(List<Task> left, List<Task> order) {
        if (left.isEmpty()) {
            double done = 0;
            long worst = Long.MIN_VALUE;
            for (Task t : order) {
                done += t.hours();
                if (t.hours() > 0) {
                    worst = Math.max(worst, ChronoUnit.DAYS.between(t.due(), PLAIN.after(TODAY, (int)
                            Math.ceil(done / 6))));
                }
            }
            return worst == Long.MIN_VALUE ? 0 : worst;
        }
        long best = Long.MAX_VALUE;
        for (Task t : left) {
            List<Task> rest = new ArrayList<>(left);
            rest.remove(t);
            List<Task> next = new ArrayList<>(order);
            next.add(t);
            best = Math.min(best, least(rest, next));
        }
        return best;
    }

    @Test
    void moreWorkNeverMakesAnythingReadySooner() {
        Random random = new Random(20261201);
        for (int n = 0; n < 100; n++) {
            List<Task> tasks = new ArrayList<>();
            for (int i = 0; i < 6; i++) {
                tasks.add(new Task("t" + i, random.nextInt(40), TODAY.plusDays(random.nextInt(60) - 10)));
            }
            Map<String, Slot> few = Workload.share(tasks, TODAY, PLAIN, 6);
            tasks.add(new Task("more", 1 + random.nextInt(40), TODAY.plusDays(random.nextInt(60))));
            Map<String, Slot> many = Workload.share(tasks, TODAY, PLAIN, 6);
            assertThat(few).allSatisfy((id, s) -> {
                assertThat(many.get(id).ready()).isAfterOrEqualTo(s.ready());
                assertThat(many.get(id).beginBy()).isBeforeOrEqualTo(s.beginBy());
            });
        }
    }

    // --- in a chain --------------------------------------------------------------------------------------------------

    private static final LocalDate JOB = LocalDate.of(2027, 3, 1);

    @Test
    void theStepsOfAJobShareItsHoursAndThoseOfOtherJobs() {
        List<Step> steps = List.of(
                Step.open("a", "a", Set.of(), 24, Lead.ofDays(10), JOB),
                Step.open("b", "b", Set.of(), 24, Lead.ofDays(10), JOB));
        ChainPlan alone = ChainPlan.of(steps, new ChainPlan.Settings(TODAY, PLAIN, 6, 3));
        assertThat(alone.step("a").orElseThrow().earliestSend()).isEqualTo(LocalDate.of(2026, 12, 4));
        assertThat(alone.step("b").orElseThrow().earliestSend()).isEqualTo(LocalDate.of(2026, 12, 10));
        ChainPlan beside = ChainPlan.of(
                steps,
                new ChainPlan.Settings(
                        TODAY, PLAIN, PLAIN, 6, 3, List.of(new Task("other", 30, LocalDate.of(2027, 1, 4)))));
        assertThat(beside.step("a").orElseThrow().earliestStart()).isEqualTo(LocalDate.of(2026, 12, 8));
        assertThat(beside.step("b").orElseThrow().earliestSend()).isEqualTo(LocalDate.of(2026, 12, 17));
    }

    @Test
    void aSendByOnAClosedDayIsMovedAndSaysFromWhere() {
        // held by Friday 26 February, ten days: Tuesday 16; held by Saturday: Wednesday 17
        WorkDays shut = new WorkDays(Set.of(LocalDate.of(2027, 2, 16)), Set.of(DayOfWeek.MONDAY, DayOfWeek.SUNDAY));
        Step x = new Step(
                "x",
                "x",
                Set.of(),
                0,
                Lead.ofDays(10),
                Lead.ofDays(10),
                JOB,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.of(shut));
        ChainPlan.Planned p = ChainPlan.of(List.of(x), new ChainPlan.Settings(TODAY, PLAIN, 6, 3))
                .steps()
                .get(0);
        // closed on the 16th and on Mondays; Sunday and Saturday nobody of the house sends: Friday 12
        assertThat(p.latestSend()).isEqualTo(LocalDate.of(2027, 2, 12));
        assertThat(p.movedFrom()).contains(LocalDate.of(2027, 2, 16));
    }

    @Test
    void workingDaysOfALeadAreTheGranters() {
        WorkDays tuesdays = new WorkDays(
                Set.of(),
                Set.of(
                        DayOfWeek.MONDAY,
                        DayOfWeek.WEDNESDAY,
                        DayOfWeek.THURSDAY,
                        DayOfWeek.FRIDAY,
                        DayOfWeek.SATURDAY,
                        DayOfWeek.SUNDAY));
        Step x = new Step(
                "x",
                "x",
                Set.of(),
                0,
                Lead.ofWorkDays(2),
                Lead.ofWorkDays(1),
                JOB,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.of(tuesdays));
        ChainPlan.Planned p = ChainPlan.of(List.of(x), new ChainPlan.Settings(TODAY, PLAIN, 6, 0))
                .steps()
                .get(0);
        assertThat(p.earliestGrant()).isEqualTo(LocalDate.of(2026, 12, 8));
        assertThat(p.usualGrant()).isEqualTo(LocalDate.of(2026, 12, 1));
        // the last Tuesday before the job is the 23rd; two before it the 9th
        assertThat(p.latestSend()).isEqualTo(LocalDate.of(2027, 2, 9));
    }

    @Test
    void whoeverNeverWorksGrantsNothing() {
        assertThatThrownBy(() -> new WorkDays(Set.of(), Set.of(DayOfWeek.values())))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Task("a", Double.NaN, TODAY)).isInstanceOf(IllegalArgumentException.class);
    }
}
