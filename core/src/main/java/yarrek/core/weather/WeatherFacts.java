package yarrek.core.weather;

import java.util.List;
import java.util.OptionalDouble;
import java.util.function.Function;
import yarrek.core.rulebook.Facts;

/** Weather as facts for the rules: the worst of several observations, at the height flown. */
public final class WeatherFacts {
    private WeatherFacts() {}

    /** Height above ground at which wind is reckoned when nobody has said how high it is flown. */
    public static final double USUAL_HEIGHT_M = 100;

    private static final double UNREPORTED_GUST_MPS = 5;

    /**
     * Adds wind, gusts, temperature, visibility, distance below cloud, cloud and icing. What no observation tells stays
     * out, and so is not known; what one of them does not tell is not known for all.
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
        if (all(observations, Observation::windMps)) {
            double worst = observations.stream()
                    .mapToDouble(o -> Wind.at(o.windMps().getAsDouble(), o.windHeightM(), h, terrain))
                    .max()
                    .orElseThrow();
            b.quantity("weather.windMps", tenth(worst), 0, "wind" + at);
            // a report without a gust says only that gusts stay within 5 m/s of the mean (ICAO Annex 3, 4.1.5.2)
            double least = gust(observations, h, terrain, 0);
            double most = gust(observations, h, terrain, UNREPORTED_GUST_MPS);
            b.quantity(
                    "weather.gustMps",
                    tenth((least + most) / 2),
                    tenth((most - least) / 2),
                    "gust" + at + (most > least ? "; none reported, so up to 5 m/s above the mean" : ""));
        }
        if (all(observations, Observation::temperatureC)) {
            double low = observations.stream()
                    .mapToDouble(o -> o.temperatureC().getAsDouble())
                    .min()
                    .orElseThrow();
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
        if (all(observations, Observation::visibilityM)) {
            b.quantity(
                    "weather.visibilityM",
                    observations.stream()
                            .mapToDouble(o -> o.visibilityM().getAsDouble())
                            .min()
                            .orElseThrow(),
                    0,
                    "visibility from " + source);
        }
        cloud(b, observations, heightM, source);
    }

    private static double gust(List<Observation> all, double heightM, Wind.Terrain terrain, double unreported) {
        return all.stream()
                .mapToDouble(o -> Wind.at(
                        o.gustMps().orElse(o.windMps().getAsDouble() + unreported), o.windHeightM(), heightM, terrain))
                .max()
                .orElseThrow();
    }

    private static void cloud(Facts.Builder b, List<Observation> all, OptionalDouble heightM, String source) {
        boolean told = all.stream()
                .allMatch(o -> o.skyClear()
                        || (o.lowestCloudM().isPresent()
                                && o.layers().stream().allMatch(l -> l.baseM().isPresent())));
        boolean fog = all.stream().anyMatch(Observation::isFog);
        if (fog) {
            b.yesNo("weather.inCloud", true, "fog in " + source);
        }
        if (heightM.isEmpty()) {
            return;
        }
        OptionalDouble lowest =
                all.stream().flatMapToDouble(o -> o.lowestCloudM().stream()).min();
        boolean reached = lowest.isPresent() && lowest.getAsDouble() <= heightM.getAsDouble();
        if (!fog && (told || reached)) {
            b.yesNo("weather.inCloud", reached, "cloud base from " + source);
        }
        if (!told && !reached) {
            return; // a layer whose base nobody reported may be the lowest
        }
        if (lowest.isPresent()) {
            b.quantity(
                    "weather.cloudBelowM",
                    Math.max(0, lowest.getAsDouble() - heightM.getAsDouble()),
                    0,
                    "cloud base less the height flown, from " + source);
        } else {
            // no cloud of importance: below the greater of 1,500 m and the sector altitude there is none (ICAO Annex 3,
            // 4.5.4)
            b.quantity(
                    "weather.cloudBelowM",
                    Math.max(0, 1500 - heightM.getAsDouble()),
                    0,
                    "no cloud below 1,500 m in " + source);
        }
    }

    private static boolean all(List<Observation> observations, Function<Observation, OptionalDouble> figure) {
        return !observations.isEmpty()
                && observations.stream().allMatch(o -> figure.apply(o).isPresent());
    }

    private static double tenth(double v) {
        return Math.round(v * 100) / 100.0;
    }
}
