package yarrek.app.airspace;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Pattern;
import org.springframework.stereotype.Service;
import yarrek.app.outside.Outside;
import yarrek.core.weather.Observation;
import yarrek.core.weather.Report;

/**
 * The weather station: a report in code form and the hours ahead as a table. The one that ships is simulated and its name
 * says so.
 */
@Service
class WeatherStation {
    private static final Pattern NUMBER = Pattern.compile("-?\\d{1,6}(\\.\\d{1,3})?");
    private static final int COLUMNS = 9;

    private final Outside outside;
    private final Weather weather;

    WeatherStation(Outside outside, Weather weather) {
        this.outside = outside;
        this.weather = weather;
    }

    /**
     * @return what came, in words
     * @throws IllegalStateException when it cannot be reached
     * @throws IllegalArgumentException when what it says cannot be read; then nothing is taken
     */
    String fetch(Sites.SiteView site, String by) {
        String place = String.format(
                Locale.ROOT,
                "?lat=%.4f&lon=%.4f",
                site.launch().latitudeDeg(),
                site.launch().longitudeDeg());
        String report = outside.get("/stand-ins/weather/report" + place).strip();
        List<Observation> ahead = forecast(outside.get("/stand-ins/weather/forecast.csv" + place));
        var read = weather.addMetar(site.id(), report, "simulated weather station", by);
        weather.add(site.id(), Report.Kind.FORECAST, "", ahead, "simulated weather station", by);
        return "From the simulated station: " + report + "; and " + ahead.size() + " hours ahead."
                + (read.kept().isEmpty() ? "" : " Kept and not reckoned with: " + String.join(" ", read.kept()) + ".");
    }

    /** time, windFromDeg, windMps, gustMps, temperatureC, dewPointC, visibilityM, cloudBaseM (empty: none), rain. */
    static List<Observation> forecast(String csv) {
        List<Observation> hours = new ArrayList<>();
        String[] lines = csv.strip().split("\\R");
        for (int i = 1; i < lines.length; i++) {
            String[] c = lines[i].split(",", -1);
            if (c.length != COLUMNS) {
                throw new IllegalArgumentException(
                        "forecast line " + (i + 1) + ": " + COLUMNS + " columns are expected, found " + c.length);
            }
            OptionalDouble cloud = number(c[7], i);
            hours.add(new Observation(
                    instant(c[0], i),
                    number(c[1], i),
                    false,
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    number(c[2], i),
                    number(c[3], i),
                    10,
                    number(c[6], i),
                    c[8].equals("yes") ? List.of("rain") : List.of(),
                    cloud.isPresent() ? List.of(new Observation.Layer("cloud", cloud, "")) : List.of(),
                    cloud.isEmpty(),
                    number(c[4], i),
                    number(c[5], i),
                    OptionalDouble.empty(),
                    Optional.of(c[8].equals("yes")),
                    List.of()));
        }
        return hours;
    }

    private static Instant instant(String s, int line) {
        try {
            return Instant.parse(s);
        } catch (java.time.DateTimeException e) {
            throw new IllegalArgumentException("forecast line " + (line + 1) + ": “" + s + "” is no time in UTC", e);
        }
    }

    private static OptionalDouble number(String s, int line) {
        if (s.isBlank()) {
            return OptionalDouble.empty();
        }
        if (!NUMBER.matcher(s).matches()) {
            throw new IllegalArgumentException("forecast line " + (line + 1) + ": “" + s + "” is no number");
        }
        return OptionalDouble.of(Double.parseDouble(s));
    }
}
