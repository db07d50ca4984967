package yarrek.app.reminders;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import java.time.Duration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.work.Rounds;

/** Sends the day's digests. */
@Configuration
class DigestRound {
    @Bean
    RecurringTask<Void> sendingDigests(Notices notices) {
        return Rounds.every("digests by mail", Duration.ofMinutes(10), notices::sendDue);
    }
}
