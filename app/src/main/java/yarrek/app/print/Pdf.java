package yarrek.app.print;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.logging.Level;
import org.apache.batik.transcoder.TranscoderException;
import org.apache.batik.transcoder.TranscoderInput;
import org.apache.batik.transcoder.TranscoderOutput;
import org.apache.batik.transcoder.image.PNGTranscoder;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.multipdf.PDFMergerUtility;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.springframework.context.ApplicationContext;
import org.springframework.stereotype.Component;
import org.thymeleaf.context.Context;
import org.thymeleaf.spring6.SpringTemplateEngine;
import org.thymeleaf.spring6.expression.ThymeleafEvaluationContext;

/** Sets a page template, written as well-formed XHTML, as a PDF with the faces that ship with the application. */
@Component
public class Pdf {
    private static final int MOST_ANNEX_PAGES = 60;

    /** Sheets that templates may name in "@page { size: ... }". */
    public enum Sheet {
        A4("210mm 297mm"),
        A3("297mm 420mm"),
        LETTER("8.5in 11in");

        private final String size;

        Sheet(String size) {
            this.size = size;
        }

        public String size() {
            return size;
        }

        public String landscape() {
            String[] sides = size.split(" ");
            return sides[1] + " " + sides[0];
        }

        /** By its name; A4 when there is no such sheet. */
        public static Sheet of(String name) {
            for (Sheet s : values()) {
                if (s.name().equalsIgnoreCase(name)) {
                    return s;
                }
            }
            return A4;
        }
    }

    private final SpringTemplateEngine engine;
    private final ApplicationContext application;

    Pdf(SpringTemplateEngine engine, ApplicationContext application) {
        this.engine = engine;
        this.application = application;
        drawingFont("barlow-semi-condensed-400");
        drawingFont("barlow-semi-condensed-600");
        com.openhtmltopdf.util.XRLog.listRegisteredLoggers()
                .forEach(l -> com.openhtmltopdf.util.XRLog.setLevel(l, Level.SEVERE));
    }

    /** Drawings inside a page are set by the Java toolkit, which must know the face too. */
    private static void drawingFont(String file) {
        try (InputStream in = stream(file)) {
            java.awt.GraphicsEnvironment.getLocalGraphicsEnvironment()
                    .registerFont(java.awt.Font.createFont(java.awt.Font.TRUETYPE_FONT, in));
        } catch (IOException | java.awt.FontFormatException e) {
            throw new IllegalStateException("the face " + file + " ships with the application and does not read", e);
        }
    }

    private String process(String template, Map<String, Object> model) {
        Context context = new Context(Locale.UK, model);
        context.setVariable(
                ThymeleafEvaluationContext.THYMELEAF_EVALUATION_CONTEXT_CONTEXT_VARIABLE_NAME,
                new ThymeleafEvaluationContext(application, null));
        return engine.process(template, context);
    }

    /** A template that is one drawing (SVG) as a picture (PNG) of so many pixels. */
    public byte[] picture(String template, Map<String, Object> model, int width, int height) {
        PNGTranscoder transcoder = new PNGTranscoder();
        transcoder.addTranscodingHint(PNGTranscoder.KEY_WIDTH, (float) width);
        transcoder.addTranscodingHint(PNGTranscoder.KEY_HEIGHT, (float) height);
        transcoder.addTranscodingHint(PNGTranscoder.KEY_BACKGROUND_COLOR, java.awt.Color.WHITE);
        transcoder.addTranscodingHint(PNGTranscoder.KEY_ALLOW_EXTERNAL_RESOURCES, false);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            transcoder.transcode(
                    new TranscoderInput(
                            new StringReader(process(template, model).strip())),
                    new TranscoderOutput(out));
        } catch (TranscoderException e) {
            throw new IllegalStateException("setting " + template + " as a picture", e);
        }
        return out.toByteArray();
    }

    /** A scan to be bound in; pictures other than JPEG and PNG, and PDFs that cannot be read, are named only. */
    public record Scan(String caption, String contentType, byte[] content) {}

    /** A scan as part of a page. */
    public record Picture(String caption, String data) {}

    /** A scan whose own pages follow the document's; page 0 when it is not bound in. */
    public record Annex(String caption, int page, int pages) {}

    /**
     * A template with scans bound in: pictures as "pictures" for the template to set, PDFs behind the document's own pages
     * and named as "annexes" with the page on which each begins.
     */
    public byte[] render(String template, Map<String, Object> given, List<Scan> scans) {
        Map<String, Object> model = new HashMap<>(given);
        List<Scan> files = scans.stream()
                .filter(s -> s.contentType().equals("application/pdf"))
                .toList();
        model.put(
                "pictures",
                scans.stream()
                        .filter(s -> s.contentType().equals("image/jpeg")
                                || s.contentType().equals("image/png"))
                        .map(s -> new Picture(
                                s.caption(),
                                "data:" + s.contentType() + ";base64,"
                                        + Base64.getEncoder().encodeToString(s.content())))
                        .toList());
        model.put(
                "annexes", files.stream().map(f -> new Annex(f.caption(), 0, 0)).toList());
        byte[] body = render(template, model);
        return files.isEmpty() ? body : bound(template, model, body, files);
    }

    /** The pages of scanned PDFs after the document's own, and the document set again with their numbers. */
    private byte[] bound(String template, Map<String, Object> model, byte[] first, List<Scan> files) {
        try {
            int page = pages(first) + 1;
            List<Annex> annexes = new ArrayList<>();
            List<byte[]> readable = new ArrayList<>();
            for (Scan f : files) {
                int n = pages(f.content());
                boolean fits = n > 0 && page + n <= MOST_ANNEX_PAGES + pages(first);
                annexes.add(new Annex(f.caption(), fits ? page : 0, n));
                if (fits) {
                    readable.add(f.content());
                    page += n;
                }
            }
            model.put("annexes", annexes);
            PDFMergerUtility merger = new PDFMergerUtility();
            try (PDDocument all = Loader.loadPDF(render(template, model))) {
                for (byte[] f : readable) {
                    try (PDDocument annex = Loader.loadPDF(f)) {
                        merger.appendDocument(all, annex);
                    }
                }
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                all.save(out);
                return out.toByteArray();
            }
        } catch (IOException e) {
            throw new UncheckedIOException("binding scans into " + template, e);
        }
    }

    /** Pages of a PDF; zero when it cannot be read, as a locked one. */
    private static int pages(byte[] content) {
        try (PDDocument d = Loader.loadPDF(content)) {
            return d.getNumberOfPages();
        } catch (IOException e) {
            return 0;
        }
    }

    public byte[] render(String template, Map<String, Object> model) {
        String xhtml = process(template, model);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            PdfRendererBuilder b = new PdfRendererBuilder();
            b.useSVGDrawer(new BatikSVGDrawer());
            font(b, "atkinson-hyperlegible-next-400", "Text", 400);
            font(b, "atkinson-hyperlegible-next-700", "Text", 700);
            font(b, "barlow-semi-condensed-400", "Figures", 400);
            font(b, "barlow-semi-condensed-600", "Figures", 700);
            b.withHtmlContent(xhtml, null);
            // nothing is fetched from anywhere: pictures come as data
            b.useUriResolver((base, uri) -> uri.startsWith("data:") || uri.startsWith("#") ? uri : null);
            b.toStream(out);
            b.run();
        } catch (IOException e) {
            throw new UncheckedIOException("setting " + template, e);
        }
        return out.toByteArray();
    }

    private static void font(PdfRendererBuilder b, String file, String family, int weight) {
        b.useFont(() -> stream(file), family, weight, FontStyle.NORMAL, true);
    }

    private static InputStream stream(String file) {
        return Pdf.class.getResourceAsStream("/pdf/" + file + ".ttf");
    }
}
