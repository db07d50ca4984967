package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import jakarta.persistence.EntityManager;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import javax.imageio.ImageIO;
import org.hibernate.envers.Audited;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import yarrek.app.crew.Crew;
import yarrek.app.history.History;
import yarrek.app.history.Recorded;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobJudging;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.papers.Papers;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Tally;

/** Who changed what, and taking it back: one change alone, never over a later one, and whole out of the bin. */
class HistoryTest extends RunningApp {
    private static final byte[] SCAN = picture();

    private static byte[] picture() {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(new BufferedImage(8, 8, BufferedImage.TYPE_INT_RGB), "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Autowired
    History history;

    @Autowired
    Jobs jobs;

    @Autowired
    EntityManager em;

    @Autowired
    List<Recorded<?>> recorded;

    @Autowired
    JobJudging judging;

    @Autowired
    Papers papers;

    @Autowired
    Crew crew;

    @Autowired
    Office office;

    @Autowired
    JdbcClient jdbc;

    private void as(String login, Runnable work) {
        var viewer = office.loadUserByUsername(login);
        SecurityContextHolder.getContext()
                .setAuthentication(
                        UsernamePasswordAuthenticationToken.authenticated(viewer, null, viewer.getAuthorities()));
        try {
            work.run();
        } finally {
            SecurityContextHolder.clearContext();
        }
    }

    private UUID aJob() {
        JobDraft like = jobs.jobUnchecked(
                        jdbc.sql("select id from job where state = 'PLANNED' order by first_day, id limit 1")
                                .query(UUID.class)
                                .single())
                .draft();
        LocalDate later = like.firstDay().plusDays(300);
        return jobs.save(
                null,
                -1,
                like.with(new JobDraft.Anew("Told " + UUID.randomUUID(), later, later, null, null, null, null, null)));
    }

    private void change(UUID job, JobDraft to) {
        jobs.save(job, jobs.jobUnchecked(job).version(), to);
    }

    private JobDraft draft(UUID job) {
        return jobs.jobUnchecked(job).draft();
    }

    private List<History.Entry> entries(UUID job) {
        return history.of("job", job.toString()).entries();
    }

    private void forget(UUID job) {
        for (String t : List.of("answer where about_id", "chain_due where job_id", "job where id")) {
            jdbc.sql("delete from " + t + " = ?").param(job).update();
        }
    }

    @Test
    void aChangeSaysWhoWhatBeforeAndAfter() {
        UUID job = aJob();
        as(
                "manager",
                () -> change(
                        job,
                        draft(job)
                                .saying("groundSpeedMps", new FactValue.Quantity(6, 0))
                                .with(new JobDraft.Anew(null, null, null, null, null, 45.0, null, null))));
        History.Entry last = entries(job).get(0);
        assertThat(last.who())
                .isEqualTo(jdbc.sql("select name from app_user where login = 'manager'")
                        .query(String.class)
                        .single());
        assertThat(last.what()).isEqualTo(History.What.CHANGED);
        assertThat(last.changes())
                .extracting(History.Change::field, History.Change::after)
                .containsExactlyInAnyOrder(tuple("Greatest height, m", "45"), tuple("Ground speed", "6 m/s"));
        assertThat(entries(job).get(1).what()).isEqualTo(History.What.MADE);
        assertThat(entries(job).get(1).who()).isEqualTo("the program");
        forget(job);
    }

    /** What people change has its history; a new kind of record is told here to have one, or why it has none. */
    @Test
    void everyRecordIsKeptOrNotForAReason() {
        Set<String> notKept = new TreeSet<>();
        em.getMetamodel().getEntities().stream()
                .map(t -> t.getJavaType())
                .filter(t -> !t.isAnnotationPresent(Audited.class)
                        && Arrays.stream(t.getDeclaredFields()).noneMatch(f -> f.isAnnotationPresent(Audited.class)))
                .forEach(t -> notKept.add(t.getSimpleName()));
        assertThat(notKept)
                .containsExactlyInAnyOrder(
                        // the history itself
                        "Revision",
                        // brought in whole, and kept as they came
                        "FlightLog",
                        "FlightLogContent",
                        "FlightTrace",
                        "FlightFiguresText",
                        "WeatherReportEntity",
                        "ZoneEntity",
                        "ZoneSourceEntity",
                        "ScanContentEntity",
                        "PackVersionEntity",
                        "LetterEntity",
                        "Scenery",
                        // on the way in
                        "Upload",
                        "RegisterUpload",
                        // made and ended, never changed
                        "ApiToken",
                        "CheckLinkEntity",
                        "FeedEntity",
                        "SavedPlan",
                        "ZoneDoubtEntity");
        assertThat(recorded).allMatch(r -> em.getMetamodel().entity(r.type()) != null);
        assertThat(recorded)
                .allMatch(r -> r.type().isAnnotationPresent(Audited.class)
                        || Arrays.stream(r.type().getDeclaredFields())
                                .anyMatch(f -> f.isAnnotationPresent(Audited.class)));
    }

    @Test
    void whatWasThereBeforeTheHistorySaysSoAndNamesNobody() {
        UUID job = aJob();
        jdbc.sql("update job_aud set rev = 1 where id = ?").param(job).update();
        assertThat(entries(job)).singleElement().satisfies(e -> {
            assertThat(e.what()).isEqualTo(History.What.BEGAN);
            assertThat(e.who()).isEmpty();
            assertThat(e.first()).isTrue();
        });
        forget(job);
    }

    @Test
    void judgingAgainIsNoChangeOfAJob() {
        UUID job = aJob();
        int before = entries(job).size();
        judging.judgeAgain(List.of(job), "a test");
        assertThat(entries(job)).hasSize(before);
        forget(job);
    }

    @Test
    void whatOneChangeChangedIsPutBackAndNothingElse() {
        UUID job = aJob();
        JobDraft first = draft(job);
        change(job, first.saying("groundSpeedMps", new FactValue.Quantity(6, 0)));
        long revision = entries(job).get(0).revision();
        change(job, draft(job).with(new JobDraft.Anew(null, null, null, null, null, 45.0, null, null)));
        history.takeBack("job", job.toString(), revision);
        assertThat(draft(job)).isEqualTo(first.with(new JobDraft.Anew(null, null, null, null, null, 45.0, null, null)));
        // taking back is a change of its own, which can be taken back
        history.takeBack("job", job.toString(), entries(job).get(0).revision());
        assertThat(draft(job).text("groundSpeedMps")).isEqualTo("6.0");
        forget(job);
    }

    @Test
    void aChangeIsNotTakenBackOverALaterOneOfTheSameField() {
        UUID job = aJob();
        change(job, draft(job).with(new JobDraft.Anew(null, null, null, null, null, 45.0, null, null)));
        long revision = entries(job).get(0).revision();
        change(job, draft(job).with(new JobDraft.Anew(null, null, null, null, null, 50.0, null, null)));
        assertThatThrownBy(() -> history.takeBack("job", job.toString(), revision))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("Greatest height, m: changed again since; take the later change back first");
        assertThat(draft(job).heightM()).isEqualTo(50);
        assertThatThrownBy(() -> history.takeBack(
                        "job",
                        job.toString(),
                        entries(job).get(entries(job).size() - 1).revision()))
                .hasMessageContaining("how the record began");
        forget(job);
    }

    @Test
    void aJobPutBackIsJudgedAgain() {
        UUID job = aJob();
        change(job, draft(job).with(new JobDraft.Anew(null, null, null, null, null, 500.0, null, null)));
        assertThat(jobs.jobUnchecked(job).row().go()).isEqualTo(Tally.Go.NO_GO);
        String reason = jobs.jobUnchecked(job).row().reason();
        history.takeBack("job", job.toString(), entries(job).get(0).revision());
        assertThat(jobs.jobUnchecked(job).row().reason()).isNotEqualTo(reason);
        forget(job);
    }

    @Test
    void aPaperComesOutOfTheBinWithItsScans() {
        UUID person = crew.all().get(0).id();
        UUID paper = papers.save(
                null,
                0,
                new Papers.Entry(
                        "firstAid",
                        null,
                        "B-1",
                        "",
                        "",
                        "pilot",
                        person,
                        null,
                        null,
                        null,
                        true,
                        ZoneOffset.UTC,
                        0,
                        "",
                        "",
                        null,
                        "",
                        Papers.Terms.NONE),
                "a test");
        UUID scan = papers.addScan(paper, "b-1.png", SCAN, "a test");
        as("manager", () -> papers.delete(paper));
        assertThat(papers.of(List.of(person))).noneMatch(p -> p.id().equals(paper));
        History.Binned binned = history.bin().stream()
                .filter(b -> b.id().equals(paper.toString()))
                .findFirst()
                .orElseThrow();
        assertThat(binned.called()).isEqualTo("first-aid course B-1");
        assertThat(history.takeBack("paper", paper.toString(), binned.revision()))
                .isEqualTo("/papers/" + paper);
        assertThat(papers.of(List.of(person))).anyMatch(p -> p.id().equals(paper));
        assertThat(papers.scanFile(scan).content()).isEqualTo(SCAN);
        assertThat(history.bin()).noneMatch(b -> b.id().equals(paper.toString()));
        assertThatThrownBy(() -> history.takeBack("paper", paper.toString(), binned.revision()))
                .hasMessageContaining("it is there already");
        papers.delete(paper);
    }

    @Test
    void whatLiesLongerThanTheBinIsForgottenWithItsContent() {
        UUID person = crew.all().get(0).id();
        UUID paper = papers.save(
                null,
                0,
                new Papers.Entry(
                        "firstAid",
                        null,
                        "B-2",
                        "",
                        "",
                        "pilot",
                        person,
                        null,
                        null,
                        null,
                        true,
                        ZoneOffset.UTC,
                        0,
                        "",
                        "",
                        null,
                        "",
                        Papers.Terms.NONE),
                "a test");
        papers.addScan(paper, "b-2.png", SCAN, "a test");
        papers.delete(paper);
        papers.emptyBin();
        assertThat(scansOf(paper)).isEqualTo(1);
        jdbc.sql("update revision set at = at - interval 31 day where id in (select rev from paper_aud where id = ?)")
                .param(paper)
                .update();
        papers.emptyBin();
        assertThat(scansOf(paper)).isZero();
        assertThat(history.bin()).noneMatch(b -> b.id().equals(paper.toString()));
        long revision = history.of("paper", paper.toString()).entries().get(0).revision();
        assertThatThrownBy(() -> history.takeBack("paper", paper.toString(), revision))
                .hasMessageContaining("more than 30 days ago");
    }

    @Test
    void theHistoryOfALoginIsTheManagersAlone() {
        String login = jdbc.sql("select id from app_user where login = 'pilot'")
                .query(UUID.class)
                .single()
                .toString();
        as("reader", () -> assertThatThrownBy(() -> history.of("login", login)).isInstanceOf(NotFoundException.class));
        as("manager", () -> assertThat(history.of("login", login).entries()).isNotEmpty());
    }

    @Test
    void whatIsUndoneElsewhereIsOnlyShown() {
        String approval = jdbc.sql("select id from approval where sent_at is not null limit 1")
                .query(UUID.class)
                .single()
                .toString();
        History.Told told = history.of("approval", approval);
        assertThat(told.undone()).isFalse();
        assertThatThrownBy(() -> history.takeBack(
                        "approval", approval, told.entries().get(0).revision()))
                .hasMessageContaining("not taken back here");
    }

    @Test
    void whatIsNoIdentityIsNotThere() {
        assertThatThrownBy(() -> history.of("job", "abc")).isInstanceOf(NotFoundException.class);
        assertThatThrownBy(() -> history.of("job", UUID.randomUUID().toString()))
                .isInstanceOf(NotFoundException.class);
        assertThatThrownBy(() -> history.of("moon", UUID.randomUUID().toString()))
                .isInstanceOf(NotFoundException.class);
    }

    private int scansOf(UUID paper) {
        return jdbc.sql(
                        "select count(*) from paper_scan s join paper_scan_content c on c.scan_id = s.id where s.paper_id = ?")
                .param(paper)
                .query(Integer.class)
                .single();
    }
}
