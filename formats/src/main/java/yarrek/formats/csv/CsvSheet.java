package yarrek.formats.csv;

import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.Numbers;

/**
 * What a file of delimited text looks like: encoding, delimiter, preamble, header and first rows. Nothing is interpreted
 * yet.
 */
public final class CsvSheet {
    static final int MAX_CELL = 4096;
    /** What comes in, for whoever brings something else. */
    private static final String HOW =
            "Logs come in as GPX 1.1, ULog, DataFlash, DataFlash as text, KML with a track, GeoJSON with"
                    + " times, or as CSV or TSV text";

    private static final int LOOK_LINES = 200;
    private static final int SAMPLE_ROWS = 60;
    private static final int MIN_COLUMNS = 3;
    private static final int MAX_COLUMNS = 500;
    private static final int MAX_LINE = 200_000;
    private static final int ZEROS_PER_CHARACTER = 50; // a stray zero byte is a damaged cell; one in fifty is no text
    private static final char[] DELIMITERS = {',', ';', '\t', '|'};

    private final byte[] content;
    private final int bomLength;
    private final Charset charset;
    private final Optional<String> encodingNote;
    private final char delimiter;
    private final List<String> preamble;
    private final List<String> headers;
    private final List<List<String>> samples;
    private final boolean decimalComma;

    private CsvSheet(
            byte[] content,
            int bomLength,
            Charset charset,
            Optional<String> encodingNote,
            char delimiter,
            List<String> preamble,
            List<String> headers,
            List<List<String>> samples) {
        this.content = content;
        this.bomLength = bomLength;
        this.charset = charset;
        this.encodingNote = encodingNote;
        this.delimiter = delimiter;
        this.preamble = List.copyOf(preamble);
        this.headers = List.copyOf(headers);
        this.samples = List.copyOf(samples);
        this.decimalComma = delimiter != ',' && commasAreDecimal();
    }

    /** @throws BrokenFileException when it is not text in rows and columns */
    public static CsvSheet look(byte[] content) throws BrokenFileException {
        int bom = 0;
        Charset charset = StandardCharsets.UTF_8;
        Optional<String> note = Optional.empty();
        if (startsWith(content, 0xEF, 0xBB, 0xBF)) {
            bom = 3;
        } else if (startsWith(content, 0xFF, 0xFE)) {
            bom = 2;
            charset = StandardCharsets.UTF_16LE;
        } else if (startsWith(content, 0xFE, 0xFF)) {
            bom = 2;
            charset = StandardCharsets.UTF_16BE;
        }
        if (!decodes(content, bom, charset)) {
            if (bom > 0) {
                note = Optional.of("the file says it is " + charset
                        + " but holds bytes that are not; they stand as \uFFFD where they were read");
            } else {
                charset = Charset.forName("windows-1252");
                if (!decodes(content, 0, charset)) {
                    charset = StandardCharsets.ISO_8859_1;
                }
                note = Optional.of("the file is not UTF-8; it is read as Western European text (" + charset
                        + "). Check the accented letters in the headers");
            }
        }
        List<String> lines = firstLines(content, bom, charset);
        long zeros =
                lines.stream().flatMapToInt(String::chars).filter(c -> c == 0).count();
        long characters = lines.stream().mapToLong(String::length).sum();
        if (zeros * ZEROS_PER_CHARACTER > characters) {
            throw new BrokenFileException("csv.binary", "this is not text: it holds zero bytes. " + HOW);
        }
        String start = String.join("", lines).stripLeading();
        if (start.startsWith("{") || start.startsWith("[{")) {
            throw new BrokenFileException(
                    "csv.json",
                    "this is JSON" + (start.contains("\"coordinates\"") ? " (GeoJSON)" : "") + ", not a table. " + HOW
                            + "; export the track as one of these");
        }
        Shape best = null;
        for (char d : DELIMITERS) {
            Shape shape = Shape.of(lines, d);
            if (best == null || shape.score() > best.score()) {
                best = shape;
            }
        }
        if (best == null || best.columns() < MIN_COLUMNS) {
            throw new BrokenFileException(
                    "csv.shape",
                    "no table was found: no line of at least " + MIN_COLUMNS
                            + " columns separated by comma, semicolon, tab or bar. " + HOW);
        }
        if (best.columns() > MAX_COLUMNS) {
            throw new BrokenFileException(
                    "csv.columns",
                    "the table has " + best.columns() + " columns; at most " + MAX_COLUMNS + " are read");
        }
        List<String> headers = split(lines.get(best.headerLine()), best.delimiter());
        List<List<String>> samples = new ArrayList<>();
        for (int i = best.headerLine() + 1; i < lines.size() && samples.size() < SAMPLE_ROWS; i++) {
            List<String> row = split(lines.get(i), best.delimiter());
            if (row.size() == best.columns()) {
                samples.add(row);
            }
        }
        if (samples.isEmpty()) {
            throw new BrokenFileException(
                    "csv.rows",
                    "the table has a header in line " + (best.headerLine() + 1)
                            + " and no whole row below it; nothing to bring in");
        }
        return new CsvSheet(
                content, bom, charset, note, best.delimiter(), lines.subList(0, best.headerLine()), headers, samples);
    }

    private static boolean startsWith(byte[] content, int... bytes) {
        for (int i = 0; i < bytes.length; i++) {
            if (content.length <= i || (content[i] & 0xFF) != bytes[i]) {
                return false;
            }
        }
        return true;
    }

    /** Whether every byte decodes, without holding the text; a sequence cut off by the end of the file is let pass. */
    private static boolean decodes(byte[] content, int from, Charset charset) {
        CharsetDecoder decoder = strict(charset);
        ByteBuffer in = ByteBuffer.wrap(content, from, content.length - from);
        CharBuffer out = CharBuffer.allocate(1 << 14);
        while (true) {
            CoderResult r = decoder.decode(in, out, false);
            if (r.isError()) {
                return false;
            }
            if (r.isUnderflow()) {
                return true;
            }
            out.clear();
        }
    }

    private static CharsetDecoder strict(Charset charset) {
        return charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
    }

    private static List<String> firstLines(byte[] content, int bom, Charset charset) throws BrokenFileException {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        try (Reader in = reader(content, bom, charset)) {
            int c;
            boolean cr = false;
            while (lines.size() < LOOK_LINES && (c = in.read()) >= 0) {
                if (c == '\n' && cr) {
                    cr = false;
                    continue;
                }
                cr = c == '\r';
                if (c == '\n' || c == '\r') {
                    lines.add(line.toString());
                    line.setLength(0);
                } else if (line.length() < MAX_LINE) {
                    line.append((char) c);
                } else {
                    throw new BrokenFileException(
                            "csv.line",
                            "line " + (lines.size() + 1) + " is longer than " + MAX_LINE
                                    + " characters; this is not a table of log rows");
                }
            }
        } catch (CharacterCodingException e) {
            throw new BrokenFileException("csv.encoding", "the file ends in the middle of a character", e);
        } catch (IOException e) {
            throw new IllegalStateException("reading from memory", e);
        }
        if (line.length() > 0 && lines.size() < LOOK_LINES) {
            lines.add(line.toString());
        }
        return lines;
    }

    private static BufferedReader reader(byte[] content, int bom, Charset charset) {
        return new BufferedReader(
                new InputStreamReader(
                        new ByteArrayInputStream(content, bom, content.length - bom),
                        bom > 0 ? charset.newDecoder().onMalformedInput(CodingErrorAction.REPLACE) : strict(charset)),
                1 << 16);
    }

    /** The rest of the file from the header on. */
    Reader fromHeader() throws IOException {
        BufferedReader in = reader(content, bomLength, charset);
        for (int i = 0; i < preamble.size(); i++) {
            in.readLine();
        }
        return in;
    }

    /** Line of the header, counted from 1. */
    long headerLine() {
        return preamble.size() + 1L;
    }

    public char delimiter() {
        return delimiter;
    }

    public List<String> preamble() {
        return preamble;
    }

    public List<String> headers() {
        return headers;
    }

    /** First rows as text, for the matching step. */
    public List<List<String>> samples() {
        return samples;
    }

    public boolean decimalComma() {
        return decimalComma;
    }

    public Optional<String> encodingNote() {
        return encodingNote;
    }

    /** Zero bytes in text: what they replaced is lost. */
    Optional<String> zeroBytesNote() {
        boolean wide = charset.name().startsWith("UTF-16");
        int zeros = 0;
        int line = 1;
        int first = 0;
        for (int i = 0; i < content.length && !wide; i++) {
            line += content[i] == '\n' ? 1 : 0;
            if (content[i] == 0) {
                first = zeros++ == 0 ? line : first;
            }
        }
        return zeros == 0
                ? Optional.empty()
                : Optional.of("the file holds " + zeros + (zeros == 1 ? " zero byte" : " zero bytes")
                        + ", the first in line " + first + ": it is damaged there, and figures with one are left out");
    }

    /** The cells of a column in the first rows, empty ones left out. */
    List<String> column(int index) {
        return samples.stream()
                .map(r -> r.get(index).strip())
                .filter(s -> !s.isEmpty())
                .toList();
    }

    private boolean commasAreDecimal() {
        int commas = 0;
        int points = 0;
        for (List<String> row : samples) {
            for (String cell : row) {
                String s = cell.strip();
                if (s.indexOf(',') > 0 && !Double.isNaN(Numbers.parse(s, true))) {
                    commas++;
                } else if (s.indexOf('.') > 0 && !Double.isNaN(Numbers.parse(s, false))) {
                    points++;
                }
            }
        }
        return commas > points;
    }

    /** Splits one line, honouring quotes; quotes around a cell are taken off. */
    static List<String> split(String line, char delimiter) {
        List<String> cells = new ArrayList<>();
        StringBuilder cell = new StringBuilder();
        boolean quoted = false;
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            if (c == '"') {
                if (quoted && i + 1 < line.length() && line.charAt(i + 1) == '"') {
                    cell.append('"');
                    i++;
                } else {
                    quoted = !quoted;
                }
            } else if (c == delimiter && !quoted) {
                cells.add(cell.toString());
                cell.setLength(0);
            } else {
                cell.append(c);
            }
        }
        cells.add(cell.toString());
        return cells;
    }

    /** How the first lines look under one delimiter: the commonest number of columns, and the first line that has it. */
    private record Shape(char delimiter, int columns, int headerLine, double score) {
        static Shape of(List<String> lines, char delimiter) {
            List<Integer> counts = lines.stream()
                    .map(l -> l.isBlank() ? 0 : split(l, delimiter).size())
                    .toList();
            int columns = 0;
            int most = 0;
            for (int n : counts) {
                int same = (int) counts.stream().filter(c -> c == n).count();
                if (n > 1 && (same > most || (same == most && n > columns))) {
                    most = same;
                    columns = n;
                }
            }
            return new Shape(
                    delimiter,
                    columns,
                    counts.indexOf(columns),
                    (double) most / Math.max(1, lines.size()) * Math.log(Math.max(1, columns)));
        }
    }
}
