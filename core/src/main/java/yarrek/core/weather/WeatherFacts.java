package yarrek.core.weather;

import java.util.List;
import java.util.OptionalDouble;
import java.util.function.Function;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.time.TimeWindow;

/** Weather as facts for the rules: the worst of several observations, at the height flown. */
public final class WeatherFacts {
    private WeatherFacts() {}

    /** Height above ground at which wind is reckoned when nobody has said how high it is flown. */
    public static final double USUAL_HEIGHT_M = 100;

    private static final double UNREPORTED_GUST_MPS = 5;
    private static final double NO_CLOUD_BELOW_M = 1500;
    private static final String MAY_BE = "; the trend of the report says it may become worse";

    /**
     * Adds wind, gusts, temperature, visibility, distance below cloud, cloud and icing. What no observation tells stays
     * out, and so is not known; what one of them does not tell is not known for all. What a trend says may come within the
     * hours of the facts widens them to the worse side only: it makes nothing better, and nothing certain.
     *
     * @param observations at least one
     * @param heightM greatest height above ground; empty takes 100 m and says so
     * @param source where they come from
     */
    public static void put(
            Facts.Builder b,
            List<Observation> observations,
            OptionalDouble heightM,
            Wind.Terrain terrain,
            String source) {
        double h = Math.max(2, heightM.orElse(USUAL_HEIGHT_M));
        String at = " at " + Math.round(h) + " m over " + terrain.words() + ", from " + source;
        List<TimeWindow> windows = b.build().windows();
        List<Observation> mayBe =
                observations.stream().flatMap(o -> o.mayBe(windows).stream()).toList();
        if (all(observations, Observation::windMps)) {
            double worst = wind(observations, h, terrain).orElseThrow();
            double perhaps = Math.max(worst, wind(mayBe, h, terrain).orElse(worst));
            put(b, "weather.windMps", worst, 0, perhaps - worst, "wind" + at);
            // a report without a gust says only that gusts stay within 5 m/s of the mean (ICAO Annex 3, 4.1.5.2)
            double least = gust(observations, h, terrain, 0).orElseThrow();
            double most = gust(observations, h, terrain, UNREPORTED_GUST_MPS).orElseThrow();
            double mayReach =
                    Math.max(most, gust(mayBe, h, terrain, UNREPORTED_GUST_MPS).orElse(most));
            double middle = (least + most) / 2;
            put(
                    b,
                    "weather.gustMps",
                    middle,
                    middle - least,
                    mayReach - middle,
                    "gust" + at + (most > least ? "; none reported, so up to 5 m/s above the mean" : ""));
        }
        temperature(b, observations, source);
        if (all(observations, Observation::visibilityM)) {
            double least = least(observations, Observation::visibilityM).orElseThrow();
            double perhaps =
                    Math.min(least, least(mayBe, Observation::visibilityM).orElse(least));
            put(b, "weather.visibilityM", least, least - perhaps, 0, "visibility from " + source);
        }
        cloud(b, observations, mayBe, heightM, source);
    }

    /** To the hundredth; a side that only a trend opens is said. */
    private static void put(Facts.Builder b, String fact, double value, double below, double above, String source) {
        FactValue.Quantity q = new FactValue.Quantity(hundredth(value), hundredth(below), hundredth(above));
        b.with(fact, q, source + (q.below() == q.above() ? "" : MAY_BE));
    }

    private static void temperature(Facts.Builder b, List<Observation> observations, String source) {
        if (!all(observations, Observation::temperatureC)) {
            return;
        }
        double low = least(observations, Observation::temperatureC).orElseThrow();
        double high = observations.stream()
                .mapToDouble(o -> o.temperatureC().getAsDouble())
                .max()
                .orElseThrow();
        b.quantity("weather.temperatureC", (low + high) / 2, (high - low) / 2, "temperature from " + source);
        if (all(observations, Observation::dewPointC)) {
            b.yesNo(
                    "weather.icing",
                    observations.stream()
                            .anyMatch(o -> Humidity.icingLikely(
                                    o.temperatureC().getAsDouble(),
                                    o.dewPointC().getAsDouble())),
                    "temperature and dew point from " + source);
        }
    }

    private static OptionalDouble wind(List<Observation> all, double heightM, Wind.Terrain terrain) {
        return all.stream()
                .filter(o -> o.windMps().isPresent())
                .mapToDouble(o -> Wind.at(o.windMps().getAsDouble(), o.windHeightM(), heightM, terrain))
                .max();
    }

    private static OptionalDouble gust(List<Observation> all, double heightM, Wind.Terrain terrain, double unreported) {
        return all.stream()
                .filter(o -> o.windMps().isPresent())
                .mapToDouble(o -> Wind.at(
                        o.gustMps().orElse(o.windMps().getAsDouble() + unreported), o.windHeightM(), heightM, terrain))
                .max();
    }

    private static OptionalDouble least(List<Observation> all, Function<Observation, OptionalDouble> figure) {
        return all.stream().flatMapToDouble(o -> figure.apply(o).stream()).min();
    }

    private static void cloud(
            Facts.Builder b, List<Observation> all, List<Observation> mayBe, OptionalDouble heightM, String source) {
        boolean told = all.stream().allMatch(o -> o.skyClear() || (!o.layers().isEmpty() && basesTold(o)));
        boolean fog = all.stream().anyMatch(Observation::isFog);
        if (fog) {
            b.yesNo("weather.inCloud", true, "fog in " + source);
        }
        if (heightM.isEmpty()) {
            return;
        }
        double height = heightM.getAsDouble();
        OptionalDouble lowest = least(all, Observation::lowestCloudM);
        boolean reached = lowest.isPresent() && lowest.getAsDouble() <= height;
        OptionalDouble perhaps = least(mayBe, Observation::lowestCloudM);
        boolean perhapsFog = mayBe.stream().anyMatch(Observation::isFog);
        boolean mayReach = perhapsFog || (perhaps.isPresent() && perhaps.getAsDouble() <= height);
        told &= mayBe.stream().allMatch(WeatherFacts::basesTold);
        if (!fog && (reached || (told && !mayReach))) {
            b.yesNo("weather.inCloud", reached, "cloud base from " + source);
        }
        if (!told && !reached) {
            return; // a layer whose base nobody reported may be the lowest
        }
        // no cloud of importance: below the greater of 1,500 m and the sector altitude there is none (ICAO Annex 3,
        // 4.5.4)
        double clear = Math.max(0, lowest.orElse(NO_CLOUD_BELOW_M) - height);
        double perhapsClear = perhaps.isPresent() ? Math.max(0, perhaps.getAsDouble() - height) : clear;
        double mayBeClear = perhapsFog ? 0 : Math.min(clear, perhapsClear);
        put(
                b,
                "weather.cloudBelowM",
                clear,
                clear - mayBeClear,
                0,
                lowest.isPresent()
                        ? "cloud base less the height flown, from " + source
                        : "no cloud below 1,500 m in " + source);
    }

    private static boolean basesTold(Observation o) {
        return o.layers().stream().allMatch(l -> l.baseM().isPresent());
    }

    private static boolean all(List<Observation> observations, Function<Observation, OptionalDouble> figure) {
        return !observations.isEmpty()
                && observations.stream().allMatch(o -> figure.apply(o).isPresent());
    }

    private static double hundredth(double v) {
        return Math.round(v * 100) / 100.0;
    }
}
