package yarrek.formats.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.IOException;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrek.core.trace.Channel;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.log.Numbers;
import yarrek.formats.log.Problem;
import yarrek.formats.log.TraceBuilder;

/**
 * Reads a log of delimited text by a reading plan. A cell that does not fit its column is left out and told; a row with
 * too few or too many cells is left out and told; the same at the end of the file means the log is cut off. Cells are text
 * or numbers, never formulas.
 */
public final class CsvLogReader {
    private static final Pattern DATE = Pattern.compile("(\\d{1,4})[./-](\\d{1,2})[./-](\\d{1,4})");
    private static final Pattern CLOCK =
            Pattern.compile("(\\d{1,2}):(\\d{2})(?::(\\d{2})(?:[.,](\\d{1,9}))?)?\\s*([AaPp])?[Mm]?");
    private static final Pattern OFFSET = Pattern.compile("(?:UTC|GMT)?\\s*([+-])(\\d{1,2}):?(\\d{2})?");
    private static final int NANO_DIGITS = 9;
    private static final Set<String> NOTHING = Set.of("", "-", "--", "n/a", "na", "nan", "null", "none");
    private static final Set<String> YES =
            Set.of("1", "true", "yes", "y", "set", "ja", "oui", "si", "sí", "ok", "valid");
    private static final int MAX_BUFFER = 1 << 20; // characters in one record; an unclosed quote swallows no more

    private final CsvSheet sheet;
    private final ReadingPlan plan;
    private final TraceBuilder builder = new TraceBuilder();
    private final int[] cellNumber;
    private final Optional<String> zeroBytesNote;
    private int timeColumn = -1;
    private int dateColumn = -1;
    private int clockColumn = -1;
    private int offsetColumn = -1;
    private int latColumn = -1;
    private int lonColumn = -1;
    private int levelColumn = -1;
    private Instant previousClock;
    private long dayCarry;

    private CsvLogReader(CsvSheet sheet, ReadingPlan plan) {
        this.sheet = sheet;
        this.plan = plan;
        this.zeroBytesNote = sheet.zeroBytesNote();
        this.cellNumber = new int[plan.columns().size()];
        int cells = 0;
        for (int i = 0; i < plan.columns().size(); i++) {
            switch (plan.columns().get(i).role()) {
                case TIME -> timeColumn = i;
                case DATE -> dateColumn = i;
                case TIME_OF_DAY -> clockColumn = i;
                case UTC_OFFSET -> offsetColumn = i;
                case LATITUDE -> latColumn = i;
                case LONGITUDE -> lonColumn = i;
                case MESSAGE_LEVEL -> levelColumn = i;
                case CELL -> cellNumber[i] = ++cells;
                default -> {}
            }
        }
    }

    /**
     * @throws BrokenFileException when the plan does not fit the file or leaves something open, or no row can be read
     */
    public static LogReading read(CsvSheet sheet, ReadingPlan plan) throws BrokenFileException {
        if (plan.columns().size() != sheet.headers().size()) {
            throw new BrokenFileException(
                    "csv.plan.columns",
                    "the reading plan has " + plan.columns().size() + " columns, the file "
                            + sheet.headers().size() + "; match the columns again");
        }
        List<String> gaps = plan.gaps();
        if (!gaps.isEmpty()) {
            throw new BrokenFileException(
                    "csv.plan.gaps", "the columns cannot be read yet: " + String.join("; ", gaps));
        }
        return new CsvLogReader(sheet, plan).rows();
    }

    private LogReading rows() throws BrokenFileException {
        sheet.encodingNote().ifPresent(builder::note);
        zeroBytesNote.ifPresent(builder::note);
        for (ColumnPlan c : plan.columns()) {
            if (c.assumed() && c.role() != ColumnRole.IGNORE) {
                builder.note("column '" + c.header() + "' does not say it, and is taken as "
                        + c.role().label() + " in " + c.unit().label());
            }
        }
        List<String> unread = unread();
        if (!unread.isEmpty()) {
            builder.note(
                    (unread.size() == 1 ? "one column with figures is" : unread.size() + " columns with figures are")
                            + " not read: " + String.join(", ", unread));
        }
        boolean truncated = false;
        long base = sheet.headerLine() - 1;
        int columns = plan.columns().size();
        try (Reader in = sheet.fromHeader();
                CsvReader<CsvRecord> csv = CsvReader.builder()
                        .fieldSeparator(sheet.delimiter())
                        .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                        .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                        .maxBufferSize(MAX_BUFFER)
                        .ofCsvRecord(in)) {
            Iterator<CsvRecord> records = csv.iterator();
            records.next(); // the header
            long shortLine = 0;
            int shortCells = 0;
            while (records.hasNext()) {
                CsvRecord record = records.next();
                if (shortLine > 0) {
                    wrongCount(shortLine, shortCells);
                    shortLine = 0;
                }
                if (record.getFieldCount() != columns) {
                    shortLine = base + record.getStartingLineNumber();
                    shortCells = record.getFieldCount();
                    continue;
                }
                row(record, base + record.getStartingLineNumber());
            }
            if (shortLine > 0) {
                if (shortCells < columns) {
                    truncated = true;
                    builder.note("the file breaks off in line " + shortLine + " (" + shortCells + " of " + columns
                            + " cells); the flight is read up to there");
                } else {
                    wrongCount(shortLine, shortCells);
                }
            }
        } catch (CsvParseException | UncheckedIOException | IOException e) {
            String reason = reason(e);
            if (builder.rows() == 0) {
                throw new BrokenFileException("csv.broken", "the table cannot be read: " + inThisFile(reason, base), e);
            }
            truncated = true;
            builder.note("the file is damaged after row " + builder.rows() + " (" + reason
                    + "); the flight is read up to there");
        }
        return builder.build(truncated);
    }

    /** Headers of columns that hold figures and are matched to nothing. */
    private List<String> unread() {
        List<String> unread = new ArrayList<>();
        for (int i = 0; i < plan.columns().size(); i++) {
            boolean figures =
                    sheet.column(i).stream().anyMatch(c -> !Double.isNaN(Numbers.parse(c, plan.decimalComma())));
            if (plan.columns().get(i).role() == ColumnRole.IGNORE && figures) {
                unread.add("'" + plan.columns().get(i).header().strip() + "'");
            }
        }
        return unread;
    }

    /** The parser counts lines from the header on; people count from the top of the file. */
    private static String inThisFile(String reason, long base) {
        Matcher m = Pattern.compile("starting at line (\\d+)").matcher(String.valueOf(reason));
        return m.find()
                ? m.replaceFirst("starting at line " + (Long.parseLong(m.group(1)) + base))
                : String.valueOf(reason);
    }

    private static String reason(Exception e) {
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof CharacterCodingException) {
                return "it ends in the middle of a character";
            }
        }
        return e.getMessage();
    }

    private void wrongCount(long line, int cells) {
        builder.problem(new Problem(
                "csv.cells",
                line,
                "",
                cells + " cells",
                plan.columns().size() + " cells, as in the header; the row is left out"));
    }

    private void row(CsvRecord record, long line) throws BrokenFileException {
        Instant at = moment(record, line);
        if (!builder.row(at, line)) {
            return;
        }
        position(record, line);
        for (int i = 0; i < plan.columns().size(); i++) {
            ColumnPlan column = plan.columns().get(i);
            switch (column.role()) {
                case IGNORE, TIME, DATE, TIME_OF_DAY, UTC_OFFSET, LATITUDE, LONGITUDE, MESSAGE_LEVEL -> {}
                case MODE -> {
                    String mode = text(record, i);
                    if (!mode.isEmpty()) {
                        builder.mode(mode);
                    }
                }
                case MESSAGE -> {
                    String said = text(record, i);
                    if (!said.isEmpty()) {
                        builder.message(levelColumn < 0 ? "" : text(record, levelColumn), said);
                    }
                }
                case HOME_SET ->
                    builder.put(Channel.HOME_SET, YES.contains(text(record, i).toLowerCase(Locale.ROOT)) ? 1 : 0);
                case CELL -> builder.put(Channel.cell(Math.min(cellNumber[i], 12)), number(record, i, line));
                case CELLS -> cells(record, i, line);
                default -> builder.put(column.role().channel(), number(record, i, line));
            }
        }
    }

    private void position(CsvRecord record, long line) {
        double lat = coordinate(record, latColumn, line);
        double lon = coordinate(record, lonColumn, line);
        if (!Double.isNaN(lat) && !Double.isNaN(lon)) {
            builder.position(lat, lon);
        }
    }

    private double coordinate(CsvRecord record, int index, long line) {
        String s = text(record, index);
        if (plan.columns().get(index).unit() == Unit.DEGREES_E7 && s.equals("-2147483648")) {
            return Double.NaN; // the usual mark of "no fix" in whole-number positions
        }
        return number(record, index, line);
    }

    private void cells(CsvRecord record, int index, long line) {
        String[] parts = text(record, index).split("[/;| ]+");
        for (int c = 0; c < parts.length && c < 12; c++) {
            double v = Numbers.parse(parts[c].strip(), plan.decimalComma());
            if (!Double.isNaN(v)) {
                builder.put(
                        Channel.cell(c + 1), plan.columns().get(index).unit().convert(v));
            } else if (!NOTHING.contains(parts[c].strip().toLowerCase(Locale.ROOT))) {
                invalid(index, line, parts[c]);
            }
        }
    }

    private String text(CsvRecord record, int index) {
        String s = record.getField(index).strip();
        s = zeroBytesNote.isPresent() ? s.replace('\0', '\uFFFD') : s;
        return s.length() > CsvSheet.MAX_CELL ? s.substring(0, CsvSheet.MAX_CELL) : s;
    }

    /** The figure in the channel's unit, or NaN for an empty cell; anything else is told and left out. */
    private double number(CsvRecord record, int index, long line) {
        String s = text(record, index);
        double v = Numbers.parse(s, plan.decimalComma());
        if (Double.isNaN(v)) {
            String lower = s.toLowerCase(Locale.ROOT);
            if (lower.equals("nan")) {
                builder.note("column '" + plan.columns().get(index).header()
                        + "' holds NaN in places; those figures are left out");
            } else if (!NOTHING.contains(lower)) {
                invalid(index, line, s);
            }
            return v;
        }
        return plan.columns().get(index).unit().convert(v);
    }

    private void invalid(int index, long line, String found) {
        ColumnPlan c = plan.columns().get(index);
        builder.problem(new Problem(
                "csv.number.invalid",
                line,
                c.header(),
                found,
                "a number in " + c.unit().label() + ", such as " + (plan.decimalComma() ? "12,5" : "12.5")
                        + "; the cell is left out"));
    }

    private Instant moment(CsvRecord record, long line) {
        String shown = "";
        try {
            if (timeColumn >= 0) {
                shown = text(record, timeColumn);
                Unit unit = plan.columns().get(timeColumn).unit();
                if (unit == Unit.DATE_TIME) {
                    return dateTime(shown, record);
                }
                return number(shown, unit, line);
            }
            shown = text(record, clockColumn);
            LocalTime clock = clock(shown);
            if (dateColumn >= 0) {
                shown = text(record, dateColumn) + " " + shown;
                return date(text(record, dateColumn))
                        .atTime(clock)
                        .atZone(zone(record))
                        .toInstant();
            }
            return carriedOverMidnight(clock, record);
        } catch (DateTimeException | ArithmeticException e) {
            int column = timeColumn >= 0 ? timeColumn : clockColumn;
            builder.problem(new Problem(
                    "csv.time.invalid",
                    line,
                    plan.columns().get(column).header(),
                    shown,
                    "a time such as 2026-09-16T10:20:00.1Z; the row is left out"));
            return null;
        }
    }

    private Instant number(String s, Unit unit, long line) {
        double v = Numbers.parse(s, plan.decimalComma());
        if (Double.isNaN(v)) {
            if (!s.isEmpty()) {
                builder.problem(new Problem(
                        "csv.time.invalid",
                        line,
                        plan.columns().get(timeColumn).header(),
                        s,
                        "a number in " + unit.label() + "; the row is left out"));
            }
            return null;
        }
        long micros = switch (unit) {
            case EPOCH_SECONDS, ELAPSED_SECONDS -> Math.round(v * 1e6);
            case EPOCH_MILLIS, ELAPSED_MILLIS -> Math.round(v * 1e3);
            default -> Math.round(v);
        };
        return unit.isElapsed()
                ? plan.start().orElseThrow().plus(micros, ChronoUnit.MICROS)
                : Instant.EPOCH.plus(micros, ChronoUnit.MICROS);
    }

    private Instant dateTime(String s, CsvRecord record) {
        if (s.isEmpty()) {
            return null;
        }
        String iso = s.replace(' ', 'T').replace(',', '.');
        if (iso.endsWith("Z") || iso.matches(".*[+-]\\d{2}:\\d{2}")) {
            return OffsetDateTime.parse(iso).toInstant();
        }
        int split = s.indexOf('T') > 0 ? s.indexOf('T') : s.indexOf(' ');
        if (split < 0) {
            throw new DateTimeException("no time of day");
        }
        return date(s.substring(0, split))
                .atTime(clock(s.substring(split + 1).strip()))
                .atZone(zone(record))
                .toInstant();
    }

    /** A time of day without a date: the plan's day, and the next one when the clock falls back past midnight. */
    private Instant carriedOverMidnight(LocalTime clock, CsvRecord record) {
        ZoneId zone = zone(record);
        LocalDate day = plan.start().orElseThrow().atZone(zone).toLocalDate();
        Instant at = day.plusDays(dayCarry).atTime(clock).atZone(zone).toInstant();
        if (previousClock != null && ChronoUnit.HOURS.between(at, previousClock) >= 12) {
            dayCarry++;
            at = day.plusDays(dayCarry).atTime(clock).atZone(zone).toInstant();
        }
        previousClock = at;
        return at;
    }

    private ZoneId zone(CsvRecord record) {
        if (offsetColumn >= 0) {
            String s = text(record, offsetColumn);
            if (s.equals("Z") || s.equalsIgnoreCase("UTC")) {
                return ZoneOffset.UTC;
            }
            Matcher m = OFFSET.matcher(s);
            if (!m.matches()) {
                throw new DateTimeException("offset " + s);
            }
            int sign = m.group(1).equals("-") ? -1 : 1;
            int minutes = m.group(3) == null ? 0 : Integer.parseInt(m.group(3));
            return ZoneOffset.ofHoursMinutes(sign * Integer.parseInt(m.group(2)), sign * minutes);
        }
        return plan.zone().orElse(ZoneOffset.UTC);
    }

    private LocalDate date(String s) {
        Matcher m = DATE.matcher(s);
        if (!m.matches()) {
            throw new DateTimeException("date " + s);
        }
        List<Integer> p = new ArrayList<>();
        for (int g = 1; g <= 3; g++) {
            p.add(Integer.parseInt(m.group(g)));
        }
        if (m.group(1).length() == 4) {
            return LocalDate.of(p.get(0), p.get(1), p.get(2));
        }
        int year = p.get(2) < 100 ? 2000 + p.get(2) : p.get(2);
        return plan.dateOrder() == ReadingPlan.DateOrder.MONTH_DAY_YEAR
                ? LocalDate.of(year, p.get(0), p.get(1))
                : LocalDate.of(year, p.get(1), p.get(0));
    }

    private static LocalTime clock(String s) {
        Matcher m = CLOCK.matcher(s);
        if (!m.matches()) {
            throw new DateTimeException("time of day " + s);
        }
        int hour = Integer.parseInt(m.group(1));
        if (m.group(5) != null) {
            boolean pm = m.group(5).equalsIgnoreCase("p");
            hour = hour % 12 + (pm ? 12 : 0);
        }
        int second = m.group(3) == null ? 0 : Integer.parseInt(m.group(3));
        String fraction = m.group(4) == null ? "" : m.group(4);
        int nanos = fraction.isEmpty() ? 0 : Integer.parseInt(fraction + "0".repeat(NANO_DIGITS - fraction.length()));
        return LocalTime.of(hour, Integer.parseInt(m.group(2)), second, nanos);
    }
}
