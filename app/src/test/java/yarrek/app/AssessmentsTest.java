package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.migration.JavaMigration;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.Assessments;
import yarrek.app.rulebook.OldAssessment;
import yarrek.core.rulebook.Verdict;

/** Assessments come back as they were judged, those of earlier versions of the program too. */
class AssessmentsTest extends RunningApp {
    private static final Instant AT = Instant.parse("2026-11-28T08:00:00Z");

    @Autowired
    Assessments assessments;

    @Autowired
    JdbcClient jdbc;

    @Autowired
    JsonMapper json;

    @Autowired
    PlatformTransactionManager transactions;

    @Autowired
    List<JavaMigration> migrations;

    /** As an earlier version stored it: with the words of every rule, and the facts. */
    private AssessmentRow stored() throws Exception {
        return json.readValue(text(), OldAssessment.class).now();
    }

    private String text() throws Exception {
        try (InputStream in = getClass().getResourceAsStream("/assessment-of-2026.json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** What is stored, whenever that was. */
    private static AssessmentRow plain(Assessments from, UUID subject) {
        AssessmentRow a = from.of(subject).orElseThrow();
        return new AssessmentRow(a.findings(), a.facts(), a.packs(), a.heads());
    }

    private long count(String table, UUID subject) {
        return jdbc.sql("select count(*) from " + table + " where subject_id = ?")
                .param(subject)
                .query(Long.class)
                .single();
    }

    @Test
    void itComesBackAsItWasInAFractionOfTheSize() throws Exception {
        AssessmentRow a = stored();
        UUID job = UUID.randomUUID();
        assessments.put(Assessments.Kind.JOB, List.of(new Assessments.Entry(job, a, List.of())), AT);
        assertThat(plain(assessments, job)).isEqualTo(a);
        int bytes = jdbc.sql("select length(body) from assessment where subject_id = ?")
                .param(job)
                .query(Integer.class)
                .single();
        assertThat(bytes).isLessThan(8_000);
        assertThat(json.writeValueAsBytes(a).length).isGreaterThan(60_000);
    }

    @Test
    void whatSaysTheSameIsNotWrittenAgainAndAnotherTakesItsPlace() throws Exception {
        AssessmentRow a = stored();
        UUID job = UUID.randomUUID();
        Set<Assessments.Need> needs =
                Set.of(new Assessments.Need("EU-PILOT", UUID.randomUUID(), "pilotCertificate", Set.of("A2", "A1/A3")));
        assessments.put(Assessments.Kind.JOB, List.of(new Assessments.Entry(job, a, List.copyOf(needs))), AT);
        long rows = count("finding", job);
        assertThat(rows)
                .isEqualTo(a.findings().stream()
                        .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                        .count());
        assertThat(assessments.needs(List.of(job))).isEqualTo(Map.of(job, List.copyOf(needs)));

        assessments.put(
                Assessments.Kind.JOB, List.of(new Assessments.Entry(job, a, List.copyOf(needs))), AT.plusSeconds(60));
        assertThat(jdbc.sql("select judged_at from assessment where subject_id = ?")
                        .param(job)
                        .query(LocalDateTime.class)
                        .single())
                .isEqualTo("2026-11-28T08:01:00");
        AssessmentRow less = new AssessmentRow(a.findings().subList(0, 3), a.facts(), a.packs(), a.heads());
        assessments.put(Assessments.Kind.JOB, List.of(new Assessments.Entry(job, less, List.of())), AT);
        assertThat(plain(assessments, job)).isEqualTo(less);
        assertThat(count("finding", job)).isLessThanOrEqualTo(3);
        assertThat(assessments.needs(List.of(job))).isEmpty();
    }

    /** Words belong to no transaction: one that is rolled back leaves them for the next. */
    @Test
    void aTransactionThatIsRolledBackLeavesNothingBehindThatIsMissedLater() throws Exception {
        AssessmentRow a = stored();
        AssessmentRow.FactRow fact = new AssessmentRow.FactRow("category", "Category", "open", "test");
        AssessmentRow other = new AssessmentRow(a.findings(), List.of(fact), a.packs(), "heads " + UUID.randomUUID());
        UUID job = UUID.randomUUID();
        new TransactionTemplate(transactions).executeWithoutResult(t -> {
            assessments.put(Assessments.Kind.JOB, List.of(new Assessments.Entry(job, other, List.of())), AT);
            t.setRollbackOnly();
        });
        assertThat(assessments.of(job)).isEmpty();
        assessments.put(Assessments.Kind.JOB, List.of(new Assessments.Entry(job, other, List.of())), AT);
        assertThat(assessments.of(job).orElseThrow().heads()).isEqualTo(other.heads());
    }

    @Test
    void aRuleIsAskedWhatItTouches() throws Exception {
        AssessmentRow a = stored();
        UUID job = UUID.randomUUID();
        assessments.put(Assessments.Kind.JOB, List.of(new Assessments.Entry(job, a, List.of())), AT);
        a.findings()
                .forEach(f -> assertThat(assessments
                                .touchedBy(f.ruleId(), Assessments.Kind.JOB)
                                .get(job))
                        .as(f.ruleId())
                        .isEqualTo(f.verdict() == Verdict.NOT_APPLICABLE ? null : f.verdict()));
        assertThat(assessments.touchedBy(a.findings().get(0).ruleId(), Assessments.Kind.FLIGHT))
                .doesNotContainKey(job);
    }

    /** Over the day of an adoption the older and the newer version judge; what is met by one is no less a breach of the other. */
    @Test
    void ofTwoVersionsOfARuleTheMorePressingIsTold() throws Exception {
        AssessmentRow a = stored();
        UUID job = UUID.randomUUID();
        assessments.put(Assessments.Kind.JOB, List.of(new Assessments.Entry(job, a, List.of())), AT);
        String rule = a.findings().stream()
                .filter(f -> f.verdict() == Verdict.BREACHED)
                .findFirst()
                .orElseThrow()
                .ruleId();
        jdbc.sql("insert into kept_words (sha256, rule_id, words) values (?, ?, 'a later version')")
                .params("later".repeat(12), rule)
                .update();
        jdbc.sql("insert into finding select ?, id, 'MET', false from kept_words where words = 'a later version'")
                .param(job)
                .update();
        assertThat(assessments.touchedBy(rule, Assessments.Kind.JOB)).containsEntry(job, Verdict.BREACHED);
    }

    /** A database of the version before is carried over: the assessment that stood in a job's row is there, word for word. */
    @Test
    void assessmentsOfAnEarlierVersionAreCarriedOver() throws Exception {
        jdbc.sql("create or replace database yarrek_carried").update();
        String url = TestDatabase.url().replace("yarrek_test", "yarrek_carried");
        var source = new DriverManagerDataSource(url, "root", "");
        var flyway = Flyway.configure()
                .dataSource(source)
                .locations("classpath:db/migration")
                .javaMigrations(migrations.toArray(new JavaMigration[0]));
        flyway.target("7").load().migrate();
        JdbcClient old = JdbcClient.create(source);
        UUID job = UUID.randomUUID();
        old.sql(
                        "set statement foreign_key_checks = 0 for insert into job (id, version, name, site_id, first_day, last_day,"
                                + " from_time, to_time, height_reference, state, breached, not_known, close_count, go, reason,"
                                + " assessed_at, assessment, changed_note, law_breaches, departures) values (?, 0, 'old', uuid(),"
                                + " '2026-11-28', '2026-11-28', '09:00', '10:00', 'GROUND', 'PLANNED', 0, 0, 0, 'GO', '',"
                                + " '2026-11-27 08:00:00', ?, '', 0, 0)")
                .params(job, text())
                .update();
        flyway.target("latest").load().migrate();
        Assessments there = Assessments.on(source, json);
        assertThat(plain(there, job)).isEqualTo(stored());
        assertThat(old.sql("select judged_at from assessment")
                        .query(LocalDateTime.class)
                        .single())
                .isEqualTo("2026-11-27T08:00");
        jdbc.sql("drop database yarrek_carried").update();
    }
}
