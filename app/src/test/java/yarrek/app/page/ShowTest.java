package yarrek.app.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import yarrek.core.rulebook.Verdict;

class ShowTest {
    private static final Show SHOW = new Show();
    private static final LocalDate MAY = LocalDate.of(2027, 5, 3);

    /** Nothing on file is never an empty cell, and never a zero. */
    @Test
    void whatIsNotKnownSaysSo() {
        assertThat(SHOW.one(null, "m")).isEqualTo("not known");
        assertThat(SHOW.whole(Double.NaN, "m")).isEqualTo("not known");
        assertThat(SHOW.two(null, "Wh")).isEqualTo("not known");
        assertThat(SHOW.far(null)).isEqualTo("not known");
        assertThat(SHOW.whole(null, "mAh", "not in the log")).isEqualTo("not in the log");
        assertThat(SHOW.known("")).isEqualTo("not known");
        assertThat(SHOW.known((String) null)).isEqualTo("not known");
        assertThat(SHOW.known("", "with a telephone")).isEqualTo("not known");
        assertThat(SHOW.known((LocalDate) null)).isEqualTo("not known");
        assertThat(SHOW.known(Optional.empty())).isEqualTo("not known");
        assertThat(SHOW.known(OptionalDouble.empty(), "m/s")).isEqualTo("not known");
        assertThat(SHOW.which(null, "active", "not active")).isEqualTo("not known");
        assertThat(SHOW.place(46.5, null)).isEqualTo("not known");
        assertThat(SHOW.said(null)).isEqualTo("not said");
        assertThat(SHOW.dash(OptionalDouble.empty(), "°C")).isEqualTo("–");
        assertThat(SHOW.count(null, "day")).isEqualTo("–");
        assertThat(SHOW.money(null, "EUR")).isEqualTo("–");
        assertThat(SHOW.day(null)).isEqualTo("–");
    }

    @Test
    void whatIsKnownIsShownWithItsUnit() {
        assertThat(SHOW.whole(80.0, "m", "none")).isEqualTo("80 m");
        assertThat(SHOW.known("Ferry guild", "Ada")).isEqualTo("Ferry guild, Ada");
        assertThat(SHOW.known("Ferry guild", "")).isEqualTo("Ferry guild");
        assertThat(SHOW.known(Optional.of(MAY))).isEqualTo("3 May 2027");
        assertThat(SHOW.known(OptionalDouble.of(6.04), "m/s")).isEqualTo("6.0 m/s");
        assertThat(SHOW.which(false, "active", "not active")).isEqualTo("not active");
        assertThat(SHOW.place(-46.5, 179.9999999)).isEqualTo("-46.500000, 180.000000");
        assertThat(SHOW.money(new BigDecimal("120.50"), "EUR")).isEqualTo("120.50 EUR");
        assertThat(SHOW.list(List.of())).isEqualTo("nothing");
        assertThat(SHOW.list(List.of("pilot", "operator"))).isEqualTo("pilot, operator");
        assertThat(SHOW.orEmpty("")).isEqualTo("(empty)");
    }

    @ParameterizedTest
    @CsvSource({"0, 0 days", "1, 1 day", "2, 2 days", "1234, '1,234 days'"})
    void thingsAreCounted(long n, String words) {
        assertThat(SHOW.count(n, "day")).isEqualTo(words);
    }

    @Test
    void aDayAndDaysInARow() {
        assertThat(SHOW.days(MAY, MAY)).isEqualTo("3 May 2027");
        assertThat(SHOW.days(MAY, MAY.plusDays(2))).isEqualTo("3 – 5 May 2027");
        assertThat(SHOW.daysShort(MAY, MAY)).isEqualTo("Mon 3 May");
        assertThat(SHOW.daysShort(MAY, MAY.plusDays(1))).isEqualTo("Mon 3 May – Tue 4 May");
        assertThat(SHOW.dates(MAY, MAY.plusDays(1))).isEqualTo("Mon 3 May 2027 to Tue 4 May 2027");
        assertThat(SHOW.validity(null, null)).isEqualTo("with no end date");
        assertThat(SHOW.validity(MAY, MAY.plusYears(1))).isEqualTo("from 3 May 2027 to 3 May 2028");
        assertThat(SHOW.validity(null, MAY)).isEqualTo("to 3 May 2027");
    }

    /** Past midnight in one of the two clocks the day is said. */
    @Test
    void anHourOfAnotherDayByUtcSaysItsDay() {
        ZoneId azores = ZoneId.of("Atlantic/Azores");
        assertThat(SHOW.clock(Instant.parse("2026-12-02T00:30:00Z"), azores)).isEqualTo("23:30 (Wed 2 Dec 00:30 UTC)");
        assertThat(SHOW.clock(Instant.parse("2026-12-02T01:00:00Z"), azores)).isEqualTo("00:00 (01:00 UTC)");
        assertThat(SHOW.moment(Instant.parse("2026-12-02T00:59:00Z"), azores))
                .isEqualTo("Tue 1 Dec 2026 23:59 (Wed 2 Dec 00:59 UTC)");
    }

    /** The hour that comes twice when clocks go back is told apart by UTC. */
    @Test
    void aLocalTimeHasItsUtcBesideIt() {
        ZoneId berlin = ZoneId.of("Europe/Berlin");
        assertThat(SHOW.clock(Instant.parse("2026-10-25T00:30:00Z"), berlin)).isEqualTo("02:30 (00:30 UTC)");
        assertThat(SHOW.clock(Instant.parse("2026-10-25T01:30:00Z"), berlin)).isEqualTo("02:30 (01:30 UTC)");
        assertThat(SHOW.moment(Instant.parse("2026-12-31T23:30:00Z"), berlin))
                .isEqualTo("Fri 1 Jan 2027 00:30 (Thu 31 Dec 23:30 UTC)");
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0.0 s",
        "59.94, 59.9 s",
        "59.96, 1 min 00 s",
        "60, 1 min 00 s",
        "144, 2 min 24 s",
        "3599.6, 1 h 00 min",
        "3900, 1 h 05 min",
        "7199, 2 h 00 min"
    })
    void durations(double seconds, String words) {
        assertThat(SHOW.duration(seconds)).isEqualTo(words);
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0 m",
        "1240, '1,240 m'",
        "9999.4, '9,999 m'",
        "10000, 10.0 km",
        "23449, 23.4 km",
        "1234567, '1,234.6 km'"
    })
    void lengths(double m, String words) {
        assertThat(SHOW.far(m)).isEqualTo(words);
    }

    @ParameterizedTest
    @EnumSource(Verdict.class)
    void onlyWhatIsMetIsFull(Verdict v) {
        assertThat(v.shape().equals("full")).isEqualTo(v == Verdict.MET || v == Verdict.DUTY);
    }

    /** Days stand once, and again where they change. */
    @Test
    void aStretchOfHoursSaysItsDays() {
        var zone = java.time.ZoneId.of("Atlantic/Azores"); // an hour behind UTC in winter
        var from = java.time.Instant.parse("2027-01-03T11:00:00Z");
        assertThat(SHOW.stretch(from, from.plusSeconds(3 * 3600), zone))
                .isEqualTo("3 Jan 2027 11:00 to 14:00 UTC (10:00 to 13:00 local)");
        assertThat(SHOW.stretch(from.plusSeconds(12 * 3600), from.plusSeconds(14 * 3600), zone))
                .isEqualTo("3 Jan 2027 23:00 to 4 Jan 2027 01:00 UTC (22:00 to 4 Jan 2027 00:00 local)");
    }
}
