package yarrek.formats.logs;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.log.BrokenFileException;

/** A file's format is told by how it begins, whatever its name and its characters. */
class LogFormatTest {
    private static final String GPX = "<?xml version=\"1.0\"?><gpx></gpx>";

    @ParameterizedTest
    @ValueSource(strings = {"UTF-8", "UTF-16LE", "UTF-16BE", "windows-1252"})
    void xmlIsToldInEveryCharacterSetWithAndWithoutAMark(String charset) {
        Charset c = Charset.forName(charset);
        assertThat(LogFormat.of(GPX.getBytes(c))).contains(LogFormat.GPX);
        if (!charset.equals("windows-1252")) {
            assertThat(LogFormat.of(("\uFEFF" + GPX).getBytes(c))).contains(LogFormat.GPX);
        }
        assertThat(LogFormat.of(("\n \t" + GPX).getBytes(c))).contains(LogFormat.GPX);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", "time,lat,lon\n1,2,3", "{\"type\":1}", "a<b,c\n"})
    void whatBeginsOtherwiseIsNone(String text) {
        assertThat(LogFormat.of(text.getBytes(StandardCharsets.UTF_8))).isEmpty();
    }

    @ParameterizedTest
    @EnumSource
    void whoeverBringsSomethingElseIsToldOfEachFormat(LogFormat format) {
        BrokenFileException refused = catchThrowableOfType(
                BrokenFileException.class, () -> CsvSheet.look("no table\n".getBytes(StandardCharsets.UTF_8)));
        assertThat(refused).hasMessageContaining(format.words());
    }

    @Test
    void aFileThatOnlyBeginsSoIsRefusedByItsReader() {
        BrokenFileException refused = catchThrowableOfType(
                BrokenFileException.class,
                () -> LogFormat.GPX.read("<html><body>no log</body></html>".getBytes(StandardCharsets.UTF_8)));
        assertThat(refused).isNotNull();
    }
}
