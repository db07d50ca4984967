package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.ColorScheme;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.Jobs;
import yarrek.core.rulebook.FactValue;

/** Laying out the weeks, from choosing the jobs to having them planned as proposed. */
class LayOutPagesTest extends BrowserTest {
    @Autowired
    Jobs jobs;

    private LocalDate day;
    private UUID first;
    private UUID second;

    @BeforeEach
    void twoJobsOfOneCrewOnOneDay() {
        UUID like = UUID.fromString(id("select id from job where name = 'Peat bog grid, north'"));
        JobDraft bog = jobs.jobUnchecked(like).draft();
        day = bog.firstDay().plusDays(1);
        first = jobs.save(null, -1, named(bog.on(day, day), "Bog, upper edge"));
        second = jobs.save(null, -1, named(bog.on(day, day), "Bog, lower edge"));
    }

    private static JobDraft named(JobDraft d, String name) {
        return d.with(new JobDraft.Anew(name, null, null, null, null, null, null, null));
    }

    @AfterEach
    void gone() {
        jobs.setState(first, "CANCELLED");
        jobs.setState(second, "CANCELLED");
        jdbc.sql("update job set name = concat(name, ' ', id) where id in (:a, :b)")
                .param("a", first)
                .param("b", second)
                .update();
    }

    @Test
    void twoJobsOfOneCrewAreLaidApartAndPlannedSo() {
        signIn("manager");
        page.navigate(address("/board/lay-out?from=" + day + "&weeks=2"));
        page.locator("#choose [name=job]").all().forEach(Locator::uncheck);
        page.getByLabel("lay out Bog, upper edge").check();
        page.getByLabel("lay out Bog, lower edge").check();
        page.getByText("Propose", new com.microsoft.playwright.Page.GetByTextOptions().setExact(true))
                .click();
        Locator proposal = page.locator("#proposal");
        assertThat(proposal).containsText("ways judged");
        assertThat(proposal.locator("svg.board")).hasCount(2);
        assertThat(proposal.locator("tbody tr")).hasCount(2);
        assertThat(proposal.locator("tbody")).containsText("Bog, upper edge");
        assertThat(proposal.locator("p").first()).containsText("2 of 2 jobs may go as proposed");
        assertThat(proposal.locator("[name=line]").first()).isChecked();
        proposal.getByText("Plan what is ticked").click();
        assertThat(page.locator(".note").first()).containsText("planned as proposed");
        JobDraft a = jobs.jobUnchecked(first).draft();
        JobDraft b = jobs.jobUnchecked(second).draft();
        assertThat(List.of(a.firstDay(), a.pilotId(), a.buildId()))
                .isNotEqualTo(List.of(b.firstDay(), b.pilotId(), b.buildId()));
    }

    @Test
    void whatWasChangedMeanwhileIsNotTakenAndAPilotHasNoSay() {
        JobDraft d = jobs.jobUnchecked(first).draft();
        jobs.save(first, jobs.jobUnchecked(first).version(), d.saying("purpose", new FactValue.Word("recreation")));
        signIn("manager");
        page.navigate(address("/board/lay-out"));
        Object status = page.evaluate("""
                async line => {
                  const form = new URLSearchParams({ line, from: '2027-01-01', weeks: '2',
                    _csrf: document.querySelector('[name=_csrf]').value });
                  const r = await fetch('/board/lay-out', { method: 'POST', body: form });
                  return await r.text();
                }""", first + " 0 " + d.pilotId() + " " + d.buildId() + " " + day.plusDays(1));
        assertThat(status.toString()).contains("nothing was kept, look again");
        assertThat(jobs.jobUnchecked(first).draft().firstDay()).isEqualTo(day);
        use(ColorScheme.LIGHT, 390, 844);
        signIn("pilot");
        assertThat(page.navigate(address("/board/lay-out")).status()).isEqualTo(403);
    }
}
