package yarrek.app.flights;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.DoubleSummaryStatistics;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import yarrek.app.rulebook.AssessmentRow;
import yarrek.app.rulebook.FindingRow;
import yarrek.core.geo.Geodesy;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.Verdict;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;
import yarrek.core.units.Finite;

/**
 * A flight made ready to draw: at most some thousand points, chosen so that every extreme of height, speed and charge
 * stays in; each point with its standing towards the limits.
 */
record TraceDrawing(
        Instant start,
        double takeoffS,
        double landingS,
        List<Double> seconds,
        List<Double> latitude,
        List<Double> longitude,
        List<Integer> standing,
        Map<String, Strip> strips,
        List<Band> bands,
        List<Mark> marks,
        Beside beside) {

    /**
     * Another flight at the same seconds after take-off; what it has no figure for is null.
     *
     * @param name when it was flown
     */
    record Beside(String name, List<Double> latitude, List<Double> longitude) {}

    /** A stretch of the log, in its seconds, to be drawn with more of its points. */
    record Part(double fromS, double toS) {
        static final Part ALL = new Part(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }

    /** Points that the page draws without effort. */
    private static final int MOST_POINTS = 4000;

    private static final double CLOSE_SHARE = 0.05;
    private static final int CELLS = 12;

    /** A line of a strip with what it is called where there are several. */
    record Curve(String name, List<Double> values) {}

    /**
     * One strip: its label with unit, its figures, and the limit that binds, when there is one.
     *
     * @param more whether it is among those that are opened on demand
     * @param heard what it shows, for those who do not see it
     */
    record Strip(String label, String unit, List<Curve> curves, Double limit, boolean more, String heard) {
        /** @param columns every figure of the log, also those that are not drawn, by what each is called */
        static Strip of(
                Trace trace,
                String label,
                String unit,
                Map<String, double[]> columns,
                int[] picked,
                Double limit,
                boolean more) {
            DoubleSummaryStatistics known = columns.values().stream()
                    .flatMapToDouble(Arrays::stream)
                    .filter(v -> !Double.isNaN(v))
                    .summaryStatistics();
            String heard = label
                    + (known.getCount() == 0
                            ? ", no figures"
                            : String.format(
                                    Locale.ROOT, ", from %.1f to %.1f %s", known.getMin(), known.getMax(), unit))
                    + (limit == null ? "" : ", limit " + Finite.format(limit) + " " + unit);
            return new Strip(
                    label,
                    unit,
                    columns.entrySet().stream()
                            .map(c -> new Curve(c.getKey(), TraceDrawing.values(trace.bridged(c.getValue()), picked)))
                            .toList(),
                    limit,
                    more,
                    heard);
        }

        static Strip of(Trace trace, String label, String unit, double[] column, int[] picked, Double limit) {
            return of(trace, label, unit, Map.of("", column), picked, limit, false);
        }
    }

    /** A breach on the time axis. */
    record Band(String title, double fromS, double toS) {}

    /** A message on the time axis. */
    record Mark(double atS, String level, String text) {}

    static TraceDrawing of(
            Trace trace, Instant takeoff, Instant landing, AssessmentRow assessment, double[] heights, Part part) {
        int[] picked = pick(trace, heights, part);
        double[] t = trace.seconds();
        List<Double> seconds = new ArrayList<>();
        List<Double> lat = new ArrayList<>();
        List<Double> lon = new ArrayList<>();
        List<Integer> standing = new ArrayList<>();
        List<Band> bands = new ArrayList<>();
        for (FindingRow f : assessment.findings()) {
            if (f.verdict() == Verdict.BREACHED) {
                f.intervals().forEach(i -> bands.add(new Band(f.title(), i.fromS(), i.toS())));
            }
        }
        FindingRow.GaugeRow height = binding(assessment, "height");
        for (int i : picked) {
            seconds.add(t[i]);
            lat.add(known(trace.at(Channel.LATITUDE_DEG, i)));
            lon.add(known(trace.at(Channel.LONGITUDE_DEG, i)));
            boolean breached = bands.stream().anyMatch(b -> t[i] >= b.fromS() - 1e-6 && t[i] <= b.toS() + 1e-6);
            boolean close = height != null && heights != null && heights[i] >= height.limit() * (1 - CLOSE_SHARE);
            standing.add(breached ? 2 : close ? 1 : 0);
        }
        Map<String, Strip> strips = new LinkedHashMap<>();
        if (heights != null) {
            strips.put(
                    "height",
                    Strip.of(
                            trace,
                            "Height above take-off",
                            "m",
                            heights,
                            picked,
                            height == null ? null : height.limit()));
        }
        double[] distances = distances(trace, takeoff);
        if (distances != null) {
            FindingRow.GaugeRow far = binding(assessment, "pilotDistanceM");
            strips.put(
                    "distance",
                    Strip.of(
                            trace, "Distance from take-off", "m", distances, picked, far == null ? null : far.limit()));
        }
        strip(strips, "speed", "Ground speed", "m/s", trace, Channel.GROUND_SPEED_MPS, picked, null);
        FindingRow.GaugeRow charge = binding(assessment, "batteryPct");
        strip(
                strips,
                "charge",
                "Charge",
                "%",
                trace,
                Channel.BATTERY_PCT,
                picked,
                charge == null ? null : charge.limit());
        strip(strips, "volts", "Voltage", "V", trace, Channel.VOLTAGE_V, picked, null);
        further(strips, "cells", "Cells", "V", trace, picked, cells());
        further(strips, "current", "Current", "A", trace, picked, Map.of("", Channel.CURRENT_A));
        further(strips, "link", "Link", "%", trace, picked, Map.of("", Channel.LINK_PCT));
        further(strips, "satellites", "Satellites", "", trace, picked, Map.of("", Channel.SATELLITES));
        further(
                strips,
                "interference",
                "Interference, the receiver's own level",
                "",
                trace,
                picked,
                Map.of("", Channel.INTERFERENCE));
        further(
                strips,
                "attitude",
                "Attitude",
                "°",
                trace,
                picked,
                named("roll", Channel.ROLL_DEG, "pitch", Channel.PITCH_DEG));
        further(
                strips,
                "sticks",
                "Sticks, of full",
                "",
                trace,
                picked,
                named(
                        "throttle", Channel.STICK_THROTTLE,
                        "yaw", Channel.STICK_YAW,
                        "pitch", Channel.STICK_PITCH,
                        "roll", Channel.STICK_ROLL));
        further(strips, "motors", "Motors, as asked for", "%", trace, picked, motors());
        further(strips, "wind", "Wind as the aircraft reckons it", "m/s", trace, picked, Map.of("", Channel.WIND_MPS));
        List<Mark> marks = trace.messages().stream()
                .map(m -> new Mark(m.atS(), m.level(), m.text()))
                .toList();
        return new TraceDrawing(
                trace.start(),
                Duration.between(trace.start(), takeoff).toNanos() / 1e9,
                Duration.between(trace.start(), landing).toNanos() / 1e9,
                seconds,
                lat,
                lon,
                standing,
                strips,
                bands,
                marks,
                null);
    }

    /** The same with the curves of another flight beside those of strips that have one, from take-off to take-off. */
    TraceDrawing beside(TraceDrawing other, String name) {
        Map<String, Strip> both = new LinkedHashMap<>();
        strips.forEach((key, s) -> {
            Strip o = other.strips.get(key);
            boolean single = o != null && s.curves().size() == 1 && o.curves().size() == 1;
            both.put(
                    key,
                    single
                            ? new Strip(
                                    s.label(),
                                    s.unit(),
                                    List.of(
                                            new Curve("this", s.curves().get(0).values()),
                                            new Curve(
                                                    name,
                                                    at(other, o.curves().get(0).values()))),
                                    s.limit(),
                                    s.more(),
                                    s.heard() + "; beside it the flight of " + name
                                            + o.heard().substring(o.label().length()))
                            : s);
        });
        return new TraceDrawing(
                start,
                takeoffS,
                landingS,
                seconds,
                latitude,
                longitude,
                standing,
                both,
                bands,
                marks,
                new Beside(name, at(other, other.latitude), at(other, other.longitude)));
    }

    /** Figures of another flight at the seconds of this one, the last known before each. */
    private List<Double> at(TraceDrawing other, List<Double> values) {
        List<Double> moved = new ArrayList<>(seconds.size());
        int i = -1;
        for (double s : seconds) {
            double its = s - takeoffS + other.takeoffS;
            while (i + 1 < other.seconds.size() && other.seconds.get(i + 1) <= its) {
                i++;
            }
            boolean over = i < 0 || its > other.seconds.get(other.seconds.size() - 1);
            moved.add(over ? null : values.get(i));
        }
        return moved;
    }

    /** Geodesic distances from the position at take-off; null without positions. */
    private static double[] distances(Trace trace, Instant takeoff) {
        double[] lat = trace.column(Channel.LATITUDE_DEG);
        double[] lon = trace.column(Channel.LONGITUDE_DEG);
        if (lat == null || lon == null) {
            return null;
        }
        double from = Duration.between(trace.start(), takeoff).toNanos() / 1e9;
        double[] d = new double[lat.length];
        int origin = -1;
        for (int i = 0; i < d.length && origin < 0; i++) {
            origin = trace.seconds()[i] >= from - 1e-3 && !Double.isNaN(lat[i]) && !Double.isNaN(lon[i]) ? i : -1;
        }
        for (int i = 0; i < d.length; i++) {
            d[i] = origin < 0 || Double.isNaN(lat[i]) || Double.isNaN(lon[i])
                    ? Double.NaN
                    : Geodesy.distanceM(lat[origin], lon[origin], lat[i], lon[i]);
        }
        return d;
    }

    private static FindingRow.GaugeRow binding(AssessmentRow a, String factStart) {
        return a.findings().stream()
                .filter(f -> f.gauge() != null
                        && f.gauge().fact().startsWith(factStart)
                        && f.verdict() != Verdict.NOT_APPLICABLE
                        && !f.says().startsWith(Rule.IF_IT_APPLIES))
                .map(FindingRow::gauge)
                .min((x, y) -> Double.compare(x.limit(), y.limit()))
                .orElse(null);
    }

    private static void strip(
            Map<String, Strip> strips,
            String key,
            String label,
            String unit,
            Trace trace,
            Channel channel,
            int[] picked,
            Double limit) {
        double[] column = trace.column(channel);
        if (column != null) {
            strips.put(key, Strip.of(trace, label, unit, column, picked, limit));
        }
    }

    private static Map<String, Channel> named(Object... namesAndChannels) {
        Map<String, Channel> named = new LinkedHashMap<>();
        for (int i = 0; i < namesAndChannels.length; i += 2) {
            named.put((String) namesAndChannels[i], (Channel) namesAndChannels[i + 1]);
        }
        return named;
    }

    private static Map<String, Channel> cells() {
        Map<String, Channel> cells = new LinkedHashMap<>();
        for (int i = 1; i <= CELLS; i++) {
            cells.put(String.valueOf(i), Channel.cell(i));
        }
        return cells;
    }

    private static Map<String, Channel> motors() {
        Map<String, Channel> motors = new LinkedHashMap<>();
        for (int i = 1; i <= Channel.MOTORS; i++) {
            motors.put(String.valueOf(i), Channel.motorPct(i));
        }
        return motors;
    }

    /** One that is opened on demand, with those of its curves that the log has. */
    private static void further(
            Map<String, Strip> strips,
            String key,
            String label,
            String unit,
            Trace trace,
            int[] picked,
            Map<String, Channel> channels) {
        Map<String, double[]> columns = new LinkedHashMap<>();
        channels.forEach((name, c) -> {
            if (trace.has(c)) {
                columns.put(name, trace.column(c));
            }
        });
        if (!columns.isEmpty()) {
            strips.put(key, Strip.of(trace, label, unit, columns, picked, null, true));
        }
    }

    private static List<Double> values(double[] column, int[] picked) {
        List<Double> values = new ArrayList<>(picked.length);
        for (int i : picked) {
            values.add(known(column[i]));
        }
        return values;
    }

    private static Double known(double v) {
        return Double.isNaN(v) ? null : v;
    }

    /** From each stretch of samples the first, and the least and greatest of each drawn quantity. */
    private static int[] pick(Trace trace, double[] heights, Part part) {
        int begin = place(trace, part.fromS());
        int end = Math.min(trace.size(), place(trace, part.toS()) + 1);
        int n = end - begin;
        double[][] drawn = {
            heights,
            trace.column(Channel.GROUND_SPEED_MPS),
            trace.column(Channel.BATTERY_PCT),
            trace.column(Channel.VOLTAGE_V),
            trace.column(Channel.CURRENT_A),
            trace.column(Channel.LINK_PCT),
            trace.column(Channel.ROLL_DEG),
            trace.column(Channel.PITCH_DEG)
        };
        int stretch = Math.max(1, (int) Math.ceil(n * 5.0 / MOST_POINTS));
        if (n <= MOST_POINTS) {
            stretch = 1;
        }
        TreeSet<Integer> picked = new TreeSet<>();
        for (int from = begin; from < end; from += stretch) {
            int to = Math.min(end, from + stretch);
            picked.add(from);
            for (double[] column : drawn) {
                if (column == null || stretch == 1) {
                    continue;
                }
                int least = -1;
                int greatest = -1;
                for (int i = from; i < to; i++) {
                    if (!Double.isNaN(column[i])) {
                        least = least < 0 || column[i] < column[least] ? i : least;
                        greatest = greatest < 0 || column[i] > column[greatest] ? i : greatest;
                    }
                }
                if (least >= 0) {
                    picked.add(least);
                    picked.add(greatest);
                }
            }
        }
        picked.add(end - 1);
        return picked.stream().mapToInt(Integer::intValue).toArray();
    }

    /** The last sample not after a moment, or the first. */
    private static int place(Trace trace, double atS) {
        int i = Arrays.binarySearch(trace.seconds(), atS);
        return Math.max(0, i >= 0 ? i : -i - 2);
    }
}
