package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.persistence.EntityManagerFactory;
import org.hibernate.SessionFactory;
import org.hibernate.stat.Statistics;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.fleet.Fleet;
import yarrek.app.flights.Flights;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.web.Viewer;

/** Lists take a fixed number of statements, however long they are. */
class StatementCountTest extends RunningApp {
    @Autowired
    EntityManagerFactory factory;

    @Autowired
    Flights flights;

    @Autowired
    Fleet fleet;

    @Autowired
    Jobs jobs;

    @Autowired
    Office office;

    private long statements(Runnable work) {
        Statistics statistics = factory.unwrap(SessionFactory.class).getStatistics();
        statistics.clear();
        work.run();
        return statistics.getPrepareStatementCount();
    }

    @Test
    void listsDoNotAskRowByRow() {
        Viewer manager = (Viewer) office.loadUserByUsername("manager");
        long few = statements(() -> flights.newest(manager, 0, 3));
        assertThat(statements(() -> flights.newest(manager, 0, 30))).isEqualTo(few);
        assertThat(statements(() -> fleet.builds())).isLessThanOrEqualTo(6);
        assertThat(statements(() -> jobs.all(manager))).isLessThanOrEqualTo(5);
    }
}
