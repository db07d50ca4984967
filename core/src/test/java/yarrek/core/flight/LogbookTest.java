package yarrek.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import yarrek.core.geo.Position;

class LogbookTest {
    private static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    private static final Optional<Position> HERE = Optional.of(new Position(38.7, -27.2));

    private static Logbook.Entry flight(
            String takeoff, int minutes, Optional<Position> where, boolean landed, String pilot, String aircraft) {
        Instant at = Instant.parse(takeoff);
        return new Logbook.Entry(
                takeoff, at, at.plusSeconds(60L * minutes), ZONE, where, landed, pilot, aircraft, "", "Roof");
    }

    private static final Logbook BOOK = new Logbook(List.of(
            flight("2026-06-01T10:00:00Z", 30, HERE, true, "Ada", "Bracken"),
            // half an hour before midnight, the sun set long before; summer time there is UTC
            flight("2026-06-30T23:30:00Z", 45, HERE, true, "Ada", "Heath"),
            flight("2026-07-01T00:30:00Z", 15, HERE, false, "Bo", "Heath"),
            flight("2026-07-02T12:00:00Z", 6, Optional.empty(), true, "", "Heath")));

    @Test
    void hoursLandingsAndNightAreCountedByPilot() {
        List<Logbook.Total> t = BOOK.totals(Logbook.By.PILOT);
        assertThat(t).extracting(Logbook.Total::name).containsExactly("Ada", "Bo", "not said");
        assertThat(t.get(0).hours()).isEqualTo("1.25 h");
        assertThat(t.get(0).nightHours()).isEqualTo("0.75 h");
        assertThat(t.get(0).says()).isEqualTo("2 flights, 1.25 h, 2 landings");
        assertThat(t.get(0).landings()).isEqualTo(2);
        // the log of the third ends in the air: that is no landing
        assertThat(t.get(1).landings()).isZero();
        assertThat(t.get(2).nightHours()).isEqualTo("0 h, not known of 1");
    }

    @Test
    void monthsGoByTheClockOfThePlace() {
        Logbook.Entry winter = new Logbook.Entry(
                "w",
                Instant.parse("2026-12-01T00:30:00Z"),
                Instant.parse("2026-12-01T00:40:00Z"),
                ZONE,
                HERE,
                true,
                "",
                "",
                "",
                "");
        // an hour behind UTC in winter: still November there
        assertThat(winter.month()).isEqualTo("2026-11");
        assertThat(BOOK.totals(Logbook.By.MONTH))
                .extracting(Logbook.Total::name, Logbook.Total::flights)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("2026-07", 2),
                        org.assertj.core.groups.Tuple.tuple("2026-06", 2));
    }

    @ParameterizedTest
    @EnumSource
    void whateverItIsCountedByTheSumIsTheSame(Logbook.By by) {
        List<Logbook.Total> totals = BOOK.totals(by);
        assertThat(totals.stream().mapToInt(Logbook.Total::flights).sum())
                .isEqualTo(BOOK.all().flights());
        assertThat(totals.stream().mapToDouble(Logbook.Total::seconds).sum())
                .isCloseTo(BOOK.all().seconds(), within(1e-6));
        assertThat(totals.stream().mapToInt(Logbook.Total::landings).sum())
                .isEqualTo(BOOK.all().landings());
    }

    @Test
    void nothingFlownIsNothing() {
        assertThat(new Logbook(List.of()).all().hours()).isEqualTo("0 h");
        assertThat(new Logbook(List.of()).totals(Logbook.By.PLACE)).isEmpty();
    }
}
