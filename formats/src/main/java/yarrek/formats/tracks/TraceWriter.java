package yarrek.formats.tracks;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yarrek.core.time.Patience;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/**
 * Writes a trace in open formats. Those for maps hold the places with their times; the table holds everything, in the units
 * that its headers name, so that it comes in again as it was.
 */
public enum TraceWriter {
    GPX("gpx", "application/gpx+xml") {
        @Override
        public void write(Trace t, String name, OutputStream out) throws IOException {
            Writer w = text(out);
            w.write("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<gpx version=\"1.1\" creator=\"Yarrek\""
                    + " xmlns=\"http://www.topografix.com/GPX/1/1\">\n<trk><name>" + escaped(name)
                    + "</name><trkseg>\n");
            each(t, (i, at) -> {
                w.write("<trkpt lat=\"" + degrees(t.at(Channel.LATITUDE_DEG, i)) + "\" lon=\""
                        + degrees(t.at(Channel.LONGITUDE_DEG, i)) + "\">");
                double ele = t.at(Channel.ALTITUDE_MSL_M, i);
                if (!Double.isNaN(ele)) {
                    w.write("<ele>" + metres(ele) + "</ele>");
                }
                w.write("<time>" + at + "</time></trkpt>\n");
            });
            w.write("</trkseg></trk>\n</gpx>\n");
            w.flush();
        }
    },
    KML("kml", "application/vnd.google-earth.kml+xml") {
        @Override
        public void write(Trace t, String name, OutputStream out) throws IOException {
            Writer w = text(out);
            boolean absolute = t.has(Channel.ALTITUDE_MSL_M);
            w.write("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<kml xmlns=\"http://www.opengis.net/kml/2.2\""
                    + " xmlns:gx=\"http://www.google.com/kml/ext/2.2\">\n<Document><Placemark><name>" + escaped(name)
                    + "</name>\n<gx:Track><altitudeMode>" + (absolute ? "absolute" : "relativeToGround")
                    + "</altitudeMode>\n");
            each(t, (i, at) -> w.write("<when>" + at + "</when>\n"));
            each(t, (i, at) -> {
                double height = t.at(absolute ? Channel.ALTITUDE_MSL_M : Channel.HEIGHT_ABOVE_TAKEOFF_M, i);
                w.write("<gx:coord>" + degrees(t.at(Channel.LONGITUDE_DEG, i)) + " "
                        + degrees(t.at(Channel.LATITUDE_DEG, i))
                        + (Double.isNaN(height) ? "" : " " + metres(height)) + "</gx:coord>\n");
            });
            w.write("</gx:Track></Placemark></Document>\n</kml>\n");
            w.flush();
        }
    },
    GEOJSON("geojson", "application/geo+json") {
        @Override
        public void write(Trace t, String name, OutputStream out) throws IOException {
            Writer w = text(out);
            List<String> times = new ArrayList<>();
            w.write(
                    "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"geometry\":{\"type\":\"LineString\","
                            + "\"coordinates\":[");
            each(t, (i, at) -> {
                double ele = t.at(Channel.ALTITUDE_MSL_M, i);
                w.write((times.isEmpty() ? "" : ",") + "[" + degrees(t.at(Channel.LONGITUDE_DEG, i)) + ","
                        + degrees(t.at(Channel.LATITUDE_DEG, i))
                        + (Double.isNaN(ele) ? "" : "," + metres(ele)) + "]");
                times.add("\"" + at + "\"");
            });
            w.write("]},\"properties\":{\"name\":\"" + name.replaceAll("[\"\\\\\\p{Cntrl}]", "'")
                    + "\",\"coordTimes\":[" + String.join(",", times) + "]}}]}\n");
            w.flush();
        }
    },
    CSV("csv", "text/csv") {
        @Override
        public void write(Trace t, String name, OutputStream out) throws IOException {
            Map<String, Channel> columns = new LinkedHashMap<>();
            HEADERS.forEach((header, c) -> {
                if (t.has(c)) {
                    columns.put(header, c);
                }
            });
            List<String> header = new ArrayList<>(List.of("time"));
            header.addAll(columns.keySet());
            header.addAll(List.of("mode", "message level", "message"));
            Writer w = text(out);
            CsvWriter csv = CsvWriter.builder().build(w);
            csv.writeRecord(header);
            int mode = 0;
            int message = 0;
            double home = Double.NaN;
            for (int i = 0; i < t.size(); i++) {
                Patience.ask();
                double s = t.seconds()[i];
                String said = "";
                while (mode < t.modes().size() && t.modes().get(mode).atS() <= s + SAME_S) {
                    said = t.modes().get(mode++).mode();
                }
                List<Trace.Message> here = new ArrayList<>();
                while (message < t.messages().size()
                        && t.messages().get(message).atS() <= s + SAME_S) {
                    here.add(t.messages().get(message++));
                }
                List<String> row = new ArrayList<>(List.of(t.instant(s).toString()));
                for (Channel c : columns.values()) {
                    double v = t.at(c, i);
                    if (c == Channel.HOME_SET) {
                        home = Double.isNaN(v) ? home : v;
                        v = home;
                    }
                    row.add(Double.isNaN(v) ? "" : figure(v, c.step()));
                }
                row.addAll(List.of(
                        said, here.isEmpty() ? "" : here.get(0).level(), here.isEmpty() ? "" : plain(here.get(0))));
                csv.writeRecord(row);
                for (int k = 1; k < here.size(); k++) {
                    List<String> further = new ArrayList<>(List.of(t.instant(s).toString()));
                    columns.keySet().forEach(c -> further.add(""));
                    further.addAll(List.of("", here.get(k).level(), plain(here.get(k))));
                    csv.writeRecord(further);
                }
            }
            csv.flush();
        }
    };

    private static final double SAME_S = 1e-6;

    /** Columns of the table as its reader matches them. */
    private static final Map<String, Channel> HEADERS = new LinkedHashMap<>();

    static {
        HEADERS.put("latitude", Channel.LATITUDE_DEG);
        HEADERS.put("longitude", Channel.LONGITUDE_DEG);
        HEADERS.put("height above take-off (m)", Channel.HEIGHT_ABOVE_TAKEOFF_M);
        HEADERS.put("altitude msl (m)", Channel.ALTITUDE_MSL_M);
        HEADERS.put("ground speed (m/s)", Channel.GROUND_SPEED_MPS);
        HEADERS.put("climb rate (m/s)", Channel.CLIMB_MPS);
        HEADERS.put("heading (deg)", Channel.HEADING_DEG);
        HEADERS.put("roll (deg)", Channel.ROLL_DEG);
        HEADERS.put("pitch (deg)", Channel.PITCH_DEG);
        HEADERS.put("battery (%)", Channel.BATTERY_PCT);
        HEADERS.put("voltage (V)", Channel.VOLTAGE_V);
        HEADERS.put("current (A)", Channel.CURRENT_A);
        HEADERS.put("charge used (mAh)", Channel.CHARGE_USED_MAH);
        HEADERS.put("battery temperature (°C)", Channel.BATTERY_TEMPERATURE_C);
        for (int i = 1; i <= 12; i++) {
            HEADERS.put("cell " + i + " (V)", Channel.cell(i));
        }
        HEADERS.put("link (%)", Channel.LINK_PCT);
        HEADERS.put("satellites", Channel.SATELLITES);
        HEADERS.put("wind (m/s)", Channel.WIND_MPS);
        HEADERS.put("wind from (deg)", Channel.WIND_FROM_DEG);
        HEADERS.put("air temperature (°C)", Channel.AIR_TEMPERATURE_C);
        HEADERS.put("home set", Channel.HOME_SET);
    }

    private final String ending;
    private final String type;

    TraceWriter(String ending, String type) {
        this.ending = ending;
        this.type = type;
    }

    /** Of a file name, without the stop. */
    public String ending() {
        return ending;
    }

    /** Media type. */
    public String type() {
        return type;
    }

    public static Optional<TraceWriter> of(String ending) {
        return Arrays.stream(values()).filter(w -> w.ending.equals(ending)).findFirst();
    }

    /** @param name of the flight, for people */
    public abstract void write(Trace trace, String name, OutputStream out) throws IOException;

    @FunctionalInterface
    private interface Point {
        void write(int index, Instant at) throws IOException;
    }

    /** Every moment with a place. */
    private static void each(Trace t, Point p) throws IOException {
        for (int i = 0; i < t.size(); i++) {
            Patience.ask();
            if (!Double.isNaN(t.at(Channel.LATITUDE_DEG, i)) && !Double.isNaN(t.at(Channel.LONGITUDE_DEG, i))) {
                p.write(i, t.instant(t.seconds()[i]));
            }
        }
    }

    private static Writer text(OutputStream out) {
        return new OutputStreamWriter(out, StandardCharsets.UTF_8);
    }

    private static String degrees(double v) {
        return figure(v, Channel.LATITUDE_DEG.step());
    }

    private static String metres(double v) {
        return figure(v, Channel.ALTITUDE_MSL_M.step());
    }

    /** In decimals as fine as the channel is kept. */
    private static String figure(double v, double step) {
        int places = (int) Math.max(0, Math.round(-Math.log10(step)));
        return java.math.BigDecimal.valueOf(v)
                .setScale(places, java.math.RoundingMode.HALF_EVEN)
                .toPlainString();
    }

    /** A cell that a spreadsheet would take for a formula begins with a space. */
    private static String plain(Trace.Message m) {
        String text = m.text().replaceAll("\\p{Cntrl}", " ");
        return text.isEmpty() || "=+-@".indexOf(text.charAt(0)) < 0 ? text : " " + text;
    }

    private static String escaped(String s) {
        return s.replaceAll("\\p{Cntrl}", " ")
                .replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;");
    }
}
