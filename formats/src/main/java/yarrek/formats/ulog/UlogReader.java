package yarrek.formats.ulog;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import yarrek.core.time.Patience;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.log.Problem;
import yarrek.formats.log.Rates;
import yarrek.formats.log.TraceBuilder;

/**
 * Reads a ULog file: header, definitions, data, and data appended later. Only the records that are wanted are taken apart. Where
 * bytes are damaged it goes on at the next place that can be a record and is followed by one.
 */
public final class UlogReader {
    private static final byte[] MAGIC = {0x55, 0x4C, 0x6F, 0x67, 0x01, 0x12, 0x35};
    private static final int HEADER = 16;
    private static final int HEAD = 3;
    private static final int NEWEST = 2;
    private static final byte[] SYNC = {0x2F, 0x73, 0x13, 0x20, 0x25, 0x0C, (byte) 0xBB, 0x12};
    private static final int APPENDED = 1;
    private static final String[] LEVELS = {
        "emergency", "alert", "critical", "error", "warning", "notice", "info", "debug"
    };
    private static final int MOST_TEXT = 1000;

    private final ByteBuffer b;
    private final int length;
    private final TraceBuilder builder = new TraceBuilder();
    private final Layouts layouts = new Layouts();
    private final Map<Integer, Subscribed> subscribed = new HashMap<>();
    private final Set<String> packs = new HashSet<>();
    private long[] appendedAt = {};
    private Topics topics;
    private long lost;
    private int damages;
    private long droppedMs;
    private boolean truncated;

    /** @param layout null when its format is not defined */
    private record Subscribed(String topic, int instance, Layouts.Layout layout, Topics.Taking taking) {}

    private UlogReader(byte[] content) {
        b = ByteBuffer.wrap(content).order(ByteOrder.LITTLE_ENDIAN);
        length = content.length;
    }

    /** Whether a file begins as one. */
    public static boolean begins(byte[] content) {
        return content.length >= MAGIC.length
                && java.util.Arrays.equals(content, 0, MAGIC.length, MAGIC, 0, MAGIC.length);
    }

    /** @throws BrokenFileException when it is none, of a version or with a feature that is not known, or without a date */
    public static LogReading read(byte[] content) throws BrokenFileException {
        return new UlogReader(content).readAll();
    }

    private LogReading readAll() throws BrokenFileException {
        byte[] content = b.array();
        if (!begins(content) || length < HEADER) {
            throw new BrokenFileException(
                    "ulog.header", "this is not a ULog file, or it ends within its first 16 bytes");
        }
        int version = content[MAGIC.length] & 0xFF;
        if (version > NEWEST) {
            builder.note("the file is of ULog version " + version + "; it is read as version " + NEWEST);
        }
        Set<String> present = new HashSet<>();
        walk((type, at, n) -> {
            if (type == 'D' && n >= 2) {
                Subscribed s = subscribed.get(b.getShort(at) & 0xFFFF);
                if (s != null && s.layout() != null) {
                    present.add(s.topic());
                }
            }
        });
        int damagedPlaces = damages;
        long lostBytes = lost;
        subscribed.clear();
        topics = new Topics(present, new Rates());
        walk(this::take);
        if (damagedPlaces > 0) {
            builder.problem(new Problem(
                    "ulog.damaged",
                    0,
                    "",
                    "",
                    damagedPlaces + (damagedPlaces == 1 ? " place is" : " places are") + " damaged, " + lostBytes
                            + " bytes are left out"));
        }
        if (droppedMs > 0) {
            builder.note("the logger itself dropped " + droppedMs + " ms, as it says");
        }
        if (packs.size() > 1) {
            builder.note("the log has " + packs.size() + " packs; the first is read");
        }
        if (truncated) {
            builder.note("the file breaks off in the middle of a record; the flight is read up to there");
        }
        Long toUtc = topics.toUtcMicros()
                .orElseThrow(
                        () -> new BrokenFileException(
                                "ulog.date",
                                "the log never says the date: its satellite receiver had no time. Nothing is known of when it was flown"));
        topics.rates().pour(builder, toUtc);
        return builder.build(truncated);
    }

    private interface Visitor {
        void visit(char type, int at, int length);
    }

    /** Goes through all records; definitions and subscriptions are kept as they come. */
    private void walk(Visitor visitor) throws BrokenFileException {
        int p = HEADER;
        lost = 0;
        damages = 0;
        truncated = false;
        while (p < length) {
            Patience.ask();
            if (p + HEAD > length) {
                truncated = true;
                return;
            }
            int n = b.getShort(p) & 0xFFFF;
            char type = (char) (b.get(p + 2) & 0xFF);
            if (!isPlausible(type, p + HEAD, n)) {
                int next = resume(p + 1);
                if (next < 0) {
                    lost += length - p;
                    damages++;
                    return;
                }
                lost += next - p;
                damages++;
                p = next;
                continue;
            }
            int appended = appendedWithin(p, p + HEAD + n);
            if (appended > 0) {
                p = appended; // the record was cut off when more was appended behind it
                continue;
            }
            if (p + HEAD + n > length) {
                truncated = true;
                return;
            }
            define(type, p + HEAD, n);
            visitor.visit(type, p + HEAD, n);
            p += HEAD + n;
        }
    }

    private int appendedWithin(int from, int to) {
        for (long a : appendedAt) {
            if (a > from && a < to) {
                return (int) a;
            }
        }
        return 0;
    }

    /** Whether a record of this type can be so long. */
    private boolean isPlausible(char type, int at, int n) {
        return switch (type) {
            case 'B' -> n >= 16;
            case 'F', 'I', 'M', 'P', 'Q' -> n > 2;
            case 'A' -> n > 3;
            case 'R' -> n == 2;
            case 'L' -> n > 9;
            case 'C' -> n > 11;
            case 'S' -> n == 8;
            case 'O' -> n == 2;
            case 'D' -> {
                if (n < 2 || at + 2 > length) {
                    yield n >= 2;
                }
                Subscribed s = subscribed.get(b.getShort(at) & 0xFFFF);
                yield s != null
                        && (s.layout() == null
                                || (n - 2 <= s.layout().size()
                                        && n - 2 >= s.layout().leastSize()));
            }
            default -> false;
        };
    }

    /** The next place that can be a record and is followed by one, or by the end; -1 for none. */
    private int resume(int from) {
        for (int p = from; p + HEAD <= length; p++) {
            int n = b.getShort(p) & 0xFFFF;
            char type = (char) (b.get(p + 2) & 0xFF);
            int next = p + HEAD + n;
            if ((type != 'D' && type != 'S' && type != 'L' && type != 'O')
                    || next > length
                    || !isPlausible(type, p + HEAD, n)) {
                continue;
            }
            if (type == 'S' && !isSync(p + HEAD)) {
                continue;
            }
            boolean followed = next == length
                    || (next + HEAD <= length
                            && isPlausible((char) (b.get(next + 2) & 0xFF), next + HEAD, b.getShort(next) & 0xFFFF));
            if (followed) {
                return p;
            }
        }
        return -1;
    }

    private boolean isSync(int at) {
        for (int i = 0; i < SYNC.length; i++) {
            if (b.get(at + i) != SYNC[i]) {
                return false;
            }
        }
        return true;
    }

    private void define(char type, int at, int n) throws BrokenFileException {
        switch (type) {
            case 'B' -> flags(at, n);
            case 'F' -> layouts.define(text(at, n));
            case 'A' -> {
                String topic = text(at + 3, n - 3);
                int instance = b.get(at) & 0xFF;
                Layouts.Layout layout = layouts.of(topic).orElse(null);
                subscribed.put(
                        b.getShort(at + 1) & 0xFFFF,
                        new Subscribed(
                                topic,
                                instance,
                                layout,
                                topics == null || layout == null || instance > 0
                                        ? Topics.NOTHING
                                        : topics.taking(topic, layout)));
            }
            case 'R' -> subscribed.remove(b.getShort(at) & 0xFFFF);
            default -> {
                // nothing of it is needed to read on
            }
        }
    }

    /** A file that needs a feature which is not known here is refused, as the format asks. */
    private void flags(int at, int n) throws BrokenFileException {
        int unknown = 0;
        for (int i = 8; i < 16; i++) {
            unknown |= i == 8 ? b.get(at + i) & ~APPENDED : b.get(at + i);
        }
        if (unknown != 0) {
            throw new BrokenFileException(
                    "ulog.feature",
                    "the file uses a feature of the format that is not known here, so what it holds could be taken for"
                            + " something else; nothing was taken");
        }
        if ((b.get(at + 8) & APPENDED) != 0 && n >= 40) {
            appendedAt = new long[] {b.getLong(at + 16), b.getLong(at + 24), b.getLong(at + 32)};
        }
    }

    private void take(char type, int at, int n) {
        switch (type) {
            case 'D' -> {
                Subscribed s = subscribed.get(b.getShort(at) & 0xFFFF);
                if (s != null && s.layout() != null) {
                    if (s.topic().equals("battery_status")) {
                        packs.add(s.topic() + s.instance());
                    }
                    s.taking().take(b, at + 2, n - 2);
                }
            }
            case 'L' -> say(at, b.getLong(at + 1), text(at + 9, n - 9));
            case 'C' -> say(at, b.getLong(at + 3), text(at + 11, n - 11));
            case 'O' -> droppedMs += b.getShort(at) & 0xFFFF;
            default -> {
                // told of elsewhere, or not needed
            }
        }
    }

    private void say(int at, long micros, String text) {
        int level = b.get(at) & 0xFF;
        int place = level >= '0' ? level - '0' : level;
        topics.rates()
                .message(
                        micros,
                        place >= 0 && place < LEVELS.length ? LEVELS[place] : "",
                        text.length() > MOST_TEXT ? text.substring(0, MOST_TEXT) : text);
    }

    private String text(int at, int n) {
        String s = new String(b.array(), at, Math.max(0, Math.min(n, length - at)), StandardCharsets.UTF_8);
        return s.replace("\0", "");
    }
}
