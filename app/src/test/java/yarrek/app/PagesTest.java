package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The real pages in a real browser, each path as its user goes. */
class PagesTest extends BrowserTest {
    private static FilePayload sample(String name) throws Exception {
        try (InputStream in = PagesTest.class.getResourceAsStream("/logs/" + name)) {
            return new FilePayload(
                    Path.of(name).getFileName().toString(), "application/octet-stream", in.readAllBytes());
        }
    }

    @Test
    void todaySaysWhatNeedsAHand() {
        signIn("manager");
        assertThat(page.locator("h1")).containsText("Today");
        assertThat(page.locator("#queue")).containsText("run out");
        assertThat(page.locator("#queue")).containsText("no-go");
        assertThat(page.locator(".job-card")).hasCount(3);
        assertThat(page.locator("svg.weave .knot").first()).isVisible();
    }

    @Test
    void fleetAndCrewStandByTheirPapersTheMostPressingFirst() {
        use(ColorScheme.LIGHT, 1280, 800);
        signIn("manager");
        for (String path : List.of("/fleet", "/crew")) {
            page.navigate(address(path));
            Locator standings =
                    page.locator(path.equals("/fleet") ? "#aircraft td:first-child" : "#people td:first-child");
            List<String> words =
                    standings.allInnerTexts().stream().map(String::strip).toList();
            List<String> order =
                    List.of("run out", "gap", "not known", "no paper on file", "not yet valid", "act soon", "in force");
            assertThat(words).as(path).isNotEmpty().isSubsetOf(order);
            assertThat(words.get(0)).as(path).isEqualTo("run out");
            assertThat(words.get(words.size() - 1)).as(path).isNotEqualTo("run out");
        }
    }

    @Test
    void tryingAPartShowsMassAndClassAndKeepsNothingUntilItIsSaid() {
        signIn("manager");
        page.navigate(
                address(
                        "/fleet/builds/"
                                + id(
                                        "select b.id from build b join aircraft a on a.id = b.aircraft_id where a.name = 'Thrift' and b.name = 'light'")));
        assertThat(page.locator("#mass")).hasText("249.4 g");
        assertThat(page.locator("#mass-class")).hasText("below 250 g");
        page.getByLabel("filter, grey 1.2 g").check();
        assertThat(page.locator("#mass")).hasText("250.6 g");
        assertThat(page.locator("#mass-class")).hasText("250 g to below 900 g");
        assertThat(page.locator("#tried")).containsText("Tried, not kept. As stored it weighs 249.4 g");
        page.reload();
        assertThat(page.locator("#mass")).hasText("249.4 g");
        assertThat(page.locator("#tried")).hasCount(0);
        page.getByLabel("filter, grey 1.2 g").check();
        page.click("button:has-text('Keep it on this build')");
        assertThat(page.locator(".tell")).containsText("Kept");
        assertThat(page.locator("#mass")).hasText("250.6 g");
        page.click(".undo button");
        assertThat(page.locator("#mass")).hasText("249.4 g");
        assertThat(page.locator("#tried")).hasCount(0);
    }

    @Test
    void whatWasTriedBecomesABuildOfItsOwn() {
        signIn("manager");
        page.navigate(
                address(
                        "/fleet/builds/"
                                + id(
                                        "select b.id from build b join aircraft a on a.id = b.aircraft_id where a.name = 'Thrift' and b.name = 'light'")));
        page.getByLabel("filter, grey 1.2 g").check();
        page.fill("#tried [name=name]", "light");
        page.click("button:has-text('New build from this')");
        assertThat(page.locator(".bad-note").first()).containsText("already. Call it something else");
        assertThat(page.locator("#mass")).hasText("250.6 g");
        page.fill("#tried [name=name]", "light, grey filter");
        page.click("button:has-text('New build from this')");
        assertThat(page.locator("h1")).containsText("light, grey filter");
        assertThat(page.locator("#mass")).hasText("250.6 g");
        assertThat(page.getByLabel("filter, grey 1.2 g")).isChecked();
        jdbc.sql(
                        "delete from build_accessory where build_id in (select id from build where name = 'light, grey filter')")
                .update();
        jdbc.sql("delete from build where name = 'light, grey filter'").update();
    }

    @Test
    void aJobIsPlannedAssessedAndMended() {
        signIn("manager");
        page.navigate(address("/jobs/new"));
        page.fill("[name=name]", "Test of the north grid");
        page.selectOption("[name=siteId]", new com.microsoft.playwright.options.SelectOption().setLabel("Lowmere bog"));
        page.fill("[name=firstDay]", "+5 days");
        page.fill("[name=from]", "10");
        page.fill("[name=to]", "12:30");
        page.selectOption("[name=subcategory]", "A3");
        page.fill("[name=height]", "400 ft");
        page.click("button:has-text('Save')");
        assertThat(page.locator(".note").first()).containsText("No-go as planned");
        assertThat(page.locator("#findings")).containsText("121.9 m, at most 120 m: 1.9 m beyond");
        page.click("a.btn:has-text('Edit')");
        page.fill("[name=height]", "100 m");
        page.click("button:has-text('Save')");
        Locator met = page.locator("#findings .fold", new Page.LocatorOptions().setHasText("met"))
                .first();
        met.locator("summary").first().click();
        assertThat(met).containsText("100 m, at most 120 m: 20 m left");
    }

    @Test
    void aWrongFormSaysWhatAndLosesNothing() {
        signIn("manager");
        page.navigate(address("/jobs/new"));
        page.fill("[name=name]", "Half a job");
        page.fill("[name=firstDay]", "the day after");
        page.fill("[name=height]", "tall");
        page.click("button:has-text('Save')");
        assertThat(page.locator("[role=alert]")).containsText("what you typed is still here");
        assertThat(page.locator("#e-height")).containsText("“tall” is not understood");
        assertThat(page.locator("[name=name]")).hasValue("Half a job");
        assertThat(page.locator("[name=firstDay]")).hasValue("the day after");
    }

    @Test
    void anAreaThatCrossesItselfIsRefusedWithItsPlace() {
        signIn("manager");
        page.navigate(address("/airspace/sites/new"));
        page.fill("[name=name]", "Bow tie");
        page.fill("[name=launch]", "46.60, -17.90");
        page.fill("[name=area]", "46.60, -17.90; 46.61, -17.88; 46.61, -17.90; 46.60, -17.88");
        page.click("button:has-text('Save')");
        assertThat(page.locator("#e-area")).containsText("cross");
        assertThat(jdbc.sql("select count(*) from site where name = 'Bow tie'")
                        .query(Long.class)
                        .single())
                .isZero();
    }

    @Test
    void aLaunchPointAloneIsDrawn() {
        signIn("manager");
        page.navigate(address("/airspace/sites/new"));
        page.fill("[name=launch]", "46.60, -17.90");
        page.click("button:has-text('Save')");
        assertThat(page.locator("#map[data-ready=yes]")).hasCount(1);
    }

    @Test
    void aPaperThatEndsBeforeItBeginsIsRefused() {
        signIn("manager");
        page.navigate(
                address("/papers/new?holderKind=operator&holderId=" + id("select id from operator") + "&back=/crew"));
        page.fill("[name=number]", "X-1");
        page.fill("[name=issuer]", "Office");
        page.fill("[name=validFrom]", "14 Mar 2027");
        page.fill("[name=validTo]", "13 Mar 2027");
        page.click("button:has-text('Save')");
        assertThat(page.locator("#e-validTo")).containsText("is before valid from");
    }

    @Test
    void twoPeopleSavingTheSameAircraftAreToldAndNothingIsLost() {
        signIn("manager");
        String path = "/fleet/aircraft/" + id("select id from aircraft where name = 'Hazel'") + "/edit";
        page.navigate(address(path));
        Page other = context.newPage();
        other.navigate(address(path));
        other.fill("[name=serial]", "OA-0058");
        other.click("button:has-text('Save')");
        page.fill("[name=serial]", "OA-0059");
        page.click("button:has-text('Save')");
        assertThat(page.locator("[role=alert]")).containsText("Somebody else saved this record");
        assertThat(page.locator("[name=serial]")).hasValue("OA-0059");
        assertThat(page.locator(".now")).containsText("OA-0058");
        page.click("button:has-text('Save')");
        assertThat(id("select serial from aircraft where name = 'Hazel'")).isEqualTo("OA-0059");
    }

    @Test
    void aLogIsMatchedJudgedDrawnAndABreachBecomesAnIncident() throws Exception {
        signIn("manager");
        page.navigate(address("/flights"));
        page.setInputFiles("#files", sample("out-and-back.csv"));
        assertThat(page.locator("h1")).containsText("What do the columns of out-and-back.csv mean?");
        page.click("button:has-text('Read it so')");
        assertThat(page.locator("main")).containsText("Flight of");
        assertThat(page.locator(".figures").first()).containsText("414.2 m");
        assertThat(page.locator("#strips canvas").first()).isVisible();
        assertThat(page.getByLabel("Height above take-off, from ")).isVisible();

        page.navigate(address("/flights"));
        page.setInputFiles("#files", sample("height-breach.gpx"));
        assertThat(page.locator(".ladder")).containsText("137.4 m, at most 120 m: 17.4 m beyond");
        page.locator("text=open an incident").first().click();
        page.selectOption("[name=kind]", "limit exceeded");
        page.fill("[name=statement]", "Climbed with the ground falling away.");
        page.click("button:has-text('Save')");
        assertThat(page.locator("main")).containsText("Climbed with the ground falling away.");
        assertThat(page.locator("main")).containsText("SHA-256");

        page.navigate(address("/flights"));
        page.setInputFiles("#files", sample("height-breach.gpx"));
        assertThat(page.locator(".note[role=status]")).containsText("byte for byte the same");
    }

    @Test
    void flyingCountsToAircraftPackAndPilotAndIsTakenBackWhenChanged() throws Exception {
        signIn("manager");
        page.navigate(address("/flights"));
        page.setInputFiles("#files", sample("linear-inspection.csv"));
        page.click("button:has-text('Read it so')");
        String pack = id("select id from pack where label = 'V16'");
        page.selectOption("[name=packId]", pack);
        page.selectOption("[name=aircraftId]", id("select id from aircraft where name = 'Sedge'"));
        page.click("button:has-text('Save, judge')");
        assertThat(page.locator(".figures").first()).containsText("0.04"); // 178.6 mAh of 5000
        assertThat(jdbc.sql("select drawn_mah from pack where id = ?")
                        .param(pack)
                        .query(Double.class)
                        .single())
                .isBetween(178.0, 179.2);
        assertThat(jdbc.sql("select flown_s from aircraft where name = 'Sedge'")
                        .query(Long.class)
                        .single())
                .isBetween(158L, 162L);
        page.selectOption("[name=packId]", "");
        page.click("button:has-text('Save, judge')");
        assertThat(page.locator("[name=packId]")).hasValue("");
        assertThat(jdbc.sql("select drawn_mah from pack where id = ?")
                        .param(pack)
                        .query(Double.class)
                        .single())
                .isLessThan(0.001);
    }

    @Test
    void aFileOfZeroBytesAndAPictureAreRefusedInWords() {
        signIn("manager");
        page.navigate(address("/flights"));
        page.setInputFiles("#files", new FilePayload("empty.csv", "text/csv", new byte[0]));
        assertThat(page.locator("[role=alert]")).containsText("the file is empty");
        page.setInputFiles(
                "#files",
                new FilePayload(
                        "page.html", "text/html", "<html><body>x</body></html>".getBytes(StandardCharsets.UTF_8)));
        assertThat(page.locator("[role=alert]")).containsText("not <gpx>");
    }

    @Test
    void aFileOverTheLimitIsToldAndNothingIsStored() {
        signIn("manager");
        page.navigate(address("/flights"));
        long before = jdbc.sql("select count(*) from upload").query(Long.class).single();
        Path big = tooLarge();
        page.setInputFiles("#files", big);
        assertThat(page.locator("[role=alert]")).containsText("larger than 100 MB");
        assertThat(jdbc.sql("select count(*) from upload").query(Long.class).single())
                .isEqualTo(before);
    }

    private static Path tooLarge() {
        try {
            Path big = java.nio.file.Files.createTempFile("too-large", ".csv");
            big.toFile().deleteOnExit();
            try (var f = new java.io.RandomAccessFile(big.toFile(), "rw")) {
                f.setLength(120_000_000);
            }
            return big;
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Test
    void rolesAreKeptOnTheServer() {
        signIn("reader");
        assertThat(page.locator("nav[aria-label=Pages]")).not().containsText("Office");
        assertThat(page.navigate(address("/office")).status()).isEqualTo(403);
        page.navigate(address("/jobs"));
        assertThat(page.locator("text=Plan a job")).hasCount(0);
        page.navigate(address("/fleet/aircraft/new"));
        assertThat(page.locator("button:has-text('Save')")).hasCount(0);
        int status = (Integer)
                page.evaluate(
                        "async () => { const t = document.querySelector('[name=_csrf]').value; const r = await fetch('/fleet/aircraft/new', {method: 'POST', headers: {'Content-Type': 'application/x-www-form-urlencoded'}, body: '_csrf=' + encodeURIComponent(t) + '&name=x&serial=y'}); return r.status; }");
        assertThat(status).isEqualTo(403);
    }

    @Test
    void aPilotSeesOnlyWhatIsTheirs() {
        signIn("pilot");
        page.navigate(address("/jobs"));
        assertThat(page.locator("main")).containsText("Cliff faces, autumn count");
        assertThat(page.locator("main")).not().containsText("Field edge drainage");
        String other = id("select id from job where name = 'Field edge drainage'");
        assertThat(page.navigate(address("/jobs/" + other)).status()).isEqualTo(403);
        String flight =
                id("select f.id from flight f join person p on p.id = f.pilot_id where p.name = 'Hanne Loxby' limit 1");
        assertThat(page.navigate(address("/flights/" + flight)).status()).isEqualTo(403);
        assertThat(page.navigate(address("/flights/" + flight + "/drawing.json"))
                        .status())
                .isEqualTo(403);
    }

    @Test
    void listsAreWorkedByKeyboard() {
        signIn("manager");
        assertThat(page.locator("h1")).containsText("Today");
        page.keyboard().press("g");
        page.keyboard().press("j");
        assertThat(page.locator("h1")).containsText("Jobs");
        page.keyboard().press("/");
        page.keyboard().type("mast");
        assertThat(page.locator(".job-table tbody tr:visible")).hasCount(1);
        page.locator(".filter").blur();
        page.keyboard().press("j");
        page.keyboard().press("Enter");
        assertThat(page.locator("h1")).containsText("Mast inspection");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/",
                "/jobs",
                "/flights",
                "/fleet",
                "/incidents/new",
                "/papers",
                "/notices",
                "/exchange",
                "/airspace",
                "/airspace/sources",
                "/airspace/directory",
                "/approvals",
                "/approvals/kinds",
                "/work",
                "/rulebook"
            })
    void phoneWidthIsNotBroken(String path) {
        use(ColorScheme.LIGHT, 390, 844);
        signIn("manager");
        page.navigate(address(path));
        assertThat((Integer) page.evaluate("document.documentElement.scrollWidth"))
                .isLessThanOrEqualTo(390);
    }
}
