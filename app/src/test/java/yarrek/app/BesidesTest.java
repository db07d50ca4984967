package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.security.access.AccessDeniedException;
import yarrek.app.history.History;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.FindingRow;
import yarrek.core.judging.Arranged;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.rulebook.Verdict;

/** Hours of days that differ, people without a flight, reasons of builds: kept, moved, judged. */
class BesidesTest extends OnJobs {
    private static final Arranged.Hours EARLY = new Arranged.Hours(LocalTime.of(6, 0), LocalTime.of(8, 30));

    @Autowired
    Office office;

    @Autowired
    History history;

    private UUID person(String name) {
        return jdbc.sql("select id from person where name = ?")
                .param(name)
                .query(UUID.class)
                .single();
    }

    private Jobs.JobView with(Jobs.JobView job, Arranged besides) {
        return jobs.jobUnchecked(jobs.save(job.id(), job.version(), job.draft().arranged(besides)));
    }

    private static Arranged early(LocalDate day) {
        return new Arranged(Map.of(day, EARLY), List.of(), Map.of());
    }

    private static Arranged helper(UUID who, FlightsPlanned.Role role, LocalDate day) {
        return new Arranged(Map.of(), List.of(new Arranged.Helper(who, role, day)), Map.of());
    }

    @Test
    void aDayHasHoursOfItsOwnAndTheyMoveWithTheJob() {
        Jobs.JobView job = job(2, 30);
        LocalDate second = job.draft().firstDay().plusDays(1);
        Jobs.JobView own = with(job, early(second));
        assertThat(own.windows()).hasSize(2);
        assertThat(own.windows().get(0)).isEqualTo(job.windows().get(0));
        assertThat(Duration.between(
                        own.windows().get(1).start(), own.windows().get(1).end()))
                .isEqualTo(Duration.ofMinutes(150));
        JobDraft later = own.draft().on(second.plusDays(6), second.plusDays(7));
        assertThat(later.besides().hours()).isEqualTo(Map.of(second.plusDays(7), EARLY));
        assertThat(own.draft().only(second).besides().hours()).containsOnlyKeys(second);
        assertThat(own.draft()
                        .on(job.draft().firstDay(), job.draft().firstDay())
                        .besides())
                .isEqualTo(Arranged.NOTHING);
    }

    @Test
    void hoursOfADayThatIsNoneAreRefusedAndNothingChanges() {
        Jobs.JobView job = job(1, 30);
        assertThatThrownBy(() -> with(job, early(job.draft().lastDay().plusDays(1))))
                .hasMessageContaining("none of the job's days");
        assertThat(jobs.jobUnchecked(job.id()).draft()).isEqualTo(job.draft());
    }

    @Test
    void whoHelpsIsBookedAndMissedElsewhere() {
        Jobs.JobView job = job(1, 30);
        UUID rufus = person("Rufus Caldervane");
        LocalDate day = job.draft().firstDay();
        Jobs.JobView helped = with(job, helper(rufus, FlightsPlanned.Role.PAYLOAD, null));
        assertThat(helped.draft().uses(job.site().zone())).containsEntry(rufus, job.windows());
        Jobs.JobView other = job(1, 30);
        Jobs.JobView same = jobs.jobUnchecked(
                jobs.save(other.id(), other.version(), other.draft().on(day, day)));
        Jobs.JobView both = with(same, helper(rufus, FlightsPlanned.Role.HELPER, day));
        assertThat(both.assessment().findings())
                .filteredOn(f -> f.ruleId().equals("HOUSE-BOOKED-CREW"))
                .extracting(FindingRow::verdict)
                .containsExactly(Verdict.BREACHED);
    }

    @Test
    void whoHelpsSeesTheJobAndNobodyElseDoes() {
        Jobs.JobView job = job(1, 30);
        jdbc.sql("update job set pilot_id = ?, observer_id = null where id = ?")
                .params(person("Hanne Loxby"), job.id())
                .update();
        Viewer pilot = (Viewer) office.loadUserByUsername("pilot");
        assertThatThrownBy(() -> jobs.job(job.id(), pilot)).isInstanceOf(AccessDeniedException.class);
        with(jobs.jobUnchecked(job.id()), helper(pilot.personId(), FlightsPlanned.Role.HELPER, null));
        assertThat(jobs.job(job.id(), pilot).row().people()).contains(pilot.personId());
        assertThat(jobs.namesFor(pilot)).containsKey(job.id());
    }

    @Test
    void whyABuildGoesIsKeptWithItsHistory() {
        Jobs.JobView job = job(1, 30);
        UUID build = job.build().id();
        Jobs.JobView said = with(job, new Arranged(Map.of(), List.of(), Map.of(build, "lighter, for the crowd")));
        assertThat(said.draft().besides().reasons()).containsEntry(build, "lighter, for the crowd");
        List<History.Entry> entries = history.of("job", job.id().toString()).entries();
        assertThat(entries.get(0).changes())
                .filteredOn(c -> c.field().equals("Days, crew and builds besides"))
                .singleElement()
                .satisfies(c -> assertThat(c.after()).contains("lighter, for the crowd"));
        history.takeBack("job", job.id().toString(), entries.get(0).revision());
        assertThat(jobs.jobUnchecked(job.id()).draft().besides()).isEqualTo(Arranged.NOTHING);
    }
}
