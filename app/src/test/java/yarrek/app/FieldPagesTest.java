package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.ColorScheme;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** In one hand, outside, with or without a connection. */
class FieldPagesTest extends BrowserTest {
    @BeforeEach
    void phone() {
        use(ColorScheme.LIGHT, 390, 844);
        signIn("manager");
    }

    private void kept() {
        assertThat(page.locator("#offline")).containsText("Kept on this phone");
    }

    private long incidents(String statement) {
        return jdbc.sql("select count(*) from incident where statement = ?")
                .param(statement)
                .query(Long.class)
                .single();
    }

    private void write(String statement) {
        page.locator("#f-statement").fill(statement);
        page.getByLabel("near miss with a crewed aircraft").check();
    }

    @Test
    void anIncidentIsReportedFromAnywhereInTwoTapsAndAChoice() {
        page.locator(".thumb").getByText("Report").click();
        kept();
        assertThat(page.locator("#f-day")).hasValue(Pattern.compile("\\d{1,2} [A-Z][a-z]{2,3} \\d{4}"));
        write("A light aircraft passed below us at the cliffs.");
        page.getByText("Send the report").click();
        assertThat(page.locator("h1")).containsText("near miss with a crewed aircraft");
        assertThat(page.locator("main")).containsText("none known yet");
        assertThat(incidents("A light aircraft passed below us at the cliffs.")).isEqualTo(1);
    }

    @Test
    void aReportWrittenWithoutAConnectionIsSentOnceWhenThereIsOne() {
        page.navigate(address("/field/report"));
        kept();
        context.setOffline(true);
        page.navigate(address("/field/report"));
        write("Seen without a connection.");
        page.getByText("Send the report").click();
        assertThat(page.locator("[data-outbox-says]")).containsText("waits on this phone");
        // the page is closed, and opened again still without a connection
        page.navigate("about:blank");
        page.navigate(address("/field/report"));
        assertThat(page.locator("#f-statement")).hasValue("Seen without a connection.");
        assertThat(incidents("Seen without a connection.")).isZero();
        context.setOffline(false);
        page.evaluate("window.dispatchEvent(new Event('online'))");
        assertThat(page.locator("h1")).containsText("near miss with a crewed aircraft");
        assertThat(incidents("Seen without a connection.")).isEqualTo(1);
        page.navigate(address("/field/report"));
        assertThat(page.locator("#f-statement")).hasValue("");
    }

    @Test
    void anEndedSessionLosesNothingThatWasTyped() {
        page.navigate(address("/field/report"));
        kept();
        write("Typed after the session had ended.");
        context.clearCookies();
        page.getByText("Send the report").click();
        assertThat(page.locator("[data-outbox-says]")).containsText("sign in again");
        assertThat(page.locator("#f-statement")).hasValue("Typed after the session had ended.");
        page.locator("[data-outbox-says] a").click();
        signInByThePage("manager");
        assertThat(page).hasURL(address("/")); // and no part that a script asked for
        page.navigate(address("/field/report"));
        assertThat(page.locator("h1")).containsText("near miss with a crewed aircraft");
        assertThat(incidents("Typed after the session had ended.")).isEqualTo(1);
    }

    @Test
    void aServerThatCannotTakeItNowIsAskedAgain() {
        page.navigate(address("/field/report"));
        kept();
        write("Sent while the server was busy.");
        page.route(
                "**/incidents/new", r -> r.fulfill(new com.microsoft.playwright.Route.FulfillOptions().setStatus(503)));
        page.getByText("Send the report").click();
        assertThat(page.locator("[data-outbox-says]")).containsText("could not take it");
        expectComplaint("status of 503");
        page.unroute("**/incidents/new");
        page.evaluate("window.dispatchEvent(new Event('online'))");
        assertThat(page.locator("h1")).containsText("near miss with a crewed aircraft");
        assertThat(incidents("Sent while the server was busy.")).isEqualTo(1);
    }

    @Test
    void whatTheServerRefusesIsSaidWithWhatWasTyped() {
        page.navigate(address("/field/report"));
        kept();
        write("A place that is none.");
        page.locator("#f-place").fill("over there");
        page.getByText("Send the report").click();
        assertThat(page.locator("main")).containsText("Nothing was stored yet");
        assertThat(page.locator("[name=statement]")).hasValue("A place that is none.");
        assertThat(incidents("A place that is none.")).isZero();
        page.navigate(address("/field/report"));
        page.locator("#f-place").fill("46.6, -17.9");
        page.getByText("Send the report").click();
        assertThat(page.locator("h1")).containsText("near miss");
        assertThat(incidents("A place that is none.")).isEqualTo(1);
    }

    @Test
    void aSurveyIsFilledInWithoutAConnectionAndNothingIsSaidToBeSeen() {
        String site = id("select id from site where name = 'Lowmere bog'");
        page.navigate(address("/airspace/sites/" + site));
        page.locator("form[action$='/surveys'] button").first().click();
        page.waitForURL(Pattern.compile(".*/airspace/surveys/.*"));
        assertThat(page.locator("select[name^='b.']").first()).hasValue("");
        page.getByText("On the phone").click();
        kept();
        assertThat(page.locator("input[type=radio]:checked")).hasCount(0);
        context.setOffline(true);
        Locator first = page.locator(".doc").first();
        first.locator("textarea").fill("A new mast north of the track.");
        page.getByText("Keep the survey").click();
        assertThat(page.locator("[data-outbox-says]")).containsText("waits on this phone");
        context.setOffline(false);
        page.evaluate("window.dispatchEvent(new Event('online'))");
        // how it is known was not said: it is asked, and what was typed stands there
        assertThat(page.locator("[role=alert]")).containsText("Say how it is known");
        assertThat(page.locator("textarea").first()).hasValue("A new mast north of the track.");
        page.locator("select[name^='b.']").first().selectOption("SEEN");
        page.getByText("Save the survey", new com.microsoft.playwright.Page.GetByTextOptions().setExact(true))
                .click();
        assertThat(page.locator("[role=status].note").first()).containsText("Kept");
        assertThat(page.locator("textarea").first()).hasValue("A new mast north of the track.");
    }

    /** What is wanted outside is kept before anybody goes there. */
    @Test
    void theReportAndTheNextCardAreKeptByLookingAtToday() {
        page.navigate(address("/"));
        assertThat(page.locator("html")).hasAttribute("data-ahead", "kept");
        String card = page.locator(".in-hand a").first().getAttribute("href");
        page.waitForFunction(
                "async c => { const s = await caches.open('yarrek-field-1');"
                        + " return !!(await s.match('/field/report')) && !!(await s.match(c)) }",
                card);
        context.setOffline(true);
        page.navigate(address(card));
        assertThat(page.locator("h1")).hasText("If it goes wrong");
        page.navigate(address("/field/report"));
        assertThat(page.locator("h1")).hasText("Report what happened");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"/", "/jobs", "/flights", "/papers", "/fleet", "/crew", "/packs", "/incidents", "/approvals"})
    void listsFitTheScreenAndEveryPageIsUnderTheThumb(String path) {
        page.navigate(address(path));
        assertThat(((Number) page.evaluate("document.documentElement.scrollWidth")).intValue())
                .isLessThanOrEqualTo(390);
        // no row is cut off at the side, and none is higher than a third of the screen
        assertThat(
                        page.evaluate(
                                "[...document.querySelectorAll('.book-table:not(.matrix) tbody tr')]"
                                        + ".filter(r => r.offsetParent && r.getBoundingClientRect().height > 281).map(r => r.innerText).join()"))
                .isEqualTo("");
        assertThat(page.evaluate("[...document.querySelectorAll('.book-table:not(.matrix) tbody td')]"
                        + ".filter(c => c.offsetParent && c.getBoundingClientRect().right > 391).length"))
                .isEqualTo(0);
        page.locator(".thumb button").click();
        for (String name : List.of("Airspace", "Packs", "Flights", "Incidents", "Rulebook", "Office")) {
            assertThat(page.locator(".more").getByText(name)).isInViewport();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"LIGHT", "DARK"})
    void whereTheFocusIsCanBeSeen(ColorScheme scheme) {
        use(scheme, 1280, 800);
        signIn("manager");
        page.navigate(address("/jobs"));
        for (String what :
                List.of(".btn-main", "a.btn:not(.btn-main)", "a.row-link", ".filter", "th[data-sort] button")) {
            // reached by a key, as somebody without a mouse does
            page.locator(what).first().focus();
            page.keyboard().press("Shift+Tab");
            page.keyboard().press("Tab");
            Object seen = page.evaluate(
                    "() => { const s = getComputedStyle(document.activeElement);"
                            + " return s.outlineStyle + ' ' + parseFloat(s.outlineWidth) + ' ' + (s.color !== s.backgroundColor) }");
            assertThat(seen).as(what).isEqualTo("solid 2 true");
        }
    }
}
