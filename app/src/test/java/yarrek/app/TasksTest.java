package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Base64;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The tasks of every day, each in as few clicks and fields as it can be done; counted from Today. */
class TasksTest extends BrowserTest {
    private static final byte[] PIXEL = Base64.getDecoder()
            .decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");

    private int clicks;
    private int fields;

    @BeforeEach
    void today() {
        signIn("manager");
        page.navigate(address("/"));
    }

    private void click(String what) {
        clicks++;
        page.locator(what).first().click();
        page.waitForLoadState();
    }

    private void type(String field, String value) {
        fields++;
        page.fill("[name='" + field + "']", value);
    }

    private void stored() {
        page.waitForLoadState();
        assertThat(page.locator("[role=alert].bad-note").allInnerTexts()).isEmpty();
    }

    private void done(int mostClicks, int mostFields) {
        assertThat(clicks).as("clicks").isLessThanOrEqualTo(mostClicks);
        assertThat(fields).as("fields").isLessThanOrEqualTo(mostFields);
    }

    private static FilePayload scan() {
        return new FilePayload("scan.png", "image/png", PIXEL);
    }

    /** 1: in groups, each with its reason, before anything is clicked. */
    @Test
    void whatNeedsMeToday() {
        assertThat(page.locator(".queue .group").first()).isVisible();
        for (Locator why : page.locator(".queue .why-line").all()) {
            assertThat(why.innerText()).isNotBlank();
        }
        assertThat(
                        page.evaluate(
                                "document.querySelector('.queue').scrollWidth <= document.querySelector('.queue').clientWidth + 1"))
                .isEqualTo(true);
        // in their order, so that late ones do not stand before what is due today
        List<String> order = List.of("Today", "Late", "Next seven days", "Later");
        List<Integer> places = page.locator(".queue .group").allInnerTexts().stream()
                .map(g -> order.indexOf(g.replaceAll("\\s*\\d+$", "")))
                .toList();
        assertThat(places).hasSizeGreaterThan(1).doesNotContain(-1).isSorted();
    }

    /** 2: the old one stays, the new one takes its place. */
    @Test
    void renewAPaper() {
        String paper = page.locator(".queue a.btn[href$='/renew']").first().getAttribute("href");
        long before = jdbc.sql("select count(*) from paper").query(Long.class).single();
        click(".queue a.btn[href$='/renew']");
        assertThat(page.locator("h1")).containsText("Renew:");
        type("number", "TI-NEW-1");
        type("validTo", "14 Mar 2031");
        page.setInputFiles("[name=scan]", scan());
        click("#main-form .btn-main");
        stored();
        assertThat(page.locator("h1")).containsText("Today");
        done(2, 2);
        assertThat(jdbc.sql("select count(*) from paper").query(Long.class).single())
                .isEqualTo(before + 1);
        String id = id("select id from paper where number = 'TI-NEW-1'");
        assertThat(jdbc.sql("select count(*) from paper_scan where paper_id = ?")
                        .param(id)
                        .query(Long.class)
                        .single())
                .isEqualTo(1);
        assertThat(jdbc.sql("select kind from paper where id = ?")
                        .param(id)
                        .query(String.class)
                        .single())
                .isEqualTo(jdbc.sql("select kind from paper where id = ?")
                        .param(paper.replaceAll("^/papers/|/renew$", ""))
                        .query(String.class)
                        .single());
        jdbc.sql("delete from paper where id = ?").param(id).update();
        // what is wrong is said beside its field, and nothing is stored
        page.navigate(address(paper));
        page.fill("[name=validTo]", "31 Feb 2031");
        page.locator("#main-form .btn-main").click();
        assertThat(page.locator("#e-validTo")).isVisible();
        assertThat(jdbc.sql("select count(*) from paper").query(Long.class).single())
                .isEqualTo(before);
    }

    /** What the old one allows or insures may be otherwise on the new one: it is shown, and not carried over unseen. */
    @Test
    void whatAPaperSaysBesideItsDatesIsLookedAtWhenItIsRenewed() {
        String paper = id("select id from paper where amount_sdr is not null limit 1");
        page.navigate(address("/papers/" + paper + "/renew"));
        assertThat(page.locator("[name=amountSdr]")).isVisible();
        assertThat(page.locator("[name=amountSdr]")).not().hasValue("");
        assertThat(page.locator("[name=validTo]")).hasValue("");
        page.fill("[name=amountSdr]", "plenty");
        page.locator("#main-form .btn-main").click();
        assertThat(page.locator("#e-amountSdr")).isVisible();
    }

    /** 3: with its scan, lead time and issuer from what is known of the kind. */
    @Test
    void aCertificateWithItsScan() {
        click(".tabs a[href='/crew']");
        click("a.row-link:has-text('Yara Dunmorrow')");
        click("a:has-text('enter a paper')");
        fields++;
        page.selectOption("[name=kind]", "pilotCertificate");
        fields++;
        page.selectOption("[name=level]", "A2");
        type("number", "TI-YD-2");
        type("validTo", "1 May 2030");
        page.setInputFiles("[name=scan]", scan());
        click("#main-form .btn-main");
        stored();
        assertThat(page.locator("main")).containsText("TI-YD-2");
        assertThat(page.locator(".note[role=status]")).containsText("as every other paper of this kind");
        done(4, 4);
        String id = id("select id from paper where number = 'TI-YD-2'");
        assertThat(jdbc.sql("select issuer from paper where id = ?")
                        .param(id)
                        .query(String.class)
                        .single())
                .isNotBlank();
        assertThat(jdbc.sql("select count(*) from paper_scan where paper_id = ?")
                        .param(id)
                        .query(Long.class)
                        .single())
                .isEqualTo(1);
        jdbc.sql("delete from paper where id = ?").param(id).update();
    }

    /** 4: a flown job is not touched by being repeated. */
    @Test
    void repeatAJob() {
        String flown = id("select id from job where state = 'FLOWN' order by first_day desc limit 1");
        click(".tabs a[href='/jobs']");
        click("a.row-link[href='/jobs/" + flown + "']");
        click("a:has-text('Repeat on other days')");
        type("firstDay", "+8 weeks");
        click("#main-form .btn-main");
        stored();
        done(4, 1);
        assertThat(page.locator("h1")).not().containsText("Repeat");
        page.waitForURL(Pattern.compile(".*/jobs/[0-9a-f-]{36}$"));
        String made = page.url().replaceAll(".*/", "");
        assertThat(made).isNotEqualTo(flown);
        assertThat(id("select state from job where id = '" + flown + "'")).isEqualTo("FLOWN");
        assertThat(id("select state from job where id = '" + made + "'")).isEqualTo("PLANNED");
        assertThat(jdbc.sql("select a.site_id = b.site_id and a.build_id <=> b.build_id and a.pilot_id <=> b.pilot_id"
                                + " from job a, job b where a.id = ? and b.id = ?")
                        .params(flown, made)
                        .query(Boolean.class)
                        .single())
                .isTrue();
        jdbc.sql("delete from job where id = ?").param(made).update();
    }

    /** 5: everybody judged, the best on top, one click takes one. */
    @Test
    void whoMayFlyIt() {
        String job = id("select id from job where name = 'Field edge, drainage levels'");
        page.navigate(address("/jobs/" + job));
        click("a:has-text('who could fly it?')");
        assertThat(page.locator("#who tbody tr"))
                .hasCount(jdbc.sql("select count(*) from person")
                        .query(Integer.class)
                        .single());
        assertThat(page.locator("#who tbody tr").first()).containsText("go");
        String before =
                page.locator("#who tr:has-text('planned now') a.row-link").innerText();
        String taken = page.locator("#who tr:has(button) a.row-link").first().innerText();
        click("#who button");
        assertThat(page.locator(".figures").first()).containsText(taken);
        done(2, 0);
        page.navigate(address("/jobs/" + job + "/who"));
        page.locator("#who tr:has-text('" + before + "') button").click();
        assertThat(page.locator(".figures").first()).containsText(before);
    }

    /** 5, with what besides: a pair is one click. */
    @Test
    void whoMayFlyItWithWhat() {
        String job = id("select id from job where name = 'Field edge, drainage levels'");
        page.navigate(address("/jobs/" + job + "/who"));
        Locator pairs = page.locator(".pairs");
        assertThat(pairs.locator("tbody tr"))
                .hasCount(jdbc.sql("select count(*) from person")
                        .query(Integer.class)
                        .single());
        assertThat(pairs.locator("td.chosen")).hasCount(1);
        assertThat(pairs.locator("td.chosen button")).isDisabled();
        String planned = pairs.locator("td.chosen button").getAttribute("value");
        Locator other = pairs.locator("button:not([disabled])[aria-label*='Teasel, thermal']")
                .first();
        String label = other.getAttribute("aria-label");
        other.click();
        assertThat(page.locator(".figures").first()).containsText(label.substring(0, label.indexOf(" with ")));
        assertThat(page.locator("main")).containsText("Teasel, thermal");
        page.navigate(address("/jobs/" + job + "/who"));
        page.locator(".pairs button[value='" + planned + "']").click();
        assertThat(page.locator("main")).containsText("Bracken, standard");
    }

    /** 6: in the head of the job, with a button or where to go. */
    @Test
    void theSmallestCureStandsInTheHead() {
        String job = id("select id from job where name = 'Cliff faces, autumn count'");
        page.navigate(address("/jobs/" + job));
        assertThat(page.locator(".cure")).containsText("Smallest change:");
        assertThat(page.locator(".cure .btn")).isVisible();
        assertThat(page.locator(".cure").boundingBox().y).isLessThan(400);
    }

    /** 7: dropped on Today, and asked whose it was in the answer. */
    @Test
    void aLogIsBroughtInAndCounted() {
        StringBuilder gpx = new StringBuilder("<gpx version=\"1.1\" creator=\"t\"><trk><trkseg>");
        Instant start = Instant.now().minus(Duration.ofDays(90)).truncatedTo(ChronoUnit.HOURS);
        for (int i = 0; i <= 90; i += 3) {
            gpx.append("<trkpt lat=\"46.95%02d\" lon=\"-17.2934\"><ele>%d</ele><time>%s</time></trkpt>"
                    .formatted(i / 3, i > 10 && i < 80 ? 40 : 10, start.plusSeconds(i)));
        }
        clicks++;
        page.setInputFiles(
                ".drop input[type=file]",
                new FilePayload(
                        "t.gpx",
                        "application/gpx+xml",
                        gpx.append("</trkseg></trk></gpx>").toString().getBytes(StandardCharsets.UTF_8)));
        page.waitForURL(Pattern.compile(".*/flights/[0-9a-f-]{36}$"));
        assertThat(page.locator("main")).containsText("1 flight");
        assertThat(page.locator("#counted")).isVisible();
        done(1, 0);
    }

    /** 8: from Today to the finding, its worst moment under the cursor. */
    @Test
    void aBreachAtItsMoment() {
        click(".queue a.btn[href*='#worst']");
        assertThat(page.locator("#cursor-clock")).not().hasText("");
        assertThat(page.locator(".rung[open] .st-notch").first()).isVisible();
        assertThat(page.url()).contains("#f-");
        done(1, 0);
    }

    /** 9: one button for each state. */
    @Test
    void anApprovalHasAButtonForEachState() {
        click(".tabs a[href='/jobs']");
        click("a:has-text('Approvals')");
        click("tr:has-text('preparing') a.row-link");
        assertThat(page.locator("button:has-text('I have sent it')")).isVisible();
        assertThat(page.locator("select[name=to]")).hasCount(0);
        done(3, 0);
    }

    /** 10 and 11: one tap from the first screen of the phone. */
    @Test
    void papersAndCardFromToday() {
        use(ColorScheme.LIGHT, 390, 844);
        signIn("manager");
        assertThat(page.locator(".in-hand a").first()).isInViewport();
        click(".in-hand a:has-text('Papers to show')");
        assertThat(page.locator(".doc").first()).isVisible();
        page.navigate(address("/"));
        click(".in-hand a:has-text('If it goes wrong')");
        assertThat(page.locator("h1")).hasText("If it goes wrong");
        done(2, 0);
    }

    /** Every page letter, and what is new on it, is reached without a mouse. */
    @Test
    void theSameByKeys() {
        page.keyboard().press("g");
        page.keyboard().press("j");
        page.waitForURL(address("/jobs"));
        page.waitForLoadState();
        page.keyboard().press("j");
        page.keyboard().press("Enter");
        page.waitForURL(Pattern.compile(".*/jobs/[0-9a-f-]{36}$"));
        page.navigate(address("/jobs"));
        page.waitForLoadState();
        page.keyboard().press("j");
        page.keyboard().press("e");
        page.waitForURL(Pattern.compile(".*/edit$"));
        page.navigate(address("/flights"));
        page.waitForLoadState();
        page.keyboard().press("/");
        page.keyboard().type("Sorrel");
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        page.waitForURL(Pattern.compile(".*/flights/[0-9a-f-]{36}$"));
        page.navigate(address("/flights"));
        page.waitForLoadState();
        page.keyboard().press("/");
        page.keyboard().type("nothing like it");
        page.keyboard().press("Escape");
        assertThat(page.locator(".filter")).hasValue("");
        page.keyboard().press("Escape");
        page.keyboard().press("?");
        assertThat(page.locator("dialog.help")).isVisible();
        page.keyboard().press("Escape");
        assertThat(page.locator("dialog.help")).isHidden();
        page.locator("th[data-sort] button").first().focus();
        page.keyboard().press("Enter");
        assertThat(page.locator("th[aria-sort]")).hasCount(1);
    }

    @Test
    void filesHoldForGoodAndPagesComeCompressed() {
        var sheet = page.request()
                .get(address(page.locator("link[rel=stylesheet]").first().getAttribute("href")));
        assertThat(sheet.headers().get("cache-control")).contains("max-age=31536000");
        assertThat(page.locator("link[href*='page-']").first().getAttribute("href"))
                .matches(".*page-[0-9a-f]{32}\\.css");
        assertThat(page.request().get(address("/jobs")).headers().get("content-encoding"))
                .isEqualTo("gzip");
        assertThat(page.request().get(address("/field/sw.js")).headers().get("cache-control"))
                .contains("no-cache");
    }

    /** Who looks round the sample world is led to pages that are there, each by their own role. */
    @Test
    void aLookRoundLeadsToPagesThatAreThere() {
        for (String login : new String[] {"manager", "pilot", "reader"}) {
            use(ColorScheme.LIGHT, 1280, 800);
            signIn(login);
            page.click("a:has-text('look round')");
            assertThat(page.locator("main section h2").first()).hasText("As a " + login);
            var links = page.locator(".round a").all().stream()
                    .map(a -> a.getAttribute("href"))
                    .toList();
            assertThat(links).hasSizeGreaterThan(3);
            for (String link : links) {
                var answer = page.navigate(address(link));
                assertThat(answer == null || answer.ok()).as(login + " " + link).isTrue();
            }
        }
    }
}
