package yarrek.core.weather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.time.Light;
import yarrek.core.time.TimeWindow;

/** Wind at height, moisture, cloud, and the sun's day. */
class WeatherTest {
    /** 6 m/s at 2 m over open land is 6 · (100/2)^(1/7) = 10.49 m/s at 100 m. */
    @Test
    void windAtFlightHeightFollowsThePowerLaw() {
        assertThat(Wind.at(6, 2, 100, Wind.Terrain.OPEN_LAND)).isCloseTo(10.49, within(0.005));
        assertThat(Wind.why(6, 2, 100, Wind.Terrain.OPEN_LAND)).contains("10.49 m/s at 100 m");
    }

    @Test
    void windGrowsWithHeightAndRoughness() {
        Random random = new Random(2);
        for (int i = 0; i < 200; i++) {
            double w = random.nextDouble() * 20;
            double h = 10 + random.nextDouble() * 150;
            assertThat(Wind.at(w, 10, h + 1, Wind.Terrain.CITY))
                    .isGreaterThanOrEqualTo(Wind.at(w, 10, h, Wind.Terrain.CITY));
            assertThat(Wind.at(w, 10, h, Wind.Terrain.CITY))
                    .isGreaterThanOrEqualTo(Wind.at(w, 10, h, Wind.Terrain.OPEN_WATER));
            assertThat(Wind.at(w, 10, 10, Wind.Terrain.SUBURB)).isEqualTo(w);
        }
        assertThatThrownBy(() -> Wind.at(5, 0, 100, Wind.Terrain.CITY)).isInstanceOf(IllegalArgumentException.class);
    }

    /** Magnus over water: 20 °C and 9.3 °C is close to 50 % (WMO-No. 8 tables). */
    @ParameterizedTest
    @CsvSource({"20, 20, 100, 0", "20, 9.26, 50, 1342.5", "10, 10, 100, 0"})
    void moistureFollowsFromTheDewPoint(double t, double dew, double pct, double base) {
        assertThat(Humidity.relativePct(t, dew)).isCloseTo(pct, within(0.2));
        assertThat(Humidity.cloudBaseM(t, dew)).isCloseTo(base, within(0.1));
    }

    @ParameterizedTest
    @CsvSource({"5, 2, true", "5, 1.9, false", "5.1, 5, false", "-20, -22, true", "-20.1, -21, false"})
    void icingAtItsBounds(double t, double dew, boolean likely) {
        assertThat(Humidity.icingLikely(t, dew)).isEqualTo(likely);
    }

    private static Observation observed(double wind, OptionalDouble gust, double cloudM, String phenomenon) {
        return new Observation(
                Instant.parse("2027-06-12T10:00:00Z"),
                OptionalDouble.of(240),
                false,
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.of(wind),
                gust,
                10,
                OptionalDouble.of(8000),
                phenomenon.isEmpty() ? List.of() : List.of(phenomenon),
                List.of(new Observation.Layer("broken", OptionalDouble.of(cloudM), "")),
                false,
                OptionalDouble.of(12),
                OptionalDouble.of(8),
                OptionalDouble.empty(),
                Optional.of(false),
                List.of());
    }

    private static double value(Facts f, String name) {
        return ((FactValue.Quantity) f.get(name).orElseThrow().value()).value();
    }

    @Test
    void theWorstOfSeveralObservationsBecomesTheFacts() {
        Facts.Builder b = Facts.builder(ZoneOffset.UTC);
        WeatherFacts.put(
                b,
                List.of(observed(5, OptionalDouble.of(9), 200, ""), observed(7, OptionalDouble.of(8), 450, "")),
                OptionalDouble.of(90),
                Wind.Terrain.OPEN_WATER,
                "test");
        Facts f = b.build();
        assertThat(value(f, "weather.windMps")).isCloseTo(7 * Math.pow(9, 0.11), within(0.006));
        assertThat(value(f, "weather.gustMps")).isCloseTo(9 * Math.pow(9, 0.11), within(0.006));
        assertThat(value(f, "weather.cloudBelowM")).isEqualTo(110);
        assertThat(value(f, "weather.visibilityM")).isEqualTo(8000);
        assertThat(((FactValue.YesNo) f.get("weather.inCloud").orElseThrow().value()).value())
                .isFalse();
    }

    @Test
    void withoutAReportedGustUpToFiveAboveTheMeanIsPossible() {
        Facts.Builder b = Facts.builder(ZoneOffset.UTC);
        WeatherFacts.put(
                b,
                List.of(observed(5, OptionalDouble.empty(), 200, "")),
                OptionalDouble.of(10),
                Wind.Terrain.CITY,
                "test");
        FactValue.Quantity gust = (FactValue.Quantity)
                b.build().get("weather.gustMps").orElseThrow().value();
        assertThat(gust.value() - gust.uncertainty()).isCloseTo(5, within(0.01));
        assertThat(gust.value() + gust.uncertainty()).isCloseTo(10, within(0.01));
    }

    @Test
    void fogIsCloudWhateverTheBase() {
        Facts.Builder b = Facts.builder(ZoneOffset.UTC);
        WeatherFacts.put(
                b,
                List.of(observed(1, OptionalDouble.empty(), 900, "fog")),
                OptionalDouble.of(50),
                Wind.Terrain.CITY,
                "test");
        assertThat(((FactValue.YesNo)
                                b.build().get("weather.inCloud").orElseThrow().value())
                        .value())
                .isTrue();
    }

    private static Facts withTrend(Observation may, String from, String until, String window) {
        Observation now = observed(5, OptionalDouble.of(8), 600, "");
        Observation o = new Observation(
                now.at(),
                now.windFromDeg(),
                false,
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                now.windMps(),
                now.gustMps(),
                10,
                now.visibilityM(),
                List.of(),
                now.layers(),
                false,
                now.temperatureC(),
                now.dewPointC(),
                OptionalDouble.empty(),
                Optional.of(false),
                List.of(new Observation.Change(Instant.parse(from), Instant.parse(until), may)));
        Facts.Builder b = Facts.builder(ZoneOffset.UTC);
        Instant at = Instant.parse(window);
        b.window(new TimeWindow(at, at.plusSeconds(1800)));
        WeatherFacts.put(b, List.of(o), OptionalDouble.of(100), Wind.Terrain.OPEN_WATER, "test");
        return b.build();
    }

    private static FactValue.Quantity quantity(Facts f, String name) {
        return (FactValue.Quantity) f.get(name).orElseThrow().value();
    }

    /** A trend opens the worse side of a figure and closes no other; fog that may come leaves cloud not known. */
    @Test
    void aTrendIsReckonedWithAsMayBe() {
        String ten = "2027-06-12T10:00:00Z";
        String noon = "2027-06-12T12:00:00Z";
        Facts f = withTrend(observed(12, OptionalDouble.of(20), 60, "fog"), ten, noon, ten);
        double up = Math.pow(10, 0.11);
        assertThat(quantity(f, "weather.windMps").low()).isCloseTo(5 * up, within(0.01));
        assertThat(quantity(f, "weather.windMps").high()).isCloseTo(12 * up, within(0.02));
        assertThat(quantity(f, "weather.gustMps").low()).isCloseTo(8 * up, within(0.01));
        assertThat(quantity(f, "weather.gustMps").high()).isCloseTo(20 * up, within(0.02));
        assertThat(quantity(f, "weather.cloudBelowM").low()).isZero();
        assertThat(quantity(f, "weather.cloudBelowM").high()).isEqualTo(500);
        assertThat(f.get("weather.inCloud")).isEmpty();
        assertThat(f.get("weather.windMps").orElseThrow().source()).contains("trend");

        Facts better = withTrend(observed(1, OptionalDouble.of(2), 3000, ""), ten, noon, ten);
        assertThat(quantity(better, "weather.windMps").high()).isCloseTo(5 * up, within(0.01));
        assertThat(quantity(better, "weather.windMps").low()).isCloseTo(5 * up, within(0.01));
        assertThat(quantity(better, "weather.cloudBelowM").low()).isEqualTo(500);
        assertThat(better.get("weather.windMps").orElseThrow().source()).doesNotContain("trend");
    }

    @Test
    void aTrendOfOtherHoursSaysNothingOfThese() {
        Facts f = withTrend(
                observed(12, OptionalDouble.of(20), 60, "fog"),
                "2027-06-12T11:00:00Z",
                "2027-06-12T12:00:00Z",
                "2027-06-12T10:00:00Z");
        assertThat(quantity(f, "weather.windMps").high())
                .isEqualTo(quantity(f, "weather.windMps").value());
        assertThat(f.get("weather.inCloud")).isPresent();
    }

    @Test
    void whatIsNotObservedIsNotKnown() {
        Observation nothing = new Observation(
                Instant.EPOCH,
                OptionalDouble.empty(),
                false,
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                2,
                OptionalDouble.empty(),
                List.of(),
                List.of(),
                false,
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                Optional.empty(),
                List.of());
        Facts.Builder b = Facts.builder(ZoneOffset.UTC);
        WeatherFacts.put(
                b,
                List.of(observed(5, OptionalDouble.empty(), 300, ""), nothing),
                OptionalDouble.of(50),
                Wind.Terrain.CITY,
                "test");
        assertThat(b.build().values()).isEmpty();
    }

    /** Greenwich, 21 June 2024: sunrise 04:43, sunset 21:21 British summer time; civil twilight from 03:55 to 22:09 (almanac, to the minute). */
    @Test
    void theSunsDayAgreesWithTheAlmanac() {
        ZoneId london = ZoneId.of("Europe/London");
        Light.SunDay d = Light.day(LocalDate.of(2024, 6, 21), london, new Position(51.4779, 0));
        assertThat(d.sunrise().orElseThrow())
                .isBetween(Instant.parse("2024-06-21T03:42:00Z"), Instant.parse("2024-06-21T03:44:00Z"));
        assertThat(d.sunset().orElseThrow())
                .isBetween(Instant.parse("2024-06-21T20:20:30Z"), Instant.parse("2024-06-21T20:22:30Z"));
        assertThat(d.dawn().orElseThrow())
                .isBetween(Instant.parse("2024-06-21T02:53:30Z"), Instant.parse("2024-06-21T02:56:30Z"));
        assertThat(d.dusk().orElseThrow())
                .isBetween(Instant.parse("2024-06-21T21:08:00Z"), Instant.parse("2024-06-21T21:11:00Z"));
    }

    @Test
    void whereTheSunNeverSetsThereIsNoSunset() {
        Light.SunDay d = Light.day(LocalDate.of(2024, 6, 21), ZoneOffset.UTC, new Position(78, 15));
        assertThat(d.sunrise()).isEmpty();
        assertThat(d.sunset()).isEmpty();
        assertThat(d.words(ZoneOffset.UTC)).isEqualTo("The sun does not set");
    }

    /** At 70 degrees north at midwinter there is a civil twilight and no sun; at 85 degrees there is neither. */
    @Test
    void theWordsOfADaySayWhatDoesNotHappen() {
        LocalDate midwinter = LocalDate.of(2024, 12, 21);
        assertThat(Light.day(midwinter, ZoneOffset.UTC, new Position(70, 0)).words(ZoneOffset.UTC))
                .matches(
                        "Civil twilight from \\d\\d:\\d\\d, the sun does not rise, end of civil twilight \\d\\d:\\d\\d");
        assertThat(Light.day(midwinter, ZoneOffset.UTC, new Position(84, 0)).words(ZoneOffset.UTC))
                .isEqualTo("The sun does not rise, it is night all day, without civil twilight");
        assertThat(Light.day(LocalDate.of(2024, 6, 21), ZoneOffset.UTC, new Position(62, 0))
                        .words(ZoneOffset.UTC))
                .matches("Sunrise 02:09, sunset 21:54, civil twilight lasts through the night");
        assertThat(Light.day(midwinter, ZoneOffset.UTC, new Position(51.4779, 0))
                        .words(ZoneOffset.UTC))
                .isEqualTo("Civil twilight from 07:23, sunrise 08:03, sunset 15:53, end of civil twilight 16:33");
    }
}
