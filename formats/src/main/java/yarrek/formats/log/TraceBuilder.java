package yarrek.formats.log;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import yarrek.core.geo.Position;
import yarrek.core.time.Patience;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/**
 * Gathers rows into a trace and settles what logs get wrong: rows without a time, positions at 0/0 before the first fix,
 * clocks that step back, single times and places that leap out and back. Everything left out or mended is told.
 */
public final class TraceBuilder {
    private static final int MAX_PROBLEMS = 50;
    private static final int MAX_ROWS = 8_640_000; // 24 h at 100 Hz
    private static final int STRAGGLERS = 5; // rows that come late but find back to the clock
    private static final double MICRO = 1e6;
    private static final double METRES_PER_DEGREE = 111_195;
    private static final double SHORTEST_STEP_S = 0.05; // clocks that count whole tenths put two rows on one
    private static final long LEAP_STEPS = 3; // usual intervals; less is jitter
    private static final long LONELY_END_MICROS =
            600_000_000L; // a last row so long after the others belongs to no flight
    private static final Instant EARLIEST = Instant.parse("2000-01-01T00:00:00Z");
    private static final Duration AHEAD = Duration.ofDays(1); // a clock set to the wrong zone is at most so far ahead
    private static final DateTimeFormatter CLOCK =
            DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss'Z'").withZone(ZoneOffset.UTC);

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
    private int outOfTime;
    private final Instant latest = Instant.now().plus(AHEAD);

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
     * @return false when the row has no time, or one that no flight can have, and is left out
     * @throws BrokenFileException when there are more rows than a day at 100 Hz
     */
    public boolean row(Instant at, long line) throws BrokenFileException {
        Patience.ask();
        if (at == null) {
            undated++;
            return false;
        }
        if (at.isBefore(EARLIEST) || at.isAfter(latest)) {
            outOfTime++;
            problem(new Problem(
                    "log.time.range",
                    line,
                    "time",
                    at.toString(),
                    "a time from the year 2000 to tomorrow; the row is left out"));
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
            throw new BrokenFileException(
                    outOfTime > 0 ? "log.time.range" : "log.empty",
                    outOfTime > 0
                            ? problems.get(0).sentence() + ". So it is with every row; nothing to bring in"
                            : "no row with a time was found; nothing to bring in");
        }
        boolean[] keep = straightenClock();
        int kept = 0;
        int[] newIndex = new int[rows];
        for (int i = 0; i < rows; i++) {
            newIndex[i] = keep[i] ? kept++ : -1;
        }
        double[] seconds = new double[kept];
        long[] lineOf = new long[kept];
        int first = 0;
        while (!keep[first]) {
            first++;
        }
        long zero = micros[first];
        for (int i = 0; i < rows; i++) {
            if (keep[i]) {
                seconds[newIndex[i]] = (micros[i] - zero) / MICRO;
                lineOf[newIndex[i]] = lines[i];
            }
        }
        boolean whole = kept == rows;
        Map<Channel, double[]> cut = new EnumMap<>(Channel.class);
        columns.forEach((c, v) -> cut.put(c, whole ? Arrays.copyOf(v, rows) : kept(v, newIndex, seconds.length)));
        Instant start = Instant.ofEpochSecond(Math.floorDiv(zero, 1_000_000L), Math.floorMod(zero, 1_000_000L) * 1000L);
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
        jumps(seconds, cut, lineOf);
        holes(start, seconds);
        return new LogReading(new Trace(start, seconds, cut, said, changes), problems, problemCount, notes, truncated);
    }

    private double[] kept(double[] all, int[] newIndex, int kept) {
        double[] cut = new double[kept];
        for (int i = 0; i < rows; i++) {
            if (newIndex[i] >= 0) {
                cut[newIndex[i]] = all[i];
            }
        }
        return cut;
    }

    /**
     * A few rows that come late or run ahead of those after them are left out; a clock that steps back for good is carried
     * on at the usual interval.
     */
    private boolean[] straightenClock() {
        boolean[] keep = new boolean[rows];
        Arrays.fill(keep, true);
        long usual = usualInterval();
        long shift = 0;
        long last = Long.MIN_VALUE;
        for (int i = 0; i < rows; i++) {
            long now = micros[i] + shift;
            if (runsAhead(i, last == Long.MIN_VALUE ? last : last - shift, usual)) {
                leaveOut(keep, i, "log.time.ahead", "the row's time leaps ahead of the rows beside it; it is left out");
                continue;
            }
            if (now < last) {
                if (findsBack(i, last - shift)) {
                    leaveOut(keep, i, "log.time.order", "the row's time is before the row above; it is left out");
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

    private void leaveOut(boolean[] keep, int row, String code, String told) {
        keep[row] = false;
        problem(new Problem(code, lines[row], "time", "", told));
    }

    /**
     * Whether a row's time leaps over the rows after it, which go on from the row before; or the last few rows of the log
     * stand alone after a long hole.
     */
    private boolean runsAhead(int i, long last, long usual) {
        boolean first = last == Long.MIN_VALUE;
        if (!first && micros[i] - last <= Math.max(usual * LEAP_STEPS, 1)) {
            return false;
        }
        int behind = 0;
        int looked = 0;
        for (int j = i + 1; j < rows && looked < STRAGGLERS; j++) {
            looked++;
            boolean goesOn = first ? micros[j] < micros[i] : micros[j] >= last && micros[j] < micros[i];
            behind += goesOn ? 1 : 0;
        }
        if (first) {
            return looked == STRAGGLERS && behind == looked;
        }
        return behind > 0 || (looked < STRAGGLERS && i >= STRAGGLERS && micros[i] - last > LONELY_END_MICROS);
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

    /**
     * Leaves out positions that leap away and back, and tells of those that jump for good, which are kept as they stand.
     *
     * @param lineOf line in the file of each kept row
     */
    private void jumps(double[] seconds, Map<Channel, double[]> cut, long[] lineOf) {
        double[] lat = cut.get(Channel.LATITUDE_DEG);
        double[] lon = cut.get(Channel.LONGITUDE_DEG);
        if (lat == null || lon == null) {
            notes.add("the log has no positions: no path, distance or zone can be told");
            return;
        }
        int jumps = 0;
        int stray = 0;
        long firstStray = 0;
        int previous = -1;
        for (int i = 0; i < seconds.length; i++) {
            if (Double.isNaN(lat[i]) || Double.isNaN(lon[i])) {
                continue;
            }
            int next = previous < 0 ? after(lat, lon, i) : i;
            boolean leaps = previous < 0
                    ? next > 0
                            && tooFast(seconds, lat, lon, i, next)
                            && !tooFast(seconds, lat, lon, next, after(lat, lon, next))
                    : tooFast(seconds, lat, lon, previous, i);
            if (leaps && (previous < 0 || comesBack(seconds, lat, lon, previous, i))) {
                lat[i] = Double.NaN;
                lon[i] = Double.NaN;
                firstStray = stray++ == 0 ? lineOf[i] : firstStray;
                continue;
            }
            jumps += leaps ? 1 : 0;
            previous = i;
        }
        String limit = (int) Trace.IMPLAUSIBLE_SPEED_MPS + " m/s";
        if (stray > 0) {
            notes.add(stray + (stray == 1 ? " position leaps" : " positions leap") + " away and back faster than "
                    + limit + ", the first in line " + firstStray + "; " + (stray == 1 ? "it is" : "they are")
                    + " left out");
        }
        if (jumps > 0) {
            notes.add("the position jumps " + jumps + (jumps == 1 ? " time" : " times") + " by more than " + limit
                    + "; the positions stand as the log has them, path and speed leave the jumps out");
        }
    }

    private static boolean tooFast(double[] seconds, double[] lat, double[] lon, int from, int to) {
        if (to < 0) {
            return false;
        }
        double north = (lat[to] - lat[from]) * METRES_PER_DEGREE;
        double east = Position.eastOf(lon[to], lon[from]) * METRES_PER_DEGREE * Math.cos(Math.toRadians(lat[to]));
        double dt = Math.max(seconds[to] - seconds[from], SHORTEST_STEP_S);
        return Math.hypot(north, east) / dt > Trace.IMPLAUSIBLE_SPEED_MPS;
    }

    /** Index of the next known position, or -1. */
    private static int after(double[] lat, double[] lon, int from) {
        for (int i = from + 1; from >= 0 && i < lat.length; i++) {
            if (!Double.isNaN(lat[i]) && !Double.isNaN(lon[i])) {
                return i;
            }
        }
        return -1;
    }

    /** Whether one of the next few positions can be reached from the one before the leap, and not from the leap itself. */
    private static boolean comesBack(double[] seconds, double[] lat, double[] lon, int before, int leap) {
        int i = leap;
        for (int n = 0; n < STRAGGLERS; n++) {
            i = after(lat, lon, i);
            if (i < 0) {
                return false;
            }
            if (!tooFast(seconds, lat, lon, before, i) && tooFast(seconds, lat, lon, leap, i)) {
                return true;
            }
        }
        return false;
    }

    /** Tells of stretches without a row: what happened there nobody knows. */
    private void holes(Instant start, double[] seconds) {
        int holes = 0;
        double longest = 0;
        double at = 0;
        for (int i = 1; i < seconds.length; i++) {
            double gap = seconds[i] - seconds[i - 1];
            if (gap > Trace.LONGEST_HOLE_S) {
                holes++;
                if (gap > longest) {
                    longest = gap;
                    at = seconds[i - 1];
                }
            }
        }
        if (holes > 0) {
            notes.add(String.format(
                    Locale.ROOT,
                    "the log has no rows for %.1f s from %s%s; what happened there is not known",
                    longest,
                    CLOCK.format(start.plusMillis((long) (at * 1000))),
                    holes == 1 ? "" : ", and " + (holes - 1) + (holes == 2 ? " shorter hole" : " shorter holes")));
        }
    }
}
