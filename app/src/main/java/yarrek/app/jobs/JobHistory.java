package yarrek.app.jobs;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class JobHistory {
    @Bean
    Recorded<JobEntity> jobRecorded(JobJudging judging) {
        return Recorded.of(
                        "job",
                        "job",
                        JobEntity.class,
                        j -> j.name,
                        j -> "/jobs/" + j.id,
                        j -> judging.saved(j.draft(), j.draft(), j.id))
                .labelled(Map.of(
                        "heightM",
                        "Greatest height, m",
                        "fromTime",
                        "From",
                        "toTime",
                        "To",
                        "flights",
                        "Flights planned",
                        "shots",
                        "Shots"));
    }
}
