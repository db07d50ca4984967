package yarrek.formats.log;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/**
 * Gathers rows into a trace and settles what logs get wrong: rows without a time, positions at 0/0 before the first fix,
 * clocks that step back. Everything left out or mended is told.
 */
public final class TraceBuilder {
    private static final int MAX_PROBLEMS = 50;
    private static final int MAX_ROWS = 8_640_000; // 24 h at 100 Hz
    private static final int STRAGGLERS = 5; // rows that come late but find back to the clock
    private static final double MICRO = 1e6;
    private static final double IMPLAUSIBLE_SPEED_MPS = 150;
    private static final double METRES_PER_DEGREE = 111_195;

    private final List<Problem> problems = new ArrayList<>();
    private final List<String> notes = new ArrayList<>();
    private final EnumMap<Channel, double[]> columns = new EnumMap<>(Channel.class);
    private final List<String[]> messages = new ArrayList<>(); // level, text
    private final List<Integer> messageRows = new ArrayList<>();
    private final List<String> modes = new ArrayList<>();
    private final List<Integer> modeRows = new ArrayList<>();
    private long[] micros = new long[1024];
    private long[] lines = new long[1024];
    private int problemCount;
    private int rows;
    private int zeroFixes;
    private int undated;

    public void problem(Problem p) {
        problemCount++;
        if (problems.size() < MAX_PROBLEMS) {
            problems.add(p);
        }
    }

    public void note(String sentence) {
        if (!notes.contains(sentence)) {
            notes.add(sentence);
        }
    }

    /**
     * Begins a row.
     *
     * @return false when the row has no time and is left out
     * @throws BrokenFileException when there are more rows than a day at 100 Hz
     */
    public boolean row(Instant at, long line) throws BrokenFileException {
        if (at == null) {
            undated++;
            return false;
        }
        if (rows >= MAX_ROWS) {
            throw new BrokenFileException("log.rows", "the log has more than " + MAX_ROWS + " rows; split it");
        }
        if (rows == micros.length) {
            micros = Arrays.copyOf(micros, rows * 2);
            lines = Arrays.copyOf(lines, rows * 2);
            columns.replaceAll((c, v) -> {
                double[] grown = Arrays.copyOf(v, rows * 2);
                Arrays.fill(grown, rows, grown.length, Double.NaN);
                return grown;
            });
        }
        micros[rows] = Math.addExact(Math.multiplyExact(at.getEpochSecond(), 1_000_000L), at.getNano() / 1000);
        lines[rows] = line;
        rows++;
        return true;
    }

    /** A figure of the present row; NaN is not kept. */
    public void put(Channel channel, double value) {
        if (Double.isNaN(value)) {
            return;
        }
        double[] column = columns.get(channel);
        if (column == null) {
            column = new double[micros.length];
            Arrays.fill(column, Double.NaN);
            columns.put(channel, column);
        }
        column[rows - 1] = value;
    }

    /**
     * The position of the present row in degrees. Out of range is a problem; exactly 0/0 is no fix.
     *
     * @return whether it was kept
     */
    public boolean position(double latitude, double longitude) {
        if (latitude == 0 && longitude == 0) {
            zeroFixes++;
            return false;
        }
        if (!(latitude >= -90 && latitude <= 90) || !(longitude >= -180 && longitude <= 180)) {
            problem(
                    new Problem(
                            "log.position.invalid",
                            lines[rows - 1],
                            "position",
                            latitude + ", " + longitude,
                            "degrees north -90 to 90 and east -180 to 180, such as 46.6123, -17.8934; the position is left out"));
            return false;
        }
        put(Channel.LATITUDE_DEG, latitude);
        put(Channel.LONGITUDE_DEG, longitude);
        return true;
    }

    public void message(String level, String text) {
        messages.add(new String[] {level, text});
        messageRows.add(rows - 1);
    }

    public void mode(String mode) {
        if (modes.isEmpty() || !modes.get(modes.size() - 1).equals(mode)) {
            modes.add(mode);
            modeRows.add(rows - 1);
        }
    }

    public int rows() {
        return rows;
    }

    /** @throws BrokenFileException when no row with a time was found */
    public LogReading build(boolean truncated) throws BrokenFileException {
        if (undated > 0) {
            notes.add(undated + (undated == 1 ? " row has" : " rows have") + " no time and "
                    + (undated == 1 ? "is" : "are") + " left out");
        }
        if (zeroFixes > 0) {
            notes.add(zeroFixes + (zeroFixes == 1 ? " row has" : " rows have")
                    + " position 0/0, which is no fix; the position is left out");
        }
        if (rows == 0) {
            throw new BrokenFileException("log.empty", "no row with a time was found; nothing to bring in");
        }
        boolean[] keep = straightenClock();
        int kept = 0;
        int[] newIndex = new int[rows];
        for (int i = 0; i < rows; i++) {
            newIndex[i] = keep[i] ? kept++ : -1;
        }
        double[] seconds = new double[kept];
        Map<Channel, double[]> cut = new EnumMap<>(Channel.class);
        columns.forEach((c, v) -> cut.put(c, new double[seconds.length]));
        for (int i = 0; i < rows; i++) {
            if (keep[i]) {
                int k = newIndex[i];
                seconds[k] = (micros[i] - micros[0]) / MICRO;
                for (Map.Entry<Channel, double[]> e : cut.entrySet()) {
                    e.getValue()[k] = columns.get(e.getKey())[i];
                }
            }
        }
        Instant start = Instant.ofEpochSecond(
                Math.floorDiv(micros[0], 1_000_000L), Math.floorMod(micros[0], 1_000_000L) * 1000L);
        List<Trace.Message> said = new ArrayList<>();
        for (int i = 0; i < messages.size(); i++) {
            int row = newIndex[messageRows.get(i)];
            if (row >= 0) {
                said.add(new Trace.Message(seconds[row], messages.get(i)[0], messages.get(i)[1]));
            }
        }
        List<Trace.ModeChange> changes = new ArrayList<>();
        for (int i = 0; i < modes.size(); i++) {
            int row = newIndex[modeRows.get(i)];
            if (row >= 0) {
                changes.add(new Trace.ModeChange(seconds[row], modes.get(i)));
            }
        }
        jumps(seconds, cut);
        return new LogReading(new Trace(start, seconds, cut, said, changes), problems, problemCount, notes, truncated);
    }

    /** A few late rows are left out; a clock that steps back for good is carried on at the usual interval. */
    private boolean[] straightenClock() {
        boolean[] keep = new boolean[rows];
        Arrays.fill(keep, true);
        long usual = usualInterval();
        long shift = 0;
        long last = micros[0];
        for (int i = 1; i < rows; i++) {
            long now = micros[i] + shift;
            if (now < last) {
                if (findsBack(i, last - shift)) {
                    keep[i] = false;
                    problem(new Problem(
                            "log.time.order",
                            lines[i],
                            "time",
                            "",
                            "the row's time is before the row above; it is left out"));
                    continue;
                }
                long step = last + usual - now;
                shift += step;
                notes.add(String.format(
                        Locale.ROOT,
                        "the clock steps back by %.1f s at line %d; the rows from there on are carried on from the row above, so their times are not the log's own",
                        step / MICRO,
                        lines[i]));
                now += step;
            }
            micros[i] = now;
            last = now;
        }
        return keep;
    }

    private boolean findsBack(int from, long last) {
        for (int i = from + 1; i < Math.min(rows, from + 1 + STRAGGLERS); i++) {
            if (micros[i] >= last) {
                return true;
            }
        }
        return false;
    }

    private long usualInterval() {
        long[] steps = new long[rows - 1];
        int n = 0;
        for (int i = 1; i < rows; i++) {
            if (micros[i] > micros[i - 1]) {
                steps[n++] = micros[i] - micros[i - 1];
            }
        }
        if (n == 0) {
            return 0;
        }
        Arrays.sort(steps, 0, n);
        return steps[n / 2];
    }

    /** Tells of positions that jump; they are kept as they stand in the log. */
    private void jumps(double[] seconds, Map<Channel, double[]> cut) {
        double[] lat = cut.get(Channel.LATITUDE_DEG);
        double[] lon = cut.get(Channel.LONGITUDE_DEG);
        if (lat == null || lon == null) {
            notes.add("the log has no positions: no path, distance or zone can be told");
            return;
        }
        int jumps = 0;
        int previous = -1;
        for (int i = 0; i < seconds.length; i++) {
            if (Double.isNaN(lat[i]) || Double.isNaN(lon[i])) {
                continue;
            }
            if (previous >= 0) {
                double north = (lat[i] - lat[previous]) * METRES_PER_DEGREE;
                double east = (lon[i] - lon[previous]) * METRES_PER_DEGREE * Math.cos(Math.toRadians(lat[i]));
                double dt = Math.max(seconds[i] - seconds[previous], 0.05);
                if (Math.hypot(north, east) / dt > IMPLAUSIBLE_SPEED_MPS) {
                    jumps++;
                }
            }
            previous = i;
        }
        if (jumps > 0) {
            notes.add("the position jumps " + jumps + (jumps == 1 ? " time" : " times") + " by more than "
                    + (int) IMPLAUSIBLE_SPEED_MPS + " m/s; path and distance count the jumps as the log has them");
        }
    }
}
