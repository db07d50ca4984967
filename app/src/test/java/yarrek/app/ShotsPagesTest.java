package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.options.ColorScheme;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.jobs.Jobs;
import yarrek.core.judging.Shot;

/** Shots of a job from the empty list to what packs and hours are enough for, and the figures of the house behind it. */
class ShotsPagesTest extends BrowserTest {
    @Autowired
    Jobs jobs;

    private String job() {
        return id("select id from job where name = 'Roost watch at dusk'");
    }

    @Test
    void shotsAreWrittenReckonedAndReadOnThePhone() {
        signIn("manager");
        page.navigate(address("/jobs/" + job() + "/shots"));
        assertThat(page.locator(".empty")).containsText("No shot on the list");
        page.click("text=write the first");
        String[][] rows = {{"wide", "WIDE", "6"}, {"low pass", "LOW", "5"}, {"detail", "DETAIL", "-7"}};
        for (int i = 0; i < rows.length; i++) {
            page.fill("[name=what" + i + "]", rows[i][0]);
            page.selectOption("[name=kind" + i + "]", rows[i][1]);
            page.fill("[name=minutes" + i + "]", rows[i][2]);
        }
        page.fill("[name=height0]", "300 ft");
        page.click("text=Save the shots");
        assertThat(page.locator("#minutes2-error, .bad").first()).containsText("0.1");
        assertThat(page.locator("[name=what0]")).hasValue("wide");
        page.fill("[name=minutes2]", "7");
        page.click("text=Save the shots");
        assertThat(page.locator("main")).containsText("3 shots, 18 min in the air");
        assertThat(page.locator("main")).containsText("none is reveal");
        assertThat(page.locator("tbody").first()).containsText("91.4 m");
        // 22 min less 30 % less 2.4 min are 13 min a pack: the third does not fit the first pack
        page.fill("[name=endurance]", "22");
        page.fill("[name=packs]", "1");
        page.click("text=Reckon");
        assertThat(page.locator("#enough")).containsText("2 of 3 shots");
        assertThat(page.locator("#enough")).containsText("saved by one more pack");
        page.fill("[name=packs]", "x");
        page.click("text=Reckon");
        assertThat(page.locator("#enough .bad")).isVisible();
        page.click("nav >> text=Jobs");
        page.navigate(address("/history/job/" + job()));
        assertThat(page.locator("main")).containsText("Shots");
        use(ColorScheme.LIGHT, 390, 844);
        signIn("manager");
        page.navigate(address("/jobs/" + job() + "/shots"));
        assertThat(page.evaluate("document.documentElement.scrollWidth <= 390")).isEqualTo(true);
    }

    @Test
    void whatTheHouseReckonsWithIsItsOwnAndJudgedByAgain() {
        UUID with = UUID.fromString(id("select id from job where name = 'Bog gas survey'"));
        String before = schedule(with);
        signIn("manager");
        page.navigate(address("/office/house"));
        assertThat(page.locator("main")).containsText("usually 20 min");
        page.fill("[name='day.setUp']", "900");
        page.click("#main-form button");
        assertThat(page.locator("main")).containsText("from 0 to 480 min");
        page.fill("[name='day.setUp']", "400");
        page.click("#main-form button");
        assertThat(page.locator(".note").first()).containsText("judged again");
        assertThat(schedule(with)).isNotEqualTo(before).contains("BREACHED");
        page.fill("[name='day.setUp']", "");
        page.click("#main-form button");
        assertThat(page.locator("[name='day.setUp']")).hasValue("20");
        assertThat(schedule(with)).isEqualTo(before);
    }

    private String schedule(UUID job) {
        return jobs.jobUnchecked(job).assessment().findings().stream()
                .filter(f -> f.ruleId().equals("HOUSE-FITS-HOURS"))
                .map(Object::toString)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aRepeatedJobKeepsItsShots() {
        UUID of = UUID.fromString(id("select id from job where name = 'Peat bog grid, north'"));
        jobs.saveShots(
                of,
                jobs.jobUnchecked(of).version(),
                java.util.List.of(new Shot(Shot.Kind.WIDE, "bog", 30.0, null, 4.0, "", 25.0, "", "")));
        signIn("manager");
        page.navigate(address("/jobs/" + of + "/repeat"));
        page.fill(
                "[name=firstDay]",
                String.valueOf(jobs.jobUnchecked(of).draft().firstDay().plusDays(90)));
        page.fill("[name=name]", "Bog again");
        page.click("#main-form button");
        UUID again = UUID.fromString(id("select id from job where name = 'Bog again'"));
        assertThat(jobs.shots(again)).isEqualTo(jobs.shots(of)).hasSize(1);
        jobs.setState(again, "CANCELLED");
    }
}
