package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;

/** The chain, its requests, the desk, the unlock and the application, as their users go. */
class ApprovalsPagesTest extends BrowserTest {
    private String job(String name) {
        return "/jobs/" + id("select id from job where name = '" + name + "'");
    }

    private String ofLevels(String where) {
        return "/approvals/"
                + id(
                        "select a.id from approval a join job j on j.id = a.job_id where j.name = 'Field edge, drainage levels' and "
                                + where);
    }

    @Test
    void theChainShowsWhenToSendAndWhatFollowsFromALaterAnswer() {
        signIn("manager");
        page.navigate(address(job("Field edge, drainage levels")));
        page.click(".spine a:has-text('Approvals')"); // a part is fetched once it is in sight
        assertThat(page.locator("#approvals")).containsText("1 of 6");
        page.click("text=the chain in time, what if, other aircraft and days");
        assertThat(page.locator(".chain")).isVisible();
        assertThat(page.locator("main")).containsText("Too late at worst");
        assertThat(page.getByText("trying each…")).hasCount(0); // nothing moves under the pointer any more
        page.selectOption("#w-step", "zoneEU@TAR-AD#3");
        page.fill("#w-lead", "90");
        page.press("#w-lead", "Enter");
        page.waitForURL("**lead=90**");
        assertThat(page.locator(".note")).containsText("Changed to see; nothing was stored");
        assertThat(page.locator(".figures")).containsText("2 of 6");
        assertThat(page.locator("text=With this aircraft")).isVisible();
        page.fill("#w-lead", "soon");
        page.click("button:has-text('Try')");
        assertThat(page.locator(".bad-note")).containsText("soon");
    }

    @Test
    void aRequestIsBegunSentToTheDeskAndGranted() {
        signIn("manager");
        page.navigate(address(job("Field edge drainage") + "/chain"));
        page.click("button[aria-label=\"begin maker's unlock\"]");
        assertThat(page.locator("h1")).hasText("maker's unlock");
        assertThat(page.locator("main")).containsText("an unlock alone gives no right to fly");
        page.click("text=Edit what is asked for");
        page.fill("[name=fromTime]", "12:00 UTC");
        page.fill("[name=toTime]", "once more");
        page.click("button:has-text('Save')");
        assertThat(page.locator("#e-toTime")).containsText("once more");
        assertThat(page.locator("[name=fromTime]")).hasValue("12:00 UTC");
        page.fill("[name=toTime]", "18:00 UTC");
        page.click("button:has-text('Save')");
        assertThat(page.locator("main")).containsText("(12:00 UTC)");
        page.click("#send");
        assertThat(page.locator(".bad-note")).containsText("If it is to go all the same, say why");
        page.fill("input[name=why][aria-label='Why it goes all the same']", "they do not ask these questions");
        page.click("#send");
        assertThat(page.locator(".note[role=status]")).containsText("granted");
        assertThat(page.locator(".head")).containsText("granted");
        Locator real = page.locator("#unlock table").nth(1);
        real.locator("button[aria-label='say it: loaded on the aircraft']").click();
        assertThat(page.locator(".bad-note")).containsText("say first that it is granted");
        page.locator("#unlock table")
                .nth(1)
                .locator("button[aria-label='say it: granted']")
                .click();
        page.locator("#unlock table")
                .nth(1)
                .locator("button[aria-label='say it: loaded on the aircraft']")
                .click();
        assertThat(page.locator("#unlock table").nth(1)).containsText("Operations manager");
        page.fill("#packs", "8");
        page.click("button:has-text('Work out')");
        assertThat(page.locator("#unlock")).containsText("24.0 min a day");
    }

    @Test
    void thePapersOfAJobAreCheckedDayByDayAndTheOverhangIsDrawn() {
        signIn("reader");
        page.navigate(address(job("Field edge, drainage levels") + "/cover"));
        assertThat(page.locator("main")).containsText("0 of 3");
        assertThat(page.locator(".cover-table"))
                .containsText("nothing held: controlled airspace permission, Tarrow Field, 2 of 3");
        page.locator(".cover-table summary").first().click();
        assertThat(page.locator(".cover-table")).containsText("15 m above its ceiling of 50 m");
        assertThat(page.locator(".ov-overhang")).isAttached();
        assertThat(page.locator("main")).containsText("of the flight area outside");
        page.navigate(address(job("Peat bog grid, north") + "/cover"));
        assertThat(page.locator("main")).containsText("Nothing on file asks for an approval");
        assertThat(page.locator(".cover-table")).containsText("nothing asked for, as far as is known");
    }

    @Test
    void lettersAreKeptWithTheirFilesAndTheClockGoesOn() throws IOException {
        signIn("manager");
        page.navigate(address(ofLevels("a.number_in_job = 2 and a.kind = 'zoneEU'")));
        assertThat(page.locator("main")).containsText("8 days with the granter");
        page.selectOption("#lk", "NUDGE");
        page.fill("#lt", "Called the tower, they look at it on Friday.");
        page.setInputFiles(
                "#lf", new FilePayload("mail.txt", "text/plain", "Dear tower".getBytes(StandardCharsets.UTF_8)));
        page.click("button:has-text('Keep the letter')");
        assertThat(page.locator("#letters")).containsText("asked after it");
        Download d = page.waitForDownload(() -> page.click("a:has-text('mail.txt')"));
        assertThat(Files.readString(d.path())).isEqualTo("Dear tower");
        page.click("button:has-text('Keep the letter')");
        assertThat(page.locator(".bad-note")).containsText("neither a text nor a file");
    }

    @Test
    void anApplicationIsWrittenAndMadeIntoDocuments() throws IOException {
        signIn("manager");
        page.navigate(address(ofLevels("a.number_in_job = 3 and a.kind = 'zoneEU'") + "/application"));
        assertThat(page.locator("main")).containsText("1 open");
        page.click("summary[aria-label='write an answer to 1']");
        page.fill("#t-1", "Quay 3, Port Tarrow");
        page.locator("#q-1 button").click();
        assertThat(page.locator("#q-1")).containsText("answered");
        page.click("button:has-text('Make a version')");
        assertThat(page.locator("#versions tbody tr")).hasCount(1);
        Download d =
                page.waitForDownload(() -> page.locator("#versions a").nth(1).click());
        assertThat(d.suggestedFilename()).isEqualTo("application-1.docx");
        assertThat(Files.size(d.path())).isGreaterThan(2000);
    }

    @Test
    void aKindIsChangedAndGoesBackToWhatShips() {
        signIn("manager");
        page.navigate(address("/approvals/kinds/harbourRoad"));
        page.fill("[name=usual]", "a fortnight");
        page.fill("[name=answers]", "EU-NOWHERE");
        page.click("button:has-text('Save')");
        assertThat(page.locator("#e-usual")).containsText("20 working days");
        assertThat(page.locator("#e-answers")).containsText("there is no rule “EU-NOWHERE”");
        page.fill("[name=answers]", "");
        page.fill("[name=usual]", "3 working days");
        page.fill("[name=after]", "unlock");
        page.click("button:has-text('Save')");
        assertThat(page.locator("[role=alert]")).containsText("wait for each other");
        page.fill("[name=after]", "");
        page.click("button:has-text('Save')");
        page.waitForURL("**/approvals/kinds");
        Locator row = page.locator("tr:has-text('road or harbour permission')");
        assertThat(row).containsText("changed");
        row.locator("a").click();
        page.click("text=go back to the kind that ships");
        assertThat(page.locator("tr:has-text('road or harbour permission')"))
                .not()
                .containsText("changed");
    }

    @Test
    void aPilotSaysTheStagesOfAnUnlockOnThePhoneAndSeesNoOthersJobs() {
        String approval = ofLevels("a.kind = 'unlock'");
        use(ColorScheme.LIGHT, 390, 844);
        signIn("pilot");
        page.navigate(address(approval));
        assertThat(page.locator("h1")).containsText("maker's unlock");
        assertThat((Integer) page.evaluate("document.documentElement.scrollWidth"))
                .isLessThanOrEqualTo(390);
        page.locator("#unlock button[aria-label='say it: granted, rehearsal']").click();
        assertThat(page.locator(".bad-note")).containsText("nothing can be loaded before it is granted");
        // a letter may be about requests of jobs that are not the pilot's; only the manager is shown which
        page.navigate(address(ofLevels("a.reference = 'TAR-2290'") + "/grant"));
        assertThat(page.locator("[name=reference]")).hasValue("TAR-2290");
        assertThat(page.locator("[name=also]")).hasCount(0);
        String others = job("Mooring chains, east row");
        assertThat(page.navigate(address(others + "/chain")).status()).isEqualTo(403);
    }

    @Test
    void whatIsDueStandsInTodayAndInTheCalendar() {
        signIn("manager");
        assertThat(page.locator("#queue")).containsText("Send: road or harbour permission");
        page.navigate(address("/notices"));
        page.click("button:has-text('Make an address')");
        String feed = page.locator("#new-feed").innerText();
        assertThat(page.request().get(feed).text().replace("\r\n ", ""))
                .contains("Send by: controlled airspace permission");
    }
}
