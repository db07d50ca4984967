package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.SelectOption;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Sites drawn and typed, zones brought in, the day by the hour, the survey and the emergency card, as their users go. */
class SitePagesTest extends BrowserTest {
    private String site(String name) {
        return address("/airspace/sites/" + id("select id from site where name = '" + name + "'"));
    }

    private String job(String name) {
        return id("select id from job where name = '" + name + "'");
    }

    private static FilePayload file(String name, String text) {
        return new FilePayload(name, "application/octet-stream", text.getBytes(StandardCharsets.UTF_8));
    }

    private void bringIn(String name, FilePayload file, String restriction) {
        page.navigate(address("/airspace/sources"));
        page.setInputFiles("#f-file", file);
        page.fill("[name=name]", name);
        page.selectOption("[name=restriction]", restriction);
        page.click("button:has-text('Bring the file in')");
    }

    @Test
    void aSiteIsTypedInThreeNotationsWithoutAMouse() {
        signIn("manager");
        page.navigate(address("/airspace/sites/new"));
        page.fill("[name=name]", "Typed moor");
        page.fill("[name=launch]", "46°38'29.0\"N 17°53'51.0\"W");
        page.fill(
                "[name=area]",
                "N46 38.4 W017 54.0\n463824N0175342W\n46.6430; -17.8950".replace("; ", ", ")
                        + "\n46.6430N 17.9000W\n\nhole 46.6410, -17.8980; 46.6410, -17.8970; 46.6415, -17.8975");
        page.locator("[name=area]").blur();
        assertThat(page.locator("#measured")).containsText("ha); around it");
        page.fill("[name=elevation]", "60 ft");
        page.fill("[name=relief]", "5 m");
        page.click("button:has-text('Add a thing')");
        Locator row = page.locator(".editor > section > .thing").last();
        row.locator("[name='feature.kind']").selectOption("OBSTACLE");
        row.locator("[name='feature.sort']").fill("mast");
        row.locator("[name='feature.name']").fill("old mast");
        row.locator("[name='feature.height']").fill("100 ft");
        row.locator("[name='feature.shape']").fill("46.6421, -17.8961");
        page.click("button:has-text('Save')");
        page.waitForURL("**/airspace/sites/*-*");
        assertThat(page.locator("h1")).hasText("Typed moor");
        assertThat(page.locator("main")).containsText("18 m above sea");
        assertThat(page.locator("main")).containsText("30.5 m");
        assertThat(page.locator(".site-drawing")).isVisible();
    }

    @Test
    void aSiteIsDrawnWithTheKeyboardAndUndone() {
        signIn("manager");
        page.navigate(address("/airspace/sites/new"));
        Locator map = page.locator("#map");
        assertThat(map).hasAttribute("data-ready", "yes");
        map.focus();
        page.keyboard().press("Enter");
        for (String key : new String[] {"ArrowRight", "ArrowDown", "ArrowLeft"}) {
            for (int i = 0; i < 3; i++) {
                page.keyboard().press(key);
                // the map glides; the next key counts from where it has come to rest
                assertThat(page.locator(".leaflet-pan-anim")).hasCount(0);
            }
            page.keyboard().press("Enter");
        }
        assertThat(page.locator("#measured")).containsText("m² (");
        String four = page.inputValue("[name=area]");
        assertThat(four.split(";")).hasSize(4);
        page.keyboard().press("Control+z");
        assertThat(page.locator("[name=area]")).not().hasValue(four);
        assertThat(page.inputValue("[name=area]").split(";")).hasSize(3);
        page.keyboard().press("Control+y");
        assertThat(page.locator("[name=area]")).hasValue(four);
        page.keyboard().press("Backspace");
        assertThat(page.inputValue("[name=area]").split(";")).hasSize(3);
    }

    @Test
    void crossingSidesAreShownAndMendedOnRequest() {
        signIn("manager");
        page.navigate(address("/airspace/sites/new"));
        assertThat(page.locator("#map")).hasAttribute("data-ready", "yes");
        page.fill("[name=area]", "46.64, -17.90; 46.643, -17.895; 46.64, -17.895; 46.643, -17.90");
        page.locator("[name=area]").blur();
        assertThat(page.locator("#measured")).containsText("cross or touch near");
        page.click("#mend-it");
        assertThat(page.locator("#measured")).containsText("m² (");
        assertThat(page.locator("#mend")).isHidden();
    }

    @Test
    void aSiteGoesOutAsAFileAndComesBackIn() throws Exception {
        signIn("manager");
        page.navigate(site("Harbour wall"));
        for (String format : new String[] {"GEOJSON", "KML", "GPX"}) {
            Download d = page.waitForDownload(() -> page.click("a.btn:has-text('" + format + "')"));
            String text = Files.readString(d.path());
            assertThat(text).contains("quay crane");
            page.navigate(address("/airspace"));
            page.setInputFiles("#sf", file("site." + format.toLowerCase(java.util.Locale.ROOT), text));
            page.click("button:has-text('Open in the editor')");
            assertThat(page.locator("[role=status]").first()).containsText("Nothing is stored yet");
            assertThat(page.locator("[name=area]")).hasValue(Pattern.compile("46\\.595500, -17\\.847000"));
            assertThat(page.locator("[name=launch]")).hasValue(Pattern.compile("46\\.59"));
            assertThat(page.locator("#measured")).containsText("223,610 m²");
            page.navigate(site("Harbour wall"));
        }
        page.navigate(address("/airspace"));
        // the house's own look, not the library's
        assertThat(page.locator("#map")).hasCSS("background-color", "rgb(219, 230, 228)");
        assertThat(page.locator("#map")).hasCSS("font-family", Pattern.compile("Barlow.*"));
        page.setInputFiles(
                "#sf",
                file(
                        "bad.kml",
                        "<kml><Placemark><name>x</name><Point><coordinates>here</coordinates></Point></Placemark></kml>"));
        page.click("button:has-text('Open in the editor')");
        assertThat(page.locator(".bad-note")).containsText("feature 1 (x)");
        assertThat(page.locator(".bad-note")).containsText("longitude,latitude in degrees is expected");
    }

    @Test
    void aSourceIsReplacedWholeAndABadFileChangesNothing() {
        signIn("manager");
        String zones = """
                {"type": "FeatureCollection", "features": [
                 {"type": "Feature", "properties": {"name": "One", "upper": "120 m AGL"}, "geometry": {"type": "Polygon", "coordinates": [[[-18.2, 46.7], [-18.19, 46.7], [-18.19, 46.71], [-18.2, 46.7]]]}},
                 {"type": "Feature", "properties": {"name": "Two"}, "geometry": {"type": "Polygon", "coordinates": [[[-18.3, 46.7], [-18.29, 46.7], [-18.29, 46.71], [-18.3, 46.7]]]}}]}
                """;
        bringIn("Outer isles", file("z.json", zones), "");
        assertThat(page.locator(".bad-note").first()).containsText("Nothing was stored");
        assertThat(page.locator("main")).containsText("feature 1 (One), restriction: the file does not say");
        bringIn("Outer isles", file("z.json", zones), "CONDITIONAL");
        assertThat(page.locator("main")).containsText("2 added, 0 changed, 0 removed");
        bringIn(
                "Outer isles",
                file("z.json", zones.replace("\"Two\"", "\"Three\"").replace("120 m", "150 m")),
                "CONDITIONAL");
        assertThat(page.locator("main")).containsText("1 added, 1 changed, 1 removed");
        assertThat(page.locator("main")).containsText("upper 120 m AGL → 150 m AGL");
        bringIn("Outer isles", file("z.json", zones.replace("-18.29, 46.71", "-18.29, 146.71")), "CONDITIONAL");
        assertThat(page.locator("main")).containsText("feature 2 (Two), geometry: position");
        assertThat(jdbc.sql(
                                "select count(*) from zone z join zone_source s on s.id = z.source_id where s.name = 'Outer isles' and z.name = 'Three'")
                        .query(Long.class)
                        .single())
                .isOne();
        page.navigate(address("/airspace/sources/" + id("select id from zone_source where name = 'Outer isles'")));
        page.onDialog(d -> d.accept());
        page.click("button:has-text('take this source out')");
        assertThat(page.locator("table").first()).not().containsText("Outer isles");
    }

    private static String notice(String number, String words) {
        return "(" + number + " NOTAMN\nQ) XTFX/QRTCA/IV/BO/W/000/012/4640N01754W003\n"
                + "A) XTFX B) 2001010600 C) PERM\nE) " + words + "\nF) SFC G) 2500FT AMSL)\n\n";
    }

    private void bringIn(String bulletin) {
        bringIn("Bulletin", file("bulletin.txt", bulletin), "CONDITIONAL");
    }

    /** What was not understood counts with more than it means, is decided one by one, and stays decided for its words. */
    @Test
    void noticesNotUnderstoodAreDecidedOneByOne() {
        signIn("manager");
        String cranes = notice("A0901/26", "CRANES ERECTED AT: 464000N 0175400W, 464100N 0175300W");
        String valley = notice("A0902/26", "UAS FLYING IN THE VALLEY");
        String clear = notice("A0903/26", "WI 1NM RADIUS OF 464000N 0175400W");
        bringIn(cranes + valley + clear);
        String source = page.url();
        assertThat(page.locator(".doubt")).hasCount(2);
        assertThat(page.locator(".doubt").first()).containsText("CRANES ERECTED");
        page.navigate(address("/"));
        assertThat(page.locator("main")).containsText("2 notices were not understood whole");

        page.navigate(source);
        Locator first = page.locator(".doubt").first();
        first.locator("[value=AREA]").check();
        first.locator("[name=area]").fill("nowhere");
        first.locator("button").click();
        assertThat(page.locator(".bad-note")).containsText("Nothing was decided");
        assertThat(first.locator("[name=area]")).hasValue("nowhere");
        first.locator("[name=area]").fill("circle 46.6667, -17.9 radius 200 m");
        first.locator("button").click();
        assertThat(first).containsText("stands in another area");
        Locator second = page.locator(".doubt").last();
        second.locator("[value=LEFT]").check();
        second.locator("button").click();
        assertThat(page.locator(".bad-note")).containsText("say why");
        second.locator("[name=reason]").fill("the valley of another island");
        second.locator("button").click();
        assertThat(second).containsText("left out. the valley of another island. By");
        assertThat(page.locator(".figures")).containsText("Zones2");

        bringIn(cranes + valley.replace("VALLEY", "VALLEYS") + clear);
        assertThat(page.locator(".doubt").first()).containsText("stands in another area");
        assertThat(page.locator(".doubt").last()).containsText("to decide");
        assertThat(page.locator(".figures")).containsText("Zones3");
        page.locator(".doubt")
                .first()
                .locator("button:has-text('take the decision back')")
                .click();
        assertThat(page.locator(".doubt .st-dots")).hasCount(2);
        page.onDialog(d -> d.accept());
        page.click("button:has-text('take this source out')");
        assertThat(page.locator("table").first()).not().containsText("Bulletin");
    }

    @Test
    void noticesComeFromTheSimulatedFeedAndTheMapListsThem() {
        signIn("manager");
        page.navigate(address("/airspace/sources"));
        page.click("button:has-text('Fetch notices')");
        assertThat(page.locator(".note").first()).containsText("3 zones on file from notices (simulated feed)");
        page.navigate(address("/airspace"));
        assertThat(page.locator("#in-sight")).containsText("parachuting");
        page.selectOption("#mk", "TEMPORARY");
        assertThat(page.locator("#in-sight")).containsText("temporary restricted area");
        assertThat(page.locator("#in-sight")).not().containsText("Tarrow control zone");
        page.fill("#md", "+60 days");
        page.click("#map-form button");
        assertThat(page.locator("#in-sight")).containsText("CRANE");
        assertThat(page.locator("#in-sight")).not().containsText("REGATTA");
        page.fill("#mf", "100 m");
        page.click("#map-form button");
        assertThat(page.locator("#in-sight")).containsText("No zone on file is in sight");
        jdbc.sql("delete from zone_source where name like 'notices%'").update();
        changedByAnotherNode(jdbc, "zones");
    }

    @Test
    void thePageStaysReadableWhileTheMapFetchesItsList() throws Exception {
        signIn("manager");
        CompletableFuture<Route> heldBack = new CompletableFuture<>();
        page.route("**/airspace/in-sight*", heldBack::complete);
        page.navigate(address("/airspace"));
        page.waitForCondition(heldBack::isDone);
        assertThat(page.locator(".htmx-request")).hasCount(1);
        assertThat(page.locator("body.htmx-request")).hasCount(0);
        assertThat(new AxeBuilder(page)
                        .setLegacyMode(true)
                        .withRules(List.of("color-contrast"))
                        .analyze()
                        .getViolations())
                .isEmpty();
        heldBack.get().resume();
        assertThat(page.locator(".htmx-request")).hasCount(0);
    }

    @Test
    void theViewFitsTheMassOfTheBuild() {
        signIn("manager");
        page.navigate(address("/airspace/own"));
        page.fill("[name=name]", "Heavy only");
        page.selectOption("[name=kind]", "RESTRICTED");
        page.selectOption("[name=restriction]", "NEEDS_AUTHORISATION");
        page.fill("[name=bindsFrom]", "900 g");
        page.fill("[name=lower]", "ground");
        page.fill("[name=upper]", "120 m above ground");
        page.fill("[name=area]", "circle 46.6290, -17.9220 radius 300 m");
        page.click("button:has-text('Save')");
        assertThat(page.locator(".note").first()).containsText("“Heavy only” is on the map");
        page.navigate(site("Saltings shore"));
        Locator row = page.locator("#zones tr:has-text('Heavy only')");
        assertThat(row).containsText("binds");
        String light = (String)
                page.locator("#sb option").evaluateAll("os => os.find(o => / \\(2[0-9]{2}/.test(o.textContent)).value");
        page.selectOption("#sb", light);
        page.click("button:has-text('Show the day')");
        assertThat(row).containsText("does not concern it");
        assertThat(row).containsText("Binds from 900 g; this build weighs");
        page.navigate(address("/airspace/own?id=OWN-Heavy%20only"));
        page.click("button:has-text('take it off the map')");
        page.waitForURL("**/airspace");
        page.click(".undo button:has-text('Put it back')");
        assertThat(page.locator(".tell")).containsText("is on the map");
        page.navigate(address("/airspace/own?id=OWN-Heavy%20only"));
        assertThat(page.locator("[name=bindsFrom]")).hasValue("900 g");
        page.click("button:has-text('take it off the map')");
        page.waitForURL("**/airspace");
    }

    @Test
    void aReportIsReadWholeAndTheDayShowsItsWindows() {
        signIn("manager");
        page.navigate(site("Harbour wall"));
        page.fill("#wr", "XTAR 32O1Z nonsense");
        page.click("button:has-text('Read the report')");
        assertThat(page.locator(".bad-note")).containsText("is no report");
        assertThat(page.locator("#wr")).hasValue("XTAR 32O1Z nonsense");
        String now = java.time.format.DateTimeFormatter.ofPattern("ddHHmm'Z'")
                .withZone(java.time.ZoneOffset.UTC)
                .format(java.time.Instant.now());
        page.fill("#wr", "XTAR " + now + " 24012G31KT 9999 R27/1200 BKN018 12/08 Q1013");
        page.click("button:has-text('Read the report')");
        assertThat(page.locator("[role=status]").first()).containsText("Kept and not reckoned with: R27/1200");
        page.click("button:has-text('Ask the weather station')");
        assertThat(page.locator("[role=status]").first()).containsText("From the simulated station");
        page.navigate(site("Harbour wall") + "?day=tomorrow");
        assertThat(page.locator("#weather .day-strip .wind")).hasCount(24);
        assertThat(page.locator("#weather")).containsText("over open water");
        assertThat(page.locator("#weather summary:has-text('why?')")).containsText("reports on file for this day");
        page.click("summary:has-text('type figures')");
        page.fill("#wt-time", "25");
        page.click(".weather-in button:has-text('Save the figures')");
        assertThat(page.locator(".bad-note")).containsText("is not a time of day");
    }

    @Test
    void aSurveyIsFilledSignedAndTheNextTellsWhatChanged() {
        signIn("manager");
        page.navigate(site("Beacon mast"));
        page.click("button:has-text('Begin a survey')");
        assertThat(page.locator("main")).containsText("Beacon mast, 112 m");
        page.click("button:has-text('Save and sign')");
        assertThat(page.locator(".bad-note")).containsText("still open:");
        for (Locator open : page.locator(".survey-line:has(.st-notch)").all()) {
            open.locator("textarea").fill("Looked at from the launch point; nothing else.");
            open.locator("select").selectOption("SEEN");
        }
        page.fill("#vo", "yesterday");
        page.click("button:has-text('Save and sign')");
        assertThat(page.locator("main")).containsText("It stays as it was.");
        byte[] pdf = page.request().get(page.url() + ".pdf").body();
        assertThat(new String(pdf, 0, 5, StandardCharsets.ISO_8859_1)).isEqualTo("%PDF-");

        page.navigate(site("Beacon mast") + "/edit");
        page.click("button:has-text('Add a thing')");
        Locator row = page.locator(".editor > section > .thing").last();
        row.locator("[name='feature.kind']").selectOption("HAZARD");
        row.locator("[name='feature.name']").fill("open trench");
        row.locator("[name='feature.shape']").fill("46.6214, -17.8812");
        page.click("button:has-text('Save')");
        page.click("button:has-text('Begin another from the newest')");
        assertThat(page.locator(".bad-note")).containsText("new: hazard open trench");
        assertThat(page.locator("textarea").first()).isVisible();
    }

    @Test
    void theEmergencyCardIsKeptOnThePhoneAndReckonsAFlyAway() {
        use(ColorScheme.LIGHT, 390, 844);
        signIn("manager");
        page.navigate(address("/field/card/" + job("Peat bog grid, north")));
        assertThat(page.locator("#offline")).containsText("Kept on this phone");
        assertThat(page.locator(".call").first()).containsText("112");
        assertThat(page.locator("main")).containsText("four six degrees three six decimal five minutes north");
        assertThat(page.locator("main")).containsText("Island route R12");
        page.context().setOffline(true);
        page.reload();
        assertThat(page.locator("h1")).hasText("If it goes wrong");
        assertThat(page.locator("main")).containsText("Tarrow tower");
        assertThat(page.locator("#offline")).containsText("No connection: this is the page as it was kept");
        page.fill("#ch", "045");
        page.click("button:has-text('Reckon')");
        assertThat(page.locator("#reckon-says")).containsText("needs a connection");
        assertThat(page.locator("#ch")).hasValue("045");
        assertThat(page.locator("#directions")).containsText("towards the north-east, 045°");
        page.context().setOffline(false);
        page.fill("#ch", "400");
        page.click("button:has-text('Reckon')");
        assertThat(page.locator(".bad-note").first()).containsText("0 to 360 degrees");
        page.fill("#ch", "090");
        page.fill("#cm", "3");
        page.click("button:has-text('Reckon')");
        assertThat(page.locator("table").first().locator("tbody tr")).hasCount(3);
        byte[] pdf = page.request()
                .get(address("/field/card/" + job("Peat bog grid, north") + ".pdf?sheet=letter"))
                .body();
        assertThat(new String(pdf, 0, 5, StandardCharsets.ISO_8859_1)).isEqualTo("%PDF-");
    }

    /** Who is signed out by the clock stands on a cliff all the same. */
    @Test
    void aSessionThatEndedDoesNotTakeTheCardAway() {
        use(ColorScheme.LIGHT, 390, 844);
        signIn("manager");
        page.navigate(address("/"));
        page.locator(".job-card:has-text('Peat bog grid') >> text=If it goes wrong")
                .click();
        assertThat(page.locator("#offline")).containsText("Kept on this phone");
        assertThat(page.locator("#now")).containsText("UTC");
        assertThat(page.locator("main")).containsText("No return within one minute: act as for a fly-away.");
        assertThat(page.locator(".call").first()).containsText("when somebody is hurt or in danger");
        assertThat(page.locator(".say").nth(1)).containsText("Launched from 46°36");
        assertThat(page.locator(".say").nth(1)).containsText("Last seen …");
        page.context().clearCookies();
        page.reload();
        assertThat(page.locator("h1")).hasText("If it goes wrong");
        assertThat(page.locator("#offline")).containsText("sign in again to have it renewed");
        page.reload();
        assertThat(page.locator("h1")).hasText("If it goes wrong");
    }

    @Test
    void aDirectoryEntryNeedsANumberAndReachesTheCardsOfItsArea() {
        signIn("manager");
        page.navigate(address("/airspace/directory/new"));
        page.fill("[name=name]", "Skarn rescue boat");
        page.selectOption("[name=role]", new SelectOption().setLabel("coast guard"));
        page.fill("[name=area]", "circle 46.65, -17.83 radius 3 km");
        page.click("button:has-text('Save')");
        assertThat(page.locator(".bad-note")).containsText("a telephone number or a radio channel is needed");
        page.fill("[name=phone]", "+351 000 000 199");
        page.click("button:has-text('Save')");
        page.waitForURL("**/airspace/directory");
        page.navigate(address("/field/card/" + job("Cliff faces, autumn count")));
        assertThat(page.locator("main")).containsText("Skarn rescue boat");
        page.navigate(address("/field/card/" + job("Peat bog grid, north")));
        assertThat(page.locator("main")).not().containsText("Skarn rescue boat");
    }

    @Test
    void theFourCasesOfTheTwoMapsAreTold() {
        signIn("manager");
        page.navigate(site("Lowmere bog"));
        assertThat(page.locator("#zones")).containsText("neither the law's zones nor the maker's map bind here");
        page.navigate(site("Beacon mast"));
        assertThat(page.locator("#zones")).containsText("the maker's map binds, the law does not");
        page.navigate(site("Harbour wall"));
        assertThat(page.locator("#zones")).containsText("the law binds, the maker's map does not");
        page.navigate(site("Field edge"));
        assertThat(page.locator("#zones")).containsText("both bind");
        assertThat(page.locator("#zones")).containsText("An unlock never gives legal authority");
    }

    private void published(String source, int daysAgo) {
        jdbc.sql("update zone_source set published_on = date_sub(curdate(), interval ? day), version = version + 1"
                        + " where name = ?")
                .params(daysAgo, source)
                .update();
        changedByAnotherNode(jdbc, "zones");
    }

    @Test
    void zonesOutOfDateSayNothingAnyMoreButTheMakersMapDoesNotCount() {
        signIn("manager");
        published("built-in map of the aircraft", 40);
        page.navigate(site("Lowmere bog"));
        assertThat(page.locator("#zones .bad-note")).hasCount(0);
        published("Tarrow Isles zones", 29);
        page.navigate(site("Lowmere bog"));
        assertThat(page.locator("#zones .bad-note"))
                .containsText("Zones out of date: whether they still hold is not known");
        page.navigate(address("/airspace/sources"));
        assertThat(page.locator("tr:has-text('Tarrow Isles zones')")).containsText("29 of 28 days");
        page.navigate(address("/"));
        assertThat(page.locator("main")).containsText("Zones: Tarrow Isles zones");
        published("Tarrow Isles zones", 28);
        page.navigate(site("Lowmere bog"));
        assertThat(page.locator("#zones .bad-note")).hasCount(0);
        published("Tarrow Isles zones", 9);
        published("built-in map of the aircraft", 9);
    }

    @Test
    void aReaderSeesAndChangesNothing() {
        signIn("reader");
        page.navigate(site("Lowmere bog"));
        assertThat(page.locator("a:has-text('Edit on the map')")).hasCount(0);
        assertThat(page.locator("button:has-text('Ask the weather station')")).hasCount(0);
        assertThat(page.locator("h2:has-text('Height allowed')")).isVisible();
    }
}
