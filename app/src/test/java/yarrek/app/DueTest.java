package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.chains.Chains;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;

/** What has to be sent is that of jobs still to be flown, however much is left over of those that are not. */
class DueTest extends RunningApp {
    @Autowired
    Chains chains;

    @Autowired
    Jobs jobs;

    @Autowired
    Office office;

    @Autowired
    JdbcClient jdbc;

    private Viewer manager() {
        return (Viewer) office.loadUserByUsername("manager");
    }

    private List<UUID> due(int most) {
        return chains.due(manager(), 365, most).first().stream()
                .map(Chains.Due::jobId)
                .toList();
    }

    @AfterEach
    void forget() {
        jdbc.sql("delete from chain_due where step like 'left over %'").update();
    }

    @Test
    void whatIsLeftOverOfJobsThatAreOverTakesNobodysPlace() {
        List<UUID> before = due(5);
        long total = chains.due(manager(), 365, 5).total();
        assertThat(before).isNotEmpty();
        UUID over = jdbc.sql("select id from job where last_day < curdate() limit 1")
                .query(UUID.class)
                .single();
        for (int i = 0; i < 8; i++) {
            jdbc.sql("insert into chain_due (job_id, step, title, send_by, known, waits, last_day)"
                            + " values (?, ?, 'old', '2020-01-01', true, false, '2020-02-01')")
                    .params(over, "left over " + i)
                    .update();
        }
        assertThat(due(5)).isEqualTo(before);
        assertThat(chains.due(manager(), 365, 5).total()).isEqualTo(total);
    }

    @Test
    void ofAJobThatIsCancelledNothingIsLeftToBeSentUntilItIsPlannedAgain() {
        UUID job = due(1).get(0);
        try {
            jobs.setState(job, "CANCELLED");
            assertThat(jdbc.sql("select count(*) from chain_due where job_id = ?")
                            .param(job)
                            .query(Integer.class)
                            .single())
                    .isZero();
            assertThat(due(Integer.MAX_VALUE)).doesNotContain(job);
        } finally {
            jobs.setState(job, "PLANNED");
        }
        assertThat(due(Integer.MAX_VALUE)).contains(job);
    }
}
