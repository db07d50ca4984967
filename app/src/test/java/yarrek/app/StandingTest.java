package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yarrek.app.answers.Answers;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.jobs.TimePassing;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Tally;
import yarrek.core.rulebook.Verdict;
import yarrek.formats.log.BrokenFileException;

/** What the desk says of jobs when the world around them changes: other jobs, papers, time, places. */
class StandingTest extends RunningApp {
    @Autowired
    Jobs jobs;

    @Autowired
    JobLists jobLists;

    @Autowired
    TimePassing time;

    @Autowired
    Rulebook rulebook;

    @Autowired
    Answers answers;

    @Autowired
    Office office;

    @Autowired
    PlatformTransactionManager transactions;

    @Autowired
    JdbcClient jdbc;

    private UUID job(String name) {
        return jdbc.sql("select id from job where name = ?")
                .param(name)
                .query((r, i) -> UUID.fromString(r.getString(1)))
                .single();
    }

    private Jobs.JobView view(UUID id) {
        return jobs.jobUnchecked(id);
    }

    private FindingRow finding(UUID id, String rule) {
        return view(id).assessment().findings().stream()
                .filter(f -> f.ruleId().equals(rule))
                .findFirst()
                .orElseThrow();
    }

    /** A copy of a job under another name; taken back at the end of each test. */
    private UUID copy(String of, String name) {
        JobDraft d = view(job(of)).draft();
        return jobs.save(null, -1, d.with(new JobDraft.Anew(name, null, null, null, null, null, null, null)));
    }

    private void forget(UUID id) {
        jobs.setState(id, "FLOWN");
        jdbc.sql("delete from answer where about_id = ?").param(id).update();
        jdbc.sql("delete from chain_due where job_id = ?").param(id).update();
        jdbc.sql("delete from job where id = ?").param(id).update();
    }

    private static JobDraft withEmergency(JobDraft d, Boolean emergency) {
        return d.saying("emergency.ongoing", emergency == null ? null : new FactValue.YesNo(emergency));
    }

    @Test
    void anEmergencyDeclaredOnOneJobStopsEveryJobOfTheSiteUntilPermissionIsSaid() {
        UUID one = job("Peat bog grid, north");
        assertThat(view(one).row().go()).isNotEqualTo(Tally.Go.NO_GO);
        UUID other = copy("Peat bog grid, north", "Peat bog grid, in need");
        try {
            Jobs.JobView v = view(other);
            jobs.save(other, v.version(), withEmergency(v.draft(), true));
            assertThat(view(one).row().go()).isEqualTo(Tally.Go.NO_GO);
            assertThat(finding(one, "EU-EMERG").verdict()).isEqualTo(Verdict.NOT_KNOWN);
            answers.say(Answers.About.JOB, one, Map.of("emergency.permission", "yes"), "test");
            assertThat(finding(one, "EU-EMERG").verdict()).isEqualTo(Verdict.MET);
            answers.say(Answers.About.JOB, one, Map.of("emergency.permission", ""), "test");
            assertThat(view(one).row().go()).isEqualTo(Tally.Go.NO_GO);
        } finally {
            forget(other);
        }
        assertThat(view(one).row().go()).isNotEqualTo(Tally.Go.NO_GO);
    }

    @Test
    void aPilotAndAnAircraftPlannedTwiceInTheSameHoursAreSaidOnBothJobs() {
        UUID one = job("Peat bog grid, north");
        assertThat(finding(one, "HOUSE-BOOKED-PILOT").verdict()).isEqualTo(Verdict.MET);
        UUID other = copy("Peat bog grid, north", "Peat bog grid, once more");
        try {
            for (UUID id : List.of(one, other)) {
                assertThat(finding(id, "HOUSE-BOOKED-PILOT").verdict()).isEqualTo(Verdict.BREACHED);
                assertThat(finding(id, "HOUSE-BOOKED-AIRCRAFT").verdict()).isEqualTo(Verdict.BREACHED);
            }
            Jobs.JobView v = view(other);
            LocalDate later = v.draft().lastDay().plusDays(30);
            jobs.save(other, v.version(), v.draft().on(later, later));
            assertThat(finding(one, "HOUSE-BOOKED-PILOT").verdict()).isEqualTo(Verdict.MET);
            assertThat(finding(other, "HOUSE-BOOKED-PILOT").verdict()).isEqualTo(Verdict.MET);
        } finally {
            forget(other);
        }
    }

    @Test
    void aPaperThatTheHouseNeedsCounts() {
        UUID mast = job("Mast inspection");
        FindingRow release = finding(mast, "HOUSE-PAPER-maintenanceRelease");
        assertThat(release.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(release.blocks()).isTrue();
        assertThat(view(mast).row().go()).isEqualTo(Tally.Go.NO_GO);
        rulebook.houseNeeds("maintenanceRelease", "maintenance release", "aircraft", false, "test");
        try {
            assertThat(view(mast).assessment().findings())
                    .noneMatch(f -> f.ruleId().startsWith("HOUSE-PAPER"));
        } finally {
            rulebook.houseNeeds("maintenanceRelease", "maintenance release", "aircraft", true, "test");
        }
        assertThat(finding(mast, "HOUSE-PAPER-maintenanceRelease").verdict()).isEqualTo(Verdict.BREACHED);
    }

    @Test
    void aSourceThatGoesOutOfDateChangesFindingsThoughNobodySaves() {
        UUID bog = job("Peat bog grid, north");
        time.look();
        assertThat(finding(bog, "EU-ZONE-DATA").verdict()).isEqualTo(Verdict.MET);
        List<Map<String, Object>> before = jdbc.sql("select id, published_on, brought_in_at from zone_source")
                .query()
                .listOfRows();
        try {
            jdbc.sql("update zone_source set published_on = null, brought_in_at = ?, version = version + 1")
                    .param(Timestamp.from(Instant.now().minus(Duration.ofDays(90))))
                    .update();
            changedByAnotherNode(jdbc, "zones");
            time.look();
            assertThat(finding(bog, "EU-ZONE-DATA").verdict()).isEqualTo(Verdict.NOT_KNOWN);
            Instant judged = view(bog).assessedAt();
            time.look();
            assertThat(view(bog).assessedAt()).as("nothing has passed since").isEqualTo(judged);
        } finally {
            before.forEach(
                    r -> jdbc.sql("update zone_source set published_on = ?, brought_in_at = ?, version = version + 1"
                                    + " where id = ?")
                            .params(r.get("published_on"), r.get("brought_in_at"), r.get("id"))
                            .update());
            changedByAnotherNode(jdbc, "zones");
            time.look();
        }
        assertThat(finding(bog, "EU-ZONE-DATA").verdict()).isEqualTo(Verdict.MET);
    }

    @Test
    void asAnHourPassesThoseFlownAboutNowAreJudgedAgainAndNoOthers() {
        UUID tomorrow = job("Peat bog grid, north");
        UUID later = job("Regatta film, club race");
        time.look();
        Instant judgedTomorrow = view(tomorrow).assessedAt();
        Instant judgedLater = view(later).assessedAt();
        jdbc.sql("update passing_of_time set judged_for = 'an hour ago' where id = 2")
                .update();
        time.look();
        assertThat(view(tomorrow).assessedAt()).isAfter(judgedTomorrow);
        assertThat(view(later).assessedAt()).isEqualTo(judgedLater);
    }

    @Test
    void theReadingOfAStateRunsOutAndIsSaidAnew() {
        UUID bog = job("Peat bog grid, north");
        assertThat(finding(bog, "EU-XT-REST-00").verdict()).isEqualTo(Verdict.MET);
        Rulebook.Reading was = rulebook.reading("EU-XT").orElseThrow();
        rulebook.sayRead("EU-XT", LocalDate.now(java.time.ZoneOffset.UTC).minusMonths(7), "long ago", "test");
        assertThat(finding(bog, "EU-XT-REST-00").verdict()).isEqualTo(Verdict.BREACHED);
        rulebook.sayRead("EU-XT", was.readOn(), was.note(), was.saidBy());
        assertThat(finding(bog, "EU-XT-REST-00").verdict()).isEqualTo(Verdict.MET);
        assertThatThrownBy(() -> rulebook.sayRead(
                        "EU-XT", LocalDate.now(java.time.ZoneOffset.UTC).plusDays(9), "x", "test"))
                .hasMessageContaining("not come yet");
        assertThatThrownBy(() -> rulebook.sayRead("EU-XT", LocalDate.now(java.time.ZoneOffset.UTC), " ", "test"))
                .hasMessageContaining("say what was read");
    }

    /** By name, site or pilot, whatever the case; signs that search engines know are letters like others. */
    @Test
    void jobsAreFoundByWhatPeopleRememberOfThem() {
        Viewer manager = (Viewer) office.loadUserByUsername("manager");
        Viewer pilot = (Viewer) office.loadUserByUsername("pilot");
        assertThat(jobLists.find(manager, "PEAT bog", true, 0, 50).rows())
                .extracting(Jobs.Row::name)
                .contains("Peat bog grid, north");
        assertThat(jobLists.find(manager, "skarn", true, 0, 50).rows())
                .isNotEmpty()
                .allMatch(j -> j.siteName().equals("Skarn cliffs"));
        assertThat(jobLists.find(manager, "fenwright", true, 0, 50).rows())
                .isNotEmpty()
                .allMatch(j -> j.pilotName().equals("Ailsa Fenwright"));
        assertThat(jobLists.find(manager, "%", true, 0, 50).rows()).isEmpty();
        assertThat(jobLists.find(manager, "_", true, 0, 50).rows()).isEmpty();
        JobLists.Found all = jobLists.find(manager, "", true, 0, 1000);
        assertThat(jobLists.find(manager, "", true, 2, 1).rows())
                .containsExactly(all.rows().get(2));
        assertThat(all.total()).isEqualTo(all.rows().size());
        assertThat(jobLists.find(pilot, "", true, 0, 1000).rows())
                .allMatch(j -> j.seenBy(pilot))
                .hasSizeLessThan(all.rows().size());
    }

    /** Rules that were never committed judge nothing, neither here nor on another node that comes to the same stamp. */
    @Test
    void rulesThatWereRolledBackAreNeverServed() {
        String yaml =
                "{id: HOUSE-TRIED, title: Tried, layer: house, severity: stop, phase: papers, requires: {fact: marked, is:"
                        + " true}, cite: 'House: tried', from: 2020-01-01, confidence: high, remedy: none}";
        new TransactionTemplate(transactions).executeWithoutResult(t -> {
            try {
                rulebook.saveOwnRule(null, 0, yaml, OwnRules.BoundTo.EVERYTHING, null, true, "test");
            } catch (BrokenFileException e) {
                throw new IllegalStateException(e);
            }
            assertThat(rulebook.rule("HOUSE-TRIED"))
                    .as("for the one that made it")
                    .isPresent();
            t.setRollbackOnly();
        });
        assertThat(rulebook.rule("HOUSE-TRIED")).isEmpty();
        // another change comes to the very stamp that was rolled back
        rulebook.sayRead("EU-XT", LocalDate.now(java.time.ZoneOffset.UTC), "the text of this week", "test");
        assertThat(rulebook.rule("HOUSE-TRIED")).isEmpty();
        assertThat(rulebook.ownRules()).noneMatch(r -> r.rule().id().equals("HOUSE-TRIED"));
    }
}
