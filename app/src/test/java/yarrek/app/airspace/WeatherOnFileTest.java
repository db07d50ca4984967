package yarrek.app.airspace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.util.LinkedMultiValueMap;
import org.springframework.util.MultiValueMap;
import yarrek.core.weather.Observation;

/** Figures as typed, and the station's table. */
class WeatherOnFileTest {
    private static final ZoneId AZORES = ZoneId.of("Atlantic/Azores");
    private static final LocalDate TODAY = LocalDate.of(2027, 6, 12);

    private static MultiValueMap<String, String> typed(String... pairs) {
        MultiValueMap<String, String> p = new LinkedMultiValueMap<>();
        p.add("time", "9:30");
        for (String pair : pairs) {
            p.add(pair.split("=")[0], pair.split("=")[1]);
        }
        return p;
    }

    @Test
    void figuresAreReadWithTheirUnitsAndTheRestStaysUnknown() {
        Observation o = TypedWeather.read(typed("wind=10 kn", "cloud=1000 ft", "precipitation=no"), AZORES, TODAY);
        // the Azores are on UTC in summer
        assertThat(o.at()).isEqualTo(Instant.parse("2027-06-12T09:30:00Z"));
        assertThat(o.windMps().getAsDouble()).isCloseTo(5.144, within(0.001));
        assertThat(o.windHeightM()).isEqualTo(2);
        assertThat(o.lowestCloudM().getAsDouble()).isCloseTo(304.8, within(1e-9));
        assertThat(o.gustMps()).isEmpty();
        assertThat(o.visibilityM()).isEmpty();
        assertThat(o.precipitation()).contains(false);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "wind=8 m/s;gust=5 m/s|gust: below the mean wind",
                "temperature=5;dew=6|dew point: above the temperature",
                "wind=-3|wind: must be from 0 to 100",
                "visibility=far|visibility: “far” is not understood",
                "precipitation=yes|type at least one figure"
            })
    void whatCannotBeIsRefusedByItsField(String pairs, String told) {
        assertThatThrownBy(() -> TypedWeather.read(typed(pairs.split(";")), AZORES, TODAY))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(told);
    }

    private static final String HEAD =
            "time,windFromDeg,windMps,gustMps,temperatureC,dewPointC,visibilityM,cloudBaseM,rain\n";

    @Test
    void theStationsTableIsReadAndNoCloudBaseIsAClearSky() {
        List<Observation> hours = WeatherStation.forecast(HEAD + "2027-06-12T10:00:00Z,240,6.1,,12.5,8.0,10000,,no\n");
        assertThat(hours).singleElement().satisfies(o -> {
            assertThat(o.skyClear()).isTrue();
            assertThat(o.gustMps()).isEmpty();
            assertThat(o.windFromDeg()).isEqualTo(OptionalDouble.of(240));
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "2027-06-12T10:00:00Z,240,6.1|forecast line 2: 9 columns are expected, found 3",
                "noon,240,6,8,12,8,10000,500,no|forecast line 2: “noon” is no time in UTC",
                "2027-06-12T10:00:00Z,240,six,8,12,8,10000,500,no|forecast line 2: “six” is no number"
            })
    void rubbishFromTheStationIsRefusedByItsLine(String line, String told) {
        assertThatThrownBy(() -> WeatherStation.forecast(HEAD + line)).hasMessageContaining(told);
    }
}
