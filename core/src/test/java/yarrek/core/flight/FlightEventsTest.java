package yarrek.core.flight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.flight.FlightEvents.Event;
import yarrek.core.flight.FlightEvents.Kind;
import yarrek.core.trace.Trace;

class FlightEventsTest {
    private static Trace trace(List<Trace.Message> messages, List<Trace.ModeChange> modes) {
        return new Trace(Instant.parse("2026-11-01T10:00:00Z"), new double[] {0, 100}, Map.of(), messages, modes);
    }

    @Test
    void inTheirOrderAndOfThisFlightOnly() {
        FlightEvents e = FlightEvents.of(
                trace(
                        List.of(
                                new Trace.Message(5, "INFO", "before"),
                                new Trace.Message(40, "WARNING", "low charge"),
                                new Trace.Message(50, "INFO", "home set"),
                                new Trace.Message(95, "INFO", "after")),
                        List.of(
                                new Trace.ModeChange(1, "Idle"),
                                new Trace.ModeChange(8, "Position"),
                                new Trace.ModeChange(60, "Return"),
                                new Trace.ModeChange(92, "Land"))),
                10,
                90,
                List.of(new FlightEvents.Stretch("Height", 30, 45)));
        assertThat(e.all())
                .extracting(Event::atS, Event::kind, Event::words)
                .containsExactly(
                        tuple(10.0, Kind.TAKE_OFF, ""),
                        tuple(10.0, Kind.MODE, "Position"),
                        tuple(30.0, Kind.BREACH, "Height"),
                        tuple(40.0, Kind.WARNING, "low charge"),
                        tuple(45.0, Kind.BREACH_ENDS, "Height"),
                        tuple(50.0, Kind.MESSAGE, "home set"),
                        tuple(60.0, Kind.MODE, "Return"),
                        tuple(90.0, Kind.LANDING, ""));
        assertThat(e.left()).isZero();
    }

    @Test
    void ofThousandsOfMessagesThoseThatWarnAreKept() {
        List<Trace.Message> many = Stream.concat(
                        IntStream.range(0, 1000).mapToObj(i -> new Trace.Message(20 + i / 100.0, "INFO", "n" + i)),
                        Stream.of(new Trace.Message(80, "CRITICAL", "motor 2")))
                .toList();
        FlightEvents e = FlightEvents.of(trace(many, List.of()), 10, 90, List.of());
        assertThat(e.left()).isEqualTo(701);
        assertThat(e.all()).extracting(Event::words).contains("motor 2");
        assertThat(e.all()).isSortedAccordingTo((a, b) -> Double.compare(a.atS(), b.atS()));
    }

    @ParameterizedTest
    @CsvSource({
        "WARNING,true",
        "Error,true",
        "critical,true",
        "EMERGENCY,true",
        "alert,true",
        "INFO,false",
        "DEBUG,false",
        "'',false"
    })
    void levelsOfLogsThatAskForAttention(String level, boolean warns) {
        assertThat(FlightEvents.warns(level)).isEqualTo(warns);
    }
}
