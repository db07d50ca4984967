package yarrek.formats.dataflash;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import yarrek.core.time.Patience;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.log.Problem;
import yarrek.formats.log.TraceBuilder;

/** Reads a DataFlash log, binary or as text, by the definitions that it carries. What is damaged is passed over and told. */
public final class DataflashReader {
    private static final int HEAD_1 = 0xA3;
    private static final int HEAD_2 = 0x95;
    private static final int HEAD = 3;
    private static final int FMT = 128;
    private static final int FMT_BODY = 86;
    private static final int MOST_LINE = 4000;

    private final TraceBuilder builder = new TraceBuilder();
    private final Map<Integer, Definition> byType = new HashMap<>();
    private final Map<String, Definition> byName = new HashMap<>();
    private final Map<Character, Double> multipliers = new HashMap<>();
    private final Records records = new Records();
    private boolean truncated;

    private DataflashReader() {}

    /** Whether a file begins as the binary form, with the definition of definitions. */
    public static boolean beginsBinary(byte[] content) {
        return content.length > HEAD
                && (content[0] & 0xFF) == HEAD_1
                && (content[1] & 0xFF) == HEAD_2
                && (content[2] & 0xFF) == FMT;
    }

    /** Whether it begins as the text form. */
    public static boolean beginsText(byte[] content) {
        String head = new String(content, 0, Math.min(content.length, 64), StandardCharsets.ISO_8859_1);
        return head.stripLeading().matches("(?s)FMT,\\s*\\d+,\\s*\\d+,\\s*\\w{1,4},.*");
    }

    public static LogReading readBinary(byte[] content) throws BrokenFileException {
        DataflashReader r = new DataflashReader();
        r.binary(content);
        return r.finish();
    }

    public static LogReading readText(byte[] content) throws BrokenFileException {
        DataflashReader r = new DataflashReader();
        r.text(content);
        return r.finish();
    }

    private LogReading finish() throws BrokenFileException {
        if (truncated) {
            builder.note("the file breaks off in the middle of a record; the flight is read up to there");
        }
        records.end();
        long toUtc = records.toUtcMicros()
                .orElseThrow(
                        () -> new BrokenFileException(
                                "dataflash.date",
                                "the log never says the date: its satellite receiver had no time. Nothing is known of when it was flown"));
        records.rates().pour(builder, toUtc);
        return builder.build(truncated);
    }

    private void binary(byte[] content) {
        ByteBuffer b = ByteBuffer.wrap(content).order(ByteOrder.LITTLE_ENDIAN);
        int p = 0;
        long lost = 0;
        int damages = 0;
        boolean inDamage = false;
        while (p + HEAD <= content.length) {
            Patience.ask();
            int size = size(content, p);
            if (size < 0) {
                damages += inDamage ? 0 : 1;
                inDamage = true;
                lost++;
                p++;
                continue;
            }
            int next = p + HEAD + size;
            if (next > content.length) {
                truncated = true;
                break;
            }
            // between records there is nothing: where the next is none, this one may be none either
            if (inDamage && next + HEAD <= content.length && size(content, next) < 0) {
                lost++;
                p++;
                continue;
            }
            inDamage = false;
            take(b, p + HEAD, content[p + 2] & 0xFF);
            p = next;
        }
        if (p < content.length && !truncated && !inDamage) {
            truncated = true;
        }
        if (damages > 0) {
            builder.problem(new Problem(
                    "dataflash.damaged",
                    0,
                    "",
                    "",
                    damages + (damages == 1 ? " place is" : " places are") + " damaged, " + lost
                            + " bytes are left out"));
        }
    }

    /** Bytes of the record's body; -1 where none begins. */
    private int size(byte[] content, int p) {
        if (p + HEAD > content.length || (content[p] & 0xFF) != HEAD_1 || (content[p + 1] & 0xFF) != HEAD_2) {
            return -1;
        }
        int type = content[p + 2] & 0xFF;
        if (type == FMT) {
            return FMT_BODY;
        }
        Definition d = byType.get(type);
        return d == null ? -1 : d.size();
    }

    private void take(ByteBuffer b, int at, int type) {
        if (type == FMT) {
            Definition fmt = new Definition("FMT", "BBnNZ", "Type,Length,Name,Format,Columns");
            Definition d = new Definition(fmt.text(b, at, 2), fmt.text(b, at, 3), fmt.text(b, at, 4));
            if (d.makesSense() && d.size() + HEAD == (int) fmt.number(b, at, 1)) {
                define((int) fmt.number(b, at, 0), d);
            }
            return;
        }
        Definition d = byType.get(type);
        switch (d.name()) {
            case "MULT" -> {
                if (d.column("Id") >= 0 && d.column("Mult") >= 0) {
                    multipliers.put((char) (int) d.number(b, at, d.column("Id")), d.number(b, at, d.column("Mult")));
                }
            }
            case "FMTU" -> {
                if (d.column("FmtType") >= 0 && d.column("MultIds") >= 0) {
                    scale((int) d.number(b, at, d.column("FmtType")), d.text(b, at, d.column("MultIds")));
                }
            }
            default -> records.take(d, c -> d.number(b, at, c), c -> d.text(b, at, c));
        }
    }

    private void define(int type, Definition d) {
        byType.put(type, d);
        byName.put(d.name(), d);
    }

    private void scale(int type, String ids) {
        Definition d = byType.get(type);
        if (d != null) {
            d.scale(ids, multipliers);
        }
    }

    private void text(byte[] content) {
        long wrong = 0;
        long number = 0;
        try (BufferedReader lines = new BufferedReader(
                new InputStreamReader(new java.io.ByteArrayInputStream(content), StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                Patience.ask();
                number++;
                if (line.length() > MOST_LINE || !line(line)) {
                    wrong += line.isBlank() ? 0 : 1;
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        if (content.length > 0 && content[content.length - 1] != '\n') {
            truncated = true;
        }
        if (wrong > 0) {
            builder.problem(new Problem(
                    "dataflash.line",
                    0,
                    "",
                    "",
                    wrong + " of " + number + " lines are not as their definition says and are left out"));
        }
    }

    /** @return whether it was understood */
    private boolean line(String line) {
        String[] all = line.split(",", -1);
        for (int i = 0; i < all.length; i++) {
            all[i] = all[i].strip();
        }
        String name = all[0];
        if (name.equals("FMT")) {
            if (all.length < 6) {
                return false;
            }
            // a column of the columns themselves
            String columns = String.join(",", java.util.Arrays.copyOfRange(all, 5, all.length));
            Definition d = new Definition(all[3], all[4], columns);
            try {
                if (d.makesSense()) {
                    define(Integer.parseInt(all[1]), d);
                }
                return true;
            } catch (NumberFormatException e) {
                return false;
            }
        }
        Definition d = byName.get(name);
        if (d == null) {
            return false;
        }
        String[] cells = java.util.Arrays.copyOfRange(all, 1, all.length);
        switch (name) {
            case "MULT" -> {
                if (d.column("Id") >= 0 && d.column("Mult") >= 0 && cells.length > d.column("Mult")) {
                    String id = cells[d.column("Id")];
                    char letter = id.length() == 1 && !Character.isDigit(id.charAt(0))
                            ? id.charAt(0)
                            : (char) (int) d.number(cells, d.column("Id"));
                    multipliers.put(letter, d.number(cells, d.column("Mult")));
                }
            }
            case "FMTU" -> {
                if (d.column("FmtType") >= 0 && d.column("MultIds") >= 0 && cells.length > d.column("MultIds")) {
                    scale((int) d.number(cells, d.column("FmtType")), cells[d.column("MultIds")]);
                }
            }
            default -> {
                int last = d.column("Message");
                String rest = last < 0 || last >= cells.length
                        ? ""
                        : String.join(", ", java.util.Arrays.copyOfRange(cells, last, cells.length));
                records.take(d, c -> d.number(cells, c), c -> c == last ? rest : c < cells.length ? cells[c] : "");
            }
        }
        return true;
    }
}
