package yarrek.app.demo;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import yarrek.core.geo.Position;

/**
 * A stand-in for a flying aircraft: flies from point to point with limited speed and climb, and drains a pack. Simulated;
 * no aircraft behaves exactly so. The same seed gives the same flight.
 */
final class FlightSimulator {
    private static final double STEP_S = 0.2;
    private static final double STAND_S = 8;
    private static final double HOVER_A = 6.5;
    private static final double AMPS_PER_MPS = 0.55;
    private static final double CLIMB_MPS = 3.5;
    private static final double DESCENT_MPS = 2.2;

    /** A place to fly to: metres east and north of the launch point, height above it, and seconds to stay. */
    record Leg(double eastM, double northM, double heightM, double staySeconds) {}

    /** One logged moment. */
    record Sample(
            double second,
            double lat,
            double lon,
            double heightM,
            double speedMps,
            double chargePct,
            double volts,
            double amps,
            int satellites,
            double windMps,
            double airC,
            String message) {}

    private final Random random;
    private final Position launch;
    private final double capacityMah;
    private final int cells;
    private final double wind;
    private final double speed;
    private final List<Sample> samples = new ArrayList<>();
    private double east;
    private double north;
    private double height;
    private double drawnMah;
    private final double startPct;
    private double second;

    FlightSimulator(
            long seed,
            Position launch,
            double capacityMah,
            int cells,
            double startPct,
            double windMps,
            double speedMps) {
        this.random = new Random(seed);
        this.launch = launch;
        this.capacityMah = capacityMah;
        this.cells = cells;
        this.startPct = startPct;
        this.wind = windMps;
        this.speed = speedMps;
    }

    List<Sample> fly(List<Leg> legs) {
        stand("Self-check passed");
        for (Leg leg : legs) {
            while (!moveTo(leg)) {
                sample("");
            }
            for (double t = 0; t < leg.staySeconds(); t += STEP_S) {
                step(0, 0, 0);
                sample("");
            }
        }
        Leg home = new Leg(0, 0, Math.max(height, 10), 0);
        while (!moveTo(home)) {
            sample("");
        }
        while (height > 0) {
            step(0, 0, -Math.min(height, (height > 4 ? DESCENT_MPS : 0.7) * STEP_S));
            sample("");
        }
        height = 0;
        stand("Landed");
        return samples;
    }

    private void stand(String message) {
        for (double t = 0; t < STAND_S; t += STEP_S) {
            drawnMah += 0.4 * STEP_S / 3.6;
            second += STEP_S;
            sample(t == 0 ? message : "", 0.4, 0);
        }
    }

    private boolean moveTo(Leg leg) {
        double up = leg.heightM() - height;
        double climb = Math.max(-DESCENT_MPS * STEP_S, Math.min(CLIMB_MPS * STEP_S, up));
        boolean high = height >= Math.min(leg.heightM(), 5);
        double dx = leg.eastM() - east;
        double dy = leg.northM() - north;
        double left = Math.hypot(dx, dy);
        double go = high ? Math.min(left, Math.min(speed, 0.6 + left * 0.5) * STEP_S) : 0;
        step(left == 0 ? 0 : dx / left * go, left == 0 ? 0 : dy / left * go, climb);
        return Math.abs(leg.heightM() - height) < 0.05 && Math.hypot(leg.eastM() - east, leg.northM() - north) < 0.3;
    }

    private double lastSpeed;

    private void step(double de, double dn, double up) {
        east += de;
        north += dn;
        height += up;
        second += STEP_S;
        lastSpeed = Math.hypot(de, dn) / STEP_S;
        double amps = HOVER_A + AMPS_PER_MPS * lastSpeed + (up > 0 ? 3 : 0) + wind * 0.2;
        drawnMah += amps * STEP_S / 3.6;
    }

    private void sample(String message) {
        sample(message, HOVER_A + AMPS_PER_MPS * lastSpeed + wind * 0.2, lastSpeed);
    }

    private void sample(String message, double amps, double speedNow) {
        double metresPerDegreeLat = 111_150;
        double metresPerDegreeLon = metresPerDegreeLat * Math.cos(Math.toRadians(launch.latitudeDeg()));
        double pct = Math.max(0, startPct - drawnMah / capacityMah * 100);
        double volts = cells * (3.45 + 0.72 * pct / 100) - amps * 0.03;
        samples.add(new Sample(
                second,
                launch.latitudeDeg() + (north + random.nextGaussian() * 0.03) / metresPerDegreeLat,
                launch.longitudeDeg() + (east + random.nextGaussian() * 0.03) / metresPerDegreeLon,
                Math.max(0, height) + random.nextGaussian() * 0.02,
                speedNow,
                pct,
                volts,
                amps,
                14 + random.nextInt(4),
                wind * (0.9 + random.nextDouble() * 0.2),
                11 - height * 0.0065,
                message));
    }

    /** The log as CSV with SI columns. */
    static byte[] csv(Instant start, List<Sample> samples) {
        StringBuilder s = new StringBuilder(
                "time_utc,lat,lon,height_m,speed_ms,battery_pct,battery_v,battery_a,satellites,wind_ms,air_temp_c,message\n");
        for (Sample x : samples) {
            s.append(String.format(
                    Locale.ROOT,
                    "%s,%.7f,%.7f,%.2f,%.2f,%.1f,%.3f,%.2f,%d,%.1f,%.1f,%s%n",
                    start.plusMillis(Math.round(x.second() * 1000)),
                    x.lat(),
                    x.lon(),
                    x.heightM(),
                    x.speedMps(),
                    x.chargePct(),
                    x.volts(),
                    x.amps(),
                    x.satellites(),
                    x.windMps(),
                    x.airC(),
                    x.message()));
        }
        return s.toString().getBytes(StandardCharsets.UTF_8);
    }

    /** The log as GPX 1.1 at one point a second. */
    static byte[] gpx(Instant start, List<Sample> samples, double groundAltitudeM) {
        StringBuilder s = new StringBuilder(
                "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<gpx version=\"1.1\" creator=\"simulated\" xmlns=\"http://www.topografix.com/GPX/1/1\">\n<trk><name>simulated flight</name><trkseg>\n");
        for (int i = 0; i < samples.size(); i += 5) {
            Sample x = samples.get(i);
            s.append(String.format(
                    Locale.ROOT,
                    "<trkpt lat=\"%.7f\" lon=\"%.7f\"><ele>%.2f</ele><time>%s</time></trkpt>%n",
                    x.lat(),
                    x.lon(),
                    groundAltitudeM + x.heightM(),
                    start.plusMillis(Math.round(x.second() * 1000))));
        }
        s.append("</trkseg></trk></gpx>\n");
        return s.toString().getBytes(StandardCharsets.UTF_8);
    }
}
