package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.jobs.Jobs;
import yarrek.app.papers.Papers;
import yarrek.core.rulebook.PaperKind;

/** What a kind of paper means is the house's to say, and holds at once for every job. */
class KindsOfPaperTest extends RunningApp {
    @Autowired
    Papers papers;

    @Autowired
    Jobs jobs;

    @Autowired
    JdbcClient jdbc;

    private String fact(UUID job, String name) {
        return jobs.jobUnchecked(job).assessment().facts().stream()
                .filter(f -> f.name().equals(name))
                .map(f -> f.value() + ", " + f.source())
                .findFirst()
                .orElse("not known");
    }

    private UUID paperOf(UUID job, String kind, LocalDate through) {
        return papers.save(
                null,
                0,
                new Papers.Entry(
                        kind,
                        null,
                        "K-" + kind,
                        "",
                        "",
                        "job",
                        job,
                        null,
                        null,
                        through,
                        true,
                        ZoneOffset.UTC,
                        0,
                        "",
                        "",
                        null,
                        "",
                        Papers.Terms.NONE),
                "a test");
    }

    private UUID aJob() {
        return jdbc.sql(
                        "select id from job where state = 'PLANNED' and last_day > curdate() order by first_day, id limit 1")
                .query(UUID.class)
                .single();
    }

    private static PaperKind settling(String code, String fact) {
        return PaperKind.of(code, "night permit", "job").settling(fact, false);
    }

    private void store(PaperKind k, long version, boolean isNew) {
        papers.saveKind(
                new Papers.Kind(k.code(), version, k.words(), k.holder(), List.of(), 0, null, null, null, "", true, k),
                isNew);
    }

    @Test
    void aKindMadeByTheHouseSettlesWhatItSaysForEveryJob() {
        UUID job = aJob();
        LocalDate last = jobs.jobUnchecked(job).draft().lastDay();
        store(PaperKind.of("nightPermit", "night permit", "job"), 0, true);
        UUID paper = paperOf(job, "nightPermit", last.plusDays(2));
        try {
            String before = fact(job, "park.permit");
            assertThat(before).doesNotContain("night permit");
            store(settling("nightPermit", "park.permit"), 0, false);
            assertThat(fact(job, "park.permit")).isEqualTo("yes, on file: night permit of the job");
            store(settling("nightPermit", "notified"), 1, false);
            assertThat(fact(job, "park.permit")).isEqualTo(before);
            assertThat(fact(job, "notified")).isEqualTo("yes, on file: night permit of the job");
        } finally {
            papers.delete(paper);
            jdbc.sql("delete from paper_kind where code = 'nightPermit'").update();
            changedByAnotherNode(jdbc, "paper kinds");
        }
    }

    @Test
    void aPermitOnFileForTheJobAnswersWhatARuleAsksAndOnlyWhileItHolds() {
        UUID job = aJob();
        LocalDate last = jobs.jobUnchecked(job).draft().lastDay();
        String before = fact(job, "aerodrome.agreement");
        UUID paper = paperOf(job, "aerodromeAgreement", last.plusDays(2));
        try {
            assertThat(fact(job, "aerodrome.agreement"))
                    .isEqualTo("yes, on file: agreement of the aerodrome of the job");
        } finally {
            papers.delete(paper);
        }
        UUID old = paperOf(job, "aerodromeAgreement", last.minusDays(40));
        try {
            assertThat(fact(job, "aerodrome.agreement")).isEqualTo(before);
        } finally {
            papers.delete(old);
        }
    }
}
