package yarrek.core.trace;

import java.time.Instant;
import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The time series of one log. Times never fall; a figure that the log does not have is NaN; a channel that it never has
 * is absent. Arrays are shared, not copied: nobody writes to them.
 */
public final class Trace {
    /** Seconds without a figure after which a quantity no longer counts as known throughout. */
    public static final double LONGEST_HOLE_S = 5.0;

    /** Faster than any small aircraft flies: a step between two positions that would need more is a fault of the log. */
    public static final double IMPLAUSIBLE_SPEED_MPS = 150;

    /** Something the aircraft said. */
    public record Message(double atS, String level, String text) {}

    /** The mode from this moment on. */
    public record ModeChange(double atS, String mode) {}

    private final Instant start;
    private final double[] seconds;
    private final Map<Channel, double[]> columns;
    private final List<Message> messages;
    private final List<ModeChange> modes;

    /**
     * @param start the moment of second zero
     * @param seconds rising or level
     * @throws IllegalArgumentException if a column's length differs from that of the times, or the times fall
     */
    public Trace(
            Instant start,
            double[] seconds,
            Map<Channel, double[]> columns,
            List<Message> messages,
            List<ModeChange> modes) {
        for (int i = 1; i < seconds.length; i++) {
            if (!(seconds[i] >= seconds[i - 1])) {
                throw new IllegalArgumentException(
                        "times must not fall, got " + seconds[i - 1] + " then " + seconds[i]);
            }
        }
        EnumMap<Channel, double[]> held = new EnumMap<>(Channel.class);
        columns.forEach((c, v) -> {
            if (v.length != seconds.length) {
                throw new IllegalArgumentException(
                        c + " has " + v.length + " figures for " + seconds.length + " times");
            }
            held.put(c, v);
        });
        this.start = start;
        this.seconds = seconds;
        this.columns = Collections.unmodifiableMap(held);
        this.messages = List.copyOf(messages);
        this.modes = List.copyOf(modes);
    }

    public Instant start() {
        return start;
    }

    public int size() {
        return seconds.length;
    }

    public double[] seconds() {
        return seconds;
    }

    public boolean has(Channel channel) {
        return columns.containsKey(channel);
    }

    public Set<Channel> channels() {
        return columns.keySet();
    }

    /** The column, or null when the log never has it. */
    public double[] column(Channel channel) {
        return columns.get(channel);
    }

    /**
     * A quantity with a figure at every moment between two of its samples that are no more than a hole apart, on the straight line
     * between them: quantities come at several rates. For drawing; angles that wrap are not meant.
     *
     * @param column of this trace, one figure a moment
     */
    public double[] bridged(double[] column) {
        double[] all = column.clone();
        int last = -1;
        for (int i = 0; i < all.length; i++) {
            if (Double.isNaN(column[i])) {
                continue;
            }
            double span = last < 0 ? 0 : seconds[i] - seconds[last];
            if (span > 0 && span <= LONGEST_HOLE_S) {
                for (int k = last + 1; k < i; k++) {
                    all[k] = column[last] + (column[i] - column[last]) * (seconds[k] - seconds[last]) / span;
                }
            }
            last = i;
        }
        return all;
    }

    /** The figure, or NaN. */
    public double at(Channel channel, int index) {
        double[] column = columns.get(channel);
        return column == null ? Double.NaN : column[index];
    }

    public List<Message> messages() {
        return messages;
    }

    public List<ModeChange> modes() {
        return modes;
    }

    public Instant instant(double second) {
        return start.plusNanos(Math.round(second * 1e9));
    }

    /** The stretch from one index to another, both included, on the same clock. */
    public Trace slice(int from, int to) {
        EnumMap<Channel, double[]> cut = new EnumMap<>(Channel.class);
        columns.forEach((c, v) -> {
            double[] part = java.util.Arrays.copyOfRange(v, from, to + 1);
            for (double d : part) {
                if (!Double.isNaN(d)) {
                    cut.put(c, part);
                    break;
                }
            }
        });
        double first = seconds[from];
        double last = seconds[to];
        double[] times = new double[to - from + 1];
        for (int i = 0; i < times.length; i++) {
            times[i] = seconds[from + i] - first;
        }
        return new Trace(
                instant(first),
                times,
                cut,
                messages.stream()
                        .filter(m -> m.atS() >= first && m.atS() <= last)
                        .map(m -> new Message(m.atS() - first, m.level(), m.text()))
                        .toList(),
                modes.stream()
                        .filter(m -> m.atS() <= last)
                        .map(m -> new ModeChange(Math.max(0, m.atS() - first), m.mode()))
                        .toList());
    }
}
