package yarrek.app.jobs;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Airspace;
import yarrek.app.office.Office;
import yarrek.app.rulebook.Rulebook;
import yarrek.app.work.Rounds;

/**
 * What passes without anybody doing anything: a source of zones goes out of date, a day begins, a version of the law comes
 * into force, another version of the program is started. Then every open job is judged again; as an hour passes, those that
 * are flown about now.
 */
@Component
public class TimePassing {
    private static final int DAY = 1;
    private static final int HOUR = 2;

    private final JobJudging jobJudging;
    private final Clock clock;
    private final Office office;
    private final Rulebook rulebook;
    private final Airspace airspace;
    private final JdbcClient jdbc;

    TimePassing(
            JobJudging jobJudging, Clock clock, Office office, Rulebook rulebook, Airspace airspace, JdbcClient jdbc) {
        this.jobJudging = jobJudging;
        this.clock = clock;
        this.office = office;
        this.rulebook = rulebook;
        this.airspace = airspace;
        this.jdbc = jdbc;
    }

    /** Looks whether anything has passed since it was looked at last, by whichever node. */
    @Transactional
    public void look() {
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
        if (hasPassed(DAY, key)) {
            jobJudging.concerned(jobJudging.openIds(), "time has passed");
        }
        if (hasPassed(HOUR, clock.instant().truncatedTo(ChronoUnit.HOURS).toString())) {
            jobJudging.concerned(jobJudging.openIdsAbout(clock.instant()), "an hour has passed");
        }
    }

    /** Whether it is another than when it was looked at last; only the node that looks first is told so. */
    private boolean hasPassed(int what, String now) {
        return jdbc.sql("update passing_of_time set judged_for = ? where id = ? and judged_for <> ?")
                        .params(now, what, now)
                        .update()
                == 1;
    }

    @Configuration
    static class Round {
        @Bean
        RecurringTask<Void> timePasses(TimePassing time, @Value("${yarrek.time-passes:PT2M}") Duration pause) {
            return Rounds.every("what passes with time", pause, time::look);
        }
    }
}
