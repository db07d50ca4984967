package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.options.ColorScheme;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import yarrek.formats.table.Table;
import yarrek.formats.table.Tables;

/** The logbook on a page, by who may see it, and as files. */
class LogbookPagesTest extends BrowserTest {
    private static final String SPAN = "from=2020-01-01&through=2099-12-31";

    @Test
    void flightsAreCountedUpAndGoOutAsFiles() throws Exception {
        long counted = jdbc.sql("select count(*) from flight where counted")
                .query(Long.class)
                .single();
        assertThat(counted).isPositive();
        signIn("manager");
        page.navigate(address("/flights"));
        page.click("main >> text=logbook");
        assertThat(page.locator("h1")).containsText("Logbook");
        page.navigate(address("/flights/logbook?" + SPAN + "&by=AIRCRAFT"));
        assertThat(page.locator(".figures").first()).containsText("Flights" + counted);
        page.selectOption("[name=by]", "PLACE");
        page.click("button:has-text('Count')");
        assertThat(page.locator("h2").first()).containsText("By place");

        Table csv = Tables.read(
                "logbook.csv",
                page.request().get(address("/flights/logbook.csv?" + SPAN)).body());
        assertThat(csv.rows()).hasSize((int) counted);
        byte[] pdf = page.request().get(address("/flights/logbook.pdf?" + SPAN)).body();
        assertThat(new String(pdf, 0, 5, StandardCharsets.ISO_8859_1)).isEqualTo("%PDF-");
        byte[] xlsx =
                page.request().get(address("/flights/logbook.xlsx?" + SPAN)).body();
        assertThat(Tables.read("logbook.xlsx", xlsx).rows()).hasSize((int) counted);
        assertThat(page.request().get(address("/flights/logbook.doc")).status()).isEqualTo(404);

        var wrong = page.request().get(address("/flights/logbook.csv?from=2026-02-01&through=2026-01-01"));
        assertThat(wrong.status()).isEqualTo(400);
        assertThat(wrong.text()).contains("is before the first");
        page.navigate(address("/flights/logbook?from=2026-02-01&through=2026-01-01"));
        assertThat(page.locator("[role=alert]").first()).containsText("is before the first");
    }

    @Test
    void aPilotSeesTheOwnFlightsAlone() throws Exception {
        use(ColorScheme.LIGHT, 390, 844);
        signIn("pilot");
        page.navigate(address("/flights/logbook?" + SPAN));
        assertThat(page.locator("[name=pilot]")).hasCount(0);
        String other = id("select cast(id as char) from person where id not in"
                + " (select person_id from app_user where login = 'pilot') limit 1");
        Table csv = Tables.read(
                "logbook.csv",
                page.request()
                        .get(address("/flights/logbook.csv?" + SPAN + "&pilot=" + other))
                        .body());
        List<String> pilots = csv.rows().stream().map(r -> r.cell(5)).distinct().toList();
        assertThat(pilots)
                .containsExactly(id(
                        "select p.name from person p join app_user u on u.person_id = p.id where u.login = 'pilot'"));
        assertThat(page.evaluate("document.documentElement.scrollWidth <= 390")).isEqualTo(true);
    }
}
