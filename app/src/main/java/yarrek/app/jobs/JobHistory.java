package yarrek.app.jobs;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;
import yarrek.core.time.Days;

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
                        "besides",
                        "Days, crew and builds besides",
                        "shots",
                        "Shots"));
    }

    @Bean
    Recorded<AwayEntity> awayRecorded(Aways aways) {
        return Recorded.of(
                        "away",
                        "days away",
                        AwayEntity.class,
                        a -> "days away from " + Days.show(a.firstDay),
                        a -> "/board?from=" + a.firstDay,
                        aways::restored)
                .forTheManager(); // why somebody is away is not everybody's to know
    }
}
