package yarrek.formats.document;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.apache.poi.xwpf.usermodel.XWPFParagraph;
import org.junit.jupiter.api.Test;

/** Documents as a word processor reads them. */
class DocumentWriterTest {
    private static XWPFDocument read(DocumentWriter w) throws IOException {
        return new XWPFDocument(new ByteArrayInputStream(w.toBytes()));
    }

    @Test
    void headingsLinesAndTablesComeBackInOrderWithTheirLevels() throws IOException {
        DocumentWriter w = new DocumentWriter(false);
        w.title("Application");
        w.heading(1, "Safety");
        w.heading(2, "5.1 Safety plan");
        w.line("track watched — “always”");
        w.note("From: risk register");
        w.table(List.of(List.of("Risk", "Who"), List.of("falls", "walkers")));
        try (XWPFDocument d = read(w)) {
            assertThat(d.getParagraphs())
                    .extracting(XWPFParagraph::getText)
                    .containsExactly(
                            "Application",
                            "Safety",
                            "5.1 Safety plan",
                            "track watched — “always”",
                            "From: risk register");
            assertThat(d.getParagraphs()
                            .get(2)
                            .getCTP()
                            .getPPr()
                            .getOutlineLvl()
                            .getVal()
                            .intValue())
                    .isEqualTo(1);
            assertThat(d.getTables().get(0).getRow(1).getCell(1).getText()).isEqualTo("walkers");
            // A4: 210 by 297 mm in twentieths of a point
            assertThat(d.getDocument().getBody().getSectPr().getPgSz().getW().toString())
                    .isEqualTo("11906");
        }
    }

    @Test
    void lettersAreALittleWider() throws IOException {
        try (XWPFDocument d = read(new DocumentWriter(true))) {
            assertThat(d.getDocument().getBody().getSectPr().getPgSz().getW().toString())
                    .isEqualTo("12240");
        }
    }

    @Test
    void charactersThatXmlCannotCarryBecomeSpaces() throws IOException {
        DocumentWriter w = new DocumentWriter(false);
        w.line("before\u0000\u0008after\tthere");
        try (XWPFDocument d = read(w)) {
            assertThat(d.getParagraphs().get(0).getText()).isEqualTo("before  after\tthere");
        }
    }

    @Test
    void aPictureHasItsSizeOnPaper() throws IOException {
        java.io.ByteArrayOutputStream png = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(
                new java.awt.image.BufferedImage(4, 2, java.awt.image.BufferedImage.TYPE_INT_RGB), "png", png);
        DocumentWriter w = new DocumentWriter(false);
        w.picture(png.toByteArray(), "map.png", 160, 80);
        try (XWPFDocument d = read(w)) {
            assertThat(d.getAllPictures()).hasSize(1);
            var picture = d.getParagraphs()
                    .get(0)
                    .getRuns()
                    .get(0)
                    .getEmbeddedPictures()
                    .get(0);
            // 160 mm in points
            assertThat(picture.getWidth()).isCloseTo(160 / 25.4 * 72, org.assertj.core.api.Assertions.within(0.1));
        }
        assertThatThrownBy(() -> w.picture(png.toByteArray(), "map.png", 0, 80)).hasMessageContaining("0.0 by 80.0");
    }

    @Test
    void aLevelThatNoOutlineHasIsRefused() {
        assertThatThrownBy(() -> new DocumentWriter(false).heading(10, "x"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("1 to 9, got 10");
    }
}
