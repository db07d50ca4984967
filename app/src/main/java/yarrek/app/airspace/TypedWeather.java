package yarrek.app.airspace;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.util.MultiValueMap;
import yarrek.app.forms.TypedInput;
import yarrek.core.weather.Observation;

/** Weather figures as typed: each may be left out, and then is not known. */
final class TypedWeather {
    private TypedWeather() {}

    private static String of(MultiValueMap<String, String> p, String name) {
        return Optional.ofNullable(p.getFirst(name)).orElse("").strip();
    }

    private static Instant at(MultiValueMap<String, String> p, ZoneId zone, LocalDate today) {
        LocalDate day = of(p, "day").isEmpty() ? today : TypedInput.date(of(p, "day"), today);
        LocalTime time = TypedInput.time(of(p, "time"));
        return day.atTime(time).atZone(zone).toInstant();
    }

    static boolean isForecast(MultiValueMap<String, String> p, Instant now, ZoneId zone, LocalDate today) {
        return at(p, zone, today).isAfter(now);
    }

    /** @throws IllegalArgumentException naming the field and what is accepted */
    static Observation read(MultiValueMap<String, String> p, ZoneId zone, LocalDate today) {
        OptionalDouble wind = number(p, "wind", "wind", TypedInput::metresPerSecond, 0, 100);
        OptionalDouble gust = number(p, "gust", "gust", TypedInput::metresPerSecond, 0, 150);
        if (gust.isPresent() && wind.isPresent() && gust.getAsDouble() < wind.getAsDouble()) {
            throw new IllegalArgumentException("gust: below the mean wind; leave it empty when there is none");
        }
        OptionalDouble windHeight = number(p, "windHeight", "height of the wind", TypedInput::metres, 0.5, 300);
        OptionalDouble temperature = number(p, "temperature", "temperature", s -> TypedInput.plain(s, "°C"), -60, 60);
        OptionalDouble dew = number(p, "dew", "dew point", s -> TypedInput.plain(s, "°C"), -80, 60);
        if (dew.isPresent() && temperature.isPresent() && dew.getAsDouble() > temperature.getAsDouble()) {
            throw new IllegalArgumentException("dew point: above the temperature, which cannot be");
        }
        OptionalDouble cloud = number(p, "cloud", "cloud base", TypedInput::metres, 0, 20_000);
        boolean clear = of(p, "sky").equals("clear");
        String falls = of(p, "precipitation");
        Observation o = new Observation(
                at(p, zone, today),
                number(p, "from", "wind from", s -> TypedInput.plain(s, "°"), 0, 360),
                false,
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                wind,
                gust,
                windHeight.orElse(2),
                number(p, "visibility", "visibility", TypedInput::metres, 0, 100_000),
                falls.equals("yes") ? List.of("precipitation") : List.of(),
                cloud.isPresent() ? List.of(new Observation.Layer("cloud", cloud, "")) : List.of(),
                clear && cloud.isEmpty(),
                temperature,
                dew,
                OptionalDouble.empty(),
                falls.isEmpty() ? Optional.empty() : Optional.of(falls.equals("yes")),
                List.of());
        if (wind.isEmpty()
                && temperature.isEmpty()
                && cloud.isEmpty()
                && o.visibilityM().isEmpty()
                && !clear) {
            throw new IllegalArgumentException("type at least one figure: wind, temperature, visibility or cloud");
        }
        return o;
    }

    private interface Parse {
        double of(String s);
    }

    private static OptionalDouble number(
            MultiValueMap<String, String> p, String name, String label, Parse parse, double least, double most) {
        String s = of(p, name);
        if (s.isEmpty()) {
            return OptionalDouble.empty();
        }
        try {
            double v = parse.of(s);
            if (!(v >= least && v <= most)) {
                throw new IllegalArgumentException("must be from " + yarrek.core.units.Finite.format(least) + " to "
                        + yarrek.core.units.Finite.format(most));
            }
            return OptionalDouble.of(v);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(label + ": " + e.getMessage(), e);
        }
    }
}
