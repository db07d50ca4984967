package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import yarrek.app.approvals.Approvals;
import yarrek.app.jobs.Jobs;
import yarrek.core.approval.ApprovalState;
import yarrek.core.approval.Terms;
import yarrek.core.rulebook.Verdict;

/** One letter for many days, aircraft and jobs. */
class OneLetterTest extends OnJobs {
    private final Instant now = Instant.now();

    private static int letters;

    private LocalDate today() {
        return LocalDate.now(ZoneOffset.UTC);
    }

    /** Terms that reach over the days of both jobs, where and how the first was asked for. */
    private Terms over(UUID first, Jobs.JobView from, Jobs.JobView to, String weekly) {
        Terms asked = approvals.approval(first).request();
        return new Terms(
                from.windows().get(0).start().minusSeconds(3600),
                to.windows().get(to.windows().size() - 1).end().plusSeconds(3600),
                asked.area(),
                asked.ceilingM(),
                asked.ceilingAsWritten(),
                asked.aircraft(),
                asked.pilots(),
                asked.purpose(),
                List.of(),
                Set.of(),
                null,
                List.of(),
                weekly);
    }

    private Approvals.Grant letter(Terms terms, Jobs.JobView job) {
        return new Approvals.Grant(
                "LET-" + ++letters, terms, "Call before take-off.", job.site().zone());
    }

    private Verdict zone(Jobs.JobView job) {
        return jobs.jobUnchecked(job.id()).assessment().findings().stream()
                .filter(f -> f.ruleId().equals("EU-ZONE-AUTH"))
                .findFirst()
                .orElseThrow()
                .verdict();
    }

    private ApprovalState state(UUID id) {
        return approvals.approval(id).state();
    }

    @Test
    void oneLetterAnswersTheDaysOfTwoJobsAndLiftsTheZoneForBoth() {
        Jobs.JobView one = job(2, 60);
        Jobs.JobView two = job(1, 60);
        List<UUID> all =
                List.of(begun(one, "zoneEU@TAR-AD#1"), begun(one, "zoneEU@TAR-AD#2"), begun(two, "zoneEU@TAR-AD#1"));
        assertThat(approvals.besides(all.get(0), today()).stream().map(Approvals.ApprovalView::id))
                .contains(all.get(1), all.get(2));
        assertThat(zone(two)).isEqualTo(Verdict.BREACHED);
        approvals.move(all, ApprovalState.SENT, now, "", BY);
        assertThat(all).allSatisfy(a -> assertThat(state(a)).isEqualTo(ApprovalState.SENT));
        approvals.grant(all, letter(over(all.get(0), one, two, ""), one), now, BY);
        assertThat(all).allSatisfy(a -> assertThat(state(a)).isEqualTo(ApprovalState.GRANTED));
        assertThat(zone(one)).isEqualTo(Verdict.MET);
        assertThat(zone(two)).isEqualTo(Verdict.MET);
        // amended it is amended for all of them
        assertThat(approvals.besides(all.get(2), today()).stream().map(Approvals.ApprovalView::id))
                .contains(all.get(0), all.get(1));
    }

    @Test
    void aLetterOnFileAnswersALaterJobAndOneOfAnotherZoneDoesNot() {
        Jobs.JobView one = job(1, 60);
        Jobs.JobView two = job(1, 60);
        UUID first = begun(one, "zoneEU@TAR-AD#1");
        Approvals.Grant g = letter(over(first, one, two, ""), one);
        approvals.grant(first, g, now, BY);
        UUID later = begun(two, "zoneEU@TAR-AD#1");
        assertThat(approvals.lettersFor(later, today()))
                .extracting(Approvals.ApprovalView::reference)
                .contains(g.reference());
        UUID unlock = begun(two, "unlock#1");
        assertThat(approvals.lettersFor(unlock, today())).isEmpty();
        assertThat(approvals.besides(unlock, today())).noneMatch(x -> x.id().equals(later));
    }

    @Test
    void termsThatEndBeforeALaterJobAreNotOfferedForIt() {
        Jobs.JobView one = job(1, 60);
        UUID first = begun(one, "zoneEU@TAR-AD#1");
        Approvals.Grant g = letter(over(first, one, one, ""), one);
        approvals.grant(first, g, now, BY);
        UUID later = begun(job(1, 60), "zoneEU@TAR-AD#1");
        assertThat(approvals.lettersFor(later, today()))
                .extracting(Approvals.ApprovalView::reference)
                .doesNotContain(g.reference());
    }

    @Test
    void oneNumberWithTwoTextsIsRefusedAcrossJobsAndNothingIsHalfGranted() {
        Jobs.JobView one = job(1, 60);
        Jobs.JobView two = job(1, 60);
        UUID a = begun(one, "zoneEU@TAR-AD#1");
        UUID b = begun(two, "zoneEU@TAR-AD#1");
        Approvals.Grant g = letter(over(a, one, one, ""), one);
        approvals.grant(a, g, now, BY);
        Approvals.Grant other = new Approvals.Grant(
                g.reference(), over(a, one, two, ""), "", one.site().zone());
        assertThatThrownBy(() -> approvals.grant(b, other, now, BY)).hasMessageContaining("contradict each other");
        assertThat(state(b)).isEqualTo(ApprovalState.PREPARING);
        approvals.move(b, ApprovalState.WITHDRAWN, now, "", BY);
        UUID c = begun(two, "unlock#1");
        assertThatThrownBy(() -> approvals.grant(List.of(c, b), letter(g.terms(), two), now, BY))
                .hasMessageContaining("withdrawn");
        assertThat(state(c)).isEqualTo(ApprovalState.PREPARING);
    }

    @Test
    void amendedForBothTheTextsAgreeAgain() {
        Jobs.JobView one = job(2, 60);
        UUID a = begun(one, "zoneEU@TAR-AD#1");
        UUID b = begun(one, "zoneEU@TAR-AD#2");
        Approvals.Grant g = letter(over(a, one, one, ""), one);
        approvals.grant(List.of(a, b), g, now, BY);
        Approvals.Grant weekly = new Approvals.Grant(
                g.reference(),
                over(a, one, one, "mon-sun 06:00-20:00"),
                "",
                one.site().zone());
        assertThatThrownBy(() -> approvals.grant(a, weekly, now, BY)).hasMessageContaining("enter it for both");
        approvals.grant(List.of(a, b), weekly, now, BY);
        assertThat(state(b)).isEqualTo(ApprovalState.AMENDED);
        assertThat(approvals.approval(b).terms().weekly()).isEqualTo("mon-sun 06:00-20:00");
    }

    @Test
    void aLetterIsKeptWithEveryRequestItIsAbout() {
        Jobs.JobView one = job(2, 60);
        List<UUID> both = List.of(begun(one, "zoneEU@TAR-AD#1"), begun(one, "zoneEU@TAR-AD#2"));
        approvals.keep(both, Approvals.LetterKind.LETTER_OUT, now, "Two mornings, please.", "", null, BY);
        assertThat(both)
                .allSatisfy(a ->
                        assertThat(approvals.letters(a)).anyMatch(l -> l.text().equals("Two mornings, please.")));
        assertThatThrownBy(() -> approvals.keep(both, Approvals.LetterKind.NOTE, now, " ", "", null, BY))
                .hasMessageContaining("neither a text nor a file");
    }

    /** However many requests a letter answers, its granter has decided once. */
    @Test
    void oneLetterIsOneDecisionInTheHistory() {
        Jobs.JobView one = job(3, 60);
        List<UUID> all =
                List.of(begun(one, "zoneEU@TAR-AD#1"), begun(one, "zoneEU@TAR-AD#2"), begun(one, "zoneEU@TAR-AD#3"));
        Approvals.ApprovalView a = approvals.approval(all.get(0));
        int before =
                approvals.histories().of(a.kind(), a.granter()).orElseThrow().n();
        approvals.move(all, ApprovalState.SENT, now.minusSeconds(86_400), "", BY);
        approvals.grant(all, letter(over(all.get(0), one, one, ""), one), now, BY);
        assertThat(approvals.histories().of(a.kind(), a.granter()).orElseThrow().n())
                .isEqualTo(before + 1);
    }
}
