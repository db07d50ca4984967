package yarrek.formats.calendar;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import biweekly.Biweekly;
import biweekly.component.VEvent;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.TimeZone;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CalendarFeedTest {
    private static final Instant STAMP = Instant.parse("2026-11-25T08:00:00Z");

    private static CalendarFeed.Entry day(String summary, String description, Integer... alarms) {
        return new CalendarFeed.Entry(
                "paper-1@yarrek",
                summary,
                description,
                "http://127.0.0.1:8080/papers/1",
                Optional.of(LocalDate.of(2026, 12, 20)),
                Optional.empty(),
                Optional.empty(),
                List.of(alarms));
    }

    private static List<String> unfolded(String calendar) {
        return calendar.replaceAll("\r\n[ \t]", "").lines().toList();
    }

    @Test
    void aWholeDayEndsBeforeTheNextAndHasItsAlarms() {
        List<String> lines = unfolded(CalendarFeed.write("t", List.of(day("renew", "", 9, -24)), STAMP));
        assertThat(lines)
                .contains("DTSTART;VALUE=DATE:20261220", "DTEND;VALUE=DATE:20261221", "DTSTAMP:20261125T080000Z");
        assertThat(lines).filteredOn(l -> l.startsWith("TRIGGER")).hasSize(2).anyMatch(l -> l.endsWith(":-PT24H"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"Pacific/Kiritimati", "Pacific/Pago_Pago", "UTC"})
    void theMachinesOwnZoneDoesNotMoveADay(String zone) {
        TimeZone before = TimeZone.getDefault();
        try {
            TimeZone.setDefault(TimeZone.getTimeZone(zone));
            assertThat(unfolded(CalendarFeed.write("t", List.of(day("renew", "")), STAMP)))
                    .contains("DTSTART;VALUE=DATE:20261220");
        } finally {
            TimeZone.setDefault(before);
        }
    }

    @Test
    void hoursAreInUtc() {
        CalendarFeed.Entry job = new CalendarFeed.Entry(
                "job-1@yarrek",
                "Peat bog grid",
                "",
                "http://127.0.0.1:8080/jobs/1",
                Optional.empty(),
                Optional.of(Instant.parse("2026-12-03T11:00:00Z")),
                Optional.of(Instant.parse("2026-12-03T13:30:00Z")),
                List.of());
        assertThat(unfolded(CalendarFeed.write("t", List.of(job), STAMP)))
                .contains("DTSTART:20261203T110000Z", "DTEND:20261203T133000Z")
                .noneMatch(l -> l.startsWith("BEGIN:VALARM"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"a, b; c", "back\\slash", "two\nlines", "Ærø – “quoted”", "BEGIN:VEVENT"})
    void textsComeBackAsTheyWere(String text) {
        VEvent back = Biweekly.parse(CalendarFeed.write("t", List.of(day(text, text.repeat(20))), STAMP))
                .first()
                .getEvents()
                .get(0);
        assertThat(back.getSummary().getValue()).isEqualTo(text);
        assertThat(back.getDescription().getValue()).isEqualTo(text.repeat(20));
    }

    @Test
    void noLineIsLongerThanTheStandardAllows() {
        String calendar = CalendarFeed.write("t", List.of(day("renew ".repeat(30), "because ".repeat(60))), STAMP);
        assertThat(calendar.split("\r\n"))
                .allSatisfy(l ->
                        assertThat(l.getBytes(StandardCharsets.UTF_8).length).isLessThanOrEqualTo(75));
    }

    @Test
    void anEntryHasADayOrHours() {
        assertThatThrownBy(() -> new CalendarFeed.Entry(
                        "x", "x", "", "", Optional.empty(), Optional.of(STAMP), Optional.empty(), List.of()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("either a day");
    }
}
