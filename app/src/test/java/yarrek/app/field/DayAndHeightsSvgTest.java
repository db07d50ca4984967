package yarrek.app.field;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.w3c.dom.Element;
import yarrek.app.page.Show;
import yarrek.app.print.Drawing;
import yarrek.core.airspace.HeightAllowed;
import yarrek.core.judging.HourStrip;
import yarrek.core.rulebook.Verdict;
import yarrek.core.time.Light;
import yarrek.core.weather.Wind;

class DayAndHeightsSvgTest {
    private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");
    private static final Show SHOW = new Show();

    private static HourStrip.Hour hour(Instant start, Verdict verdict, OptionalDouble wind) {
        return new HourStrip.Hour(
                start,
                Light.CIVIL_TWILIGHT,
                true,
                Optional.empty(),
                wind,
                wind.isPresent() ? OptionalDouble.of(wind.getAsDouble() * 2) : wind,
                verdict,
                verdict == Verdict.MET ? List.of() : List.of("Wind <limit>"));
    }

    private static HourStrip day(LocalDate day, Verdict verdict, OptionalDouble wind, OptionalDouble limit) {
        List<HourStrip.Hour> hours = new ArrayList<>();
        Instant end = day.plusDays(1).atStartOfDay(BERLIN).toInstant();
        for (Instant i = day.atStartOfDay(BERLIN).toInstant(); i.isBefore(end); i = i.plusSeconds(3600)) {
            hours.add(hour(i, verdict, wind));
        }
        return new HourStrip(
                day,
                BERLIN,
                new Light.SunDay(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), 10, -40),
                hours,
                List.of(),
                120,
                Optional.<Wind.Terrain>empty(),
                limit,
                12,
                List.of(),
                List.of());
    }

    private static Drawing read(HourStrip s) {
        return Drawing.read(HourStripSvg.write(s, SHOW));
    }

    /** An hour more in autumn, one less in spring: each has its place, and none leaves the sheet. */
    @ParameterizedTest
    @CsvSource({"2026-10-25, 25", "2026-03-29, 23", "2026-06-01, 24"})
    void everyHourOfTheDayHasItsPlace(LocalDate day, int hours) {
        Drawing d = read(day(day, Verdict.MET, OptionalDouble.of(3), OptionalDouble.empty()));
        d.standsInItsSheet();
        assertThat(d.all("lt lt-civil_twilight")).hasSize(hours);
        assertThat(Drawing.end(d.all("lt").get(hours - 1))).isCloseTo(875, org.assertj.core.data.Offset.offset(0.02));
    }

    @Test
    void windAndGustAreDrawnToScaleAgainstTheLimit() {
        Drawing d = read(day(LocalDate.of(2026, 6, 1), Verdict.MET, OptionalDouble.of(3), OptionalDouble.of(9)));
        assertThat(Drawing.number(d.all("wind").get(0), "height")).isEqualTo(18);
        assertThat(Drawing.number(d.all("gust").get(0), "height")).isEqualTo(36);
        assertThat(Drawing.number(d.one("limit"), "y1")).isEqualTo(126 - 54);
        assertThat(d.one("lim-text").getTextContent()).isEqualTo("maker: 9.0 m/s");
    }

    /** No report is a question mark, never a calm. */
    @Test
    void windThatIsNotKnownIsAQuestionMark() {
        Drawing d =
                read(day(LocalDate.of(2026, 6, 1), Verdict.NOT_KNOWN, OptionalDouble.empty(), OptionalDouble.empty()));
        assertThat(d.all("wind")).isEmpty();
        assertThat(d.all("limit")).isEmpty();
        assertThat(d.all("soft").stream().map(Element::getTextContent).filter("?"::equals))
                .hasSize(24);
    }

    @ParameterizedTest
    @EnumSource(Verdict.class)
    void everyVerdictHasItsShapeAndItsWords(Verdict verdict) {
        Drawing d = read(day(LocalDate.of(2026, 6, 1), verdict, OptionalDouble.of(3), OptionalDouble.empty()));
        assertThat(d.all("s-" + verdict.shape())).hasSize(24);
        assertThat(d.words()).contains("00:00: " + (verdict == Verdict.MET ? "nothing against it" : "Wind <limit>"));
    }

    private static HeightAllowed.Stretch stretch(double from, double to, double height) {
        return new HeightAllowed.Stretch(from, to, new HeightAllowed.At(height, "open ground", ""));
    }

    @Test
    void heightsStandOverTheGroundTheyHoldFor() {
        List<HeightAllowed.Stretch> stretches =
                List.of(stretch(0, 600, 120), stretch(600, 610, 135), stretch(610, 1000, 60));
        Drawing d = Drawing.read(
                HeightsSvg.write(new Lookout.Section("along", 1000, stretches, stretches.get(2), 135), SHOW));
        d.standsInItsSheet();
        List<Element> may = d.all("may");
        assertThat(may).hasSize(3);
        assertThat(Drawing.end(may.get(0)))
                .isEqualTo(Drawing.number(may.get(1), "x"))
                .isEqualTo(430);
        assertThat(Drawing.number(may.get(1), "y"))
                .as("the highest reaches the top")
                .isEqualTo(30);
        assertThat(Drawing.number(may.get(2), "height")).isEqualTo(42.22);
        assertThat(d.words())
                .contains("120.0 m", "60.0 m", "1,000 m")
                .as("no room over ten metres")
                .doesNotContain("135.0 m");
    }
}
