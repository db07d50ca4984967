package yarrek.app.chains;

import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.exceptions.TaskInstanceException;
import com.github.kagkarlsson.scheduler.task.FailureHandler;
import com.github.kagkarlsson.scheduler.task.TaskDescriptor;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import java.time.Clock;
import java.time.Duration;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;
import yarrek.app.jobs.Jobs;
import yarrek.app.work.Work;

/**
 * Plans the chain of a job anew after it was judged: at once, and when that fails, or the program is stopped before, from a
 * note that was written down with the judging. After many were judged in the background, in the background too.
 */
@Component
class ChainWatch {
    private static final Logger LOG = LoggerFactory.getLogger(ChainWatch.class);
    private static final TaskDescriptor<Void> PLAN = TaskDescriptor.of("chain");

    /** By then it is planned at once, or never will be. */
    private static final Duration GRACE = Duration.ofSeconds(60);

    private final Chains chains;
    private final ObjectProvider<SchedulerClient> scheduler;
    private final Clock clock;
    private final Work work;

    ChainWatch(Chains chains, ObjectProvider<SchedulerClient> scheduler, Clock clock, Work work) {
        this.chains = chains;
        this.work = work;
        this.scheduler = scheduler;
        this.clock = clock;
    }

    @EventListener
    void judged(Jobs.Judged e) {
        scheduler
                .getObject()
                .scheduleIfNotExists(PLAN.instance(e.jobId().toString())
                        .scheduledTo(clock.instant().plus(GRACE)));
    }

    @EventListener
    void manyJudged(Jobs.ManyJudged e) {
        work.begin(ChainWork.KIND, e.because(), e.jobIds());
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    void atOnce(Jobs.Judged e) {
        try {
            chains.storeAndSettle(e.jobId(), () -> settled(e.jobId()));
        } catch (RuntimeException x) {
            LOG.warn("the chain of job {} was not planned yet: {}", e.jobId(), x.getMessage(), x);
        }
    }

    private void settled(UUID jobId) {
        try {
            scheduler.getObject().cancel(PLAN.instanceId(jobId.toString()));
        } catch (TaskInstanceException e) {
            LOG.debug("the note for the chain of job {} is gone or being done", jobId, e);
        }
    }

    @Configuration
    static class Later {
        @Bean
        OneTimeTask<Void> chainTask(ObjectProvider<Chains> chains) {
            return Tasks.oneTime(PLAN)
                    .onFailure(new FailureHandler.OnFailureRetryLater<>(Duration.ofMinutes(5)))
                    .execute((instance, context) -> chains.getObject().store(UUID.fromString(instance.getId())));
        }
    }
}
