package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.FormData;
import com.microsoft.playwright.options.RequestOptions;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringReader;
import java.util.Arrays;
import javax.imageio.ImageIO;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.Component;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Papers over the year, what is shown to an official, prints, the calendar and the digest. */
class PapersPagesTest extends BrowserTest {
    private static byte[] picture() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(8, 6, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    private static byte[] onePage() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (PDDocument d = new PDDocument()) {
            d.addPage(new PDPage());
            d.save(out);
        }
        return out.toByteArray();
    }

    private String text(String path) throws IOException {
        APIResponse r = page.request().get(address(path));
        assertThat(r.status()).isEqualTo(200);
        assertThat(r.headers()).containsEntry("content-type", "application/pdf");
        try (PDDocument d = Loader.loadPDF(r.body())) {
            return new PDFTextStripper().getText(d);
        }
    }

    @Test
    void papersAreSearchedByKindNumberAndHolder() {
        signIn("manager");
        page.navigate(address("/papers"));
        page.fill("[name=q]", "TI-103");
        page.keyboard().press("Enter");
        assertThat(page.locator("#paper-rows tbody tr")).hasCount(1);
        assertThat(page.locator("#register h2")).containsText("Register, 1");
        page.navigate(address("/papers?q=no+such+paper"));
        assertThat(page.locator("#register")).containsText("No paper on file has these words");
        // an address changed by hand asks for nothing that is not there
        page.navigate(address("/papers?job=nonsense&first=-5"));
        assertThat(page.locator("#register h2")).containsText("Register");
    }

    @Test
    void theWeaveShowsTheYearAndAKnotLeadsToTheFinding() {
        signIn("manager");
        page.navigate(address("/papers"));
        assertThat(page.locator("svg.weave").first()).isVisible();
        // knots of neighbouring jobs may lie over one another; the last one drawn is on top
        page.locator("svg.weave a.knot, svg.weave .knot a, svg.weave a:has(.knot)")
                .last()
                .click();
        page.waitForURL("**/jobs/**");
        assertThat(page.locator("#findings")).isVisible();
    }

    @ParameterizedTest
    @ValueSource(strings = {"/papers/weave.pdf", "/papers/weave.pdf?sheet=a3"})
    void theWeavePrints(String path) throws Exception {
        signIn("manager");
        assertThat(text(path)).contains("Ailsa Fenwright");
    }

    @Test
    void aScanIsKeptAndAWrongFileIsRefused() throws Exception {
        signIn("manager");
        String paper = id(
                "select p.id from paper p join person x on x.id = p.holder_id where x.name = 'Ailsa Fenwright' and p.kind = 'pilotCertificate' limit 1");
        page.navigate(address("/papers/" + paper));
        page.setInputFiles("#scan-file", new FilePayload("front.png", "image/png", picture()));
        page.click("button:has-text('Add the scan')");
        assertThat(page.locator(".scans img")).hasCount(1);
        page.setInputFiles("#scan-file", new FilePayload("back.pdf", "application/pdf", onePage()));
        page.click("button:has-text('Add the scan')");
        assertThat(page.locator(".scans figure")).hasCount(2);
        APIResponse first = page.request()
                .get(address(page.locator(".scans img[alt^='first page']").getAttribute("src")));
        assertThat(ImageIO.read(new ByteArrayInputStream(first.body())).getWidth())
                .isGreaterThan(100);
        page.setInputFiles("#scan-file", new FilePayload("torn.pdf", "application/pdf", Arrays.copyOf(onePage(), 60)));
        page.click("button:has-text('Add the scan')");
        assertThat(page.locator(".bad-note")).containsText("damaged PDF");
        page.setInputFiles("#scan-file", new FilePayload("front.pdf", "application/pdf", new byte[] {77, 90, 1, 2}));
        page.click("button:has-text('Add the scan')");
        assertThat(page.locator(".bad-note")).isVisible();
        assertThat(page.locator(".scans figure")).hasCount(2);
        page.locator(".scans button:has-text('delete')").first().click();
        assertThat(page.locator(".scans figure")).hasCount(1);
        page.click(".undo button");
        assertThat(page.locator(".scans figure")).hasCount(2);
        assertThat(page.locator(".undo")).hasCount(0);
        page.locator(".scans button:has-text('delete')").first().click();
        assertThat(page.locator(".scans figure")).hasCount(1);
        page.click(".scans button:has-text('delete')");
        assertThat(page.locator(".scans figure")).hasCount(0);
    }

    @Test
    void documentsForAnOfficialOpenWithoutANetworkAndTheCodeShowsThemAsTheyStand() throws Exception {
        signIn("manager");
        String job = id("select id from job where name = 'Harbour wall, winter state'");
        String person = id("select pilot_id from job where name = 'Harbour wall, winter state'");
        String path = "/field/documents/" + job + "/" + person;
        page.navigate(address(path));
        assertThat(page.locator("h1")).containsText("Ailsa Fenwright");
        assertThat(page.locator("#offline")).containsText("Kept on this phone");
        page.reload();
        context.setOffline(true);
        page.reload();
        assertThat(page.locator("h1")).containsText("Ailsa Fenwright");
        context.setOffline(false);

        assertThat(text(path + ".pdf?sheet=a4")).contains("Ailsa Fenwright");
        assertThat(page.locator("svg.qr")).hasCount(0);
        page.click("button:has-text('Make a code')");
        assertThat(page.locator("svg.qr")).isVisible();
        String token = id("select token from check_link where job_id = '" + job + "' and person_id = '" + person + "'");
        context.clearCookies();
        page.navigate(address("/check/" + token));
        assertThat(page.locator("body")).containsText("Ailsa Fenwright");
        assertThat(page.request().get(address("/check/not-a-token")).status()).isEqualTo(404);
    }

    @Test
    void theBinderHoldsJobFindingsAndPapersWithPageNumbers() throws Exception {
        signIn("manager");
        String text =
                text("/jobs/" + id("select id from job where name = 'Harbour wall, winter state'") + "/binder.pdf");
        assertThat(text)
                .contains("Harbour wall, winter state")
                .contains("No-go as planned")
                .contains("Read and taken along by, pilot in command")
                .contains("Not bound in")
                .contains("Contents");
    }

    /** No sheet holds only what belongs to another: each has its head, and a table on two sheets has its columns on both. */
    @Test
    void everySheetOfTheWeaveHasItsHead() throws Exception {
        signIn("manager");
        try (PDDocument d =
                Loader.loadPDF(page.request().get(address("/papers/weave.pdf")).body())) {
            var one = new PDFTextStripper();
            for (int i = 1; i <= d.getNumberOfPages(); i++) {
                one.setStartPage(i);
                one.setEndPage(i);
                String text = one.getText(d);
                assertThat((text.contains("Filled bar: in force") && text.contains("Validity weave"))
                                || text.contains("Holder Paper State"))
                        .as("sheet " + i + ": " + text)
                        .isTrue();
            }
        }
    }

    @Test
    void aPilotSeesOnlyOwnPapers() {
        signIn("pilot");
        String other = id(
                "select p.id from paper p join app_user u on u.login = 'pilot' where p.holder_kind = 'pilot' and p.holder_id <> u.person_id"
                        + " and not exists (select 1 from job j where u.person_id in (j.pilot_id, j.observer_id)"
                        + " and p.holder_id in (j.pilot_id, j.observer_id)) limit 1");
        assertThat(page.request().get(address("/papers/" + other)).status()).isEqualTo(403);
        assertThat(page.request().get(address("/exchange/crew.csv")).status()).isEqualTo(403);
    }

    @Test
    void theCalendarIsReadByOthersUntilItIsTakenBack() throws Exception {
        signIn("manager");
        page.navigate(address("/notices"));
        page.click("button:has-text('Make an address')");
        String feed = page.locator("#new-feed").innerText();
        APIResponse r = page.request().get(feed);
        assertThat(r.headers().get("content-type")).startsWith("text/calendar");
        var calendar = new CalendarBuilder().build(new StringReader(r.text()));
        calendar.validate();
        assertThat(calendar.getComponents(Component.VEVENT)).hasSizeGreaterThan(10);
        assertThat(r.text()).contains("BEGIN:VALARM").contains("Peat bog grid");
        page.click("button:has-text('take it back')");
        assertThat(page.request().get(feed).status()).isEqualTo(404);
    }

    @Test
    void theDigestArrivesInTheStandInMailbox() {
        signIn("manager");
        page.navigate(address("/notices"));
        page.click("button:has-text(\"Send today's now\")");
        assertThat(page.locator("main")).containsText("on its way");
        page.navigate(address("/notices/mailbox"));
        assertThat(page.locator("pre.mail").first()).containsText("What needs a hand");
        assertThat(page.locator("main")).containsText("simulated");
    }

    @Test
    void papersDirectlyPostedByAReaderAreRefused() {
        signIn("reader");
        APIResponse r = page.request()
                .post(address("/papers/kinds"), RequestOptions.create().setForm(FormData.create()));
        assertThat(r.status()).isEqualTo(403);
    }

    @Test
    void anIncidentSaysWhatMayHaveToBeReportedAndByWhen() {
        signIn("manager");
        page.navigate(address("/incidents/" + id("select id from incident order by happened_at, id limit 1")));
        assertThat(page.locator("#duties")).containsText("not known whether it applies");
        page.selectOption("[name='occurrence.injury']", "serious");
        page.fill("[name='occurrence.awareAt']", "2026-11-24T10:00:00Z");
        page.click("button:has-text('Save the answers')");
        assertThat(page.locator("#duties")).containsText("27 Nov 2026");
        page.click("summary:has-text('asked one by one')");
        page.selectOption("[name='occurrence.injury']", "none");
        page.fill("[name='occurrence.awareAt']", "yesterday noon");
        page.click("button:has-text('Save the answers')");
        assertThat(page.locator(".bad-note")).containsText("Aware since: “yesterday noon” is not understood");
        assertThat(page.locator("[name='occurrence.injury']")).hasValue("serious");
        jdbc.sql("delete from answer where about = 'OCCURRENCE'").update();
    }

    /** Hurt by an aircraft abroad: the law there says what is due, from when it happened, and it closes once that is settled. */
    @Test
    void anIncidentIsJudgedByTheLawOfItsPlaceAndStaysOpenUntilItsDutiesAreSettled() {
        signIn("manager");
        page.navigate(address("/incidents/new"));
        page.selectOption("[name='kind']", "injury");
        page.fill("[name='harm']", "a broken arm");
        page.fill("[name='day']", "2026-11-20");
        page.fill("[name='time']", "10:00");
        page.selectOption("[name='jurisdiction']", "US");
        page.fill("[name='statement']", "A bystander was hit at the edge of the field.");
        page.click("button:has-text('Save')");
        String incident = page.url().replaceFirst(".*/", "");
        try {
            assertThat(page.locator("#duties")).containsText("14 CFR 107.9");
            page.selectOption("[name='occurrence.injury']", "serious");
            page.selectOption("[name='purpose']", "work");
            page.fill("[name='occurrence.awareAt']", "25 Nov 2026 10:45");
            page.click("button:has-text('Save the answers')");
            // ten days after the operation, not after somebody became aware of it
            assertThat(page.locator("#f-US-ACC-01")).containsText("by the end of 30 Nov 2026");
            assertThat(page.locator("#f-US-ACC-01 .cite")).containsText("law · 14 CFR 107.9(a)");
            page.navigate(address("/incidents/" + incident + "/edit"));
            page.selectOption("[name='state']", "CLOSED");
            page.click("button:has-text('Save')");
            assertThat(page.locator(".bad-note").first()).containsText("cannot be closed");
            for (String name : java.util.List.of(
                    "occurrence.lossOfConsciousness",
                    "occurrence.outOfControl",
                    "occurrence.towardsControlled",
                    "occurrence.fireInFlight",
                    "occurrence.collision",
                    "occurrence.remoteIdLost",
                    "airworthinessCertificate")) {
                jdbc.sql("insert into answer values ('OCCURRENCE', ?, ?, 'no', 'test', now())")
                        .params(java.util.UUID.fromString(incident), name)
                        .update();
            }
            for (String name : java.util.List.of("occurrence.propertyRepairUsd", "occurrence.propertyValueUsd")) {
                jdbc.sql("insert into answer values ('OCCURRENCE', ?, ?, '0', 'test', now())")
                        .params(java.util.UUID.fromString(incident), name)
                        .update();
            }
            page.navigate(address("/incidents/" + incident));
            while (page.locator(".duty-done:not(:has(span))").count() > 0) {
                page.locator(".duty-done:not(:has(span)) input[name='note']")
                        .first()
                        .fill("reported, number 4711");
                page.locator(".duty-done:not(:has(span)) button").first().click();
                page.waitForLoadState();
            }
            page.navigate(address("/incidents/" + incident + "/edit"));
            page.selectOption("[name='state']", "CLOSED");
            page.click("button:has-text('Save')");
            assertThat(page.locator("h1 + .st, .head .st").first()).containsText("closed");
        } finally {
            java.util.UUID id = java.util.UUID.fromString(incident);
            jdbc.sql("delete from answer where about_id = ?").param(id).update();
            jdbc.sql("delete from incident_duty where incident_id = ?")
                    .param(id)
                    .update();
            jdbc.sql("delete from incident where id = ?").param(id).update();
        }
    }

    @Test
    void whoOpenedAnIncidentSeesItsDutiesThoughTheFlightIsNowAnothers() {
        String incident = id("select i.id from incident i join flight f on f.id = i.flight_id"
                + " where f.pilot_id is not null order by i.happened_at, i.id limit 1");
        String pilot = id("select pilot_id from flight where id = (select flight_id from incident where id = '"
                + incident + "')");
        jdbc.sql(
                        "update incident set opened_by_id = (select id from app_user where login = 'pilot'), pilot_id = null where id = ?")
                .param(incident)
                .update();
        jdbc.sql("update flight set pilot_id = (select id from person where name = 'Hanne Loxby') where id = "
                        + "(select flight_id from incident where id = '" + incident + "')")
                .update();
        signIn("pilot");
        page.navigate(address("/incidents/" + incident));
        assertThat(page.locator("#duties")).containsText("Report of an occurrence");
        jdbc.sql("update incident set opened_by_id = null, pilot_id = ? where id = ?")
                .params(pilot, incident)
                .update();
        jdbc.sql("update flight set pilot_id = ? where id = (select flight_id from incident where id = ?)")
                .params(pilot, incident)
                .update();
    }
}
