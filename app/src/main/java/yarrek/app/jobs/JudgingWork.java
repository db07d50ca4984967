package yarrek.app.jobs;

import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrek.app.work.Worker;

/** Judges jobs again that a change concerns, when they are too many to be judged with it. */
@Component
class JudgingWork implements Worker {
    static final String KIND = "judge";

    private final JobJudging jobJudging;

    JudgingWork(JobJudging jobJudging) {
        this.jobJudging = jobJudging;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String words() {
        return "Judging jobs again";
    }

    @Override
    public int chunk() {
        return 250;
    }

    @Override
    public int hands() {
        return 2;
    }

    @Override
    public void run(List<UUID> subjects, String cause) {
        jobJudging.judgeAgain(subjects, cause);
    }
}
