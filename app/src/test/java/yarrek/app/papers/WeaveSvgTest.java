package yarrek.app.papers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.w3c.dom.Element;
import yarrek.app.print.Drawing;
import yarrek.core.paper.PaperState;
import yarrek.core.paper.Weave;

class WeaveSvgTest {
    private static final String LABEL = "Papers and jobs; the table below says the same";

    private static Weave.Bar bar(PaperState state, double start, double end) {
        return new Weave.Bar("p-1", "TI-107 <A2>", start, end, false, state, Optional.empty(), "in force to 12 May");
    }

    private static Weave.Row row(PaperState state, double start, double end) {
        return new Weave.Row(
                "Ada Quillon",
                "certificate of competence A2",
                List.of(bar(state, start, end)),
                Optional.empty(),
                List.of(new Weave.Knot("j-2", "Mast", 0.75, "no certificate on 3 June", "EU-OPEN-CERT")),
                state);
    }

    private static Weave weave(Weave.Row... rows) {
        return new Weave(
                LocalDate.of(2026, 1, 1),
                LocalDate.of(2026, 12, 31),
                0.25,
                List.of(rows),
                List.of(new Weave.Strand("j-2", "Mast & stays", 0.7, 0.7005)),
                List.of(new Weave.Tick(0, "Jan", true), new Weave.Tick(0.5, "", false)));
    }

    @Test
    void barsKnotsAndJobsLeadToWhatTheyAre() {
        Drawing d = Drawing.read(WeaveSvg.screen(weave(row(PaperState.IN_FORCE, 0, 0.5)), false, LABEL));
        assertThat(d.root().getAttribute("aria-label")).isEqualTo(LABEL);
        assertThat(IntStream.range(0, 3)
                        .mapToObj(i ->
                                ((Element) d.root().getElementsByTagName("a").item(i)).getAttribute("href")))
                .containsExactly("/jobs/j-2", "/papers/p-1", "/jobs/j-2#f-EU-OPEN-CERT");
        assertThat(d.words()).contains("Mast & stays", "in force to 12 May", "no certificate on 3 June", "TI-107 <A2>");
    }

    /** From the left of the span to its end; the job's strand and "now" on the same scale. */
    @ParameterizedTest
    @CsvSource({"false, 236, 752", "true, 196, 414"})
    void positionsAreFractionsOfTheSpan(boolean narrow, double left, double span) {
        Drawing d = Drawing.read(WeaveSvg.screen(weave(row(PaperState.IN_FORCE, 0.1, 1)), narrow, LABEL));
        Element bar = d.one("b-full");
        assertThat(Drawing.number(bar, "x")).isCloseTo(left + 0.1 * span, within(0.005));
        assertThat(Drawing.end(bar)).isCloseTo(left + span, within(0.01));
        assertThat(Drawing.number(d.one("nowline"), "x1")).isEqualTo(left + 0.25 * span);
        assertThat(Drawing.number(d.one("strand"), "x")).isCloseTo(left + 0.7 * span, within(0.005));
        d.standsInItsSheet();
    }

    /** A job of a day, a paper of a day: never too thin to be seen or touched. */
    @Test
    void nothingIsTooThinToBeSeen() {
        Drawing d = Drawing.read(WeaveSvg.screen(weave(row(PaperState.IN_FORCE, 0.3, 0.3)), false, LABEL));
        assertThat(Drawing.number(d.one("b-full"), "width")).isEqualTo(3);
        assertThat(Drawing.number(d.one("strand"), "width")).isEqualTo(4);
    }

    @ParameterizedTest
    @EnumSource(PaperState.class)
    void everyStateHasItsShapeOnScreenAndOnPaper(PaperState state) {
        Weave w = weave(row(state, 0.2, 0.8));
        String sort = "b-" + state.shape();
        assertThat(Drawing.read(WeaveSvg.screen(w, false, LABEL)).all(sort)).hasSize(1);
        Element onPaper = Drawing.read(WeaveSvg.sheets(w, 30).get(0)).one(sort);
        // without a stylesheet an outline must say itself that it is not filled
        assertThat(onPaper.getAttribute("fill"))
                .isEqualTo(
                        switch (state.shape()) {
                            case "full" -> "#2f5d5b";
                            case "cut" -> "#86a7a0";
                            default -> "none";
                        });
    }

    @Test
    void aLabelStandsOnlyWhereItHasRoom() {
        assertThat(labels(0, 0.06)).isEmpty();
        assertThat(labels(0, 0.1)).containsExactly("TI-107…");
        assertThat(labels(0, 0.5)).containsExactly("TI-107 <A2>");
    }

    private static List<String> labels(double start, double end) {
        return Drawing.read(WeaveSvg.screen(weave(row(PaperState.IN_FORCE, start, end)), false, LABEL))
                .all("lab")
                .stream()
                .map(Element::getTextContent)
                .toList();
    }

    @ParameterizedTest
    @CsvSource({"0, 30, ''", "1, 30, 1", "30, 30, 30", "31, 30, '30 1'", "65, 30, '30 30 5'"})
    void rowsGoOnSheets(int rows, int perSheet, String each) {
        Weave w = weave(IntStream.range(0, rows)
                .mapToObj(i -> row(PaperState.ACT_SOON, 0.1, 0.9))
                .toArray(Weave.Row[]::new));
        List<Drawing> sheets =
                WeaveSvg.sheets(w, perSheet).stream().map(Drawing::read).toList();
        assertThat(String.join(
                        " ",
                        sheets.stream().map(s -> "" + s.all("b-cut").size()).toList()))
                .isEqualTo(each);
        sheets.forEach(Drawing::standsInItsSheet);
        sheets.forEach(s -> assertThat(s.root().getElementsByTagName("a").getLength())
                .as("nothing on paper is a link")
                .isZero());
    }

    @ParameterizedTest
    @CsvSource({
        "Ada Quillon, 17, Ada Quillon",
        "Ada Quillon, 11, Ada Quillon",
        "Ada Quillon, 10, Ada Quill…",
        "Ada Quillon, 5, Ada…"
    })
    void namesAreShortened(String name, int most, String written) {
        assertThat(WeaveSvg.shortened(name, most)).isEqualTo(written).hasSizeLessThanOrEqualTo(most);
    }
}
