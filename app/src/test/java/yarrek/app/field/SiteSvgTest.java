package yarrek.app.field;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import yarrek.app.airspace.Sites;
import yarrek.app.print.Drawing;

class SiteSvgTest {
    private static SiteDrawing.Drawn drawn(
            SiteDrawing.Figure zone, SiteDrawing.Symbol thing, SiteDrawing.Figure overlay) {
        return new SiteDrawing.Drawn(
                400,
                300,
                List.of(),
                List.of(zone),
                null,
                new SiteDrawing.Figure("M0 0 L10 0 L10 10 Z", "area", "area"),
                List.of(new SiteDrawing.Stroke("M1 1 L5 5", "ROAD", "quay road", 3, 3)),
                List.of(thing),
                80,
                "200 m",
                List.of(new SiteDrawing.Tick(50, "17.88 W")),
                List.of(new SiteDrawing.Tick(60, "46.62 N")),
                new SiteDrawing.Symbol(200, 150, "LAUNCH", "launch"),
                List.of(overlay));
    }

    private static final SiteDrawing.Figure ZONE =
            new SiteDrawing.Figure("M2 2 L9 2 L9 9 Z", "prohibited", "Reserve <north>");
    private static final SiteDrawing.Symbol MAST = new SiteDrawing.Symbol(20, 30, "OBSTACLE", "mast & stays");
    private static final SiteDrawing.Figure OVERHANG =
            new SiteDrawing.Figure("M5 5 L6 6 L7 5 Z", "overhang", "not covered");

    private static Drawing read(SiteDrawing.Drawn d) {
        return Drawing.read(d.svg("Map of the mast; the tables say the same"));
    }

    @Test
    void aReaderHearsWhatItIsAndNamesComeOutAsTheyWere() {
        Drawing read = read(drawn(ZONE, MAST, OVERHANG));
        Element svg = read.root();
        assertThat(svg.getAttribute("aria-label")).isEqualTo("Map of the mast; the tables say the same");
        assertThat(svg.getAttribute("viewBox")).isEqualTo("0 0 400 300");
        assertThat(read.one("zn zn-prohibited").getTextContent()).isEqualTo("Reserve <north>");
        assertThat(svg.getTextContent()).contains("mast & stays", "quay road", "200 m", "17.88 W", "46.62 N", "launch");
    }

    /** On paper there is no stylesheet: every zone is told apart by its own attributes, and without colour. */
    @ParameterizedTest
    @ValueSource(strings = {"prohibited", "authorisation", "conditional", "maker", "free"})
    void everyKindOfZoneIsToldApartWithoutColour(String pattern) {
        Element zone = read(drawn(new SiteDrawing.Figure("M0 0 Z", pattern, "z"), MAST, OVERHANG))
                .one("zn zn-" + pattern);
        if (pattern.equals("free")) {
            assertThat(zone.getAttribute("fill")).isEqualTo("none");
        } else {
            String fill = zone.getAttribute("fill");
            Element svg = zone.getOwnerDocument().getDocumentElement();
            assertThat(fill).isEqualTo("url(#p-" + pattern + ")");
            NodeList patterns = svg.getElementsByTagName("pattern");
            assertThat(java.util.stream.IntStream.range(0, patterns.getLength())
                            .mapToObj(i -> ((Element) patterns.item(i)).getAttribute("id")))
                    .contains("p-" + pattern);
        }
    }

    @ParameterizedTest
    @EnumSource(Sites.FeatureKind.class)
    void everyKindOfThingHasAPicture(Sites.FeatureKind kind) {
        Element svg = read(drawn(ZONE, new SiteDrawing.Symbol(20, 30, kind.name(), "thing"), OVERHANG))
                .root();
        NodeList groups = svg.getElementsByTagName("g");
        Element thing = (Element) groups.item(0);
        assertThat(thing.getAttribute("transform")).isEqualTo("translate(20 30)");
        assertThat(((Element) thing.getFirstChild()).getAttribute("d")).startsWith("M");
    }

    @Test
    void whatAPaperDoesNotCoverIsHatched() {
        Element beyond = read(drawn(ZONE, MAST, OVERHANG)).one("ov ov-overhang");
        assertThat(beyond.getAttribute("fill")).isEqualTo("url(#p-prohibited)");
        Element covered = read(drawn(ZONE, MAST, new SiteDrawing.Figure("M0 0 Z", "paper", "covered")))
                .one("ov ov-paper");
        assertThat(covered.getAttribute("fill")).isEqualTo("none");
        assertThat(covered.getAttribute("stroke-dasharray")).isEqualTo("10 4");
    }
}
