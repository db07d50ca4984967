package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Map;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.springframework.test.context.ActiveProfiles;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;

/** A stranger before an installation that holds nothing. */
@ActiveProfiles(value = "live", inheritProfiles = false)
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class FirstHourTest extends BrowserTest {
    private static final int MOST_ACTIONS = 25;
    private static final double LAYING_IN_MS = 120_000;
    private static Path home;

    /** Where the pool and the tables go in the place of the sample world. */
    @DynamicPropertySource
    static void empty(DynamicPropertyRegistry registry) {
        for (String url : new String[] {"spring.datasource.hikari.jdbc-url", "spring.flyway.url"}) {
            registry.add(
                    url, () -> TestDatabase.empty("yarrek_first_hour") + "?connectionCollation=utf8mb4_unicode_520_ci");
        }
        registry.add("yarrek.home", () -> home().toString());
    }

    private static synchronized Path home() {
        try {
            home = home == null ? Files.createTempDirectory("yarrek-first-hour") : home;
            return home;
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private int actions;

    private void type(String field, String value) {
        actions++;
        page.fill("[name=" + field + "]", value);
    }

    private void choose(String field, String value) {
        actions++;
        page.selectOption("[name=" + field + "]", value);
    }

    private void save() {
        press("#main-form button[type=submit], #main-form .btn-main");
    }

    private void press(String what) {
        actions++;
        page.locator(what).first().click();
    }

    private void stands(String title) {
        page.waitForLoadState();
        assertThat(page.locator(".bad-note").allInnerTexts()).isEmpty();
        assertThat(page.locator("h1")).hasText(title);
    }

    /** A minute over the site, as a logger writes it. */
    private static FilePayload log() {
        StringBuilder gpx = new StringBuilder("<gpx version=\"1.1\" creator=\"test\"><trk><trkseg>");
        Instant start = Instant.now().minus(Duration.ofDays(2)).truncatedTo(ChronoUnit.HOURS);
        for (int i = 0; i <= 90; i += 3) {
            gpx.append("<trkpt lat=\"46.61%02d\" lon=\"-17.8934\"><ele>%d</ele><time>%s</time></trkpt>"
                    .formatted(i / 3, i > 10 && i < 80 ? 40 : 10, start.plusSeconds(i)));
        }
        return new FilePayload(
                "first.gpx",
                "application/gpx+xml",
                gpx.append("</trkseg></trk></gpx>").toString().getBytes(StandardCharsets.UTF_8));
    }

    private long count(String table) {
        return jdbc.sql("select count(*) from " + table).query(Long.class).single();
    }

    private void signIn() throws IOException {
        String password =
                Files.readString(home().resolve("first-manager.txt")).replaceAll("(?s).*password (\\S+).*", "$1");
        page.navigate(address("/login"));
        type("username", "manager");
        type("password", password);
        press("button");
    }

    /** The sample comes and goes; what is entered beside it stays, and what rests on it is not torn. */
    @Test
    @Order(1)
    void aSampleIsLaidInAndTakenOutWhole() throws IOException {
        signIn();
        page.navigate(address("/begin"));
        assertThat(page.locator("form[action='/begin/sample']")).hasCount(0); // whose law holds is not said yet
        jdbc.sql("update operator set name = 'Quillmark Surveys', jurisdiction = 'EU-XT'")
                .update();
        jdbc.sql("update stamp set stamp = stamp + 1").update();
        page.reload();
        // some thirty logs are read and judged: on a busy machine that takes longer than a page
        page.click("form[action='/begin/sample'] button", new Page.ClickOptions().setTimeout(LAYING_IN_MS));
        assertThat(page.locator(".tell"))
                .containsText(
                        "The sample is laid in", new LocatorAssertions.ContainsTextOptions().setTimeout(LAYING_IN_MS));
        assertThat(page.locator(".tell")).containsText("invented");
        assertThat(page.locator("main")).containsText("taken out whole");
        assertThat(count("job")).isPositive();
        assertThat(count("flight")).isPositive();
        assertThat(count("app_user")).isEqualTo(1);
        assertThat(Invariants.broken(jdbc)).isEmpty();

        // one's own beside it: a site that rests on nothing, a job on a site of the sample
        page.navigate(address("/begin/site"));
        page.fill("[name=name]", "Long field");
        page.fill("[name=launch]", "46.6110, -17.8934");
        save();
        assertThat(page.locator("h1")).not().hasText("A site");
        String crew = id("select id from person order by name limit 1");
        page.navigate(address("/papers/new?holderKind=pilot&holderId=" + crew + "&back=/crew/" + crew));
        page.selectOption("[name=kind]", "pilotCertificate");
        page.selectOption("[name=level]", "A1/A3");
        page.fill("[name=number]", "OWN-1");
        page.fill("[name=issuer]", "Office of the isles");
        save();
        assertThat(page.locator("main")).containsText("OWN-1");
        page.navigate(address("/begin"));
        page.click("form[action='/begin/sample/out'] button");
        assertThat(page.locator(".tell")).containsText("Nothing was taken out: the paper OWN-1 would lose");
        assertThat(count("job")).isPositive();
        jdbc.sql("delete from paper where number = 'OWN-1'").update();
        page.click("form[action='/begin/sample/out'] button");
        assertThat(page.locator(".tell")).containsText("nothing of it is left");
        assertThat(jdbc.sql("select name from site").query(String.class).list()).containsExactly("Long field");
        for (String table : new String[] {
            "job",
            "flight",
            "flight_trace",
            "aircraft",
            "build",
            "pack",
            "person",
            "paper",
            "zone_source",
            "assessment",
            "finding",
            "need",
            "answer",
            "chain_due",
            "incident",
            "sample_record",
            "person_aud",
            "paper_aud",
            "granter"
        }) {
            assertThat(count(table)).as(table).isZero();
        }
        assertThat(Invariants.broken(jdbc)).isEmpty();
        for (String path :
                new String[] {"/", "/fleet", "/packs", "/crew", "/papers", "/airspace", "/jobs", "/flights"}) {
            page.navigate(address(path));
            assertThat(page.locator("h1")).isVisible();
        }
        jdbc.sql("delete from site").update();
        jdbc.sql("update operator set name = 'Your operator'").update();
        jdbc.sql("update stamp set stamp = stamp + 1").update();
    }

    @Test
    @Order(2)
    void fromNothingToTheFirstJudgedLogOfOnesOwn() throws IOException {
        signIn();
        stands("Today, " + page.locator("h1").innerText().replace("Today, ", ""));
        assertThat(page.locator(".way li")).hasCount(6);
        assertThat(page.locator(".way")).containsText("nothing yet");
        press("main .btn-main");

        stands("The operator and its law");
        type("name", "Quillmark Surveys");
        choose("jurisdiction", "EU");
        save();

        stands("An aircraft with its pack");
        type("model", "Vosmere Ledge");
        type("serial", "VL-0001");
        type("airframeMass", "700 g");
        choose("classMark", "C2");
        type("packMass", "190 g");
        type("capacity", "3500");
        type("nominal", "11.55");
        save();

        stands("A pilot with a certificate");
        type("name", "Ines Tarrant");
        choose("kind", "pilotCertificate/A1/A3");
        type("number", "TI-900");
        save();

        stands("A site");
        type("name", "Long field");
        type("launch", "46.6110, -17.8934");
        save();

        stands("A job");
        assertThat(page.locator("[name=name]")).hasValue("Long field, first job");
        save();

        stands("A log");
        assertThat(page.locator(".way li").nth(4)).containsText("1 job");
        actions++;
        page.setInputFiles("input[type=file]", log());
        assertThat(page.locator("main")).containsText("Whose flight was it?");
        assertThat(page.locator("#aircraftId option:checked")).hasText("Ledge");
        assertThat(page.locator("#pilotId option:checked")).hasText("Ines Tarrant");
        press("#counted .btn-main");

        stands("Flight of Ledge");
        assertThat(page.locator("main")).containsText("Counted to");
        assertThat(page.locator(".ladder .rung").first()).isVisible();
        assertThat(actions).isLessThanOrEqualTo(MOST_ACTIONS);
        page.navigate(address("/"));
        assertThat(page.locator(".way")).hasCount(0);
        assertThat(jdbc.sql("select count(*) from pack").query(Long.class).single())
                .isEqualTo(1);

        // a second aircraft of the same name or model is said to be there already, and nothing of it is stored
        page.navigate(address("/begin/aircraft"));
        Map.of(
                        "model",
                        "Vosmere Ledge",
                        "capacity",
                        "3500",
                        "nominal",
                        "11.55",
                        "serial",
                        "VL-0002",
                        "airframeMass",
                        "700 g",
                        "packMass",
                        "190 g")
                .forEach(this::type);
        choose("classMark", "C2");
        save();
        assertThat(page.locator("[role=alert]")).containsText("Nothing was stored yet");
        assertThat(page.locator("[name=serial]")).hasValue("VL-0002");
        assertThat(jdbc.sql("select count(*) from aircraft").query(Long.class).single())
                .isEqualTo(1);
        page.fill("[name=model]", "Vosmere Ledge Two");
        page.fill("[name=airframeMass]", "many");
        save();
        assertThat(page.locator("#e-airframeMass")).isVisible();
        assertThat(jdbc.sql("select count(*) from pack_model").query(Long.class).single())
                .isEqualTo(1);
        for (String path : new String[] {"/fleet", "/packs", "/crew", "/papers", "/airspace", "/jobs", "/begin"}) {
            page.navigate(address(path));
            assertThat(page.locator("h1")).isVisible();
        }
    }
}
