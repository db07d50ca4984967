package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.SelectOption;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.Jobs;
import yarrek.core.judging.PlannedFlight;

/** Flights planned one by one, as a manager plans them and a pilot reads them. */
class FlightsPlannedPagesTest extends BrowserTest {
    @Autowired
    Jobs jobs;

    private UUID job;

    @BeforeEach
    void aJobOfTwoDays() {
        JobDraft like = jobs.jobUnchecked(
                        UUID.fromString(id("select id from job where name = 'Field edge, drainage levels'")))
                .draft();
        LocalDate first = like.firstDay().plusDays(21);
        job = jobs.save(
                null,
                -1,
                like.with(new JobDraft.Anew(
                        "Two aircraft " + UUID.randomUUID(), first, first.plusDays(1), null, null, null, null, null)));
    }

    @AfterEach
    void cancelled() {
        jobs.setState(job, "CANCELLED");
    }

    private void openFlights() {
        page.navigate(address("/jobs/" + job + "/flights"));
    }

    private void choose(String field, String label) {
        page.selectOption("[name=" + field + "]", new SelectOption().setLabel(label));
    }

    @Test
    void severalFlightsArePlannedJudgedAndChanged() {
        signIn("manager");
        page.navigate(address("/jobs/" + job));
        assertThat(page.locator("#flights-planned")).containsText("One flight as the job says");
        page.click("text=Plan flights one by one");
        LocalDate first = jobs.jobUnchecked(job).draft().firstDay();
        page.fill("[name=day0]", first.toString());
        page.fill("[name=minutes0]", "14");
        page.fill("[name=alike0]", "4");
        page.fill("[name=day1]", first.plusDays(1).toString());
        page.fill("[name=minutes1]", "11 min");
        choose("buildId1", "Heath, standard");
        choose("pilotId1", "Tomas Orrel");
        choose("supervisedId1", "Idris Pennow");
        page.fill("[name=height1]", "40 m");
        page.fill("[name=purpose1]", "detail of the weir");
        page.click("text=Save the flights");
        Locator rows = page.locator("#flights-planned tbody tr");
        assertThat(rows).hasCount(5);
        assertThat(rows.nth(4)).containsText("Heath, standard");
        assertThat(rows.nth(4)).containsText("Idris Pennow");
        assertThat(rows.nth(0)).containsText("Bracken, standard");
        // a finding stands once, and says whose it is
        Locator release = page.locator("#f-HOUSE-PAPER-maintenanceRelease");
        assertThat(release.locator(".concerns")).containsText("flight 5: Heath, standard");
        page.click("text=Change the flights planned");
        page.fill("[name=day4]", "");
        page.fill("[name=minutes4]", "");
        page.fill("[name=height4]", "");
        page.fill("[name=purpose4]", "");
        choose("buildId4", "as the job");
        choose("pilotId4", "as the job");
        choose("supervisedId4", "nobody else");
        page.click("text=Save the flights");
        assertThat(rows).hasCount(4);
    }

    @Test
    void whatIsWrongIsToldAtItsFlightAndNothingIsLost() {
        signIn("manager");
        openFlights();
        LocalDate first = jobs.jobUnchecked(job).draft().firstDay();
        page.fill("[name=day0]", first.minusDays(1).toString());
        page.fill("[name=purpose0]", "too early");
        page.fill("[name=day1]", "when it is fine");
        page.click("text=Save the flights");
        assertThat(page.locator("#e-day1")).containsText("is not a date");
        page.fill("[name=day1]", first.toString());
        page.click("text=Save the flights");
        assertThat(page.locator("#e-day0")).hasText("that day is none of the job's");
        assertThat(page.locator("[name=purpose0]")).hasValue("too early");
        page.click("text=More rows");
        assertThat(page.locator("[name=purpose0]")).hasValue("too early");
        assertThat(jobs.jobUnchecked(job).draft().flights()).isEmpty();
    }

    @Test
    void whoeverSavesSecondSeesWhatTheOtherStored() {
        signIn("manager");
        openFlights();
        LocalDate first = jobs.jobUnchecked(job).draft().firstDay();
        Jobs.JobView now = jobs.jobUnchecked(job);
        jobs.save(job, now.version(), now.draft().saying("groundSpeedMps", null));
        page.fill("[name=day0]", first.toString());
        page.fill("[name=minutes0]", "9");
        page.click("text=Save the flights");
        assertThat(page.locator(".bad-note")).containsText("Somebody else saved this record");
        assertThat(page.locator("[name=minutes0]")).hasValue("9");
        page.click("text=Save the flights");
        assertThat(page.locator("#flights-planned tbody tr")).hasCount(1);
    }

    @Test
    void onAPhoneTheFlightsAreLinesAndAPilotReadsThem() {
        Jobs.JobView now = jobs.jobUnchecked(job);
        jobs.save(
                job,
                now.version(),
                now.draft().flying(List.of(PlannedFlight.on(now.draft().firstDay()))));
        use(ColorScheme.LIGHT, 390, 844);
        signIn("pilot");
        page.navigate(address("/jobs/" + job));
        assertThat(page.locator("#flights-planned")).containsText("Ailsa Fenwright");
        assertThat(page.locator("text=Change the flights planned")).hasCount(0);
        assertThat(page.evaluate("document.documentElement.scrollWidth")).isEqualTo(390);
    }

    @Test
    void daysCrewAndBuildsAreSaidOnOnePage() {
        signIn("manager");
        page.navigate(address("/jobs/" + job));
        page.click("text=hours by the day");
        page.fill("[name=from1]", "6:00");
        page.fill("[name=to1]", "8:30");
        choose("personId0", "Rufus Caldervane");
        choose("role0", "payload operator");
        page.fill("[name=day0]", "1 Jan 2031");
        page.locator("[name^=why]").first().fill("lighter, for the crowd");
        page.click("text=Save the days, crew and builds");
        assertThat(page.locator("#e-day0")).containsText("none of the job's");
        assertThat(page.locator("[name=from1]")).hasValue("6:00");
        page.fill("[name=day0]", "");
        page.click("text=Save the days, crew and builds");
        assertThat(page.locator("#flights-planned")).containsText("from 06:00 to 08:30");
        assertThat(page.locator("#flights-planned")).containsText("Rufus Caldervane, payload operator");
        assertThat(page.locator("#build")).containsText("lighter, for the crowd");
        page.click("text=hours by the day");
        assertThat(page.locator("[name=from1]")).hasValue("06:00");
        assertThat(page.locator("[name=from0]")).hasValue("");
    }
}
