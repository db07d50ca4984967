package yarrek.app.chains;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import java.time.Duration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.work.Rounds;

/** Asks desks after what they have queued. */
@Configuration
class DeskRound {
    @Bean
    RecurringTask<Void> askingDesks(DeskClient desks) {
        return Rounds.every("asking desks after requests", Duration.ofSeconds(45), desks::askAfterQueued);
    }
}
