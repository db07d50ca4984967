package yarrek.formats.log;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightSummary;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;
import yarrek.formats.csv.CsvLogReader;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.logs.LogFormat;
import yarrek.formats.tracks.TraceWriter;

/** What goes out comes in again as it was. */
class TraceWriterTest {
    private static byte[] written(TraceWriter w, Trace t) throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        w.write(t, "A & B <\"1\">", out);
        return out.toByteArray();
    }

    private static Trace read(byte[] file) throws Exception {
        if (LogFormat.of(file).isPresent()) {
            return LogFormat.of(file).get().read(file).trace();
        }
        CsvSheet sheet = CsvSheet.look(file);
        LogReading r = CsvLogReader.read(sheet, PlanSuggester.suggest(sheet));
        assertThat(r.problems()).isEmpty();
        return r.trace();
    }

    private static FlightSummary first(Trace t) {
        return FlightSummary.of(t, FlightFinder.find(t).get(0));
    }

    @ParameterizedTest
    @EnumSource
    void aFlightIsTheSameInEveryFormat(TraceWriter w) throws Exception {
        Trace t = SampleLogsTest.read("orbit.ulg").trace();
        Trace again = read(written(w, t));
        FlightSummary was = first(t);
        FlightSummary is = first(again);
        // the map formats hold the height above the sea alone, by which it takes off a moment earlier or later
        // and degrees are written to a centimetre, which lengthens a path of small steps
        boolean whole = w == TraceWriter.CSV;
        assertThat(is.pathM()).isCloseTo(was.pathM(), within(whole ? 0.5 : 1));
        assertThat(is.greatestDistanceM().orElseThrow())
                .isCloseTo(was.greatestDistanceM().orElseThrow(), within(0.02));
        assertThat(is.greatestHeightM().orElseThrow())
                .isCloseTo(was.greatestHeightM().orElseThrow(), within(whole ? 0.002 : 1.5));
    }

    @Test
    void theTableHoldsEveryFigureThatItsReaderKnows() throws Exception {
        Trace t = SampleLogsTest.read("motor-stop.bin").trace();
        Trace again = read(written(TraceWriter.CSV, t));
        for (Channel c : List.of(
                Channel.LATITUDE_DEG,
                Channel.HEIGHT_ABOVE_TAKEOFF_M,
                Channel.GROUND_SPEED_MPS,
                Channel.VOLTAGE_V,
                Channel.CURRENT_A,
                Channel.cell(4),
                Channel.BATTERY_PCT,
                Channel.SATELLITES,
                Channel.LINK_PCT,
                Channel.WIND_MPS,
                Channel.ROLL_DEG)) {
            assertThat(again.has(c)).as(c.name()).isTrue();
            double[] is = known(again, c);
            double[] was = known(t, c);
            assertThat(is).as(c.name()).hasSize(was.length);
            for (int i = 0; i < was.length; i++) {
                assertThat(is[i]).isCloseTo(was[i], within(c.step()));
            }
        }
        // whether home is set holds until something else is said
        assertThat(again.at(Channel.HOME_SET, 0)).isZero();
        assertThat(again.at(Channel.HOME_SET, again.size() - 1)).isEqualTo(1);
        assertThat(again.messages().stream().map(Trace.Message::text))
                .containsExactlyElementsOf(
                        t.messages().stream().map(Trace.Message::text).toList());
        assertThat(again.modes().stream().map(Trace.ModeChange::mode))
                .containsExactlyElementsOf(
                        t.modes().stream().map(Trace.ModeChange::mode).toList());
    }

    private static double[] known(Trace t, Channel c) {
        return IntStream.range(0, t.size())
                .mapToDouble(i -> t.at(c, i))
                .filter(v -> !Double.isNaN(v))
                .toArray();
    }

    @ParameterizedTest
    @CsvSource({"gpx,GPX", "kml,KML", "geojson,GEOJSON", "csv,CSV"})
    void aFormatIsFoundByItsEnding(String ending, TraceWriter w) {
        assertThat(TraceWriter.of(ending)).contains(w);
        assertThat(TraceWriter.of("doc")).isEmpty();
    }

    @Test
    void namesDoNotBreakTheFile() throws Exception {
        Trace t = SampleLogsTest.read("hover.geojson").trace();
        assertThat(new String(written(TraceWriter.GPX, t), StandardCharsets.UTF_8))
                .contains("A &amp; B &lt;");
        assertThat(new String(written(TraceWriter.GEOJSON, t), StandardCharsets.UTF_8))
                .contains("A & B <'1'>");
    }
}
