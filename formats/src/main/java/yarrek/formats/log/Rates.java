package yarrek.formats.log;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import yarrek.core.trace.Channel;

/**
 * Samples that come at several rates on one clock, brought together into the rows of a trace. What lies within a few
 * hundredths of a second of each other is one row, at the moment of its position where it has one; a channel stands in a row at
 * most once.
 */
@SuppressWarnings("EnumOrdinal") // only places in arrays of one reading: nothing is kept by them
public final class Rates {
    private static final long TOGETHER_MICROS = 20_000;

    /** Records are written within a second or two of their moment. */
    private static final long LEAP_MICROS = 10_000_000;

    private static final Channel[] CHANNELS = Channel.values();

    private long[] at = new long[1024];
    private int[] from = new int[1024];
    private int groups;
    private short[] channels = new short[8192];
    private double[] values = new double[8192];
    private int count;

    private final Map<Channel, Double> atStart = new EnumMap<>(Channel.class);

    /** Words of a group by its index: a message with its level, or a mode with none. */
    private final List<Words> words = new ArrayList<>();

    private record Words(int group, String level, String text) {}

    /** Begins the samples of a moment on the log's own clock. */
    public void at(long micros) {
        if (groups == at.length) {
            at = Arrays.copyOf(at, groups * 2);
            from = Arrays.copyOf(from, groups * 2);
        }
        at[groups] = micros;
        from[groups] = count;
        groups++;
    }

    /** A sample of the present moment; what is no figure is not kept. */
    public void put(Channel channel, double value) {
        if (Double.isNaN(value) || Double.isInfinite(value)) {
            return;
        }
        if (count == channels.length) {
            channels = Arrays.copyOf(channels, count * 2);
            values = Arrays.copyOf(values, count * 2);
        }
        channels[count] = (short) channel.ordinal();
        values[count] = value;
        count++;
    }

    /** What a quantity is from the beginning, unless the first moment says otherwise. */
    public void fromStart(Channel channel, double value) {
        atStart.put(channel, value);
    }

    /** @param level empty where the log has none */
    public void message(long micros, String level, String text) {
        at(micros);
        words.add(new Words(groups - 1, level, text));
    }

    public void mode(long micros, String mode) {
        at(micros);
        words.add(new Words(groups - 1, null, mode));
    }

    public boolean isEmpty() {
        return groups == 0;
    }

    private int end(int group) {
        return group + 1 < groups ? from[group + 1] : count;
    }

    /**
     * Hands everything on as rows, in the order of the clock.
     *
     * @param toUtcMicros what to add to the clock to have microseconds since 1970
     */
    public void pour(TraceBuilder builder, long toUtcMicros) throws BrokenFileException {
        dropAstray(builder);
        Words[] byGroup = new Words[groups];
        words.forEach(w -> byGroup[w.group()] = w);
        double[] row = new double[CHANNELS.length];
        Arrays.fill(row, Double.NaN);
        atStart.forEach((c, v) -> row[c.ordinal()] = v);
        List<Words> said = new ArrayList<>();
        long began = Long.MIN_VALUE;
        long moment = Long.MIN_VALUE;
        for (int g : order()) {
            boolean apart = began == Long.MIN_VALUE || at[g] - began > TOGETHER_MICROS || holdsOneOf(row, g);
            if (apart) {
                if (began != Long.MIN_VALUE) {
                    flush(builder, moment + toUtcMicros, row, said);
                }
                began = at[g];
                moment = at[g];
            }
            for (int i = from[g]; i < end(g); i++) {
                row[channels[i]] = values[i];
                if (channels[i] == Channel.LATITUDE_DEG.ordinal()) {
                    moment = at[g];
                }
            }
            if (byGroup[g] != null) {
                said.add(byGroup[g]);
            }
        }
        if (began != Long.MIN_VALUE) {
            flush(builder, moment + toUtcMicros, row, said);
        }
    }

    /** A moment that leaps away from those written beside it, and back, is damage: what it holds is left out. */
    private void dropAstray(TraceBuilder builder) {
        int astray = 0;
        long last = groups == 0 ? 0 : at[0];
        for (int g = 1; g < groups; g++) {
            boolean alone = g + 1 == groups || Math.abs(at[g + 1] - at[g]) > LEAP_MICROS;
            if (Math.abs(at[g] - last) > LEAP_MICROS && alone) {
                at[g] = last;
                for (int i = from[g]; i < end(g); i++) {
                    values[i] = Double.NaN;
                }
                astray++;
            }
            last = at[g];
        }
        if (astray > 0) {
            builder.problem(new Problem(
                    "log.time.astray",
                    0,
                    "",
                    "",
                    astray + (astray == 1 ? " record has" : " records have")
                            + " a time far from those beside it; it is taken for damage and left out"));
        }
    }

    private int[] order() {
        for (int g = 1; g < groups; g++) {
            if (at[g] < at[g - 1]) {
                return IntStream.range(0, groups)
                        .boxed()
                        .sorted(Comparator.comparingLong(i -> at[i]))
                        .mapToInt(Integer::intValue)
                        .toArray();
            }
        }
        return IntStream.range(0, groups).toArray();
    }

    private boolean holdsOneOf(double[] row, int group) {
        for (int i = from[group]; i < end(group); i++) {
            if (!Double.isNaN(row[channels[i]])) {
                return true;
            }
        }
        return false;
    }

    private static void flush(TraceBuilder builder, long utcMicros, double[] row, List<Words> said)
            throws BrokenFileException {
        Instant at = Instant.ofEpochSecond(
                Math.floorDiv(utcMicros, 1_000_000L), Math.floorMod(utcMicros, 1_000_000L) * 1000L);
        if (builder.row(at, 0)) {
            double latitude = row[Channel.LATITUDE_DEG.ordinal()];
            double longitude = row[Channel.LONGITUDE_DEG.ordinal()];
            if (!Double.isNaN(latitude) && !Double.isNaN(longitude)) {
                builder.position(latitude, longitude);
            }
            for (Channel c : CHANNELS) {
                if (c != Channel.LATITUDE_DEG && c != Channel.LONGITUDE_DEG) {
                    builder.put(c, row[c.ordinal()]);
                }
            }
            for (Words w : said) {
                if (w.level() == null) {
                    builder.mode(w.text());
                } else {
                    builder.message(w.level(), w.text());
                }
            }
        }
        Arrays.fill(row, Double.NaN);
        said.clear();
    }
}
