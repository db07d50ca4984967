package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.SelectOption;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Registers out, and in again. */
class ExchangeTest extends BrowserTest {
    private void hand(String register, String file, byte[] content) {
        page.navigate(address("/exchange"));
        page.selectOption("[name=register]", register);
        page.setInputFiles("[name=file]", new FilePayload(file, "application/octet-stream", content));
        page.click("button:has-text('Show the rows')");
    }

    @ParameterizedTest
    @ValueSource(strings = {"models", "papers", "sites", "jobs"})
    void whatIsHandedOutComesInAgainAsItIs(String register) {
        signIn("manager");
        for (String format : new String[] {".csv", ".xlsx"}) {
            byte[] out = page.request()
                    .get(address("/exchange/" + register + format))
                    .body();
            hand(register, register + format, out);
            assertThat(page.locator("main")).containsText("0 new, 0 change a record");
            assertThat(page.locator("main")).containsText("0 cannot be brought in");
            assertThat(page.locator("button:has-text('Bring in')")).isDisabled();
        }
        assertThat(page.request()
                        .get(address("/exchange/" + register + ".json"))
                        .text())
                .contains("\"records\"");
    }

    @Test
    void rowsAreMatchedLookedAtAndBroughtInBySerial() {
        signIn("manager");
        String table = """
                Aircraft;S/N;Type;Purchased;Weighed;Colour
                Saltmarsh;SM-0001;Brindlewick Tuft 2;3 Sep 2026;;red
                Fescue;SM-0002;Brindlewick Tuft 9;2026-13-40;;green
                Sedge;SM-0001;Brindlewick Tuft 2;;;
                """;
        hand("aircraft", "bought.csv", table.getBytes(StandardCharsets.UTF_8));
        assertThat(page.locator("select[name=c0]")).hasValue("name");
        assertThat(page.locator("select[name=c1]")).hasValue("serial");
        assertThat(page.locator("select[name=c2]")).hasValue("model");
        assertThat(page.locator("select[name=c3]")).hasValue("boughtOn");
        assertThat(page.locator("select[name=c5]")).hasValue("");
        assertThat(page.locator("main")).containsText("1 new, 0 change a record, 0 are as they are, 2 cannot be");
        assertThat(page.locator("tr:has-text('Fescue')").last()).containsText("that is not among the choices");
        assertThat(page.locator("tr:has-text('Fescue')").last()).containsText("“2026-13-40” is not a date");
        assertThat(page.locator("tr:has-text('Sedge')").last()).containsText("line 2 has the same");

        page.click("button:has-text('Bring in 1 row')");
        assertThat(page.locator(".bad-note")).containsText("2 rows are wrong");
        assertThat(count("aircraft where serial like 'SM-%'")).isZero();
        page.check("[name=leaveOut]");
        page.click("button:has-text('Bring in 1 row')");
        assertThat(page.locator(".note").first()).containsText("1 new, 0 changed, 0 as they were, 2 left out");
        assertThat(count("aircraft where serial = 'SM-0001' and bought_on = '2026-09-03'"))
                .isOne();

        hand("aircraft", "renamed.csv", "Serial number,Name\nSM-0001,Saltmarsh two\n".getBytes(StandardCharsets.UTF_8));
        assertThat(page.locator("main")).containsText("Saltmarsh → Saltmarsh two");
        page.click("button:has-text('Bring in 1 row')");
        assertThat(count("aircraft where name = 'Saltmarsh two' and bought_on = '2026-09-03'"))
                .isOne();
        jdbc.sql("delete from aircraft where serial like 'SM-%'").update();
        changedByAnotherNode(jdbc, "aircraft names");
    }

    @Test
    void jobsArePlannedFromATableOfTheirQuestions() {
        signIn("manager");
        hand("jobs", "spring.csv", """
                Name;Site;First day;From;To;Build;Pilot in command;Purpose;Observer;Height counts from;Assembly
                Levels in March;Field edge;14 Mar 2027;9:30;11:00;Bracken, standard;Hanne Loxby;work;;the ground below;no
                Levels in May;Field edge;14 May 2027;9:30;11:00;Bracken, tall;Hanne Loxby;work;;the ground below;perhaps
                """.getBytes(StandardCharsets.UTF_8));
        assertThat(page.locator("main")).containsText("1 new, 0 change a record, 0 are as they are, 1 cannot be");
        assertThat(page.locator("tr:has-text('Levels in May')").last()).containsText("not among the choices");
        page.check("[name=leaveOut]");
        page.click("button:has-text('Bring in 1 row')");
        assertThat(page.locator(".note").first()).containsText("1 new");
        page.navigate(address("/jobs/" + id("select id from job where name = 'Levels in March'")));
        assertThat(page.locator("main")).containsText("Bracken");
        assertThat(page.locator("#findings")).isVisible();
        page.navigate(page.url() + "/edit");
        assertThat(page.locator("[name=assembly]")).hasValue("no");
        jdbc.sql("update job set state = 'CANCELLED' where name = 'Levels in March'")
                .update();
    }

    @Test
    void theUnitOfAColumnGoesToItsFigures() {
        signIn("manager");
        hand(
                "accessories",
                "masses.csv",
                "Name,Kind,Mass (kg)\nlamp of the shed,light,0.0125\nrope,other,4 st\n"
                        .getBytes(StandardCharsets.UTF_8));
        assertThat(page.locator("tr:has-text('rope')").last()).containsText("a mass such as 249.4");
        page.check("[name=leaveOut]");
        page.click("button:has-text('Bring in 1 row')");
        assertThat(count("accessory where name = 'lamp of the shed' and mass_g = 12.5"))
                .isOne();
        jdbc.sql("delete from accessory where name = 'lamp of the shed'").update();
    }

    @Test
    void columnsAreMatchedByHandAndAnEmptyCellEmptiesOnlyWhenWanted() {
        signIn("manager");
        hand("crew", "people.csv", "Who,Call\nAilsa Fenwright,\n".getBytes(StandardCharsets.UTF_8));
        page.selectOption("select[name=c0]", new SelectOption().setLabel("Name"));
        page.selectOption("select[name=c1]", new SelectOption().setLabel("Telephone"));
        page.click("button:has-text('Show again')");
        assertThat(page.locator("main")).containsText("1 are as they are");
        page.check("#columns [name=clearing]");
        page.click("button:has-text('Show again')");
        assertThat(page.locator("main")).containsText("1 change a record");
        page.click("button:has-text('forget this table')");
        page.waitForURL("**/exchange");
        assertThat(count("register_upload where file_name = 'people.csv'")).isZero();
    }

    @Test
    void aFileThatIsNoTableIsToldAndKeptNowhere() {
        signIn("manager");
        hand("packs", "broken.csv", "label,serial\n\"P-1,2\n".getBytes(StandardCharsets.UTF_8));
        assertThat(page.locator(".bad-note")).containsText("broken.csv, line 2: a quote is opened and not closed");
        assertThat(count("register_upload where file_name = 'broken.csv'")).isZero();
    }

    private long count(String from) {
        return jdbc.sql("select count(*) from " + from).query(Long.class).single();
    }
}
