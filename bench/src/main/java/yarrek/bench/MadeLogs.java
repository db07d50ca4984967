package yarrek.bench;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Locale;

/** Logs of any length, made by formula: a figure of eight over a launch point, with standing at both ends. */
final class MadeLogs {
    private static final Instant START = Instant.parse("2026-09-14T09:00:00Z");
    private static final double STAND_S = 10;

    private MadeLogs() {}

    static byte[] csv(int seconds, int hz) {
        StringBuilder s = new StringBuilder(
                "time_ms,lat,lon,height_m,alt_msl_m,speed_ms,battery_pct,battery_v,battery_a,satellites,wind_ms,air_temp_c,cell1_v,cell2_v,cell3_v,cell4_v,mode,message\n");
        for (int i = 0; i < seconds * hz; i++) {
            double t = (double) i / hz;
            s.append(START.toEpochMilli() + i * 1000L / hz);
            s.append(String.format(
                    Locale.ROOT,
                    ",%.7f,%.7f,%.2f,%.2f,%.2f,%.1f,%.3f,%.2f,%d,%.1f,%.1f,%.3f,%.3f,%.3f,%.3f,POS,%n",
                    lat(t, seconds),
                    lon(t, seconds),
                    height(t, seconds),
                    40 + height(t, seconds),
                    8.0,
                    98 - 60 * t / seconds,
                    16.4 - t / seconds,
                    flying(t, seconds) ? 8.5 : 0.4,
                    17,
                    4.2,
                    11.0,
                    4.1,
                    4.1,
                    4.09,
                    4.1));
        }
        return s.toString().getBytes(StandardCharsets.UTF_8);
    }

    static byte[] gpx(int seconds, int hz) {
        StringBuilder s = new StringBuilder(
                "<?xml version=\"1.0\" encoding=\"UTF-8\"?><gpx version=\"1.1\" creator=\"made\" xmlns=\"http://www.topografix.com/GPX/1/1\"><trk><trkseg>\n");
        for (int i = 0; i < seconds * hz; i++) {
            double t = (double) i / hz;
            s.append(String.format(
                    Locale.ROOT,
                    "<trkpt lat=\"%.7f\" lon=\"%.7f\"><ele>%.2f</ele><time>%s</time></trkpt>%n",
                    lat(t, seconds),
                    lon(t, seconds),
                    40 + height(t, seconds),
                    START.plusMillis(i * 1000L / hz)));
        }
        return s.append("</trkseg></trk></gpx>").toString().getBytes(StandardCharsets.UTF_8);
    }

    private static boolean flying(double t, double length) {
        return t > STAND_S && t < length - STAND_S;
    }

    private static double height(double t, double length) {
        return flying(t, length) ? Math.min(70, 3 * Math.min(t - STAND_S, length - STAND_S - t)) : 0;
    }

    private static double lat(double t, double length) {
        return 46.608 + (flying(t, length) ? 0.002 * Math.sin((t - STAND_S) / 60) : 0);
    }

    private static double lon(double t, double length) {
        return -17.902 + (flying(t, length) ? 0.003 * Math.sin((t - STAND_S) / 30) : 0);
    }
}
