package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.support.TransactionTemplate;

/** What must hold of stored data holds of the sample world, and what does not hold is found. */
class InvariantsTest extends RunningApp {
    @Autowired
    JdbcClient jdbc;

    @Autowired
    TransactionTemplate transactions;

    @Test
    void everyOneIsAskedAndHasItsWords() throws IOException {
        assertThat(Invariants.questions()).hasSizeGreaterThan(20).allSatisfy((words, sql) -> {
            assertThat(words).isNotBlank();
            assertThat(sql).startsWith("select count(*) from");
        });
    }

    /** Each is broken once, and taken back. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "delete from flight_log_content limit 1 | a log without its original file",
                "update flight_log_content set content = concat(content, ' ') limit 1 | an original whose sum is not the one it came with",
                "delete from flight_figures limit 1 | a flight without its figures",
                "delete from flight_trace limit 1 | a flight without its trace",
                "delete from assessment where subject_id in (select id from job) limit 1 | a job that was never judged",
                "delete from assessment where subject_id in (select id from flight) limit 1 | a flight that was never judged",
                "update aircraft set landings = 0 | an aircraft with fewer landings than its counted flights",
                "update aircraft set flown_s = 0 | an aircraft with less time in the air than its counted flights",
                "update pack set flights = 0 | a pack with fewer flights than are counted to it",
                "update person set landings = 0 | a pilot with fewer landings than the flights counted",
                "update approval set reference = '' where state = 'GRANTED' | an approval that is held without a number or terms",
                "update zone_source set zones = zones + 1 limit 1 | a list of zones that does not hold as many as its source says",
                "update app_user set person_id = null where role = 'PILOT' | a pilot's login that belongs to nobody",
                "update app_user set totp_since = utc_timestamp(6), totp_secret = null limit 1 | a second factor asked for without a secret"
            })
    void whatDoesNotHoldIsFound(String breaking, String words) {
        transactions.executeWithoutResult(t -> {
            t.setRollbackOnly();
            jdbc.sql("set foreign_key_checks = 0").update();
            try {
                assertThat(jdbc.sql(breaking).update()).isPositive();
                assertThat(Invariants.broken(jdbc)).contains(words);
            } catch (IOException e) {
                throw new AssertionError(e);
            } finally {
                jdbc.sql("set foreign_key_checks = 1").update();
            }
        });
    }
}
