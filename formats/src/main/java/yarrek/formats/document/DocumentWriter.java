package yarrek.formats.document;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigInteger;
import java.util.List;
import org.apache.poi.common.usermodel.PictureType;
import org.apache.poi.openxml4j.exceptions.InvalidFormatException;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.apache.poi.xwpf.usermodel.XWPFParagraph;
import org.apache.poi.xwpf.usermodel.XWPFRun;
import org.apache.poi.xwpf.usermodel.XWPFTable;
import org.openxmlformats.schemas.wordprocessingml.x2006.main.CTPPr;
import org.openxmlformats.schemas.wordprocessingml.x2006.main.CTPageSz;

/**
 * A text document (Office Open XML, ECMA-376) of headings, lines and tables, which any word processor opens and edits.
 * Headings carry their outline level, so that a contents list can be made from them.
 */
public final class DocumentWriter {
    /** Twentieths of a point in a millimetre. */
    private static final double TWIPS_PER_MM = 1440 / 25.4;

    /** English metric units in a millimetre; exact, by ECMA-376. */
    private static final double EMU_PER_MM = 36_000;

    private final XWPFDocument document = new XWPFDocument();

    /** @param letter 8.5 by 11 inches in the place of A4 */
    public DocumentWriter(boolean letter) {
        CTPageSz size = document.getDocument().getBody().addNewSectPr().addNewPgSz();
        size.setW(BigInteger.valueOf(Math.round((letter ? 215.9 : 210) * TWIPS_PER_MM)));
        size.setH(BigInteger.valueOf(Math.round((letter ? 279.4 : 297) * TWIPS_PER_MM)));
    }

    public void title(String text) {
        run(document.createParagraph(), text, 18, true, false);
    }

    /** @param level 1 to 9 */
    public void heading(int level, String text) {
        if (level < 1 || level > 9) {
            throw new IllegalArgumentException("a heading's level must be 1 to 9, got " + level);
        }
        XWPFParagraph p = document.createParagraph();
        p.setSpacingBefore(level == 1 ? 280 : 160);
        p.setKeepNext(true);
        CTPPr properties =
                p.getCTP().isSetPPr() ? p.getCTP().getPPr() : p.getCTP().addNewPPr();
        properties.addNewOutlineLvl().setVal(BigInteger.valueOf(level - 1L));
        run(p, text, level == 1 ? 14 : 11, true, false);
    }

    public void line(String text) {
        run(document.createParagraph(), text, 10, false, false);
    }

    public void note(String text) {
        run(document.createParagraph(), text, 8, false, true);
    }

    /** Rows of equal length, the first one the head. */
    public void table(List<List<String>> rows) {
        XWPFTable table = document.createTable(rows.size(), rows.get(0).size());
        table.setWidth("100%");
        for (int r = 0; r < rows.size(); r++) {
            for (int c = 0; c < rows.get(r).size(); c++) {
                XWPFParagraph p = table.getRow(r).getCell(c).getParagraphs().get(0);
                run(p, rows.get(r).get(c), 9, r == 0, false);
            }
        }
    }

    /**
     * A picture in a line of its own.
     *
     * @param png the file
     * @param widthMm on paper, {@code heightMm} likewise; above zero
     */
    public void picture(byte[] png, String name, double widthMm, double heightMm) {
        if (!(widthMm > 0 && widthMm <= 500) || !(heightMm > 0 && heightMm <= 500)) {
            throw new IllegalArgumentException(
                    "a picture must be above 0 to 500 mm wide and high, got " + widthMm + " by " + heightMm);
        }
        try {
            document.createParagraph()
                    .createRun()
                    .addPicture(
                            new ByteArrayInputStream(png),
                            PictureType.PNG,
                            name,
                            (int) Math.round(widthMm * EMU_PER_MM),
                            (int) Math.round(heightMm * EMU_PER_MM));
        } catch (IOException | InvalidFormatException e) {
            throw new IllegalArgumentException("“" + name + "” is no picture that a document can hold", e);
        }
    }

    private static void run(XWPFParagraph p, String text, int points, boolean bold, boolean italic) {
        XWPFRun r = p.createRun();
        // characters that XML cannot carry are left out
        r.setText(text.replaceAll("[\\p{Cntrl}&&[^\\t]]", " "));
        r.setFontSize(points);
        r.setBold(bold);
        r.setItalic(italic);
    }

    public byte[] toBytes() {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            document.write(out);
            document.close();
        } catch (IOException e) {
            throw new UncheckedIOException("writing into memory does not fail", e);
        }
        return out.toByteArray();
    }
}
