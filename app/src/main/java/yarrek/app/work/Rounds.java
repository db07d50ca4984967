package yarrek.app.work;

import com.github.kagkarlsson.scheduler.task.ExecutionComplete;
import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.Schedule;
import java.time.Duration;
import java.time.Instant;

/** Work that comes round by itself: on one node at a time, again after a pause, also after it failed. */
public final class Rounds {
    private Rounds() {}

    /**
     * @param name as it is shown and stored
     * @param pause before the first time and between two
     */
    public static RecurringTask<Void> every(String name, Duration pause, Runnable work) {
        return Tasks.recurring(name, new Pause(pause)).execute((instance, context) -> work.run());
    }

    private record Pause(Duration length) implements Schedule {
        @Override
        public Instant getNextExecutionTime(ExecutionComplete done) {
            return done.getTimeDone().plus(length);
        }

        @Override
        public Instant getInitialExecutionTime(Instant now) {
            return now.plus(length);
        }

        @Override
        public boolean isDeterministic() {
            return false;
        }
    }
}
