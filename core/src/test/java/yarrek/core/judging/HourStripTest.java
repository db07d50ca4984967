package yarrek.core.judging;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static yarrek.core.rulebook.SomeRules.atMost;
import static yarrek.core.rulebook.SomeRules.law;
import static yarrek.core.rulebook.SomeRules.pack;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.geo.Position;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.WordIsOneOf;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.Report;
import yarrek.core.weather.SomeWeather;
import yarrek.core.weather.Wind;

/** A day by the hour: what speaks against each, and the hours in which nothing does. */
class HourStripTest {
    private static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    private static final LocalDate DAY = LocalDate.of(2027, 6, 12);
    private static final Position LAUNCH = new Position(46.59, -17.905);

    private static final RulePack WIND = pack(law("WIND", Condition.always(), atMost("weather.windMps", 10)));
    private static final RulePack DAYLIGHT =
            pack(law("DAYLIGHT", Condition.always(), new WordIsOneOf("light", Set.of("day"))));

    private static Instant at(LocalDate day, int hour, int minute) {
        return day.atTime(LocalTime.of(hour, minute)).atZone(ZONE).toInstant();
    }

    /** A forecast for each hour and half hour of a day, of a wind at 10 m. */
    private static List<Report> steady(LocalDate day, double mps) {
        List<Report> reports = new ArrayList<>();
        Instant end = day.plusDays(1).atStartOfDay(ZONE).toInstant();
        for (Instant t = day.atStartOfDay(ZONE).toInstant(); t.isBefore(end); t = t.plus(Duration.ofMinutes(30))) {
            reports.add(SomeWeather.report(Report.Kind.FORECAST, SomeWeather.wind(t, mps)));
        }
        return reports;
    }

    private static HourStrip strip(LocalDate day, RulePack pack, List<Report> reports, Wind.Terrain terrain) {
        Facts facts = Facts.builder(ZONE)
                .word("jurisdiction", "EU", "t")
                .quantity("maker.windMps", 12, 0, "maker")
                .window(new TimeWindow(at(day, 10, 0), at(day, 11, 0)))
                .build();
        return HourStrip.of(
                new HourStrip.Subject(
                        ZONE,
                        LAUNCH,
                        Optional.ofNullable(terrain),
                        List.of(new TimeWindow(at(day, 10, 30), at(day, 12, 0))),
                        OptionalDouble.of(10),
                        facts,
                        List.of(pack),
                        reports),
                day);
    }

    @ParameterizedTest(name = "{0} m/s under a limit of 10: {1}")
    @CsvSource({"9.4, MET", "9.5, CLOSE", "10, CLOSE", "10.1, BREACHED"})
    void anHourIsWhatTheWorstOfItsRulesSays(double wind, Verdict verdict) {
        HourStrip s = strip(DAY, WIND, steady(DAY, wind), Wind.Terrain.OPEN_WATER);
        assertThat(s.hours()).hasSize(24).extracting(HourStrip.Hour::verdict).containsOnly(verdict);
        assertThat(s.hours().get(12).windMps().orElseThrow()).isCloseTo(wind, within(1e-9));
        assertThat(s.windows()).hasSize(verdict == Verdict.BREACHED ? 0 : 1);
    }

    @Test
    void hoursWithinTheLimitsStandTogetherAndTellWhetherTheyAreThoseOfTheJob() {
        List<Report> reports = new ArrayList<>(steady(DAY, 5));
        reports.removeIf(r -> !r.at().isBefore(at(DAY, 14, 0)) && r.at().isBefore(at(DAY, 16, 30)));
        HourStrip s = strip(DAY, WIND, reports, Wind.Terrain.OPEN_WATER);
        assertThat(s.windows())
                .containsExactly(
                        new HourStrip.Window(at(DAY, 0, 0), at(DAY, 14, 0), true),
                        new HourStrip.Window(at(DAY, 16, 0), at(DAY.plusDays(1), 0, 0), false));
        assertThat(s.hours().get(14).verdict()).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(s.hours().get(14).against()).containsExactly("no weather on file");
        assertThat(s.hours().stream().filter(HourStrip.Hour::inJob).map(h -> h.start()))
                .containsExactly(at(DAY, 10, 0), at(DAY, 11, 0));
    }

    @Test
    void aRuleOnLightIsBrokenByNightAndMetByDay() {
        HourStrip s = strip(DAY, DAYLIGHT, steady(DAY, 2), Wind.Terrain.OPEN_WATER);
        assertThat(s.hours().get(1).verdict()).isEqualTo(Verdict.BREACHED);
        assertThat(s.hours().get(1).against()).containsExactly("DAYLIGHT");
        assertThat(s.hours().get(13).verdict()).isEqualTo(Verdict.MET);
    }

    @Test
    void withoutTerrainNoWindAloftIsKnownAndNothingIsTakenAsFine() {
        HourStrip s = strip(DAY, WIND, steady(DAY, 2), null);
        assertThat(s.hours())
                .allMatch(h -> h.verdict() == Verdict.NOT_KNOWN && h.windMps().isEmpty());
        assertThat(s.hours().get(0).against()).containsExactly("terrain of the site not known");
        assertThat(s.windows()).isEmpty();
        assertThat(s.notes()).anyMatch(n -> n.contains("windward"));
    }

    @Test
    void rulesThatSpeakOfNeitherLightNorWeatherAreLeftToTheLadder() {
        RulePack height = pack(law("HEIGHT", Condition.always(), atMost("heightAboveGroundM", 120)));
        HourStrip s = strip(DAY, height, steady(DAY, 2), Wind.Terrain.OPEN_WATER);
        assertThat(s.hours()).allMatch(h -> h.verdict() == Verdict.MET);
    }

    @ParameterizedTest(name = "{0} has {1} hours")
    @CsvSource({"2027-03-28, 23", "2027-10-31, 25", "2027-06-12, 24"})
    void aDayHasTheHoursItsClockGivesIt(LocalDate day, int hours) {
        HourStrip s = strip(day, WIND, steady(day, 5), Wind.Terrain.OPEN_WATER);
        assertThat(s.hours()).hasSize(hours);
        assertThat(s.hours()).allMatch(h -> h.report().isPresent());
        assertThat(s.notes().stream().anyMatch(n -> n.startsWith("The clocks change")))
                .isEqualTo(hours != 24);
    }

    @Test
    void theScaleHoldsTheMakersLimitAndTheNotesTellOfMoisture() {
        Report damp = SomeWeather.report(
                Report.Kind.METAR, SomeWeather.of(at(DAY, 9, 0), 3, OptionalDouble.of(1.5), OptionalDouble.of(1.0)));
        HourStrip s = strip(DAY, WIND, List.of(damp), Wind.Terrain.OPEN_WATER);
        assertThat(s.limitMps()).hasValue(12);
        assertThat(s.scaleMps()).isEqualTo(14); // 12 and 15 % above it, rounded up
        assertThat(s.notes()).anyMatch(n -> n.startsWith("Least spread 0.5 K"));
    }
}
