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
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionOperations;
import org.springframework.transaction.support.TransactionTemplate;

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

        /** How much longer by the pace so far. */
        public String pace() {
            return secondsLeft < 0 ? "begun" : "about " + secondsLeft + " s left";
        }
    }

    /** A thing that failed. */
    public record Failed(UUID subject, String why) {}

    /** Work that comes round by itself, and how it went. */
    public record Round(String name, Instant next, Instant lastSuccess, Instant lastFailure, int failures) {

        /** Name of the status shape. */
        public String shape() {
            return failures == 0 ? "full" : "notch";
        }

        public String standing() {
            return failures == 0 ? "as it should" : "failed " + failures + " times in a row";
        }
    }

    private final JdbcClient jdbc;
    private final JdbcTemplate batch;
    private final ObjectProvider<SchedulerClient> scheduler;
    private final ObjectProvider<Worker> workers;
    private final TransactionOperations hand;
    private final Clock clock;

    Work(
            JdbcClient jdbc,
            JdbcTemplate batch,
            ObjectProvider<SchedulerClient> scheduler,
            ObjectProvider<Worker> workers,
            PlatformTransactionManager transactions,
            Clock clock) {
        this.jdbc = jdbc;
        this.batch = batch;
        this.scheduler = scheduler;
        this.workers = workers;
        // a hand that took locks between the rows as well would keep everybody waiting who asks for more
        var own = new TransactionTemplate(transactions);
        own.setIsolationLevel(TransactionDefinition.ISOLATION_READ_COMMITTED);
        this.hand = own;
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
     * for while work of the same kind and cause goes on is added to that, and waits for no hand that is at it.
     */
    @Transactional
    public void begin(String kind, String cause, List<UUID> subjects) {
        if (subjects.isEmpty()) {
            return;
        }
        String because = cause.length() > 400 ? cause.substring(0, 400) : cause;
        Optional<UUID> going = going(kind, because);
        if (going.isPresent()) {
            // whoever is at it sees what was added: it ends only with its row locked, as it is here
            add(going.get(), subjects, waiting(going.get()));
            return;
        }
        UUID id = UUID.randomUUID();
        jdbc.sql("insert into work (id, kind, cause, begun_at) values (?, ?, ?, ?)")
                .params(id, kind, because, now())
                .update();
        add(id, subjects, Set.of());
        int hands =
                subjects.size() > SHARED_FROM ? worker(kind).map(Worker::hands).orElse(1) : 1;
        for (int hand = 0; hand < hands; hand++) {
            scheduler
                    .getObject()
                    .scheduleIfNotExists(Tasking.DO.instance(id + "/" + hand).scheduledTo(clock.instant()));
        }
    }

    /** Work of this kind and cause that goes on, its row locked. Looked for without a lock, so that two who ask never cross. */
    private Optional<UUID> going(String kind, String cause) {
        return jdbc.sql("select id from work where kind = ? and cause = ? and ended_at is null and stopped_by is null"
                        + " order by begun_at desc limit 1")
                .params(kind, cause)
                .query(UUID.class)
                .optional()
                .flatMap(id -> jdbc.sql(
                                "select id from work where id = ? and ended_at is null and stopped_by is null for update")
                        .param(id)
                        .query(UUID.class)
                        .optional());
    }

    /** What waits and is in nobody's hand. A thing that is in one may have been read before what is asked for came about. */
    private Set<UUID> waiting(UUID id) {
        return new HashSet<>(
                jdbc.sql("select subject_id from work_item where work_id = ? and state = 'W' for update skip locked")
                        .param(id)
                        .query(UUID.class)
                        .list());
    }

    private void add(UUID id, List<UUID> subjects, Set<UUID> waiting) {
        batch.batchUpdate(
                "insert into work_item (work_id, subject_id, state) values (?, ?, 'W')",
                subjects.stream()
                        .filter(s -> !waiting.contains(s))
                        .map(s -> new Object[] {id, s})
                        .toList());
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
        return Boolean.TRUE.equals(hand.execute(t -> {
            boolean stopped = jdbc.sql("select stopped_by is not null from work where id = ? for update")
                    .param(id)
                    .query(Boolean.class)
                    .single();
            boolean ended = stopped
                    || jdbc.sql("select 1 from work_item where work_id = ? and state = 'W' limit 1")
                            .param(id)
                            .query(Integer.class)
                            .optional()
                            .isEmpty();
            if (ended) {
                jdbc.sql("update work set ended_at = coalesce(ended_at, ?) where id = ?")
                        .params(now(), id)
                        .update();
            }
            return ended;
        }));
    }

    /** A thing in a piece of work. */
    private record Item(long id, UUID subject) {}

    /** Does some more; false when everything is done or in other hands. */
    private boolean stretch(UUID id, Map<String, Object> what) {
        Worker worker = worker((String) what.get("kind"))
                .orElseThrow(() -> new IllegalStateException("nobody here knows work of the kind " + what.get("kind")));
        String cause = (String) what.get("cause");
        List<Item> taken = new ArrayList<>();
        try {
            tried(() -> run(worker, id, cause, taken, null));
        } catch (RuntimeException e) {
            if (taken.size() == 1) {
                failed(worker, taken.get(0), e);
            } else {
                List.copyOf(taken).forEach(i -> alone(worker, id, i, cause));
            }
        }
        return !taken.isEmpty();
    }

    /**
     * Takes some and does them in one transaction; what another hand has taken is passed over.
     *
     * @param taken filled with what was taken
     * @param only this one; null for any
     */
    private void run(Worker worker, UUID id, String cause, List<Item> taken, Item only) {
        hand.executeWithoutResult(t -> {
            taken.clear();
            taken.addAll(jdbc.sql("select id, subject_id from work_item where work_id = ? and state = 'W'"
                            + (only == null ? "" : " and id = ?")
                            + " order by id limit ? for update skip locked")
                    .params(only == null ? List.of(id, worker.chunk()) : List.of(id, only.id(), 1))
                    .query((r, i) -> new Item(r.getLong(1), r.getObject(2, UUID.class)))
                    .list());
            if (!taken.isEmpty()) {
                worker.run(taken.stream().map(Item::subject).distinct().toList(), cause);
                jdbc.sql("update work_item set state = 'D' where id in (:i)")
                        .param("i", taken.stream().map(Item::id).toList())
                        .update();
            }
        });
    }

    private void alone(Worker worker, UUID id, Item item, String cause) {
        try {
            tried(() -> run(worker, id, cause, new ArrayList<>(), item));
        } catch (RuntimeException e) {
            failed(worker, item, e);
        }
    }

    private void failed(Worker worker, Item item, RuntimeException e) {
        LOG.warn("{}: {} failed", worker.words(), item.subject(), e);
        String why = String.valueOf(e.getMessage());
        jdbc.sql("update work_item set state = 'F', error = ? where id = ?")
                .params(why.length() > 600 ? why.substring(0, 600) : why, item.id())
                .update();
    }

    /** Two hands, or a hand and somebody who saves, may stand in each other's way; the loser tries again. */
    private static void tried(Runnable work) {
        for (int n = 1; ; n++) {
            try {
                work.run();
                return;
            } catch (ConcurrencyFailureException e) {
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

    private List<Progress> progress(String which) {
        return jdbc.sql("select w.id, w.kind, w.cause,"
                        + " (select count(*) from work_item i where i.work_id = w.id), w.begun_at, w.ended_at, w.stopped_by,"
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
                        "select subject_id, error from work_item where work_id = ? and state = 'F' order by id limit 20")
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
