package yarrek.app.chains;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;
import yarrek.app.jobs.Jobs;

/** Plans the chain of a job anew whenever the job was judged; a chain that cannot be planned does not undo the job. */
@Component
class ChainWatch {
    private static final Logger LOG = LoggerFactory.getLogger(ChainWatch.class);

    private final Chains chains;

    ChainWatch(Chains chains) {
        this.chains = chains;
    }

    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    void judged(Jobs.Judged e) {
        try {
            chains.store(e.jobId());
        } catch (RuntimeException x) {
            LOG.warn("the chain of job {} was not planned: {}", e.jobId(), x.getMessage(), x);
        }
    }
}
