package yarrek.app.print;

import java.io.IOException;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDResources;
import org.apache.pdfbox.pdmodel.graphics.PDXObject;
import org.apache.pdfbox.pdmodel.graphics.form.PDFormXObject;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;

/** How much memory a page would ask for, told from what its pictures say of themselves, before one is unpacked. */
public final class PdfPixels {
    /** A sheet of A4 scanned at 600 dots to the inch has 35 million. */
    public static final long MOST = 50_000_000;

    private static final int DEEPEST = 6;

    private PdfPixels() {}

    /** Pixels of all pictures that a page may draw; what is nested deeper than any scan counts as too much. */
    public static long of(PDResources resources) throws IOException {
        return of(resources, 0);
    }

    private static long of(PDResources resources, int depth) throws IOException {
        if (resources == null) {
            return 0;
        }
        if (depth > DEEPEST) {
            return Long.MAX_VALUE;
        }
        long sum = 0;
        for (COSName name : resources.getXObjectNames()) {
            PDXObject x = resources.getXObject(name);
            long pixels = 0;
            if (x instanceof PDImageXObject image) {
                pixels = Math.multiplyExact((long) Math.max(0, image.getWidth()), Math.max(0, image.getHeight()));
            } else if (x instanceof PDFormXObject form) {
                pixels = of(form.getResources(), depth + 1);
            }
            if (pixels > MOST) {
                return pixels;
            }
            sum += pixels;
        }
        return sum;
    }
}
