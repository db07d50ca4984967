package yarrek.app.work;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.task.ExecutionContext;
import com.github.kagkarlsson.scheduler.task.FailureHandler;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.dao.PessimisticLockingFailureException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionOperations;

/**
 * Work on many things that nobody waits for. It is written down in the transaction that asks for it; a node takes it up, does
 * it in stretches, each in its own transaction, and another carries on when the node is killed. One thing that fails is
 * named, and does not stop the rest.
 */
@Service
public class Work {
    private static final Logger LOG = LoggerFactory.getLogger(Work.class);

    /** More things than these are shared out among several hands. */
    private static final int SHARED_FROM = 200;

    private static final int TRIES = 4;
    private static final int SHOWN = 40;

    /**
     * A piece of work and how far it is.
     *
     * @param what in words
     * @param failed things that failed, with why; the first of them
     * @param secondsLeft by the pace so far; -1 when there is none yet
     */
    public record Progress(
            UUID id,
            String what,
            String cause,
            int total,
            int done,
            int failedCount,
            List<Failed> failed,
            Instant begunAt,
            Instant endedAt,
            String stoppedBy,
            long secondsLeft) {
        public boolean isRunning() {
            return endedAt == null;
        }

        /** Things left as they were, since somebody stopped it. */
        public int left() {
            return total - done - failedCount;
        }
    }

    /** A thing that failed. */
    public record Failed(UUID subject, String why) {}

    /** Work that comes round by itself, and how it went. */
    public record Round(String name, Instant next, Instant lastSuccess, Instant lastFailure, int failures) {}

    private final JdbcClient jdbc;
    private final JdbcTemplate batch;
    private final ObjectProvider<SchedulerClient> scheduler;
    private final ObjectProvider<Worker> workers;
    private final TransactionOperations transactions;
    private final Clock clock;

    Work(
            JdbcClient jdbc,
            JdbcTemplate batch,
            ObjectProvider<SchedulerClient> scheduler,
            ObjectProvider<Worker> workers,
            TransactionOperations transactions,
            Clock clock) {
        this.jdbc = jdbc;
        this.batch = batch;
        this.scheduler = scheduler;
        this.workers = workers;
        this.transactions = transactions;
        this.clock = clock;
    }

    private Optional<Worker> worker(String kind) {
        return workers.stream().filter(w -> w.kind().equals(kind)).findFirst();
    }

    private LocalDateTime now() {
        return LocalDateTime.ofInstant(clock.instant(), ZoneOffset.UTC);
    }

    // --- asking for it -----------------------------------------------------------------------------------------------

    /**
     * Has work of a kind done, soon after the transaction that asks for it; nothing when there is nothing to do. What is asked
     * for while work of the same kind and cause goes on is added to that.
     */
    @Transactional
    public void begin(String kind, String cause, List<UUID> subjects) {
        if (subjects.isEmpty()) {
            return;
        }
        String because = cause.length() > 400 ? cause.substring(0, 400) : cause;
        Optional<UUID> going = jdbc.sql("select id from work where kind = ? and cause = ? and ended_at is null"
                        + " and stopped_by is null order by begun_at desc limit 1 for update")
                .params(kind, because)
                .query(UUID.class)
                .optional();
        UUID id = going.orElseGet(UUID::randomUUID);
        if (going.isEmpty()) {
            jdbc.sql("insert into work (id, kind, cause, total, begun_at) values (?, ?, ?, 0, ?)")
                    .params(id, kind, because, now())
                    .update();
        }
        add(id, subjects);
        if (going.isPresent()) {
            return; // whoever is at it sees what was added: it ends only with this row locked, as it is here
        }
        int hands =
                subjects.size() > SHARED_FROM ? worker(kind).map(Worker::hands).orElse(1) : 1;
        for (int hand = 0; hand < hands; hand++) {
            scheduler
                    .getObject()
                    .scheduleIfNotExists(Tasking.DO.instance(id + "/" + hand).scheduledTo(clock.instant()));
        }
    }

    private void add(UUID id, List<UUID> subjects) {
        int before = jdbc.sql("select coalesce(max(seq) + 1, 0) from work_item where work_id = ?")
                .param(id)
                .query(Integer.class)
                .single();
        List<Object[]> rows = new ArrayList<>();
        for (UUID s : subjects) {
            rows.add(new Object[] {id, s, before + rows.size()});
        }
        // a thing that has been done already is done again
        batch.batchUpdate(
                "insert into work_item (work_id, subject_id, seq, state) values (?, ?, ?, 'W')"
                        + " on duplicate key update state = 'W', error = null",
                rows);
        jdbc.sql("update work set total = (select count(*) from work_item where work_id = ?) where id = ?")
                .params(id, id)
                .update();
    }

    /** Has what is not done yet left as it is. */
    @Transactional
    public void stop(UUID id, String by) {
        jdbc.sql("update work set stopped_by = ? where id = ? and ended_at is null")
                .params(by, id)
                .update();
    }

    // --- doing it ----------------------------------------------------------------------------------------------------

    /** The tasks that the scheduler knows. */
    @Configuration
    static class Tasking {
        static final TaskDescriptor<Void> DO = TaskDescriptor.of("work");
        private static final Duration AGAIN_AFTER = Duration.ofSeconds(10);

        @Bean
        OneTimeTask<Void> workTask(ObjectProvider<Work> work) {
            return Tasks.oneTime(DO)
                    .onFailure(new FailureHandler.OnFailureRetryLater<>(AGAIN_AFTER))
                    .execute((instance, context) -> work.getObject().take(instance.getId(), context));
        }
    }

    /** One hand at a piece of work: takes what no other has taken until nothing is left. */
    void take(String instance, ExecutionContext context) {
        UUID id = UUID.fromString(instance.split("/")[0]);
        boolean more = true;
        while (more) {
            if (context.getSchedulerState().isShuttingDown()) {
                // thrown so that the schedule keeps it: another start takes it up where it stands
                throw new IllegalStateException("the program is stopping; the rest is done after it has started again");
            }
            List<Map<String, Object>> open = jdbc.sql(
                            "select kind, cause from work where id = ? and stopped_by is null")
                    .param(id)
                    .query()
                    .listOfRows();
            boolean did = !open.isEmpty() && stretch(id, open.get(0));
            // what was added since is taken up; what is left else is in other hands, and they end it
            more = did || (!isEnded(id) && !open.isEmpty() && stretch(id, open.get(0)));
        }
    }

    /** Ends the work when nothing waits; with its row locked, so that nothing is added unseen. */
    private boolean isEnded(UUID id) {
        return Boolean.TRUE.equals(transactions.execute(t -> {
            jdbc.sql("select id from work where id = ? for update")
                    .param(id)
                    .query(UUID.class)
                    .single();
            return jdbc.sql(
                                    "update work set ended_at = coalesce(ended_at, ?) where id = ? and (stopped_by is not null or"
                                            + " not exists (select 1 from work_item i where i.work_id = work.id and i.state = 'W'))")
                            .params(now(), id)
                            .update()
                    == 1;
        }));
    }

    /** Does some more; false when everything is done or in other hands. */
    private boolean stretch(UUID id, Map<String, Object> what) {
        Worker worker = worker((String) what.get("kind"))
                .orElseThrow(() -> new IllegalStateException("nobody here knows work of the kind " + what.get("kind")));
        String cause = (String) what.get("cause");
        List<UUID> taken = new ArrayList<>();
        try {
            tried(() -> run(worker, id, cause, taken, List.of()));
        } catch (RuntimeException e) {
            if (taken.size() == 1) {
                failed(worker, id, taken.get(0), e);
            } else {
                List.copyOf(taken).forEach(s -> alone(worker, id, s, cause));
            }
        }
        return !taken.isEmpty();
    }

    /**
     * Takes some and does them in one transaction; what another hand has taken is passed over.
     *
     * @param taken filled with what was taken
     * @param only these; empty for any
     */
    private void run(Worker worker, UUID id, String cause, List<UUID> taken, List<UUID> only) {
        transactions.executeWithoutResult(t -> {
            taken.clear();
            taken.addAll(jdbc.sql("select subject_id from work_item where work_id = ? and state = 'W'"
                            + (only.isEmpty() ? "" : " and subject_id = ?")
                            + " order by seq limit ? for update skip locked")
                    .params(only.isEmpty() ? List.of(id, worker.chunk()) : List.of(id, only.get(0), worker.chunk()))
                    .query(UUID.class)
                    .list());
            if (!taken.isEmpty()) {
                worker.run(List.copyOf(taken), cause);
                jdbc.sql("update work_item set state = 'D' where work_id = :w and subject_id in (:s)")
                        .param("w", id)
                        .param("s", taken)
                        .update();
            }
        });
    }

    private void alone(Worker worker, UUID id, UUID subject, String cause) {
        try {
            tried(() -> run(worker, id, cause, new ArrayList<>(), List.of(subject)));
        } catch (RuntimeException e) {
            failed(worker, id, subject, e);
        }
    }

    private void failed(Worker worker, UUID id, UUID subject, RuntimeException e) {
        LOG.warn("{}: {} failed", worker.words(), subject, e);
        String why = String.valueOf(e.getMessage());
        jdbc.sql("update work_item set state = 'F', error = ? where work_id = ? and subject_id = ?")
                .params(why.length() > 600 ? why.substring(0, 600) : why, id, subject)
                .update();
    }

    /** Two hands may stand in each other's way in the database; the loser tries again. */
    private static void tried(Runnable work) {
        for (int n = 1; ; n++) {
            try {
                work.run();
                return;
            } catch (PessimisticLockingFailureException e) {
                if (n == TRIES) {
                    throw e;
                }
            }
        }
    }

    // --- looking at it -----------------------------------------------------------------------------------------------

    /** The newest pieces of work, running ones first. */
    @Transactional(readOnly = true)
    public List<Progress> newest() {
        return progress("order by w.ended_at is null desc, w.begun_at desc limit " + SHOWN);
    }

    /** Whether everything that was begun has ended. */
    @Transactional(readOnly = true)
    public boolean isIdle() {
        return jdbc.sql("select count(*) from work where ended_at is null")
                        .query(Integer.class)
                        .single()
                == 0;
    }

    private List<Progress> progress(String which) {
        return jdbc.sql("select w.id, w.kind, w.cause, w.total, w.begun_at, w.ended_at, w.stopped_by,"
                        + " (select count(*) from work_item i where i.work_id = w.id and i.state = 'D'),"
                        + " (select count(*) from work_item i where i.work_id = w.id and i.state = 'F')"
                        + " from work w where true " + which)
                .query((r, i) -> {
                    UUID id = r.getObject(1, UUID.class);
                    String kind = r.getString(2);
                    int done = r.getInt(8);
                    int failed = r.getInt(9);
                    Instant begun = r.getObject(5, LocalDateTime.class).toInstant(ZoneOffset.UTC);
                    LocalDateTime ended = r.getObject(6, LocalDateTime.class);
                    long spent = Duration.between(begun, clock.instant()).toSeconds();
                    return new Progress(
                            id,
                            worker(kind).map(Worker::words).orElse(kind),
                            r.getString(3),
                            r.getInt(4),
                            done,
                            failed,
                            failed == 0 ? List.of() : failures(id),
                            begun,
                            ended == null ? null : ended.toInstant(ZoneOffset.UTC),
                            r.getString(7),
                            done == 0 ? -1 : spent * (r.getInt(4) - done - failed) / done);
                })
                .list();
    }

    private List<Failed> failures(UUID id) {
        return jdbc.sql(
                        "select subject_id, error from work_item where work_id = ? and state = 'F' order by seq limit 20")
                .param(id)
                .query((r, i) -> new Failed(r.getObject(1, UUID.class), r.getString(2)))
                .list();
    }

    /** Work that comes round by itself. */
    @Transactional(readOnly = true)
    public List<Round> rounds() {
        return jdbc.sql(
                        "select task_name, execution_time, last_success, last_failure, coalesce(consecutive_failures, 0)"
                                + " from scheduled_tasks where task_instance = 'recurring' order by task_name")
                .query((r, i) -> new Round(
                        r.getString(1),
                        instant(r.getObject(2, LocalDateTime.class)),
                        instant(r.getObject(3, LocalDateTime.class)),
                        instant(r.getObject(4, LocalDateTime.class)),
                        r.getInt(5)))
                .list();
    }

    private static Instant instant(LocalDateTime utc) {
        return utc == null ? null : utc.toInstant(ZoneOffset.UTC);
    }
}
