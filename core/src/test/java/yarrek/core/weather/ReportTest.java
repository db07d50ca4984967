package yarrek.core.weather;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.time.TimeWindow;

/** Which report speaks for an hour. */
class ReportTest {
    private static final Instant TEN = Instant.parse("2027-06-12T10:00:00Z");

    private static Report report(Instant at, Report.Kind kind, double wind) {
        return SomeWeather.report(kind, SomeWeather.wind(at, wind));
    }

    @ParameterizedTest(name = "{0} minutes after: observation {1}, forecast {2}")
    @CsvSource({
        "-31, false, false",
        "-30, false, true",
        "0, true, true",
        "30, true, true",
        "31, true, false",
        "75, true, false",
        "76, false, false"
    })
    void anObservationHoldsAfterItAndAForecastAroundIt(int minutes, boolean observation, boolean forecast) {
        Instant t = TEN.plusSeconds(60L * minutes);
        assertThat(report(TEN, Report.Kind.METAR, 5).speaksFor(t)).isEqualTo(observation);
        assertThat(report(TEN, Report.Kind.FORECAST, 5).speaksFor(t)).isEqualTo(forecast);
    }

    @Test
    void whatWasObservedCountsBeforeWhatWasForecastAndTheNewestFirst() {
        Report forecast = report(TEN.plusSeconds(1800), Report.Kind.FORECAST, 1);
        Report old = report(TEN, Report.Kind.METAR, 2);
        Report newer = report(TEN.plusSeconds(1200), Report.Kind.TYPED, 3);
        assertThat(Report.at(List.of(forecast, old), TEN.plusSeconds(1800))).contains(old);
        assertThat(Report.at(List.of(forecast, old, newer), TEN.plusSeconds(1800)))
                .contains(newer);
    }

    @Test
    void hoursWithAHoleAreNotCovered() {
        List<Report> hourly = List.of(
                report(TEN, Report.Kind.FORECAST, 1),
                report(TEN.plusSeconds(3600), Report.Kind.FORECAST, 2),
                report(TEN.plusSeconds(3 * 3600), Report.Kind.FORECAST, 3));
        assertThat(Report.covering(hourly, List.of(new TimeWindow(TEN, TEN.plusSeconds(3600))))
                        .orElseThrow())
                .hasSize(2);
        assertThat(Report.covering(hourly, List.of(new TimeWindow(TEN, TEN.plusSeconds(3 * 3600)))))
                .isEmpty();
    }

    /** An hour takes its own figure, not that of the hour that begins when it ends. */
    @Test
    void theMiddleOfAnHourHasTheFiguresOfThatHour() {
        List<Report> hourly =
                List.of(report(TEN, Report.Kind.FORECAST, 1), report(TEN.plusSeconds(3600), Report.Kind.FORECAST, 2));
        assertThat(Report.at(hourly, Report.middleOfHour(TEN))).contains(hourly.get(0));
        assertThat(Report.at(hourly, Report.middleOfHour(TEN.plusSeconds(3600))))
                .contains(hourly.get(1));
    }
}
