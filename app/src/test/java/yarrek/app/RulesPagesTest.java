package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.SelectOption;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.work.Work;
import yarrek.formats.rules.RulePackReader;

/** Rules of one's own, departures, looking ahead, and versions of the law, each as a manager goes. */
class RulesPagesTest extends BrowserTest {
    @Autowired
    Work work;

    /** The laws stay as they shipped for the other tests. */
    @AfterEach
    void forgetVersions() {
        jdbc.sql("delete from rule_pack").update();
        changedByAnotherNode(jdbc, "rules");
    }

    private void plan(String name, String height) {
        page.navigate(address("/jobs/new"));
        page.fill("[name=name]", name);
        page.selectOption("[name=siteId]", new SelectOption().setLabel("Lowmere bog"));
        page.fill("[name=firstDay]", "+6 days");
        page.fill("[name=from]", "10");
        page.fill("[name=to]", "12");
        page.selectOption("[name=category]", "open");
        page.selectOption("[name=subcategory]", "A3");
        page.fill("[name=height]", height);
        page.click("button:has-text('Save')");
        page.waitForURL("**/jobs/*-*");
    }

    private Locator rung(String rule) {
        return page.locator("#f-" + rule);
    }

    /** One page for all that is done in the background: how far, what failed and why. */
    @Test
    void aRuleLeadsToTheJobsItSpeaksOf() {
        signIn("manager");
        page.navigate(address("/rulebook?q=EU-INSURANCE-AMOUNT"));
        page.locator("table.rules a:has-text('where it applies')").first().click();
        assertThat(page.locator("h1")).hasText("Where a rule applies");
        String planned =
                "select count(*) from job j join finding f on f.subject_id = j.id join kept_words w on w.id = f.words_id"
                        + " where w.rule_id = 'EU-INSURANCE-AMOUNT' and j.state = 'PLANNED' and j.last_day >= current_date";
        assertThat(page.locator("h2").first()).hasText("Planned jobs, " + id(planned));
        page.locator("table a").first().click();
        assertThat(page.locator("main")).containsText("Amount of the liability cover");
    }

    @Test
    void workInTheBackgroundSaysHowItWent() {
        List<UUID> some = List.of(UUID.randomUUID(), UUID.randomUUID(), UUID.randomUUID());
        TryingWorker.BAD.add(some.get(1));
        work.begin("try", "looked at", some);
        signIn("manager");
        page.navigate(address("/office"));
        page.click("a:has-text('work in the background')");
        Locator row = page.locator("tr:has-text('looked at')");
        await().atMost(Duration.ofSeconds(60)).until(() -> {
            page.reload();
            return row.locator(".st-notch").count() == 1;
        });
        assertThat(row).containsText("2 of 3");
        assertThat(row.locator(".st")).hasCount(1);
        row.locator("summary").click();
        assertThat(row).containsText("this one cannot be done");
        assertThat(page.locator("main")).containsText("what passes with time");
    }

    @Test
    void anOwnRuleIsWrittenBindsTheJobAndIsDepartedFromWithAReason() {
        signIn("manager");
        plan("Reeds by hand", "60 m");
        String job = page.url();
        page.navigate(address("/rulebook/own/new"));
        page.fill("[name=title]", "Low over the reeds");
        page.fill("[name=id]", "HOUSE-REEDS");
        page.locator("#lines-r [name='r.fact']").selectOption("heightAboveGroundM");
        page.locator("#lines-r [name='r.op']").selectOption(new SelectOption().setLabel("at most"));
        page.locator("#lines-r [name='r.value']").fill("40");
        page.fill("[name=cite]", "House limit 12");
        page.fill("[name=remedy]", "Fly at 40 m or lower.");
        page.locator("[name=remedy]").blur();
        assertThat(page.locator("#live")).containsText("at most 40 m");
        page.click("button:has-text('Save')");
        assertThat(page.locator("table").first()).containsText("Low over the reeds");

        page.navigate(job);
        assertThat(rung("HOUSE-REEDS")).containsText("60 m, at most 40 m: 20 m beyond");
        rung("HOUSE-REEDS").locator("summary").first().click();
        rung("HOUSE-REEDS").locator("[name=reason]").fill("Reeds are cut, warden agreed on the telephone.");
        rung("HOUSE-REEDS").locator("button:has-text('Record the departure')").click();
        assertThat(page.locator("main")).containsText("Reeds are cut, warden agreed");
        assertThat(rung("HOUSE-REEDS")).containsText("departure recorded");

        page.navigate(address("/rulebook/own"));
        page.click("a:has-text('Low over the reeds')");
        page.click("button:has-text('take it away')");
        assertThat(page.locator("h1")).hasText("Own rules");
        page.click(".undo button");
        page.navigate(job);
        assertThat(rung("HOUSE-REEDS")).hasCount(1);
        page.navigate(address("/rulebook/own"));
        page.click("a:has-text('Low over the reeds')");
        page.click("button:has-text('take it away')");
        assertThat(page.locator("h1")).hasText("Own rules");
        page.navigate(job);
        assertThat(rung("HOUSE-REEDS")).hasCount(0);
    }

    @Test
    void aLawIsNotDepartedFromAndAnUnfinishedRuleStoresNothing() {
        signIn("manager");
        plan("Too high by far", "130 m");
        Locator law = page.locator("details.rung:has-text('stops the job')").first();
        law.locator("summary").first().click();
        assertThat(law).containsText("can be covered by an approval, never departed from");
        assertThat(law.locator("[name=reason]")).hasCount(0);

        page.navigate(address("/rulebook/own/new"));
        page.fill("[name=title]", "Half a rule");
        page.click("button:has-text('Save')");
        assertThat(page.locator(".bad-note")).containsText("Nothing was stored yet");
        assertThat(page.locator("[name=title]")).hasValue("Half a rule");
        assertThat(jdbc.sql("select count(*) from own_rule where yaml like '%Half a rule%'")
                        .query(Long.class)
                        .single())
                .isZero();
    }

    @Test
    void whatIfShowsWhatWouldChangeAndWhatWouldMakeItClean() {
        signIn("manager");
        plan("What if it were higher", "100 m");
        page.locator("#whatif-panel").scrollIntoViewIfNeeded();
        page.locator("#whatif [name=raise]").fill("30 m");
        page.locator("#whatif button").click();
        assertThat(page.locator("#whatif-panel .look")).containsText("Would appear");
        assertThat(page.locator("#whatif-panel .look")).containsText("130 m, at most 120 m: 10 m beyond");
        page.locator("#whatif [name=raise]").fill("ten");
        page.locator("#whatif button").click();
        assertThat(page.locator("#whatif-panel .bad-note")).containsText("a length such as 120");

        page.navigate(address("/jobs/" + id("select id from job where name = 'Mast inspection'")));
        page.click("summary:has-text('what would make this job clean?')");
        assertThat(page.locator("table.clean")).containsText("Remote identification active");
        assertThat(page.locator("table.clean")).containsText("yes");
    }

    @Test
    void anAnsweredQuestionIsNotAskedAgain() {
        signIn("manager");
        plan("Questions first", "50 m");
        Locator question = page.locator(".question").first();
        question.waitFor();
        String asked = question.locator("label").first().locator("b").innerText();
        Locator select = page.locator(".question:has(option:text-is('yes'))").first();
        String label = select.locator("label b").innerText();
        select.locator("select").first().selectOption("yes");
        page.click("button:has-text('Save the answers')");
        page.waitForURL("**/jobs/**");
        page.locator("summary:has-text('said so far')").click();
        assertThat(page.locator("#questions details")).containsText("yes");
        assertThat(page.locator(".question label b", new Page.LocatorOptions().setHasText(label)))
                .hasCount(0);
        assertThat(asked).isNotEmpty();
    }

    @Test
    void theCategoryPageSaysWhatLimits() {
        signIn("manager");
        page.navigate(address("/rulebook/category"));
        page.selectOption(
                "[name=build]",
                id(
                        "select b.id from build b join aircraft a on a.id = b.aircraft_id where a.name = 'Thrift' and b.name = 'light'"));
        page.selectOption("[name=site]", new SelectOption().setLabel("Lowmere bog"));
        page.click("main button:has-text('Try')");
        assertThat(page.locator("table.fits")).containsText("A1");
        assertThat(page.locator("table.fits")).containsText("A3");
        assertThat(page.locator(".mass-figure")).hasText("249.4 g");
        assertThat(page.locator("main .note")).containsText("counts as 260 g (declared");
    }

    @Test
    void aNewVersionOfTheLawShowsWhatItChangesAndIsAdoptedFromADay() {
        signIn("manager");
        plan("Before the law changes", "100 m");
        String job = page.url();
        String text = RulePackReader.shippedText("eu.yaml")
                .replaceFirst("version: [0-9-]+", "version: 2027-01-1")
                .replace("{fact: heightAboveSurfaceM, atMost: 120}", "{fact: heightAboveSurfaceM, atMost: 90}");
        page.navigate(address("/rulebook/packs"));
        page.setInputFiles(
                "[name=file]",
                new FilePayload("eu-2027.yaml", "application/yaml", text.getBytes(StandardCharsets.UTF_8)));
        page.click("button:has-text('Bring it in')");
        assertThat(page.locator("h1")).containsText("2027-01-1");
        assertThat(page.locator("main")).containsText("Before the law changes");
        assertThat(page.locator("main")).containsText("at most 90 m");
        page.navigate(job);
        assertThat(page.locator("#findings")).not().containsText("at most 90 m: 10 m beyond");

        page.navigate(address("/rulebook/packs"));
        page.click("a:has-text('what it changes')");
        page.fill("#adopt", "+2 days");
        page.click("button:has-text('Adopt it')");
        page.waitForURL("**/rulebook");
        page.navigate(job);
        assertThat(page.locator("#findings")).containsText("100 m, at most 90 m: 10 m beyond");
        // later days only: the law of the day judges
        page.navigate(address("/rulebook/packs"));
        assertThat(page.locator("main")).containsText("adopted from");
        assertThat(page.locator("a:has-text('what it changes')")).hasCount(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "fact: heightAboveSurfaceM, atMost: 120|fact: heightAboveTheMoon, atMost: 120|heightAboveTheMoon",
                "massClasses:|massClasses: [|line",
                "pack: EU|pack: EU\\nrulez: 1|rulez"
            })
    void aBrokenPackFileIsToldWithLineAndChangesNothing(String from, String to, String told) {
        signIn("manager");
        page.navigate(address("/rulebook/packs"));
        String text = RulePackReader.shippedText("eu.yaml")
                .replaceFirst("version: [0-9-]+", "version: 2027-02-1")
                .replace(from, to.replace("\\n", "\n"));
        page.setInputFiles(
                "[name=file]",
                new FilePayload("eu-broken.yaml", "application/yaml", text.getBytes(StandardCharsets.UTF_8)));
        page.click("button:has-text('Bring it in')");
        assertThat(page.locator(".bad-note")).containsText("eu-broken.yaml, line");
        assertThat(page.locator(".bad-note")).containsText(told);
        assertThat(page.locator(".bad-note")).containsText("Nothing was changed");
        assertThat(jdbc.sql("select count(*) from rule_pack").query(Long.class).single())
                .isZero();
    }

    @Test
    void theRulebookIsSearchedByQuantityAndComparedAcrossLaws() {
        signIn("manager");
        page.navigate(address("/rulebook"));
        assertThat(page.locator("table.rules tbody tr")).hasCount(50);
        String first = page.locator("table.rules tbody tr b").first().innerText();
        page.click("a:has-text('the next 50')");
        assertThat(page.locator("main")).containsText("here 51 to 100");
        page.click("a:has-text('the 50 before')");
        assertThat(page.locator("table.rules tbody tr b").first()).hasText(first);
        page.navigate(address("/rulebook?q=height"));
        assertThat(page.locator("main")).containsText("120 m");
        page.navigate(address("/rulebook/compare"));
        assertThat(page.locator("main")).containsText("Canada");
    }
}
