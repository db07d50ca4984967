package yarrek.formats.logs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import yarrek.formats.log.BrokenFileException;

class LogArchiveTest {
    private static final long MOST = 1 << 20;

    private static byte[] zip(Object... namesAndContents) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (int i = 0; i < namesAndContents.length; i += 2) {
                zip.putNextEntry(new ZipEntry((String) namesAndContents[i]));
                zip.write((byte[]) namesAndContents[i + 1]);
                zip.closeEntry();
            }
        }
        return bytes.toByteArray();
    }

    private static byte[] text(String s) {
        return s.getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void filesOfFoldersComeOutInTheirOrder() throws Exception {
        byte[] zip = zip("may/", new byte[0], "may/b.gpx", text("b"), "may/.x", text("x"), "a.csv", text("a"));
        assertThat(LogArchive.begins(zip)).isTrue();
        assertThat(LogArchive.files(zip, MOST)).containsOnlyKeys("may/b.gpx", "a.csv");
        assertThat(LogArchive.files(zip, MOST).get("a.csv")).isEqualTo(text("a"));
    }

    @Test
    void whatUnfoldsTooFarIsRefusedBeforeItIsUnfolded() throws Exception {
        byte[] bomb = zip("zeros.csv", new byte[4 << 20]);
        assertThat(bomb.length).isLessThan(10_000);
        assertThatThrownBy(() -> LogArchive.files(bomb, MOST))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("more than 1 MB");
        Object[] many = new Object[2 * (LogArchive.MOST_FILES + 1)];
        for (int i = 0; i < many.length; i += 2) {
            many[i] = i + ".csv";
            many[i + 1] = text("x");
        }
        byte[] files = zip(many);
        assertThatThrownBy(() -> LogArchive.files(files, MOST)).hasMessageContaining("more than 500 files");
    }

    @Test
    void archivesInArchivesAndDamageAreRefusedInWords() throws Exception {
        byte[] nested = zip("in.zip", zip("a", text("a")));
        assertThatThrownBy(() -> LogArchive.files(nested, MOST)).hasMessageContaining("in.zip is an archive itself");
        byte[] whole = zip("a.csv", text("a,b,c\n".repeat(2000)));
        byte[] cut = Arrays.copyOf(whole, 60);
        assertThatThrownBy(() -> LogArchive.files(cut, MOST)).isInstanceOf(BrokenFileException.class);
        byte[] empty = zip("folder/", new byte[0]);
        assertThatThrownBy(() -> LogArchive.files(empty, MOST)).hasMessageContaining("holds no file");
    }
}
