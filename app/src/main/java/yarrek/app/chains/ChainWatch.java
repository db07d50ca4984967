package yarrek.app.chains;

import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import yarrek.app.approvals.Kinds;
import yarrek.app.jobs.JobJudging;
import yarrek.app.jobs.Jobs;
import yarrek.app.work.Work;

/**
 * Plans the chains of jobs anew with their judging. One that cannot be planned does not undo the judging: it is tried again in
 * the background, where a failure is named.
 */
@Component
class ChainWatch {
    private static final Logger LOG = LoggerFactory.getLogger(ChainWatch.class);

    private final Chains chains;
    private final JobJudging jobJudging;
    private final Work work;

    ChainWatch(Chains chains, JobJudging jobJudging, Work work) {
        this.chains = chains;
        this.jobJudging = jobJudging;
        this.work = work;
    }

    @EventListener
    void judged(JobJudging.Judged e) {
        try {
            chains.store(e);
        } catch (DataAccessException x) {
            throw x; // the transaction is lost with it
        } catch (RuntimeException x) {
            LOG.warn("chains were not planned yet: {}", x.getMessage(), x);
            work.begin(
                    ChainWork.KIND,
                    "what has to be sent could not be planned at once",
                    e.jobs().stream().map(JobJudging.Done::id).toList());
        }
    }

    /** Of a job that is not flown any more nothing is left to be sent. */
    @EventListener
    void stateChanged(Jobs.StateChanged e) {
        chains.store(List.of(e.jobId()));
    }

    /** Leads and needs of kinds count for every chain, whatever is said of its job. */
    @EventListener
    void kindsChanged(Kinds.Changed e) {
        work.begin(ChainWork.KIND, "kinds of approval, or how they are planned, changed", jobJudging.openIds());
    }
}
