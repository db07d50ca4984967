package yarrek.formats.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.formats.log.BrokenFileException;

class TablesTest {
    private static final List<String> HARD = List.of(
            "",
            "a",
            "a,b",
            "a;b",
            "say \"so\"",
            "two\nlines",
            "=1+1",
            "+351 210",
            "-5",
            "-5 m",
            "@x",
            "'=1",
            "''x",
            "00417",
            "249.4",
            "Ærøskøbing",
            "\tx".strip(),
            "1e5",
            "2026-11-25",
            "'",
            "0.1",
            "12345678901234567890");

    static Stream<List<List<String>>> anyRows() {
        Random random = new Random(20261125);
        return IntStream.range(0, 40)
                .mapToObj(n -> IntStream.range(0, 5)
                        .mapToObj(r -> IntStream.range(0, 4)
                                .mapToObj(c -> c == 0 ? "k" + r : HARD.get(random.nextInt(HARD.size())))
                                .toList())
                        .toList());
    }

    @ParameterizedTest
    @MethodSource("anyRows")
    void aRoundTripThroughCsvLosesNothing(List<List<String>> rows) throws Exception {
        Table t = Table.of(List.of("key", "b", "c", "d"), rows);
        Table back = Tables.read("t.csv", Tables.csv(t));
        assertThat(back.header()).isEqualTo(t.header());
        assertThat(back.rows()).extracting(Table.Row::cells).isEqualTo(rows);
    }

    @ParameterizedTest
    @MethodSource("anyRows")
    void aRoundTripThroughAWorkbookLosesNothing(List<List<String>> rows) throws Exception {
        Table t = Table.of(List.of("key", "b", "c", "d"), rows);
        Table back = Tables.read("t.xlsx", Tables.xlsx(t, "t"));
        for (int r = 0; r < rows.size(); r++) {
            for (int c = 0; c < 4; c++) {
                assertThat(back.rows().get(r).cell(c)).isEqualTo(rows.get(r).get(c));
            }
        }
    }

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '"',
            value = {"=HYPERLINK(1), '=HYPERLINK(1)", "+1x, '+1x", "@x, '@x", "-5, -5", "plain, plain"})
    void aCellThatStartsAFormulaIsNeutralisedInCsv(String cell, String written) {
        String csv = new String(Tables.csv(Table.of(List.of("a"), List.of(List.of(cell)))), StandardCharsets.UTF_8);
        assertThat(csv.lines().toList().get(1)).isEqualTo(written);
    }

    @Test
    void linesAreThoseOfTheFileAndSemicolonsWillDo() throws Exception {
        Table t = Tables.read("t.csv", "name;serial\n\nThrift;B-1\n;\nCampion;B-2\n".getBytes(StandardCharsets.UTF_8));
        assertThat(t.header()).containsExactly("name", "serial");
        assertThat(t.rows()).extracting(Table.Row::line).containsExactly(3, 5);
    }

    @Test
    void westernTextIsReadAndToldOf() throws Exception {
        Table t = Tables.read("t.csv", "name,serial\nÆrø,1\n".getBytes(Charset.forName("windows-1252")));
        assertThat(t.rows().get(0).cell(0)).isEqualTo("Ærø");
        assertThat(t.notes()).singleElement().asString().contains("not UTF-8");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "| t.csv: the file is empty",
                "a,b\\n\"open,1\\n2,3\\n| t.csv, line 2: a quote is opened and not closed",
                "PK\\u0003\\u0004garbage| t.csv: not a workbook that can be read; save it as XLSX or CSV again",
                " , \\n1,2\\n| t.csv, line 1: the names of the columns were expected"
            })
    void aBrokenFileIsToldInOneSentence(String content, String message) {
        byte[] bytes = content == null
                ? new byte[0]
                : content.replace("\\n", "\n")
                        .replace("\\u0003", "\u0003")
                        .replace("\\u0004", "\u0004")
                        .getBytes(StandardCharsets.UTF_8);
        assertThatThrownBy(() -> Tables.read("t.csv", bytes))
                .isInstanceOf(BrokenFileException.class)
                .hasMessage(message);
    }

    /** A workbook with one of its parts made into something else. */
    private static byte[] with(byte[] workbook, String part, java.util.function.UnaryOperator<byte[]> change)
            throws java.io.IOException {
        java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
        try (java.util.zip.ZipInputStream in =
                        new java.util.zip.ZipInputStream(new java.io.ByteArrayInputStream(workbook));
                java.util.zip.ZipOutputStream zip = new java.util.zip.ZipOutputStream(out)) {
            for (java.util.zip.ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                zip.putNextEntry(new java.util.zip.ZipEntry(e.getName()));
                byte[] content = in.readAllBytes();
                zip.write(e.getName().equals(part) ? change.apply(content) : content);
            }
        }
        return out.toByteArray();
    }

    private static byte[] workbook() {
        return Tables.xlsx(
                new Table(List.of("Name", "Mass"), List.of(new Table.Row(2, List.of("Lamp", "12 g"))), List.of()), "t");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "[Content_Types].xml",
                "xl/workbook.xml",
                "xl/worksheets/sheet1.xml",
                "xl/styles.xml",
                "_rels/.rels"
            })
    void aPartWithADocumentTypeOrCutOffIsRefusedInWords(String part) throws Exception {
        byte[] declared = with(
                workbook(),
                part,
                c -> "<!DOCTYPE x [<!ENTITY b SYSTEM \"file:///etc/passwd\">]><x>&b;</x>"
                        .getBytes(StandardCharsets.UTF_8));
        byte[] cut = with(workbook(), part, c -> java.util.Arrays.copyOf(c, c.length / 2));
        for (byte[] bad : List.of(declared, cut)) {
            assertThatThrownBy(() -> Tables.read("t.xlsx", bad))
                    .isInstanceOf(BrokenFileException.class)
                    .hasMessageContaining("t.xlsx: not a workbook that can be read; save it as XLSX or CSV again");
        }
    }

    /** Bytes changed anywhere: it is read or refused, and nothing else. */
    @Test
    void aDamagedWorkbookIsReadOrRefused() throws Exception {
        java.util.Random random = new java.util.Random(5);
        byte[] good = workbook();
        List<String> parts =
                List.of("xl/workbook.xml", "xl/worksheets/sheet1.xml", "xl/sharedStrings.xml", "[Content_Types].xml");
        int refused = 0;
        for (int n = 0; n < 120; n++) {
            byte[] bad = with(good, parts.get(n % parts.size()), c -> {
                byte[] damaged = c.clone();
                for (int i = 0; i < 3 && damaged.length > 0; i++) {
                    damaged[random.nextInt(damaged.length)] = (byte) random.nextInt(128);
                }
                return damaged;
            });
            try {
                assertThat(Tables.read("t.xlsx", bad).rows().size()).isLessThanOrEqualTo(1);
            } catch (BrokenFileException e) {
                refused++;
            }
        }
        assertThat(refused).isPositive();
    }
}
