package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Response;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestReporter;

/** A flight is played, stepped through, looked at closer and laid beside another of its job. */
class ReplayPagesTest extends BrowserTest {
    private static final Pattern CLOCK = Pattern.compile("\\d\\d:\\d\\d:\\d\\d.*s after take-off");

    @BeforeEach
    void aFlightWithABreachAndOthersOfItsJob() {
        signIn("manager");
        page.navigate(
                address(
                        "/flights/"
                                + id(
                                        "select f.id from flight f where f.breached > 0 and f.job_id is not null"
                                                + " and (select count(*) from flight o where o.job_id = f.job_id) > 1 order by f.takeoff limit 1")));
        assertThat(page.locator("#replay")).isVisible();
        assertThat(clock()).hasText(CLOCK);
    }

    private Locator clock() {
        return page.locator("#cursor-clock");
    }

    private Locator part(String name) {
        return page.locator("[data-replay=" + name + "]");
    }

    private int frames() {
        return Integer.parseInt(page.locator("#replay").getAttribute("data-frames"));
    }

    @Test
    void itPlaysAndStopsAndGoesOn(TestReporter report) {
        String before = clock().textContent();
        part("pace").selectOption("16");
        long from = System.nanoTime();
        part("play").click();
        assertThat(part("play")).hasText("Pause");
        page.waitForFunction("() => Number(document.getElementById('replay').dataset.frames) > 20");
        report.publishEntry(
                "frames a second while playing", String.valueOf(frames() * 1e9 / (System.nanoTime() - from)));
        page.keyboard().press("p");
        assertThat(part("play")).hasText("Play");
        String stopped = clock().textContent();
        assertThat(stopped).isNotEqualTo(before);
        assertThat(part("at")).not().hasValue("0");
        int shown = frames();
        page.keyboard().press("p");
        page.waitForFunction("shown => Number(document.getElementById('replay').dataset.frames) > shown", shown);
        assertThat(clock()).not().hasText(stopped);
    }

    @Test
    void keysGoFromEventToEventAndTheTableSaysTheSame() {
        page.keyboard().press(".");
        assertThat(clock()).not().hasText(Pattern.compile(" 0\\.0 s after take-off"));
        String event = clock().textContent();
        page.keyboard().press(".");
        assertThat(clock()).not().hasText(event);
        page.keyboard().press(",");
        assertThat(clock()).hasText(event);
        page.locator("#events summary").click();
        Locator begins = page.locator("#events tr")
                .filter(new Locator.FilterOptions().setHasText("breach begins"))
                .first();
        begins.locator("button").click();
        assertThat(part("now"))
                .hasText(begins.locator("td").last().textContent().strip());
        assertThat(page.locator("#events tr").last()).containsText("landing");
    }

    @Test
    void aStretchIsDrawnWithMoreOfItsPointsAndTheWholeComesBack() {
        part("next").click();
        Response closer = page.waitForResponse(
                r -> r.url().contains("drawing.json?from="), () -> part("near").click());
        assertThat(closer.status()).isEqualTo(200);
        String at = clock().textContent();
        part("whole").click();
        assertThat(clock()).hasText(at);
        assertThat(page.locator("#strips .strip").first()).isVisible();
    }

    @Test
    void anotherFlightOfTheJobIsLaidBeside() {
        Locator height = page.locator("#strip-value-height");
        assertThat(height).not().containsText("this");
        page.waitForResponse(
                r -> r.url().contains("with="),
                () -> part("with").selectOption(new com.microsoft.playwright.options.SelectOption().setIndex(1)));
        assertThat(height).containsText("this");
        page.waitForResponse(r -> r.url().contains("with="), () -> {
            part("next").click();
            part("near").click();
        });
        assertThat(height).containsText("this");
        part("with").selectOption("");
        assertThat(height).not().containsText("this");
    }

    @Test
    void aStretchThatIsNoneGivesTheWhole() {
        Page p = page;
        String flight = p.url();
        assertThat(context.request().get(flight + "/drawing.json?from=9&to=3").status())
                .isEqualTo(200);
        assertThat(context.request()
                        .get(flight + "/drawing.json?from=1e9&to=2e9")
                        .status())
                .isEqualTo(200);
        assertThat(context.request().get(flight + "/drawing.json?from=x").status())
                .isEqualTo(404);
    }
}
