package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.CountDownLatch;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yarrek.app.work.Work;

/** Work in the background: written down with what asks for it, carried on after a stop, past one thing that fails. */
class WorkTest extends RunningApp {
    @Autowired
    Work work;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    PlatformTransactionManager transactions;

    @AfterEach
    void letGo() {
        TryingWorker.gate.countDown();
    }

    private static List<UUID> things(int n) {
        return Stream.generate(UUID::randomUUID).limit(n).toList();
    }

    private Work.Progress progress(String cause) {
        return work.newest().stream()
                .filter(p -> p.cause().equals(cause))
                .findFirst()
                .orElseThrow();
    }

    private Work.Progress ended(String cause) {
        await().atMost(Duration.ofSeconds(60)).until(() -> !progress(cause).isRunning());
        return progress(cause);
    }

    @Test
    void manyThingsAreDoneAndOneThatFailsIsNamedAndStopsNoOther() {
        List<UUID> all = things(453);
        TryingWorker.BAD.add(all.get(17));
        work.begin("try", "many", all);
        Work.Progress p = ended("many");
        assertThat(p.done()).isEqualTo(452);
        assertThat(p.failedCount()).isOne();
        assertThat(p.failed()).containsExactly(new Work.Failed(all.get(17), "this one cannot be done"));
        assertThat(TryingWorker.DONE).containsAll(all.subList(18, all.size()));
        assertThat(p.left()).isZero();
    }

    @Test
    void whatIsAskedForMeanwhileIsAddedAndDone() {
        TryingWorker.gate = new CountDownLatch(1);
        List<UUID> first = things(25);
        List<UUID> later = things(25);
        work.begin("try", "added", first);
        work.begin("try", "added", later);
        TryingWorker.gate.countDown();
        Work.Progress p = ended("added");
        assertThat(p.total()).isEqualTo(50);
        assertThat(p.done()).isEqualTo(50);
        assertThat(TryingWorker.DONE).containsAll(first).containsAll(later);
        assertThat(work.newest().stream().filter(w -> w.cause().equals("added")))
                .hasSize(1);
    }

    /** Whoever saves while a hand is in the middle of something is not kept waiting, for the same thing neither. */
    @Test
    void askingForMoreDoesNotWaitForWhatIsBeingDone() {
        TryingWorker.gate = new CountDownLatch(1);
        List<UUID> first = things(20);
        work.begin("try", "busy", first);
        await().atMost(Duration.ofSeconds(30)).until(() -> TryingWorker.BUSY.contains("busy"));
        List<UUID> more = things(10);
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            work.begin("try", "busy", more);
            work.begin("try", "busy", first);
        });
        TryingWorker.gate.countDown();
        Work.Progress p = ended("busy");
        assertThat(p.failedCount()).isZero();
        // the ten in hand once more, the ten that still waited not twice
        assertThat(p.done()).isEqualTo(40);
        assertThat(TryingWorker.DONE).containsAll(first).containsAll(more);
    }

    @Test
    void whatIsRolledBackWasNeverBegun() {
        new TransactionTemplate(transactions).executeWithoutResult(t -> {
            work.begin("try", "rolled back", things(3));
            t.setRollbackOnly();
        });
        assertThat(work.newest()).noneMatch(p -> p.cause().equals("rolled back"));
        assertThat(jdbc.sql("select count(*) from work_item i left join work w on w.id = i.work_id where w.id is null")
                        .query(Integer.class)
                        .single())
                .isZero();
    }

    /** A node that is killed leaves its task picked and its heart still: what it had not done is taken up by another. */
    @Test
    void whatAKilledNodeLeftIsCarriedOn() {
        List<UUID> all = things(30);
        UUID id = UUID.randomUUID();
        jdbc.sql("insert into work (id, kind, cause, begun_at) values (?, 'try', 'killed', utc_timestamp(6))")
                .param(id)
                .update();
        List<UUID> before = new ArrayList<>(all.subList(0, 10));
        for (int i = 0; i < 30; i++) {
            jdbc.sql("insert into work_item (work_id, subject_id, state) values (?, ?, ?)")
                    .params(id, all.get(i), before.contains(all.get(i)) ? "D" : "W")
                    .update();
        }
        jdbc.sql(
                        "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, picked_by, last_heartbeat,"
                                + " version) values ('work', ?, utc_timestamp(6) - interval 1 hour, true, 'a node long gone',"
                                + " utc_timestamp(6) - interval 1 hour, 1)")
                .param(id + "/0")
                .update();
        Work.Progress p = ended("killed");
        assertThat(p.done()).isEqualTo(30);
        assertThat(TryingWorker.DONE).containsAll(all.subList(10, 30)).doesNotContainAnyElementsOf(before);
    }

    @Test
    void whatIsStoppedLeavesTheRestAndSaysWho() {
        TryingWorker.gate = new CountDownLatch(1);
        work.begin("try", "stopped", things(100));
        await().atMost(Duration.ofSeconds(30)).until(() -> progress("stopped").isRunning());
        work.stop(progress("stopped").id(), "Merete");
        TryingWorker.gate.countDown();
        Work.Progress p = ended("stopped");
        assertThat(p.stoppedBy()).isEqualTo("Merete");
        assertThat(p.left()).isBetween(80, 100);
    }

    @Test
    void whatComesRoundByItselfIsListed() {
        assertThat(work.rounds())
                .extracting(Work.Round::name)
                .contains("what passes with time", "digests by mail", "asking desks after requests");
        assertThat(work.rounds()).allMatch(r -> r.failures() == 0);
    }
}
