package yarrek.core.weather;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.time.TimeWindow;

/**
 * The weather at a time. What was not observed is empty, never zero.
 *
 * @param at time of observation, or for which it is forecast
 * @param windFromDeg degrees true the wind comes from; empty when variable or not known
 * @param windVariable the direction is given as variable
 * @param variesFromDeg first of two directions between which it varies
 * @param variesToDeg second of them, clockwise from the first
 * @param windMps mean wind at {@code windHeightM}
 * @param gustMps gusts at the same height; empty when none is reported
 * @param windHeightM height of the wind above ground: 10 for a station, 2 for a meter in the hand
 * @param visibilityM prevailing; 10 km and more is given as 10,000
 * @param phenomena in the words of the report, such as "rain showers"
 * @param layers of cloud, lowest first
 * @param skyClear the report says that there is no cloud of importance
 * @param temperatureC air
 * @param dewPointC dew point
 * @param pressureHpa at mean sea level
 * @param precipitation whether anything falls; empty when not known
 * @param mayBe what a report's trend says may come (TEMPO) or comes (BECMG) within its two hours
 */
public record Observation(
        Instant at,
        OptionalDouble windFromDeg,
        boolean windVariable,
        OptionalDouble variesFromDeg,
        OptionalDouble variesToDeg,
        OptionalDouble windMps,
        OptionalDouble gustMps,
        double windHeightM,
        OptionalDouble visibilityM,
        List<String> phenomena,
        List<Layer> layers,
        boolean skyClear,
        OptionalDouble temperatureC,
        OptionalDouble dewPointC,
        OptionalDouble pressureHpa,
        Optional<Boolean> precipitation,
        List<Change> mayBe) {
    /** A report holds a trend for this long (WMO-No. 306, FM 15, 15.14). */
    private static final Duration TREND = Duration.ofHours(2);

    /**
     * A change within the two hours after the report.
     *
     * @param until when it ends, or for a lasting change the end of the two hours
     * @param to what it may be like; figures that do not change are empty
     */
    public record Change(Instant from, Instant until, Observation to) {
        boolean meets(List<TimeWindow> windows) {
            TimeWindow own = new TimeWindow(from, until);
            return windows.isEmpty() || windows.stream().anyMatch(own::meets);
        }
    }

    /**
     * @param amount few, scattered, broken, overcast or "sky not seen"
     * @param baseM above the aerodrome, metres; empty when not reported
     * @param kind cumulonimbus, towering cumulus or empty
     */
    public record Layer(String amount, OptionalDouble baseM, String kind) {}

    public Observation {
        phenomena = List.copyOf(phenomena);
        layers = List.copyOf(layers);
        mayBe = mayBe == null ? List.of() : List.copyOf(mayBe); // absent from reports stored before trends were read
    }

    /** The end of the two hours of which a trend speaks. */
    public static Instant trendEnds(Instant at) {
        return at.plus(TREND);
    }

    /** What may come within given hours; all of it when none are given. */
    List<Observation> mayBe(List<TimeWindow> windows) {
        return mayBe.stream().filter(c -> c.meets(windows)).map(Change::to).toList();
    }

    /** Base of the lowest layer whose base is known, in metres above the aerodrome or site. */
    public OptionalDouble lowestCloudM() {
        return layers.stream().flatMapToDouble(l -> l.baseM().stream()).min();
    }

    /** Fog, or freezing fog, as reported. */
    public boolean isFog() {
        return phenomena.stream().anyMatch(p -> p.contains("fog") && !p.contains("shallow") && !p.contains("vicinity"));
    }

    /** Temperature less dew point in kelvin. */
    public OptionalDouble spreadK() {
        return temperatureC.isPresent() && dewPointC.isPresent()
                ? OptionalDouble.of(temperatureC.getAsDouble() - dewPointC.getAsDouble())
                : OptionalDouble.empty();
    }
}
