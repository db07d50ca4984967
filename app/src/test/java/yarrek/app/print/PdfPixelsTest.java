package yarrek.app.print;

import static org.assertj.core.api.Assertions.assertThat;

import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.cos.COSStream;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDResources;
import org.apache.pdfbox.pdmodel.graphics.form.PDFormXObject;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A picture of a few bytes may say that it is a square kilometre: it is believed, and not unpacked. */
class PdfPixelsTest {
    private static COSStream picture(PDDocument d, int width, int height) {
        COSStream s = d.getDocument().createCOSStream();
        s.setItem(COSName.TYPE, COSName.XOBJECT);
        s.setItem(COSName.SUBTYPE, COSName.IMAGE);
        s.setInt(COSName.WIDTH, width);
        s.setInt(COSName.HEIGHT, height);
        s.setInt(COSName.BITS_PER_COMPONENT, 8);
        s.setItem(COSName.COLORSPACE, COSName.DEVICEGRAY);
        return s;
    }

    private static PDResources with(COSStream... streams) {
        PDResources r = new PDResources();
        org.apache.pdfbox.cos.COSDictionary all = new org.apache.pdfbox.cos.COSDictionary();
        for (int i = 0; i < streams.length; i++) {
            all.setItem(COSName.getPDFName("X" + i), streams[i]);
        }
        r.getCOSObject().setItem(COSName.XOBJECT, all);
        return r;
    }

    @ParameterizedTest
    @CsvSource({
        "4960, 7016, false",
        "25000, 25000, true",
        "2147483647, 2147483647, true",
        "0, 100, false",
        "-5, 10, false"
    })
    void onePicture(int width, int height, boolean tooMuch) throws Exception {
        try (PDDocument d = new PDDocument()) {
            assertThat(PdfPixels.of(with(picture(d, width, height))) > PdfPixels.MOST)
                    .isEqualTo(tooMuch);
        }
    }

    @Test
    void picturesAddUp() throws Exception {
        try (PDDocument d = new PDDocument()) {
            assertThat(PdfPixels.of(with(picture(d, 5000, 4000), picture(d, 5000, 4000), picture(d, 5000, 4000))))
                    .isEqualTo(60_000_000);
            assertThat(PdfPixels.of(null)).isZero();
        }
    }

    @Test
    void aPictureInAFormCountsAndFormsInFormsHaveAnEnd() throws Exception {
        try (PDDocument d = new PDDocument()) {
            PDFormXObject form = new PDFormXObject(d);
            form.setResources(with(picture(d, 25000, 25000)));
            assertThat(PdfPixels.of(with(form.getCOSObject()))).isGreaterThan(PdfPixels.MOST);
            PDFormXObject itself = new PDFormXObject(d);
            itself.setResources(with(itself.getCOSObject()));
            assertThat(PdfPixels.of(with(itself.getCOSObject()))).isGreaterThan(PdfPixels.MOST);
        }
    }
}
