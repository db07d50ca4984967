package yarrek.app.chains;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Element;
import yarrek.app.print.Drawing;

class ChainSvgTest {
    private static final double LEFT = 262;

    private static ChainDrawing drawing(double today, double jobFrom, ChainDrawing.Bar... bars) {
        return new ChainDrawing(
                760,
                22 + 26 * bars.length + 22,
                today,
                jobFrom,
                jobFrom + 10,
                List.of(new ChainDrawing.Tick(100, "2 Nov", true), new ChainDrawing.Tick(150, "", false)),
                List.of(bars),
                List.of("M1 2 H3"));
    }

    /** Work 10 to 40, with the granter 40 to 90, at worst to 140, slack to 200, held by 210, sent by 110. */
    private static ChainDrawing.Bar step(String standing, boolean done) {
        return new ChainDrawing.Bar(
                22, "Zone <permit>", 10, 40, 90, 140, 200, 210, 110, true, done, standing, "send by 3 Nov");
    }

    private static Drawing read(ChainDrawing d) {
        return Drawing.read(d.svg("Chain of the mast"));
    }

    @Test
    void workWaitingWorstAndSlackFollowOneAnother() {
        Drawing d = read(drawing(5, 300, step("in time", false)));
        d.standsInItsSheet();
        assertThat(spans(d, "c-work")).containsExactly(LEFT + 10, LEFT + 40);
        assertThat(spans(d, "c-wait")).containsExactly(LEFT + 40, LEFT + 90);
        assertThat(spans(d, "c-worst")).containsExactly(LEFT + 90, LEFT + 140);
        assertThat(Drawing.number(d.one("c-slack"), "x1")).isEqualTo(LEFT + 140);
        assertThat(Drawing.number(d.one("c-slack"), "x2")).isEqualTo(LEFT + 200);
        assertThat(Drawing.number(d.one("c-limit"), "x1")).isEqualTo(LEFT + 210);
        assertThat(d.one("c-latest").getAttribute("d")).isEqualTo("M 372 27 l-4 -6 h8 Z");
        assertThat(d.all("late")).isEmpty();
        assertThat(d.one("name crit").getTextContent()).isEqualTo("Zone <permit>");
        assertThat(d.words()).contains("send by 3 Nov", "2 Nov");
    }

    private static List<Double> spans(Drawing d, String sort) {
        Element e = d.one(sort);
        return List.of(Drawing.number(e, "x"), Drawing.end(e));
    }

    @Test
    void whatComesTooLateIsMarkedAndHasNoSlack() {
        ChainDrawing.Bar late =
                new ChainDrawing.Bar(22, "Permit", 10, 40, 90, 140, 140, 120, 5, false, false, "too late", "");
        Drawing d = read(drawing(5, 110, late));
        assertThat(d.all("late")).hasSize(2);
        assertThat(d.all("c-slack")).isEmpty();
    }

    @Test
    void aGrantedStepIsOnlyItsGrant() {
        Drawing d = read(drawing(5, 300, step("granted", true)));
        assertThat(spans(d, "c-done")).containsExactly(LEFT + 135, LEFT + 145);
        for (String sort : List.of("c-work", "c-wait", "c-worst", "c-slack", "c-limit", "c-latest")) {
            assertThat(d.all(sort)).as(sort).isEmpty();
        }
    }

    /** Sent already, answered at once: a hair of waiting is still seen. */
    @Test
    void nothingHasNoWidth() {
        ChainDrawing.Bar atOnce =
                new ChainDrawing.Bar(22, "Unlock", 10, 10, 10, 10, 10, 10, 10, false, false, "tight", "");
        Drawing d = read(drawing(5, 300, atOnce));
        d.standsInItsSheet();
        assertThat(d.all("c-work")).isEmpty();
        assertThat(Drawing.number(d.one("c-wait"), "width")).isEqualTo(2);
    }

    /** "today" never lies under "job". */
    @ParameterizedTest
    @CsvSource({"5, 300, start, 270", "5, 75, start, 270", "5, 74, end, 264", "500, 100, end, 759"})
    void theWordForTodayKeepsAwayFromTheJob(double today, double job, String anchor, double x) {
        Element word = (Element)
                read(drawing(today, job, step("in time", false))).one("nowline").getNextSibling();
        assertThat(word.getTextContent()).isEqualTo("today");
        assertThat(word.getAttribute("text-anchor")).isEqualTo(anchor);
        assertThat(Drawing.number(word, "x")).isEqualTo(x);
    }
}
