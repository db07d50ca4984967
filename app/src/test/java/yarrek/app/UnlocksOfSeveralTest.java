package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import yarrek.app.approvals.Approvals;
import yarrek.app.chains.Chains;
import yarrek.app.jobs.Jobs;
import yarrek.core.judging.PlannedFlight;

/** A maker's unlock is of one aircraft: a job that flies several asks for one each. */
class UnlocksOfSeveralTest extends OnJobs {
    private UUID build(String aircraft) {
        return jdbc.sql("select b.id from build b join aircraft a on a.id = b.aircraft_id where a.name = ? limit 1")
                .param(aircraft)
                .query(UUID.class)
                .single();
    }

    private static PlannedFlight flight(LocalDate day, UUID build) {
        return new PlannedFlight(day, null, build, null, null, null, null, null, null, null, 9.0, null, "");
    }

    private List<String> unlocks(Jobs.JobView job) {
        return chains.view(job, Chains.WhatIf.NOTHING).lines().stream()
                .map(l -> l.request().id())
                .filter(id -> id.startsWith("unlock"))
                .toList();
    }

    private String serials(UUID approval) {
        return String.join(" ", approvals.approval(approval).request().aircraft());
    }

    @Test
    void eachAircraftHasItsOwnAndIsNamed() {
        Jobs.JobView job = job(1, 0);
        LocalDate day = job.draft().firstDay();
        assertThat(unlocks(job)).containsExactly("unlock#1");
        UUID own = begun(job, "unlock#1");
        String first = job.build().aircraft().serial();
        assertThat(serials(own)).isEqualTo(first);

        UUID heath = build("Heath");
        Jobs.JobView two = jobs.jobUnchecked(jobs.save(
                job.id(), job.version(), job.draft().flying(List.of(flight(day, null), flight(day, heath)))));
        List<String> both = unlocks(two);
        assertThat(both).hasSize(2);
        List<Chains.Line> lines = chains.view(two, Chains.WhatIf.NOTHING).lines().stream()
                .filter(l -> l.request().id().startsWith("unlock"))
                .toList();
        // what was begun is of the aircraft that it names, and stays so
        assertThat(lines)
                .filteredOn(l -> l.onFile() != null)
                .singleElement()
                .satisfies(l -> assertThat(l.onFile().id()).isEqualTo(own));
        Chains.Line open =
                lines.stream().filter(l -> l.onFile() == null).findFirst().orElseThrow();
        assertThat(open.request().title()).contains("Heath");
        Approvals.ApprovalView other =
                approvals.approval(begun(two, open.request().id()));
        assertThat(String.join(" ", other.request().aircraft()))
                .isNotEqualTo(first)
                .isNotEmpty();
        assertThat(chains.view(two, Chains.WhatIf.NOTHING).lines())
                .filteredOn(l -> l.request().id().startsWith("unlock"))
                .allMatch(l -> l.onFile() != null);
    }

    @Test
    void anUnlockOfAnAircraftThatNoLongerFliesAnswersNothing() {
        Jobs.JobView job = job(1, 0);
        UUID own = begun(job, "unlock#1");
        Jobs.JobView swapped =
                jobs.jobUnchecked(jobs.save(job.id(), job.version(), job.draft().with(build("Heath"))));
        Chains.View chain = chains.view(swapped, Chains.WhatIf.NOTHING);
        assertThat(chain.lines())
                .filteredOn(l -> l.request().id().equals("unlock#1"))
                .singleElement()
                .satisfies(l -> assertThat(l.onFile()).isNull());
        assertThat(chain.beside()).extracting(Approvals.ApprovalView::id).contains(own);
    }
}
