package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.flights.AsPlanned;
import yarrek.app.jobs.Jobs;
import yarrek.core.judging.PlannedFlight;
import yarrek.core.judging.PlannedFlown;

/** A flight on file against what was planned for it. */
class AsPlannedTest extends OnJobs {
    @Autowired
    AsPlanned asPlanned;

    private UUID flight() {
        return jdbc.sql("select id from flight where job_id is not null order by takeoff limit 1")
                .query(UUID.class)
                .single();
    }

    private void put(UUID flight, UUID job) {
        jdbc.sql("update flight set job_id = ? where id = ?")
                .params(job, flight)
                .update();
    }

    @Test
    void aFlightOfNoJobWasNotPlanned() {
        UUID flight = flight();
        UUID job = jdbc.sql("select job_id from flight where id = ?")
                .param(flight)
                .query(UUID.class)
                .single();
        put(flight, null);
        try {
            assertThat(asPlanned.of(flight)).isEmpty();
        } finally {
            put(flight, job);
        }
        assertThat(asPlanned.of(flight))
                .hasValueSatisfying(p -> assertThat(p.lines())
                        .extracting(PlannedFlown.Line::what)
                        .contains("Day", "In the air", "Aircraft", "Pilot"));
    }

    @Test
    void aFlightOnADayOfNoneOfThosePlannedIsNoneOfThemAndOfAJobWithoutAnyItSaysHowFarOff() {
        UUID flight = flight();
        UUID before = jdbc.sql("select job_id from flight where id = ?")
                .param(flight)
                .query(UUID.class)
                .single();
        Jobs.JobView job = job(1, 30);
        put(flight, job.id());
        try {
            assertThat(asPlanned.of(flight)).hasValueSatisfying(p -> {
                assertThat(p.number()).isZero();
                assertThat(p.lines().get(0).differs()).endsWith("earlier");
            });
            jobs.save(
                    job.id(),
                    job.version(),
                    job.draft().flying(List.of(PlannedFlight.on(job.draft().firstDay()))));
            assertThat(asPlanned.of(flight)).isEmpty();
        } finally {
            put(flight, before);
        }
    }
}
