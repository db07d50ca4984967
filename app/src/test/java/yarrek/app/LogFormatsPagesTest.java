package yarrek.app;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.options.FilePayload;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

/** Logs that say themselves what they hold, from the file to the strips, and out again in open formats. */
class LogFormatsPagesTest extends BrowserTest {
    /** As simulated, to a hundredth: within what its truth allows. */
    private static final java.util.regex.Pattern PATH = java.util.regex.Pattern.compile("45[0-4][.][0-9] m");

    private static byte[] log(String name) throws IOException {
        try (InputStream in = LogFormatsPagesTest.class.getResourceAsStream("/logs/" + name)) {
            return in.readAllBytes();
        }
    }

    private void bring(String name, byte[] content) {
        page.navigate(address("/flights"));
        page.setInputFiles("#files", new FilePayload(name, "application/octet-stream", content));
    }

    @Test
    void aBinaryLogIsDrawnWithAllThatItHoldsAndGoesOutInOpenFormats() throws Exception {
        signIn("manager");
        bring("wind.ulg", log("wind.ulg"));
        assertThat(page.locator("h1")).containsText("Flight of");
        assertThat(page.locator(".figures").first()).containsText(PATH);
        assertThat(page.locator("#strips canvas").first()).isVisible();
        assertThat(page.locator("#strip-value-volts")).containsText("V");
        page.click("#more-strips summary");
        assertThat(page.getByLabel("Motors, as asked for, from ")).isVisible();
        assertThat(page.locator("#strip-value-sticks")).containsText("throttle");
        String flight = page.url().replaceAll("[?#].*", "");
        for (String format : new String[] {"gpx", "kml", "geojson", "csv"}) {
            var got = page.request().get(flight + "/trace." + format);
            assertThat(got.status()).isEqualTo(200);
            assertThat(got.headers().get("content-disposition")).contains("." + format);
            // what went out is a log that comes in again, told to overlap the one that it came from
            bring("again." + format, got.body());
            if (format.equals("csv")) {
                page.click("button:has-text('Read it so')");
            }
            assertThat(page.locator("main")).containsText("it overlaps another flight on file");
        }
        assertThat(page.request().get(flight + "/trace.doc").status()).isEqualTo(404);
    }

    @Test
    void aZipOfLogsComesInOneByOneAndWhatIsNoneIsTold() throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (String name : new String[] {"hover.geojson", "home-never-set.bin", "malformed/corrupt.bin"}) {
                zip.putNextEntry(new ZipEntry(name));
                zip.write(log(name));
            }
            zip.putNextEntry(new ZipEntry("notes/readme.txt"));
            zip.write("nothing of interest".getBytes(StandardCharsets.UTF_8));
        }
        signIn("manager");
        bring("may.zip", bytes.toByteArray());
        assertThat(page.locator("main")).containsText("may.zip: hover.geojson: 1 flight");
        assertThat(page.locator("main")).containsText("may.zip: home-never-set.bin: 1 flight");
        assertThat(page.locator("main")).containsText("may.zip: malformed/corrupt.bin: 1 flight");
        assertThat(page.locator("main")).containsText("may.zip: notes/readme.txt: no table was found");
        bring("cut.zip", java.util.Arrays.copyOf(bytes.toByteArray(), 3000));
        assertThat(page.locator("main")).containsText("cut.zip: the archive");
    }
}
