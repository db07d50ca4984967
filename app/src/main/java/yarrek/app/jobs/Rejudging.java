package yarrek.app.jobs;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;
import yarrek.app.airspace.Airspace;
import yarrek.app.office.Office;
import yarrek.app.rulebook.Rulebook;

/** Judges every open job again after the rules changed: a few at once, many in the background with a count. */
@Component
public class Rejudging {
    private static final Logger LOG = LoggerFactory.getLogger(Rejudging.class);
    private static final int CHUNK = 50;

    /** How far it is. */
    public record Progress(String because, int done, int total, Instant since, boolean running, boolean stopped) {
        /** Seconds left by the pace so far; -1 when there is none yet. */
        public long secondsLeft(Instant now) {
            return done == 0 ? -1 : Duration.between(since, now).toSeconds() * (total - done) / done;
        }
    }

    private final Jobs jobs;
    private final Clock clock;
    private final Office office;
    private final Rulebook rulebook;
    private final Airspace airspace;
    private final JdbcClient jdbc;
    private final ExecutorService worker = Executors.newSingleThreadExecutor(r -> {
        Thread t = new Thread(r, "rejudging");
        t.setDaemon(true);
        return t;
    });
    private volatile Progress progress = new Progress("", 0, 0, Instant.EPOCH, false, false);
    private volatile boolean stop;

    Rejudging(Jobs jobs, Clock clock, Office office, Rulebook rulebook, Airspace airspace, JdbcClient jdbc) {
        this.jobs = jobs;
        this.clock = clock;
        this.office = office;
        this.rulebook = rulebook;
        this.airspace = airspace;
        this.jdbc = jdbc;
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT, fallbackExecution = true)
    void rulesChanged(Rulebook.Changed e) {
        List<UUID> open = jobs.openIds();
        worker.execute(() -> run(open, e.what()));
        if (open.size() <= Jobs.AT_ONCE) {
            idle();
        }
    }

    @EventListener
    void manyConcerned(Jobs.ManyConcerned e) {
        worker.execute(() -> run(e.ids(), e.because()));
    }

    /**
     * What passes without anybody doing anything: a source of zones goes out of date, a day begins, a version of the law
     * comes into force, another version of the program is started. One node sees the change first and judges for all.
     */
    @Scheduled(initialDelayString = "${yarrek.time-passes:PT2M}", fixedDelayString = "${yarrek.time-passes:PT2M}")
    public void timePassed() {
        if (office.isEmpty()) {
            return;
        }
        String now = LocalDate.now(clock.withZone(office.operator().zone())) + " " + rulebook.versionsInForce() + " "
                + airspace.sources().stream()
                        .filter(Airspace.SourceView::stale)
                        .map(Airspace.SourceView::name)
                        .sorted()
                        .toList();
        String key = now.length() > 4000 ? Integer.toHexString(now.hashCode()) : now;
        int first = jdbc.sql("update passing_of_time set judged_for = ? where id = 1 and judged_for <> ?")
                .params(key, key)
                .update();
        if (first == 1) {
            List<UUID> open = jobs.openIds();
            worker.execute(() -> run(open, "time has passed"));
        }
    }

    /** Waits until everything that has been begun is done. */
    public void idle() {
        try {
            worker.submit(() -> {}).get();
        } catch (InterruptedException x) {
            Thread.currentThread().interrupt();
        } catch (java.util.concurrent.ExecutionException x) {
            throw new IllegalStateException(x);
        }
    }

    private void run(List<UUID> ids, String because) {
        try {
            stop = false;
            progress = new Progress(because, 0, ids.size(), clock.instant(), true, false);
            for (int i = 0; i < ids.size() && !stop; i += CHUNK) {
                List<UUID> chunk = ids.subList(i, Math.min(ids.size(), i + CHUNK));
                jobs.judgeAgain(chunk, because);
                progress = new Progress(because, i + chunk.size(), ids.size(), progress.since(), true, false);
            }
            progress = new Progress(because, progress.done(), ids.size(), progress.since(), false, stop);
        } catch (RuntimeException x) {
            LOG.error("judging again broke off: {}", because, x);
            progress = new Progress(because, progress.done(), progress.total(), progress.since(), false, true);
        }
    }

    public Progress progress() {
        return progress;
    }

    /** Leaves the rest as it was judged before. */
    public void stop() {
        stop = true;
    }

    @PreDestroy
    void end() {
        stop = true;
        worker.shutdown();
    }
}
