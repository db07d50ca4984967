package yarrek.core;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.time.Light;

/** Sun, distance and area reckoned a second way, by formulas that share nothing with the libraries used. */
class SecondMethodTest {
    // --- the sun: J. Meeus, Astronomical Algorithms, 2nd ed., chapters 12, 13 and 25 (low accuracy, 0.01 degrees)
    // ------

    private static double altitudeDeg(Instant at, double lat, double lon) {
        double julian = at.toEpochMilli() / 86_400_000.0 + 2_440_587.5;
        double t = (julian - 2_451_545) / 36_525;
        double mean = 280.46646 + 36_000.76983 * t + 0.0003032 * t * t;
        double anomaly = Math.toRadians(357.52911 + 35_999.05029 * t - 0.0001537 * t * t);
        double centre = (1.914602 - 0.004817 * t) * Math.sin(anomaly)
                + (0.019993 - 0.000101 * t) * Math.sin(2 * anomaly)
                + 0.000289 * Math.sin(3 * anomaly);
        double node = Math.toRadians(125.04 - 1934.136 * t);
        double apparent = Math.toRadians(mean + centre - 0.00569 - 0.00478 * Math.sin(node));
        double obliquity = Math.toRadians(23.439291 - 0.0130042 * t + 0.00256 * Math.cos(node));
        double ascension = Math.atan2(Math.cos(obliquity) * Math.sin(apparent), Math.cos(apparent));
        double declination = Math.asin(Math.sin(obliquity) * Math.sin(apparent));
        double sidereal = 280.46061837 + 360.98564736629 * (julian - 2_451_545) + 0.000387933 * t * t;
        double hour = Math.toRadians(sidereal + lon) - ascension;
        double phi = Math.toRadians(lat);
        return Math.toDegrees(Math.asin(
                Math.sin(phi) * Math.sin(declination) + Math.cos(phi) * Math.cos(declination) * Math.cos(hour)));
    }

    @Test
    void theSunStandsWhereTheSeriesPutsIt() {
        Random random = new Random(7);
        for (int i = 0; i < 400; i++) {
            Instant at = Instant.parse("2020-01-01T00:00:00Z").plusSeconds(random.nextInt(20 * 365 * 86_400));
            double lat = random.nextDouble() * 150 - 75;
            double lon = random.nextDouble() * 360 - 180;
            assertThat(Light.sunAltitudeDeg(at, new Position(lat, lon)))
                    .as(at + " at " + lat + ", " + lon)
                    .isCloseTo(altitudeDeg(at, lat, lon), within(0.03));
        }
    }

    /** At each of the day's four times the second sun stands at its altitude, within what 8 s of time make. */
    @Test
    void theTimesOfADayAreThoseOfTheSeries() {
        for (double lat : new double[] {-46.6, -17, 0, 33, 51.5, 60}) {
            for (int month = 1; month <= 12; month++) {
                Position place = new Position(lat, 10 * month - 65);
                Light.SunDay d = Light.day(LocalDate.of(2027, month, 21), ZoneOffset.ofHours(0), place);
                d.sunrise()
                        .ifPresent(t -> assertThat(altitudeDeg(t, place.latitudeDeg(), place.longitudeDeg()))
                                .isCloseTo(-0.833, within(0.034)));
                d.dusk()
                        .ifPresent(t -> assertThat(altitudeDeg(t, place.latitudeDeg(), place.longitudeDeg()))
                                .isCloseTo(-6, within(0.034)));
            }
        }
    }

    // --- distance: T. Vincenty, Survey Review 23/176, 1975
    // ------------------------------------------------------------

    private static final double A = 6_378_137;
    private static final double F = 1 / 298.257223563;
    private static final double B = A * (1 - F);

    private static double vincentyM(Position p, Position q) {
        double l = Math.toRadians(q.longitudeDeg() - p.longitudeDeg());
        double u1 = Math.atan((1 - F) * Math.tan(Math.toRadians(p.latitudeDeg())));
        double u2 = Math.atan((1 - F) * Math.tan(Math.toRadians(q.latitudeDeg())));
        double lambda = l;
        for (int i = 0; ; i++) {
            double sinSigma = Math.hypot(
                    Math.cos(u2) * Math.sin(lambda),
                    Math.cos(u1) * Math.sin(u2) - Math.sin(u1) * Math.cos(u2) * Math.cos(lambda));
            double cosSigma = Math.sin(u1) * Math.sin(u2) + Math.cos(u1) * Math.cos(u2) * Math.cos(lambda);
            double sigma = Math.atan2(sinSigma, cosSigma);
            double sinAlpha = Math.cos(u1) * Math.cos(u2) * Math.sin(lambda) / sinSigma;
            double cos2 = 1 - sinAlpha * sinAlpha;
            double middle = cos2 == 0 ? 0 : cosSigma - 2 * Math.sin(u1) * Math.sin(u2) / cos2;
            double c = F / 16 * cos2 * (4 + F * (4 - 3 * cos2));
            double next = l
                    + (1 - c)
                            * F
                            * sinAlpha
                            * (sigma + c * sinSigma * (middle + c * cosSigma * (2 * middle * middle - 1)));
            if (Math.abs(next - lambda) < 1e-13 || i > 200) {
                double uu = cos2 * (A * A - B * B) / (B * B);
                double big = 1 + uu / 16_384 * (4096 + uu * (uu * (320 - 175 * uu) - 768));
                double small = uu / 1024 * (256 + uu * (uu * (74 - 47 * uu) - 128));
                double delta = small
                        * sinSigma
                        * (middle
                                + small
                                        / 4
                                        * (cosSigma * (2 * middle * middle - 1)
                                                - small
                                                        / 6
                                                        * middle
                                                        * (4 * sinSigma * sinSigma - 3)
                                                        * (4 * middle * middle - 3)));
                return B * big * (sigma - delta);
            }
            lambda = next;
        }
    }

    @Test
    void distancesAreThoseOfVincenty() {
        Random random = new Random(11);
        for (int i = 0; i < 500; i++) {
            double lat = random.nextDouble() * 168 - 84;
            double lon = random.nextDouble() * 360 - 180;
            double reach = Math.pow(10, random.nextDouble() * 5 - 5);
            Position p = new Position(lat, lon);
            Position q = new Position(
                    Math.max(-84, Math.min(84, lat + reach)), Math.min(180, lon + reach * random.nextDouble()));
            assertThat(Geodesy.distanceM(p, q)).as(p + " to " + q).isCloseTo(vincentyM(p, q), within(1e-3));
        }
    }

    // --- area: a triangle so small that the plane of its middle holds
    // -------------------------------------------------

    /** Radii of curvature in the meridian and across it give metres a degree; half the cross product is the area. */
    @Test
    void areasAreThoseOfThePlaneBelowThem() {
        Random random = new Random(13);
        double e2 = F * (2 - F);
        for (int i = 0; i < 100; i++) {
            double lat = random.nextDouble() * 120 - 60;
            double lon = random.nextDouble() * 358 - 179;
            double[][] corner = new double[3][2];
            double[] turns = {0, 2.1, 4.2};
            for (int k = 0; k < 3; k++) {
                double r = 0.001 + random.nextDouble() * 0.004;
                corner[k][0] = lat + r * Math.sin(turns[k]);
                corner[k][1] = lon + r * Math.cos(turns[k]);
            }
            double phi = Math.toRadians((corner[0][0] + corner[1][0] + corner[2][0]) / 3);
            double w = Math.sqrt(1 - e2 * Math.sin(phi) * Math.sin(phi));
            double north = Math.toRadians(1) * A * (1 - e2) / (w * w * w);
            double east = Math.toRadians(1) * A / w * Math.cos(phi);
            double flat = Math.abs((corner[1][1] - corner[0][1]) * (corner[2][0] - corner[0][0])
                            - (corner[2][1] - corner[0][1]) * (corner[1][0] - corner[0][0]))
                    / 2
                    * north
                    * east;
            Area area = Area.of(List.of(
                    new Position(corner[0][0], corner[0][1]),
                    new Position(corner[1][0], corner[1][1]),
                    new Position(corner[2][0], corner[2][1])));
            assertThat(area.areaM2()).isCloseTo(flat, within(flat * 2e-5));
        }
    }
}
