package yarrek.core.time;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.shredzone.commons.suncalc.SunPosition;
import yarrek.core.geo.Position;

/**
 * The light at a place and time by the height of the sun's centre.
 *
 * <p>Night is the time between the end of evening civil twilight and the beginning of morning civil twilight, the sun's
 * centre 6 degrees below the horizon, that very instant included ((EU) 923/2012 Art 2(97); CAR 101.01; 14 CFR 1.1; CASR
 * Dictionary; CAR (NZ) Part 1). Civil twilight is from there up to sunset or sunrise, taken as the centre at -0.833
 * degrees (34' refraction, 16' semi-diameter). Sea-level horizon; no terrain.
 */
public enum Light {
    DAY,
    CIVIL_TWILIGHT,
    NIGHT;

    /** Degrees below the horizon at which civil twilight ends ((EU) 923/2012 Art 2(97)). */
    public static final double CIVIL_TWILIGHT_DEG = -6.0;

    /** True altitude of the sun's centre at sunrise and sunset: 34' of refraction and 16' of semi-diameter. */
    private static final double SUNRISE_DEG = -0.833;

    /** Step of the first look for the darkest moment; the sun has one lowest point a day. */
    private static final Duration STEP = Duration.ofMinutes(20);

    /** Cuts by a third of the stretch around the darkest look: 40 min times (2/3)^20 is under a second. */
    private static final int CUTS = 20;

    private static final Duration HALF_HOUR = Duration.ofMinutes(30);

    /** True altitude of the sun's centre in degrees, without refraction. */
    public static double sunAltitudeDeg(Instant at, Position place) {
        return SunPosition.compute()
                .on(at)
                .at(place.latitudeDeg(), place.longitudeDeg())
                .execute()
                .getTrueAltitude();
    }

    public static Light at(Instant at, Position place) {
        double altitude = sunAltitudeDeg(at, place);
        return altitude >= SUNRISE_DEG ? DAY : altitude > CIVIL_TWILIGHT_DEG ? CIVIL_TWILIGHT : NIGHT;
    }

    /** The darkest light met in the window: one second of night makes it {@link #NIGHT}. */
    public static Light darkestIn(TimeWindow window, Position place) {
        return at(darkestMoment(window, place), place);
    }

    /** The moment of the window at which the sun stands lowest, within a second. */
    static Instant darkestMoment(TimeWindow window, Position place) {
        Instant lowest = window.end();
        double altitude = sunAltitudeDeg(lowest, place);
        for (Instant t = window.start(); t.isBefore(window.end()); t = t.plus(STEP)) {
            double a = sunAltitudeDeg(t, place);
            if (a < altitude) {
                altitude = a;
                lowest = t;
            }
        }
        Instant low = later(lowest.minus(STEP), window.start());
        Instant high = lowest.plus(STEP).isAfter(window.end()) ? window.end() : lowest.plus(STEP);
        for (int i = 0; i < CUTS; i++) {
            Duration third = Duration.between(low, high).dividedBy(3);
            if (sunAltitudeDeg(low.plus(third), place) < sunAltitudeDeg(high.minus(third), place)) {
                high = high.minus(third);
            } else {
                low = low.plus(third);
            }
        }
        // an end of the window is met exactly, not nearly
        return List.of(window.start(), window.end(), low).stream()
                .min(java.util.Comparator.comparingDouble(t -> sunAltitudeDeg(t, place)))
                .orElseThrow();
    }

    private static Instant later(Instant a, Instant b) {
        return a.isAfter(b) ? a : b;
    }

    private static boolean down(Instant t, Position place) {
        return sunAltitudeDeg(t, place) < SUNRISE_DEG;
    }

    /**
     * Whether any of the window lies in the 30 minutes before sunrise or after sunset, ends included: the "civil twilight"
     * of 14 CFR 107.29(b).
     */
    public static boolean meetsHalfHour(TimeWindow window, Position place) {
        boolean startDown = down(window.start(), place);
        boolean endDown = down(window.end(), place);
        return startDown != endDown
                || (!startDown && down(darkestMoment(window, place), place))
                || nearSun(window.start(), place)
                || nearSun(window.end(), place);
    }

    private static boolean nearSun(Instant t, Position place) {
        return down(t, place) && !(down(t.minus(HALF_HOUR), place) && down(t.plus(HALF_HOUR), place));
    }

    /**
     * Whether any of the window is later than 30 minutes after sunset and earlier than 30 minutes before sunrise: "night" of
     * the Air Navigation Order 2016 (SI 2016/765) Schedule 1.
     */
    public static boolean meetsHalfHourNight(TimeWindow window, Position place) {
        Instant darkest = darkestMoment(window, place);
        return List.of(window.start(), window.end(), darkest).stream()
                .anyMatch(t -> down(t, place) && down(t.minus(HALF_HOUR), place) && down(t.plus(HALF_HOUR), place));
    }

    /**
     * The sun's day at a place, each found to a second; empty where it does not happen that day. All within the local
     * day, from midnight to midnight.
     *
     * @param highestDeg greatest altitude of the sun over the day's steps, degrees
     * @param lowestDeg least of them
     */
    public record SunDay(
            java.util.Optional<Instant> dawn,
            java.util.Optional<Instant> sunrise,
            java.util.Optional<Instant> sunset,
            java.util.Optional<Instant> dusk,
            double highestDeg,
            double lowestDeg) {

        /** "Civil twilight from 07:12, sunrise 07:43, ..." in local time; what does not happen that day is said. */
        public String words(java.time.ZoneId zone) {
            List<String> parts = new java.util.ArrayList<>();
            dawn.ifPresent(t -> parts.add("civil twilight from " + clock(t, zone)));
            sunrise.ifPresent(t -> parts.add("sunrise " + clock(t, zone)));
            if (sunrise.isEmpty() && lowestDeg >= SUNRISE_DEG) {
                parts.add("the sun does not set");
            } else if (sunset.isEmpty() && highestDeg < SUNRISE_DEG) {
                parts.add("the sun does not rise");
                if (highestDeg < CIVIL_TWILIGHT_DEG) {
                    parts.add("it is night all day, without civil twilight");
                }
            } else if (sunrise.isEmpty()) {
                parts.add("no sunrise");
            }
            sunset.ifPresent(t -> parts.add("sunset " + clock(t, zone)));
            boolean setsOrRises = sunrise.isPresent() || sunset.isPresent();
            if (sunset.isEmpty() && setsOrRises) {
                parts.add("no sunset");
            }
            dusk.ifPresent(t -> parts.add("end of civil twilight " + clock(t, zone)));
            if (setsOrRises && lowestDeg >= CIVIL_TWILIGHT_DEG) {
                parts.add("civil twilight lasts through the night");
            }
            String all = String.join(", ", parts);
            return Character.toUpperCase(all.charAt(0)) + all.substring(1);
        }

        private static String clock(Instant t, java.time.ZoneId zone) {
            return java.time.format.DateTimeFormatter.ofPattern("HH:mm", java.util.Locale.UK)
                    .format(t.atZone(zone));
        }
    }

    /** Beginning of morning civil twilight, sunrise, sunset and end of evening civil twilight on a local day. */
    public static SunDay day(java.time.LocalDate day, java.time.ZoneId zone, Position place) {
        Instant start = day.atStartOfDay(zone).toInstant();
        Instant end = day.plusDays(1).atStartOfDay(zone).toInstant();
        List<Instant> looks = new java.util.ArrayList<>();
        for (Instant t = start; t.isBefore(end); t = t.plus(STEP)) {
            looks.add(t);
        }
        looks.add(end);
        double[] altitudes =
                looks.stream().mapToDouble(t -> sunAltitudeDeg(t, place)).toArray();
        return new SunDay(
                crossing(looks, altitudes, place, CIVIL_TWILIGHT_DEG, true),
                crossing(looks, altitudes, place, SUNRISE_DEG, true),
                crossing(looks, altitudes, place, SUNRISE_DEG, false),
                crossing(looks, altitudes, place, CIVIL_TWILIGHT_DEG, false),
                java.util.Arrays.stream(altitudes).max().orElseThrow(),
                java.util.Arrays.stream(altitudes).min().orElseThrow());
    }

    /** The first crossing of an altitude, up or down; two crossings within the same 20 minutes are passed over. */
    private static java.util.Optional<Instant> crossing(
            List<Instant> looks, double[] altitudes, Position place, double altitudeDeg, boolean rising) {
        for (int i = 1; i < altitudes.length; i++) {
            boolean below = altitudes[i - 1] < altitudeDeg;
            if (below != altitudes[i] < altitudeDeg && below == rising) {
                Instant low = looks.get(i - 1);
                Instant high = looks.get(i);
                while (Duration.between(low, high).toMillis() > 500) {
                    Instant middle = low.plus(Duration.between(low, high).dividedBy(2));
                    if (sunAltitudeDeg(middle, place) < altitudeDeg == below) {
                        low = middle;
                    } else {
                        high = middle;
                    }
                }
                return java.util.Optional.of(high.truncatedTo(java.time.temporal.ChronoUnit.SECONDS));
            }
        }
        return java.util.Optional.empty();
    }
}
