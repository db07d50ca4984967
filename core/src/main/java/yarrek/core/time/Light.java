package yarrek.core.time;

import java.time.Duration;
import java.time.Instant;
import org.shredzone.commons.suncalc.SunPosition;
import yarrek.core.geo.Position;

/**
 * The light at a place and time by the height of the sun's centre.
 *
 * <p>Night is the time between the end of evening civil twilight and the beginning of morning civil twilight, the sun's
 * centre 6 degrees below the horizon ((EU) 923/2012 Art 2(97)). Civil twilight is from there up to sunset or sunrise,
 * taken as the centre at -0.833 degrees (34' refraction, 16' semi-diameter). Sea-level horizon; no terrain.
 */
public enum Light {
    DAY,
    CIVIL_TWILIGHT,
    NIGHT;

    /** Degrees below the horizon at which civil twilight ends ((EU) 923/2012 Art 2(97)). */
    public static final double CIVIL_TWILIGHT_DEG = -6.0;

    /** True altitude of the sun's centre at sunrise and sunset: 34' of refraction and 16' of semi-diameter. */
    private static final double SUNRISE_DEG = -0.833;

    /** Step between looks; the sun moves at most 1.25 degrees in it, and the ends are always looked at. */
    private static final Duration STEP = Duration.ofMinutes(5);

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
        return altitude >= SUNRISE_DEG ? DAY : altitude >= CIVIL_TWILIGHT_DEG ? CIVIL_TWILIGHT : NIGHT;
    }

    /** The darkest light met in the window: one minute of night makes it {@link #NIGHT}. */
    public static Light darkestIn(TimeWindow window, Position place) {
        Light darkest = at(window.end(), place);
        for (Instant t = window.start(); t.isBefore(window.end()); t = t.plus(STEP)) {
            Light light = at(t, place);
            if (light.compareTo(darkest) > 0) {
                darkest = light;
            }
            if (darkest == NIGHT) {
                return NIGHT;
            }
        }
        return darkest;
    }
}
