package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** What is done in one click is undone in one: the next page offers the way back. */
class UndoTest extends BrowserTest {
    @Test
    void aJobSaidToBeFlownStandsAsPlannedAgain() {
        signIn("manager");
        String job = id("select id from job where state = 'PLANNED' order by first_day desc limit 1");
        page.navigate(address("/jobs/" + job));
        page.click(".head button:has-text('flown')");
        assertThat(page.locator(".tell")).containsText("stands as flown");
        assertThat(state(job)).isEqualTo("FLOWN");
        page.click(".undo button");
        assertThat(page.locator(".tell")).containsText("as it was before");
        assertThat(state(job)).isEqualTo("PLANNED");
        assertThat(page.locator(".undo")).hasCount(0);
    }

    @Test
    void anEntryOfTheDirectoryIsPutBackAsItWas() {
        signIn("manager");
        page.navigate(address("/airspace/directory"));
        int rows = page.locator("form[action$='/remove']").count();
        String first = id("select id from directory_entry order by name limit 1");
        page.click("form[action='/airspace/directory/" + first + "/remove'] button");
        assertThat(page.locator("form[action$='/remove']")).hasCount(rows - 1);
        page.click(".undo button:has-text('Put it back')");
        assertThat(page.locator("[name=name]")).not().hasValue("");
        page.navigate(address("/airspace/directory"));
        assertThat(page.locator("form[action$='/remove']")).hasCount(rows);
    }

    /** Somebody has changed the record since: their change is not swept away with mine. */
    @Test
    void whatChangedSinceIsNotUndoneUnseen() {
        signIn("manager");
        String paper = id("select id from paper order by number limit 1");
        page.navigate(address("/papers/" + paper + "?back=/papers"));
        page.click("button:has-text('delete') >> visible=true");
        var undo = page.locator(".undo button");
        assertThat(undo).hasText("Put it back");
        var other = context.newPage();
        other.navigate(address("/bin"));
        other.click("tr:has(a[href*='/history/paper/" + paper + "']) button");
        other.close();
        undo.click();
        assertThat(page.locator(".bad-note")).containsText("it is there already");
        assertThat(jdbc.sql("select count(*) from paper where id = ?")
                        .param(paper)
                        .query(Long.class)
                        .single())
                .isOne();
    }

    private String state(String job) {
        return jdbc.sql("select state from job where id = ?")
                .param(job)
                .query(String.class)
                .single();
    }
}
