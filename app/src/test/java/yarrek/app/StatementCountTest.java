package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.persistence.EntityManagerFactory;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.hibernate.SessionFactory;
import org.hibernate.stat.Statistics;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import yarrek.app.chains.Chains;
import yarrek.app.fleet.Fleet;
import yarrek.app.flights.Flights;
import yarrek.app.jobs.JobJudging;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.JobPapers;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.app.today.Today;
import yarrek.app.whatif.Changes;
import yarrek.formats.log.BrokenFileException;

/** Lists take a fixed number of statements, however long they are. */
class StatementCountTest extends RunningApp {
    /** The scheduler asks now and then what is due; forty jobs more would show as forty. */
    private static final long NOISE = 5;

    @Autowired
    EntityManagerFactory factory;

    @Autowired
    Flights flights;

    @Autowired
    Fleet fleet;

    @Autowired
    Jobs jobs;

    @Autowired
    JobPapers jobPapers;

    @Autowired
    JobJudging jobJudging;

    @Autowired
    JobLists jobLists;

    @Autowired
    Office office;

    @Autowired
    Today today;

    @Autowired
    Chains chains;

    @Autowired
    Papers papers;

    @Autowired
    Rulebook rulebook;

    @Autowired
    Changes changes;

    @Autowired
    JdbcClient jdbc;

    private long statements(Runnable work) {
        Statistics statistics = factory.unwrap(SessionFactory.class).getStatistics();
        statistics.clear();
        work.run();
        return statistics.getPrepareStatementCount();
    }

    @Test
    void listsDoNotAskRowByRow() {
        Viewer manager = (Viewer) office.loadUserByUsername("manager");
        long few = statements(() -> flights.newest(manager, 0, 3));
        assertThat(statements(() -> flights.newest(manager, 0, 30))).isEqualTo(few);
        assertThat(statements(() -> fleet.builds())).isLessThanOrEqualTo(6);
        assertThat(statements(() -> jobLists.all(manager))).isLessThanOrEqualTo(6);
    }

    /** Forty jobs more, of every sort that the sample world has. */
    private void grow() throws IOException {
        String script = Files.readString(Path.of("../bench/jobs.sql")).replace("seq_1_to_500", "seq_1_to_4");
        for (String statement : script.replaceAll("(?m)^--.*$", "").split(";\\s*")) {
            jdbc.sql(statement).update();
        }
    }

    private void shrink() {
        for (String table : List.of("finding:subject_id", "need:subject_id", "assessment:subject_id", "job:id")) {
            String[] t = table.split(":");
            jdbc.sql("delete from " + t[0] + " where " + t[1] + " in (select fresh from bench_copy)")
                    .update();
        }
        jdbc.sql("drop table bench_copy").update();
    }

    private void preview() {
        String rule = jdbc.sql("select yaml from own_rule where bound_to = 'EVERYTHING' limit 1")
                .query(String.class)
                .single();
        try {
            changes.preview(rule, OwnRules.BoundTo.EVERYTHING, null);
        } catch (BrokenFileException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void whatThePagesAskDoesNotGrowWithTheJobs() throws IOException {
        Viewer manager = (Viewer) office.loadUserByUsername("manager");
        LocalDate now = LocalDate.now(ZoneOffset.UTC);
        Map<String, Runnable> pages = new LinkedHashMap<>();
        pages.put("Today", () -> today.page(manager));
        pages.put("Jobs", () -> jobLists.all(manager));
        pages.put("weave", () -> jobPapers.spans(now.minusDays(30), now.plusDays(90)));
        pages.put("due", () -> chains.due(manager, 365, 100));
        pages.put("nudges", () -> chains.nudges(manager));
        pages.put("a rule before it is made", this::preview);
        Map<String, Long> few = new LinkedHashMap<>();
        pages.forEach((name, page) -> few.put(name, Statements.of(jdbc, page)));
        grow();
        try {
            pages.forEach((name, page) -> assertThat(Statements.of(jdbc, page))
                    .as(name + " before: " + few)
                    .isLessThanOrEqualTo(few.get(name) + NOISE));
            assertThat(few.get("weave")).isLessThanOrEqualTo(6);
        } finally {
            shrink();
        }
    }

    /** What is read to judge is read for all at once: of each job there are only its own rows to write. */
    @Test
    void judgingReadsTheSameForOneJobAndForMany() throws IOException {
        List<UUID> one = jobJudging.openIds().subList(0, 1);
        long alone = Statements.of(jdbc, () -> jobJudging.judgeAgain(one, "test"));
        grow();
        try {
            List<UUID> many = jobJudging.openIds();
            long all = Statements.of(jdbc, () -> jobJudging.judgeAgain(many, "test"));
            assertThat(all - alone).isLessThanOrEqualTo(NOISE);
            assertThat(alone).isLessThanOrEqualTo(17 + NOISE);
        } finally {
            shrink();
        }
    }

    /** What the facts rest on is read in some dozen statements, and the stages of a maker's unlock where there is one. */
    @Test
    void whatJudgingNeedsIsReadInADozen() {
        UUID job = jobJudging.openIds().get(0);
        assertThat(Statements.of(jdbc, () -> jobJudging.asTheyAre(List.of(job))))
                .isLessThanOrEqualTo(15 + NOISE);
    }

    @Test
    void aJobIsSavedAndShownInSomeFortyStatements() {
        Viewer manager = (Viewer) office.loadUserByUsername("manager");
        UUID id = jobJudging.openIds().get(0);
        Runnable saving = () -> {
            Jobs.JobView j = jobs.jobUnchecked(id);
            jobs.save(id, j.version(), j.draft());
        };
        Runnable showing = () -> {
            Jobs.JobView j = jobs.job(id, manager);
            papers.of(List.of(id));
            rulebook.waivers(id);
            jobPapers.paperDays(j);
            if (j.build() != null) {
                fleet.weighed(j.build(), j.site().jurisdiction());
            }
        };
        long looked = Statements.of(jdbc, () -> jobs.jobUnchecked(id));
        assertThat(Statements.of(jdbc, saving) - looked + Statements.of(jdbc, showing))
                .isLessThanOrEqualTo(44 + NOISE);
    }
}
