package yarrek.core.rulebook;

import java.util.List;
import yarrek.core.geo.Position;
import yarrek.core.time.Light;
import yarrek.core.time.TimeWindow;

/** The light over the hours of a job or flight as facts, each law's notion of it. */
public final class SunFacts {
    private SunFacts() {}

    /** Adds {@code light}, {@code light.halfHour} and {@code light.halfHourNight}; nothing when there are no hours. */
    public static void put(Facts.Builder b, List<TimeWindow> windows, Position place) {
        if (windows.isEmpty()) {
            return;
        }
        Light darkest = windows.stream()
                .map(w -> Light.darkestIn(w, place))
                .max(java.util.Comparator.naturalOrder())
                .orElseThrow();
        b.word("light", word(darkest), "sun at the place over the hours, the darkest of them");
        b.yesNo(
                "light.halfHour",
                windows.stream().anyMatch(w -> Light.meetsHalfHour(w, place)),
                "sunrise and sunset at the place, 30 minutes beside them");
        b.yesNo(
                "light.halfHourNight",
                windows.stream().anyMatch(w -> Light.meetsHalfHourNight(w, place)),
                "sunrise and sunset at the place, 30 minutes beside them");
    }

    private static String word(Light light) {
        return light == Light.DAY ? "day" : light == Light.NIGHT ? "night" : "civilTwilight";
    }
}
