package yarrek.app;

import java.time.LocalDate;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.approvals.Approvals;
import yarrek.app.chains.Chains;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.Jobs;

/** Jobs of the tests' own, like one of the sample world, each on days that no other has. */
abstract class OnJobs extends RunningApp {
    static final String BY = "test";

    private static int made;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    Jobs jobs;

    @Autowired
    Chains chains;

    @Autowired
    Approvals approvals;

    /** A job of so many days like the one in the sample world, with nothing asked for yet. */
    Jobs.JobView job(int days, double heightM) {
        Jobs.JobView like = jobs.jobUnchecked(
                UUID.fromString(jdbc.sql("select id from job where name = 'Field edge, drainage levels'")
                        .query(String.class)
                        .single()));
        LocalDate first = like.draft().firstDay().plusDays(40L + 5L * made);
        var named = like.draft()
                .with(new JobDraft.Anew(
                        "Levels for a test " + ++made,
                        first,
                        first.plusDays(days - 1L),
                        null,
                        null,
                        heightM,
                        null,
                        null));
        return jobs.jobUnchecked(jobs.save(null, -1, named));
    }

    UUID begun(Jobs.JobView job, String step) {
        return chains.begin(job, step, BY);
    }

    /** These jobs are not part of the sample world that others look at. */
    @AfterEach
    void cancelled() {
        jdbc.sql("update job set state = 'CANCELLED' where name like 'Levels for a test %'")
                .update();
    }
}
