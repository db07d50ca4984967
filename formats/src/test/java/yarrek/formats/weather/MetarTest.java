package yarrek.formats.weather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.weather.Observation;

/** Reports read whole. */
class MetarTest {
    private static final Instant NOW = Instant.parse("2027-06-12T14:10:00Z");

    private static Metar.Reading read(String text) {
        return Metar.read(text, NOW);
    }

    @Test
    void everyGroupOfAFullReportIsRead() {
        Metar.Reading r = read(
                "METAR XTAR 121350Z AUTO 24012G25KT 210V280 4000 1500SW R27/1200 -SHRA BR FEW008 BKN015CB 11/M02 Q0998 RERA TEMPO 3000 RMK A2 QFE 990=");
        Observation o = r.observation();
        assertThat(r.station()).isEqualTo("XTAR");
        assertThat(r.automatic()).isTrue();
        assertThat(o.at()).isEqualTo(Instant.parse("2027-06-12T13:50:00Z"));
        assertThat(o.windFromDeg()).isEqualTo(OptionalDouble.of(240));
        assertThat(o.windMps().getAsDouble()).isCloseTo(12 * 1852 / 3600.0, within(1e-9));
        assertThat(o.gustMps().getAsDouble()).isCloseTo(25 * 1852 / 3600.0, within(1e-9));
        assertThat(o.variesFromDeg()).isEqualTo(OptionalDouble.of(210));
        assertThat(o.visibilityM()).isEqualTo(OptionalDouble.of(1500));
        assertThat(o.phenomena()).containsExactly("light showers of rain", "mist");
        assertThat(o.precipitation()).isEqualTo(Optional.of(true));
        assertThat(o.layers()).hasSize(2);
        assertThat(o.layers().get(1).kind()).isEqualTo("cumulonimbus");
        assertThat(o.lowestCloudM().getAsDouble()).isCloseTo(243.84, within(1e-9));
        assertThat(o.temperatureC()).isEqualTo(OptionalDouble.of(11));
        assertThat(o.dewPointC()).isEqualTo(OptionalDouble.of(-2));
        assertThat(o.pressureHpa()).isEqualTo(OptionalDouble.of(998));
        assertThat(r.kept()).containsExactly("R27/1200", "RERA");
        assertThat(r.trend()).isEqualTo("TEMPO 3000");
        assertThat(r.remarks()).isEqualTo("A2 QFE 990");
    }

    @ParameterizedTest(name = "{0}: {1} m")
    @CsvSource({
        "CAVOK, 10000",
        "9999, 10000",
        "0300, 300",
        "10SM, 16093.44",
        "1/2SM, 804.672",
        "1 1/2SM, 2414.016",
        "P6SM, 9656.064",
        "M1/4SM, 402.336"
    })
    void visibilityIsReadInMetresAndMiles(String group, double metres) {
        assertThat(read("XTAR 121350Z 00000KT " + group + " 10/08 Q1013")
                        .observation()
                        .visibilityM()
                        .getAsDouble())
                .isCloseTo(metres, within(0.001));
    }

    @Test
    void variableCalmAndMissingWindsAreToldApart() {
        Observation variable = read("XTAR 121350Z VRB02KT CAVOK 10/08 Q1013").observation();
        assertThat(variable.windVariable()).isTrue();
        assertThat(variable.windFromDeg()).isEmpty();
        assertThat(variable.skyClear()).isTrue();
        Observation missing = read("XTAR 121350Z /////KT //// 10/08 Q1013").observation();
        assertThat(missing.windMps()).isEmpty();
        assertThat(missing.visibilityM()).isEmpty();
        assertThat(read("XTAR 121350Z 18005MPS CAVOK 10/// A2992").observation().dewPointC())
                .isEmpty();
    }

    @Test
    void pressureInInchesIsConverted() {
        assertThat(read("XTAR 121350Z 18005KT 10SM CLR 10/08 A2992")
                        .observation()
                        .pressureHpa()
                        .getAsDouble())
                .isCloseTo(1013.2, within(0.1));
    }

    @Test
    void fogAndFreezingFogAreFogButShallowFogAndTheVicinityAreNot() {
        assertThat(read("XTAR 121350Z 00000KT 0200 FG VV001 08/08 Q1013")
                        .observation()
                        .isFog())
                .isTrue();
        assertThat(read("XTAR 121350Z 00000KT 0200 FZFG 01/01 Q1013")
                        .observation()
                        .isFog())
                .isTrue();
        assertThat(read("XTAR 121350Z 00000KT 9999 MIFG 08/08 Q1013")
                        .observation()
                        .isFog())
                .isFalse();
        assertThat(read("XTAR 121350Z 00000KT 9999 VCFG 08/08 Q1013")
                        .observation()
                        .isFog())
                .isFalse();
    }

    @ParameterizedTest(name = "{0} is {1}")
    @CsvSource({
        "121350Z, 2027-06-12T13:50:00Z",
        "121450Z, 2027-06-12T14:50:00Z",
        "011520Z, 2027-06-01T15:20:00Z",
        "311200Z, 2027-05-31T12:00:00Z"
    })
    void theDayIsTheNewestOneThatIsNotAhead(String group, Instant at) {
        assertThat(read("XTAR " + group + " 00000KT CAVOK 10/08 Q1013")
                        .observation()
                        .at())
                .isEqualTo(at);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "XTAR", "good weather today", "XTAR 129950Z 00000KT", "XTAR 001350Z 00000KT"})
    void whatIsNoReportIsRefused(String text) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aGroupThatIsNotUnderstoodIsKeptAndNeverGuessedAt() {
        Metar.Reading r = read("XTAR 121350Z 24O12KT 9999 10/08 Q1013");
        assertThat(r.observation().windMps()).isEmpty();
        assertThat(r.kept()).containsExactly("24O12KT");
    }

    /** Text that is no report, or that no station would send, is refused and not half read. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "METAR XTAR 121350Z 24012KT 9999 FEW030 15/09 Q1015 METAR XTAS 121350Z 24030KT 2000",
                "XTAR 121350Z 24012KT 9999 FEW030 15/09 Q1015 XTAS 121320Z 24030KT 2000",
                "XTAR 121350Z 24012KT 1/0SM FEW030",
                "XTAR 121350Z NIL",
                "XTAR 121350Z",
                "XTAR 121350Z 40012KT 9999",
                "XTAR 121350Z 24012KT 210V370 9999",
                "XTAR 121350Z 24012G08KT 9999",
                "XTAR 121350Z 24012KT 9999 FEW030 08/12 Q1015",
                "XTAR 131350Z 24012KT 9999",
                "XTAR 121520Z 24012KT 9999",
            })
    void whatNoStationSendsIsRefused(String text) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void showersWithoutAKindReadAsSuch() {
        assertThat(read("XTAR 121350Z 24012KT 9999 VCSH FEW030").observation().phenomena())
                .containsExactly("showers in the vicinity");
    }

    /** A layer whose base nobody reported may be the lowest: how far below cloud is then not known. */
    @Test
    void cloudOfUnknownHeightIsNotAbsent() {
        var put = yarrek.core.rulebook.Facts.builder(java.time.ZoneOffset.UTC);
        yarrek.core.weather.WeatherFacts.put(
                put,
                java.util.List.of(
                        read("XTAR 121350Z 24012KT 9999 BKN/// OVC080").observation()),
                OptionalDouble.of(100),
                yarrek.core.weather.Wind.Terrain.SUBURB,
                "test");
        assertThat(put.build().get("weather.inCloud")).isEmpty();
        assertThat(put.build().get("weather.cloudBelowM")).isEmpty();
    }

    /** Two hours from the report unless the change says its own times; figures that do not change are not repeated. */
    @Test
    void aTrendIsRead() {
        var o = read("XTAR 121350Z 24012KT 9999 FEW030 15/09 Q1015 BECMG FM1430 27025G38KT TEMPO TL1500 0800 FG BKN002")
                .observation();
        assertThat(o.mayBe()).hasSize(2);
        var first = o.mayBe().get(0);
        assertThat(first.from()).isEqualTo(Instant.parse("2027-06-12T14:30:00Z"));
        assertThat(first.until()).isEqualTo(Instant.parse("2027-06-12T15:50:00Z"));
        assertThat(first.to().windMps().orElseThrow()).isCloseTo(12.861, within(0.001));
        assertThat(first.to().visibilityM()).isEmpty();
        var second = o.mayBe().get(1);
        assertThat(second.from()).isEqualTo(o.at());
        assertThat(second.until()).isEqualTo(Instant.parse("2027-06-12T15:00:00Z"));
        assertThat(second.to().visibilityM()).hasValue(800);
        assertThat(second.to().isFog()).isTrue();
        assertThat(second.to().lowestCloudM().orElseThrow()).isCloseTo(60.96, within(0.001));
        assertThat(o.windMps().orElseThrow()).isCloseTo(6.173, within(0.001));
    }

    /** Over midnight, at 24 hours, or with a time beyond the two hours, which is then not relied on. */
    @ParameterizedTest
    @CsvSource({
        "112340Z, FM0015, 2027-06-12T00:15:00Z",
        "112340Z, AT2400, 2027-06-12T00:00:00Z",
        "121350Z, FM1900, 2027-06-12T13:50:00Z",
        "121350Z, FM2575, 2027-06-12T13:50:00Z"
    })
    void theTimesOfATrend(String at, String time, Instant from) {
        var o = read("XTAR " + at + " 24012KT 9999 FEW030 15/09 Q1015 BECMG " + time + " 2000 BR")
                .observation();
        assertThat(o.mayBe())
                .singleElement()
                .satisfies(c -> assertThat(c.from()).isEqualTo(from));
    }

    @Test
    void aTrendWithoutAChangeOrNotUnderstoodIsNotOne() {
        assertThat(read("XTAR 121350Z 24012KT 9999 FEW030 15/09 Q1015 NOSIG")
                        .observation()
                        .mayBe())
                .isEmpty();
        assertThat(read("XTAR 121350Z 24012KT 9999 FEW030 15/09 Q1015 TEMPO 24O25KT")
                        .kept())
                .containsExactly("24O25KT");
    }
}
