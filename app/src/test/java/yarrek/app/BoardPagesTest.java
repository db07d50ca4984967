package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.SelectOption;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.UUID;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.Jobs;

/** Who and what is spoken for, and moving a job there. */
class BoardPagesTest extends BrowserTest {
    @Autowired
    Jobs jobs;

    private UUID one;
    private UUID other;
    private LocalDate day;

    @BeforeEach
    void twoJobsOfOnePilotOnOneDay() {
        JobDraft like = jobs.jobUnchecked(
                        UUID.fromString(id("select id from job where name = 'Field edge, drainage levels'")))
                .draft();
        // a few days after a Tuesday are shown by the same board, which begins on a Monday
        day = like.firstDay().plusDays(200).with(TemporalAdjusters.next(DayOfWeek.TUESDAY));
        one = copy(like, "Board one ");
        other = copy(like, "Board two ");
    }

    private UUID copy(JobDraft like, String name) {
        return jobs.save(
                null,
                -1,
                like.with(new JobDraft.Anew(name + UUID.randomUUID(), day, day, null, null, null, null, null)));
    }

    @AfterEach
    void cancelled() {
        jobs.setState(one, "CANCELLED");
        jobs.setState(other, "CANCELLED");
    }

    private void openBoard(int weeks) {
        page.navigate(address("/board?weeks=" + weeks + "&from=" + day));
    }

    @Test
    void aClashIsSeenAndMovedAway() {
        signIn("manager");
        openBoard(2);
        assertThat(page.locator(".head span").first()).containsText(Pattern.compile("2 jobs, [23] clashes"));
        assertThat(page.locator("svg.board .knot").first()).isVisible();
        Locator row = page.locator("tr", new Page.LocatorOptions().setHasText("Board two"));
        assertThat(row.first()).containsText("Board one");
        page.selectOption("[name=job]", new SelectOption().setValue(other.toString()));
        page.fill("[name=days]", "3");
        page.locator("#move-form [name=days]").press("Enter");
        assertThat(page.locator("#move-look")).containsText("Would vanish");
        assertThat(page.locator("#move-look")).containsText("Pilot free in these hours");
        page.click("text=Move the job so");
        assertThat(page.locator(".head span").first()).containsText("2 jobs, 0 clashes");
        assertThat(jobs.jobUnchecked(other).draft().firstDay()).isEqualTo(day.plusDays(3));
        page.click("button:has-text('Undo')");
        page.waitForURL(Pattern.compile("/jobs/"));
        assertThat(jobs.jobUnchecked(other).draft().firstDay()).isEqualTo(day);
    }

    @Test
    void keysGoFromStitchToStitchAndTakeAJobToTheForm() {
        signIn("manager");
        openBoard(2);
        page.locator("[data-board]").focus();
        page.keyboard().press("ArrowDown");
        assertThat(page.locator("a.stitch:focus")).hasCount(1);
        String first = page.locator("a.stitch:focus").getAttribute("data-strand");
        page.keyboard().press("ArrowDown");
        assertThat(page.locator("a.stitch:focus").getAttribute("data-strand")).isNotEqualTo(first);
        String job = page.locator("a.stitch:focus").getAttribute("data-job");
        page.keyboard().press("s");
        assertThat(page.locator("#move-form [name=days]")).isFocused();
        assertThat(page.locator("#move-form [name=job]")).hasValue(job);
        page.keyboard().press("ArrowRight");
        page.keyboard().press("ArrowRight");
        assertThat(page.locator("#move-form [name=days]")).hasValue("2");
        assertThat(page.locator("#move-look")).containsText("becomes");
        page.keyboard().type("400");
        page.keyboard().press("Enter");
        assertThat(page.locator("#move-look .bad-note")).containsText("a whole number of days");
    }

    @Test
    void theSameStandsInATableAndFitsAPhone() {
        use(ColorScheme.DARK, 390, 844);
        signIn("manager");
        for (int weeks : new int[] {2, 6, 13}) {
            openBoard(weeks);
            assertThat(page.locator("table.stack tbody tr").first()).isVisible();
            assertThat(page.evaluate("document.documentElement.scrollWidth")).isEqualTo(390);
        }
        page.navigate(address("/board?rows=sites&from=" + day));
        assertThat(page.locator("svg.board")).containsText("Field edge");
    }

    @Test
    void aPilotSeesTheOwnStrandAlone() {
        signIn("pilot");
        page.navigate(address("/board"));
        assertThat(page.locator("svg.board")).containsText("Ailsa Fenwright");
        assertThat(page.locator("svg.board")).not().containsText("Hanne Loxby");
        assertThat(page.locator("#move")).hasCount(0);
    }

    @Test
    void weeksWithoutAJobSaySo() {
        signIn("manager");
        page.navigate(address("/board?weeks=2&from=" + day.plusYears(3)));
        assertThat(page.locator(".empty").first()).containsText("No job in these weeks");
    }

    /** No label lies over another, and none leaves the sheet. */
    @Test
    void headsDoNotMeet() {
        signIn("manager");
        for (int weeks : new int[] {2, 6, 13}) {
            page.navigate(address("/board?weeks=" + weeks));
            Object meets = page.evaluate("""
                    () => {
                      const sheet = document.querySelector('svg.board').getBoundingClientRect();
                      const boxes = [...document.querySelectorAll('svg.board .head text')].map(t => t.getBoundingClientRect());
                      const meet = (a, b) => a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 2
                        && b.top < a.bottom - 2;
                      return boxes.filter((a, i) => a.right > sheet.right + 1
                        || boxes.some((b, k) => k < i && meet(a, b))).length;
                    }""");
            assertThat(meets).as(weeks + " weeks").isEqualTo(0);
        }
    }

    @Test
    void whoIsAwayIsHatchedAndInTheWayOfJobs() {
        signIn("manager");
        openBoard(2);
        page.click("#away button:has-text('Keep')");
        assertThat(page.locator("main")).containsText("choose who or what is away");
        openBoard(2);
        page.selectOption("#away [name=whose]", new SelectOption().setLabel("Ailsa Fenwright"));
        page.fill("#away [name=first]", day.toString());
        page.fill("#away [name=last]", day.minusDays(1).toString());
        page.click("#away button:has-text('Keep')");
        assertThat(page.locator("main")).containsText("the last day is before the first");
        assertThat(page.locator("#away [name=first]")).hasValue(day.toString());
        page.fill("#away [name=last]", day.plusDays(1).toString());
        page.fill("#away [name=why]", "a course");
        page.click("#away button:has-text('Keep')");
        assertThat(page.locator("main")).containsText("jobs of those days are judged again");
        assertThat(page.locator("svg.board .away")).hasCount(1);
        assertThat(page.locator("#away table")).containsText("a course");
        page.navigate(address("/jobs/" + one));
        assertThat(page.locator("#findings")).containsText("Ailsa Fenwright is away");
        assertThat(page.locator("#findings")).not().containsText("a course");
        openBoard(2);
        page.click("#away button:has-text('Take away')");
        assertThat(page.locator("svg.board .away")).hasCount(0);
        page.navigate(address("/jobs/" + one));
        assertThat(page.locator("#findings")).not().containsText("Ailsa Fenwright is away");
    }
}
