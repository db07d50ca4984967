package yarrek.formats.table;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.usermodel.Workbook;
import org.apache.poi.ss.util.NumberToTextConverter;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import yarrek.formats.log.BrokenFileException;

/**
 * Reads and writes tables. A CSV cell that a spreadsheet would take for a formula is written with an apostrophe before it,
 * which reading takes off again, so that a round trip loses nothing.
 */
public final class Tables {
    private static final int MOST_BYTES = 10 * 1024 * 1024;
    private static final int MOST_ROWS = 20_000;
    private static final int MOST_COLUMNS = 200;
    /** What a spreadsheet's cell holds at most. */
    private static final int MOST_CELL = 32_767;

    private static final char[] DELIMITERS = {',', ';', '\t', '|'};

    /** Plain numbers as a spreadsheet keeps them without loss: no leading zeros, at most 15 figures. */
    private static final Pattern NUMBER = Pattern.compile("-?(0|[1-9][0-9]{0,11})([.][0-9]{1,3})?");

    private static final Pattern NEEDS_APOSTROPHE = Pattern.compile("'*[=+\\-@\\t\\r].*", Pattern.DOTALL);

    private Tables() {}

    // --- out
    // -----------------------------------------------------------------------------------------------------------

    /** CSV in UTF-8 with a byte order mark, commas, and CRLF (RFC 4180). */
    public static byte[] csv(Table t) {
        StringWriter out = new StringWriter();
        out.write('\uFEFF');
        try (CsvWriter w = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(out)) {
            w.writeRecord(t.header().stream().map(Tables::neutral).toList());
            for (Table.Row r : t.rows()) {
                w.writeRecord(r.cells().stream().map(Tables::neutral).toList());
            }
        } catch (IOException e) {
            throw new UncheckedIOException("writing to memory", e);
        }
        return out.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static String neutral(String cell) {
        return NEEDS_APOSTROPHE.matcher(cell).matches() && !NUMBER.matcher(cell).matches() ? "'" + cell : cell;
    }

    private static String plain(String cell) {
        return cell.startsWith("'") && NEEDS_APOSTROPHE.matcher(cell).matches() ? cell.substring(1) : cell;
    }

    /** One sheet; plain numbers as numbers, everything else as text, never as a formula. */
    public static byte[] xlsx(Table t, String sheetName) {
        try (Workbook book = new XSSFWorkbook();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            Sheet sheet = book.createSheet(sheetName);
            write(sheet.createRow(0), t.header(), false);
            for (Table.Row r : t.rows()) {
                write(sheet.createRow(sheet.getLastRowNum() + 1), r.cells(), true);
            }
            sheet.createFreezePane(0, 1);
            book.write(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("writing to memory", e);
        }
    }

    private static void write(Row row, List<String> cells, boolean numbers) {
        for (int i = 0; i < cells.size(); i++) {
            String s = cells.get(i);
            if (s.isEmpty()) {
                continue;
            }
            Cell cell = row.createCell(i);
            if (numbers && NUMBER.matcher(s).matches()) {
                cell.setCellValue(Double.parseDouble(s));
            } else {
                cell.setCellValue(s);
            }
        }
    }

    // --- in
    // ------------------------------------------------------------------------------------------------------------

    /**
     * A table from CSV or XLSX, told apart by content.
     *
     * @throws BrokenFileException with file, line and what was expected
     */
    public static Table read(String file, byte[] content) throws BrokenFileException {
        if (content.length == 0) {
            throw new BrokenFileException("table.empty", file + ": the file is empty");
        }
        if (content.length > MOST_BYTES) {
            throw new BrokenFileException("table.size", file + ": larger than 10 MB; split it");
        }
        boolean zip =
                content.length > 4 && content[0] == 'P' && content[1] == 'K' && content[2] == 3 && content[3] == 4;
        Table t = zip ? readXlsx(file, content) : readCsv(file, content);
        if (t.header().stream().allMatch(String::isBlank)) {
            throw new BrokenFileException("table.header", file + ", line 1: the names of the columns were expected");
        }
        return t;
    }

    private static Table readCsv(String file, byte[] content) throws BrokenFileException {
        List<String> notes = new ArrayList<>();
        String text = decode(content, notes);
        if (text.indexOf('\0') >= 0) {
            throw new BrokenFileException("table.binary", file + ": neither CSV text nor an XLSX workbook");
        }
        String firstLine = text.lines().findFirst().orElse("");
        char delimiter = delimiter(firstLine);
        List<String> header = new ArrayList<>();
        List<Table.Row> rows = new ArrayList<>();
        int line = 1;
        try (CsvReader<CsvRecord> csv = CsvReader.builder()
                .fieldSeparator(delimiter)
                .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                .ofCsvRecord(text)) {
            for (CsvRecord r : csv) {
                line = (int) r.getStartingLineNumber();
                List<String> cells = new ArrayList<>();
                for (String f : r.getFields()) {
                    cells.add(check(file, line, cells.size(), plain(f)));
                }
                if (header.isEmpty()) {
                    header.addAll(cells);
                } else if (cells.stream().anyMatch(c -> !c.isBlank())) {
                    add(file, rows, new Table.Row(line, cells));
                }
            }
        } catch (CsvParseException e) {
            throw new BrokenFileException(
                    "table.csv", file + ", after line " + line + ": the quotes of a cell cannot be made out", e);
        } catch (IOException e) {
            throw new UncheckedIOException("reading from memory", e);
        }
        // the reader takes all that follows an opened quote for one cell, so a quote never closed shows in the last
        // record
        long quotes = text.lines()
                .skip(line - 1L)
                .flatMapToInt(String::chars)
                .filter(c -> c == '"')
                .count();
        if (quotes % 2 == 1) {
            throw new BrokenFileException("table.csv", file + ", line " + line + ": a quote is opened and not closed");
        }
        return new Table(header, rows, notes);
    }

    private static String decode(byte[] content, List<String> notes) {
        try {
            String s = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(content))
                    .toString();
            return s.startsWith("\uFEFF") ? s.substring(1) : s;
        } catch (CharacterCodingException e) {
            notes.add("The file is not UTF-8; it is read as Western European. Look at letters with accents.");
            return new String(content, Charset.forName("windows-1252"));
        }
    }

    private static char delimiter(String line) {
        char best = ',';
        long most = 0;
        for (char d : DELIMITERS) {
            long n = line.chars().filter(c -> c == d).count();
            if (n > most) {
                most = n;
                best = d;
            }
        }
        return best;
    }

    private static Table readXlsx(String file, byte[] content) throws BrokenFileException {
        List<String> header = new ArrayList<>();
        List<Table.Row> rows = new ArrayList<>();
        try (Workbook book = new XSSFWorkbook(new ByteArrayInputStream(content))) {
            Sheet sheet = book.getSheetAt(0);
            for (Row r : sheet) {
                int line = r.getRowNum() + 1;
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < Math.min(r.getLastCellNum(), MOST_COLUMNS); i++) {
                    cells.add(check(file, line, i, text(file, line, i, r.getCell(i))));
                }
                if (header.isEmpty()) {
                    header.addAll(cells);
                } else if (cells.stream().anyMatch(c -> !c.isBlank())) {
                    add(file, rows, new Table.Row(line, cells));
                }
            }
        } catch (BrokenFileException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            // what is wrong inside comes out of the library in a dozen sorts, some of them slips of its own
            throw new BrokenFileException(
                    "table.xlsx", file + ": not a workbook that can be read; save it as XLSX or CSV again", e);
        }
        return new Table(header, rows, List.of());
    }

    private static String text(String file, int line, int column, Cell cell) throws BrokenFileException {
        if (cell == null) {
            return "";
        }
        CellType type = cell.getCellType() == CellType.FORMULA ? cell.getCachedFormulaResultType() : cell.getCellType();
        return switch (type) {
            case STRING -> cell.getStringCellValue();
            case BOOLEAN -> cell.getBooleanCellValue() ? "yes" : "no";
            case NUMERIC ->
                DateUtil.isCellDateFormatted(cell)
                        ? cell.getLocalDateTimeCellValue().toLocalDate().toString()
                        : NumberToTextConverter.toText(cell.getNumericCellValue());
            case ERROR ->
                throw new BrokenFileException(
                        "table.cell",
                        file + ", line " + line + ", column " + (column + 1) + ": the cell holds an error");
            default -> "";
        };
    }

    private static void add(String file, List<Table.Row> rows, Table.Row row) throws BrokenFileException {
        if (rows.size() >= MOST_ROWS) {
            throw new BrokenFileException(
                    "table.rows", file + ", line " + row.line() + ": more than " + MOST_ROWS + " rows; split the file");
        }
        rows.add(row);
    }

    private static String check(String file, int line, int column, String cell) throws BrokenFileException {
        if (column >= MOST_COLUMNS) {
            throw new BrokenFileException(
                    "table.columns", file + ", line " + line + ": more than " + MOST_COLUMNS + " columns");
        }
        if (cell.length() > MOST_CELL) {
            throw new BrokenFileException(
                    "table.cell",
                    file + ", line " + line + ", column " + (column + 1) + ": longer than " + MOST_CELL
                            + " characters");
        }
        return cell.strip();
    }
}
