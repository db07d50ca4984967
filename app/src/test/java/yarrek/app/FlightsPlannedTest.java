package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.security.access.AccessDeniedException;
import yarrek.app.chains.Chains;
import yarrek.app.history.History;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.JobPapers;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.FindingRow;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.judging.PlannedFlight;
import yarrek.core.rulebook.Tally;
import yarrek.core.rulebook.Verdict;

/** Several aircraft and several pilots in one job: each flight is judged, the job stands as the worst of them. */
class FlightsPlannedTest extends OnJobs {
    @Autowired
    JobLists lists;

    @Autowired
    JobPapers papers;

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

    private UUID build(String aircraft, String name) {
        return jdbc.sql(
                        "select b.id from build b join aircraft a on a.id = b.aircraft_id where a.name = ? and b.name = ?")
                .params(aircraft, name)
                .query(UUID.class)
                .single();
    }

    private static PlannedFlight flight(LocalDate day, UUID build, UUID pilot, UUID supervised, UUID observer) {
        return new PlannedFlight(day, null, build, pilot, supervised, observer, null, null, null, null, 12.0, null, "");
    }

    private Jobs.JobView flying(Jobs.JobView job, PlannedFlight... flights) {
        return jobs.jobUnchecked(jobs.save(job.id(), job.version(), job.draft().flying(List.of(flights))));
    }

    private static FindingRow finding(Jobs.JobView job, String rule) {
        return job.assessment().findings().stream()
                .filter(f -> f.ruleId().equals(rule))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void flightsThatSayNothingOfTheirOwnLeaveEverythingAsItWas() {
        Jobs.JobView before = job(2, 30);
        LocalDate first = before.draft().firstDay();
        Jobs.JobView after = flying(before, PlannedFlight.on(first), PlannedFlight.on(first.plusDays(1)));
        assertThat(after.assessment().findings())
                .filteredOn(f -> !f.ruleId().equals("HOUSE-FITS-HOURS"))
                .usingRecursiveComparison()
                .isEqualTo(before.assessment().findings().stream()
                        .filter(f -> !f.ruleId().equals("HOUSE-FITS-HOURS"))
                        .toList());
        // nobody said how long they take
        assertThat(finding(after, "HOUSE-FITS-HOURS").verdict()).isEqualTo(Verdict.NOT_KNOWN);
    }

    @Test
    void aFlightLongerThanItsPackIsNamed() {
        Jobs.JobView job = job(1, 30);
        LocalDate day = job.draft().firstDay();
        UUID other = build("Heath", "standard");
        PlannedFlight tooLong =
                new PlannedFlight(day, null, other, null, null, null, null, null, null, null, 90.0, null, "");
        Jobs.JobView two = flying(job, flight(day, null, null, null, null), tooLong);
        FindingRow pack = finding(two, "HOUSE-PACK-LASTS");
        assertThat(pack.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(pack.concerns()).startsWith("flight 2");
        assertThat(two.row().go()).isNotEqualTo(Tally.Go.GO);
    }

    @Test
    void anAircraftWithoutItsPaperStopsTheJobAndIsNamed() {
        Jobs.JobView job = job(1, 30);
        LocalDate day = job.draft().firstDay();
        UUID heath = build("Heath", "standard"); // its maintenance release ran out
        assertThat(finding(job, "HOUSE-PAPER-maintenanceRelease").verdict()).isEqualTo(Verdict.MET);
        Jobs.JobView two = flying(
                job,
                flight(day, null, null, null, null),
                flight(day, heath, null, null, null),
                flight(day, null, null, null, null));
        FindingRow release = finding(two, "HOUSE-PAPER-maintenanceRelease");
        assertThat(release.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(release.concerns()).isEqualTo("flight 2: Heath, standard");
        assertThat(two.row().go()).isEqualTo(Tally.Go.NO_GO);
        assertThat(two.aircraft())
                .extracting(a -> a.name())
                .containsExactlyInAnyOrder("Heath", job.build().aircraft().name());
        // each aircraft has its own line among the papers on each day
        assertThat(papers.paperDays(two))
                .filteredOn(r -> r.paper().startsWith("maintenance release"))
                .extracting(JobPapers.PaperRow::holder, r -> r.cells().get(0).words())
                .containsExactlyInAnyOrder(
                        tuple("Heath", "gap"), tuple(job.build().aircraft().name(), "in force"));
        // the build of such a flight is a build of the job
        assertThat(lists.usingBuild(heath)).extracting(Jobs.Row::id).contains(job.id());
    }

    @Test
    void whoFliesBesideAPilotInCommandIsJudgedByTheLawOfThePlace() {
        Jobs.JobView job = job(1, 30);
        LocalDate day = job.draft().firstDay();
        UUID idris = person("Idris Pennow"); // whose certificate ran out
        Jobs.JobView taught = flying(job, flight(day, null, null, null, null), flight(day, null, null, idris, null));
        List<FindingRow> breached = taught.assessment().findings().stream()
                .filter(f -> f.verdict() == Verdict.BREACHED && f.says().contains("certificate"))
                .toList();
        assertThat(breached)
                .isNotEmpty()
                .allSatisfy(f -> assertThat(f.concerns()).isEqualTo("flight 2: Idris Pennow"));
        assertThat(taught.crew())
                .filteredOn(m -> m.id().equals(idris))
                .singleElement()
                .satisfies(m -> assertThat(m.roles()).containsExactly(FlightsPlanned.Role.SUPERVISED));
    }

    @Test
    void whoeverIsInAFlightSeesTheJobAndNobodyElse() {
        Jobs.JobView job = job(1, 30);
        UUID ailsa = ((Viewer) office.loadUserByUsername("pilot")).personId();
        UUID hanne = person("Hanne Loxby");
        JobDraft others = job.draft().with(new JobDraft.Anew(null, null, null, null, null, null, hanne, null));
        JobDraft without = new JobDraft(
                others.name(),
                others.siteId(),
                others.firstDay(),
                others.lastDay(),
                others.from(),
                others.to(),
                others.heightM(),
                others.heightReference(),
                hanne,
                null,
                others.buildId(),
                others.said());
        jobs.save(job.id(), job.version(), without);
        Viewer pilot = (Viewer) office.loadUserByUsername("pilot");
        assertThatThrownBy(() -> jobs.job(job.id(), pilot)).isInstanceOf(AccessDeniedException.class);
        flying(jobs.jobUnchecked(job.id()), flight(job.draft().firstDay(), null, null, null, ailsa));
        assertThat(jobs.job(job.id(), pilot).row().people()).contains(ailsa, hanne);
        assertThat(lists.find(pilot, "", true, 0, 500).rows())
                .extracting(Jobs.Row::id)
                .contains(job.id());
        assertThat(jobs.namesFor(pilot)).containsKey(job.id());
    }

    @Test
    void anObserverOfAFlightIsInOnePlaceAtATime() {
        Jobs.JobView one = job(1, 30);
        UUID rufus = person("Rufus Caldervane");
        LocalDate day = one.draft().firstDay();
        flying(one, flight(day, null, null, null, rufus));
        Jobs.JobView other = job(1, 30);
        long apart = java.time.temporal.ChronoUnit.DAYS.between(other.draft().firstDay(), day);
        JobDraft same = other.draft().on(day, day).flying(List.of(flight(day, null, null, null, rufus)));
        assertThat(apart).isNotZero();
        UUID id = jobs.save(other.id(), other.version(), same);
        for (UUID each : List.of(one.id(), id)) {
            assertThat(finding(jobs.jobUnchecked(each), "HOUSE-BOOKED-CREW").verdict())
                    .isEqualTo(Verdict.BREACHED);
        }
        // on another day neither is
        jobs.save(id, jobs.jobUnchecked(id).version(), other.draft());
        assertThat(finding(jobs.jobUnchecked(one.id()), "HOUSE-BOOKED-CREW").verdict())
                .isEqualTo(Verdict.MET);
    }

    @Test
    void flightsThatDoNotFitTheirDaySaySo() {
        Jobs.JobView job = job(2, 30);
        LocalDate first = job.draft().firstDay();
        PlannedFlight[] twelve = java.util.stream.IntStream.range(0, 12)
                .mapToObj(i -> flight(first.plusDays(i / 11), null, null, null, null))
                .toArray(PlannedFlight[]::new);
        FindingRow f = finding(flying(job, twelve), "HOUSE-FITS-HOURS");
        assertThat(f.verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(f.concerns()).isEmpty();
    }

    @Test
    void whatTheChainAsksForNamesEveryAircraftAndEveryPilot() {
        Jobs.JobView job = job(1, 60);
        LocalDate day = job.draft().firstDay();
        UUID tomas = person("Tomas Orrel");
        UUID teasel = build("Teasel", "thermal");
        Jobs.JobView two = flying(job, flight(day, null, null, null, null), flight(day, teasel, tomas, null, null));
        Chains.View chain = chains.view(two, Chains.WhatIf.NOTHING);
        assertThat(chain.lines()).isNotEmpty();
        UUID approval = chains.begin(two, chain.lines().get(0).request().id(), BY);
        assertThat(approvals.approval(approval).request().pilots())
                .contains("Tomas Orrel", job.row().pilotName());
        assertThat(approvals.approval(approval).request().aircraft()).hasSize(2);
    }

    @Test
    void wrongFlightsAreRefusedAndNothingIsStored() {
        Jobs.JobView job = job(1, 30);
        LocalDate day = job.draft().firstDay();
        assertThatThrownBy(() -> flying(job, PlannedFlight.on(day), PlannedFlight.on(day.plusDays(1))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("planned flight 2: that day is none of the job's");
        assertThat(jobs.jobUnchecked(job.id()).draft().flights()).isEmpty();
    }

    @Test
    void historySaysWhatFlightsWereAndTheyArePutBack() {
        Jobs.JobView job = job(1, 30);
        LocalDate day = job.draft().firstDay();
        UUID rufus = person("Rufus Caldervane");
        flying(job, flight(day, null, null, null, rufus));
        List<History.Entry> entries = history.of("job", job.id().toString()).entries();
        History.Change change = entries.get(0).changes().stream()
                .filter(c -> c.field().equals("Flights planned"))
                .findFirst()
                .orElseThrow();
        assertThat(change.before()).isEmpty();
        assertThat(change.after()).contains("Rufus Caldervane").contains("12").doesNotContain(rufus.toString());
        history.takeBack("job", job.id().toString(), entries.get(0).revision());
        assertThat(jobs.jobUnchecked(job.id()).draft().flights()).isEmpty();
        history.takeBack(
                "job",
                job.id().toString(),
                history.of("job", job.id().toString()).entries().get(0).revision());
        assertThat(jobs.jobUnchecked(job.id()).draft().flights()).containsExactly(flight(day, null, null, null, rufus));
    }

    @Test
    void savingTheSameFlightsAgainIsNoChange() {
        Jobs.JobView job = job(1, 30);
        Jobs.JobView once = flying(job, flight(job.draft().firstDay(), null, null, null, null));
        int before = history.of("job", job.id().toString()).entries().size();
        jobs.save(once.id(), once.version(), once.draft());
        assertThat(history.of("job", job.id().toString()).entries()).hasSize(before);
        assertThat(Map.of(
                        "flights", jobs.jobUnchecked(job.id()).draft().flights().size()))
                .containsEntry("flights", 1);
    }
}
