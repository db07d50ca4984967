package yarrek.formats.log;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

/** What logs get wrong, each once, with what is told of it. A log is written as its seconds, or as places by the second. */
class TraceBuilderTest {
    private static final Instant START = Instant.parse("2026-05-04T10:00:00Z");
    private static final double METRES_PER_DEGREE = 111_195;

    private static LogReading times(String seconds) throws BrokenFileException {
        TraceBuilder b = new TraceBuilder();
        long line = 2;
        for (String s : seconds.strip().split("\\s+")) {
            b.row(s.equals("-") ? null : START.plus((long) (Double.parseDouble(s) * 1000), ChronoUnit.MILLIS), line++);
        }
        return b.build(false);
    }

    private static String seconds(LogReading r) {
        return String.join(
                " ",
                Arrays.stream(r.trace().seconds())
                        .mapToObj(s -> s == Math.rint(s) ? "" + (long) s : "" + s)
                        .toList());
    }

    private static List<String> told(LogReading r) {
        return java.util.stream.Stream.concat(
                        r.problems().stream().map(Problem::code),
                        r.notes().stream().filter(n -> !n.contains("no positions")))
                .toList();
    }

    @Test
    void aLogInOrderIsAsItIs() throws Exception {
        LogReading r = times("0 1 2 3 4 5");
        assertThat(seconds(r)).isEqualTo("0 1 2 3 4 5");
        assertThat(told(r)).isEmpty();
        assertThat(r.trace().start()).isEqualTo(START);
    }

    @Test
    void rowsWithoutATimeAreCounted() throws Exception {
        assertThat(told(times("0 - 1 2 3"))).containsExactly("1 row has no time and is left out");
        LogReading two = times("- 0 - 1 2 3");
        assertThat(seconds(two)).isEqualTo("0 1 2 3");
        assertThat(told(two)).containsExactly("2 rows have no time and are left out");
    }

    /** Up to five rows that come late and then find back to the clock; a sixth is a clock that was set back. */
    @ParameterizedTest
    @CsvSource({"1, true", "5, true", "6, false"})
    void stragglersAreLeftOutAndAClockSetBackIsCarriedOn(int late, boolean stragglers) throws Exception {
        StringBuilder s = new StringBuilder();
        for (int i = 0; i <= 20; i++) {
            s.append(i).append(' ');
        }
        for (int i = 0; i < late; i++) {
            s.append(10 + i / 10.0).append(' ');
        }
        for (int i = 21; i <= 30; i++) {
            s.append(i).append(' ');
        }
        LogReading r = times(s.toString());
        if (stragglers) {
            assertThat(r.problems()).hasSize(late).allMatch(p -> p.code().equals("log.time.order"));
            assertThat(r.problems().get(0).line()).isEqualTo(23);
            assertThat(r.trace().size()).isEqualTo(31);
            assertThat(seconds(r)).endsWith("29 30");
        } else {
            assertThat(r.problems()).isEmpty();
            assertThat(told(r).get(0)).startsWith("the clock steps back by 11.0 s at line 23");
            assertThat(r.trace().size()).isEqualTo(31 + late);
        }
    }

    @Test
    void aClockSetBackTwiceIsToldTwice() throws Exception {
        LogReading r = times("100 101 102 103 104 105 50 51 52 53 54 55 56 20 21 22 23 24 25 26");
        assertThat(told(r)).hasSize(2);
        assertThat(told(r).get(0)).contains("56.0 s at line 8");
        assertThat(told(r).get(1)).contains("at line 15");
        assertThat(seconds(r)).isEqualTo("0 1 2 3 4 5 6 7 8 9 10 11 12 13 14 15 16 17 18 19");
    }

    @Test
    void aRowAheadOfThoseAfterItIsLeftOut() throws Exception {
        LogReading r = times("0 1 2 3600 3 4 5 6");
        assertThat(seconds(r)).isEqualTo("0 1 2 3 4 5 6");
        assertThat(r.problems()).singleElement().satisfies(p -> {
            assertThat(p.code()).isEqualTo("log.time.ahead");
            assertThat(p.line()).isEqualTo(5);
        });
        assertThat(seconds(times("3600 0 1 2 3 4 5 6"))).isEqualTo("0 1 2 3 4 5 6");
    }

    /** The last row, switched on again after more than ten minutes, belongs to no flight. */
    @ParameterizedTest
    @CsvSource({"606, true", "605.9, false", "60, false"})
    void aLonelyEndIsLeftOut(double last, boolean left) throws Exception {
        LogReading r = times("0 1 2 3 4 5 6 " + (last == 606 ? 606.1 : last));
        assertThat(r.problems().size()).isEqualTo(left ? 1 : 0);
        assertThat(r.trace().size()).isEqualTo(left ? 7 : 8);
    }

    /** A hole of five seconds is none, a longer one is told with its length and its moment. */
    @Test
    void holesAreTold() throws Exception {
        assertThat(told(times("0 1 2 7 8 9"))).isEmpty();
        assertThat(told(times("0 1 2 7.1 8 9")))
                .containsExactly(
                        "the log has no rows for 5.1 s from 2026-05-04 10:00:02Z; what happened there is not known");
        assertThat(told(times("0 1 7 8 20 21 27 28")))
                .containsExactly("the log has no rows for 12.0 s from 2026-05-04 10:00:08Z, and 2 shorter holes;"
                        + " what happened there is not known");
    }

    @ParameterizedTest
    @ValueSource(strings = {"1999-12-31T23:59:59Z", "2199-01-01T00:00:00Z", "-1000-01-01T00:00:00Z"})
    void aTimeNoFlightCanHaveIsLeftOutAndAloneRefused(String time) throws Exception {
        TraceBuilder b = new TraceBuilder();
        assertThat(b.row(Instant.parse(time), 7)).isFalse();
        assertThatThrownBy(() -> b.build(false))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("line 7 [time]: found \"" + time + "\"")
                .hasMessageContaining("So it is with every row; nothing to bring in");
        TraceBuilder some = new TraceBuilder();
        some.row(Instant.parse(time), 2);
        some.row(START, 3);
        assertThat(some.build(false).problems())
                .singleElement()
                .satisfies(p -> assertThat(p.code()).isEqualTo("log.time.range"));
    }

    @Test
    void nothingAtAllIsRefused() {
        assertThatThrownBy(() -> new TraceBuilder().build(false))
                .hasMessageContaining("no row with a time was found; nothing to bring in");
    }

    // --- places ------------------------------------------------------------------------------------------------------

    /** Metres north of 46.6, 17.9 W, a second apart; "-" has no fix. */
    private static LogReading places(String metres) throws BrokenFileException {
        TraceBuilder b = new TraceBuilder();
        long line = 2;
        int i = 0;
        for (String m : metres.strip().split("\\s+")) {
            b.row(START.plusSeconds(i++), line++);
            if (!m.equals("-")) {
                b.position(46.6 + Double.parseDouble(m) / METRES_PER_DEGREE, -17.9);
            }
        }
        return b.build(false);
    }

    private static long known(LogReading r) {
        return Arrays.stream(r.trace().column(Channel.LATITUDE_DEG))
                .filter(d -> !Double.isNaN(d))
                .count();
    }

    /** 150 m in a second is the most: a metre less is a flight, a metre more a leap. */
    @ParameterizedTest
    @CsvSource({"149, 0", "151, 1"})
    void aJumpIsTold(double metres, int jumps) throws Exception {
        LogReading r = places("0 1 2 " + (2 + metres) + " " + (3 + metres) + " " + (4 + metres) + " " + (5 + metres)
                + " " + (6 + metres) + " " + (7 + metres) + " " + (8 + metres));
        assertThat(r.notes()).hasSize(jumps);
        assertThat(known(r)).as("a jump for good stands as the log has it").isEqualTo(10);
        if (jumps > 0) {
            assertThat(r.notes().get(0)).startsWith("the position jumps 1 time by more than 150 m/s");
        }
    }

    @Test
    void aPlaceThatLeapsAwayAndBackIsLeftOut() throws Exception {
        LogReading r = places("0 1 2 5000 4 5 6 7");
        assertThat(r.notes())
                .containsExactly(
                        "1 position leaps away and back faster than 150 m/s, the first in line 5; it is left out");
        assertThat(known(r)).isEqualTo(7);
        LogReading two = places("0 1 2 5000 5001 5 6 7 8 9");
        assertThat(two.notes().get(0)).startsWith("2 positions leap away and back");
        assertThat(known(two)).isEqualTo(8);
    }

    @Test
    void aFirstPlaceFarFromTheRestIsLeftOut() throws Exception {
        assertThat(known(places("90000 1 2 3 4 5"))).isEqualTo(5);
    }

    /** Over the 180th meridian a metre is a metre. */
    @Test
    void thereIsNoJumpAtTheDateLine() throws Exception {
        TraceBuilder b = new TraceBuilder();
        double[] lon = {179.9999, 179.99995, -179.99999, -179.99995, -179.9999};
        for (int i = 0; i < lon.length; i++) {
            b.row(START.plusSeconds(i), i + 2);
            b.position(-46.6, lon[i]);
        }
        LogReading r = b.build(false);
        assertThat(r.notes()).isEmpty();
        assertThat(known(r)).isEqualTo(5);
    }

    @Test
    void noFixIsNoPlaceAndNeverTheGulfOfGuinea() throws Exception {
        TraceBuilder b = new TraceBuilder();
        b.row(START, 2);
        assertThat(b.position(0, 0)).isFalse();
        b.row(START.plusSeconds(1), 3);
        assertThat(b.position(0, 0.00001)).isTrue();
        LogReading r = b.build(false);
        assertThat(r.notes()).containsExactly("1 row has position 0/0, which is no fix; the position is left out");
        assertThat(known(r)).isEqualTo(1);
    }

    @ParameterizedTest
    @CsvSource({
        "90, 180, true",
        "-90, -180, true",
        "90.0001, 0, false",
        "0, 180.0001, false",
        "NaN, 5, false",
        "5, Infinity, false"
    })
    void degreesHaveTheirRange(double lat, double lon, boolean kept) throws Exception {
        TraceBuilder b = new TraceBuilder();
        b.row(START, 9);
        assertThat(b.position(lat, lon)).isEqualTo(kept);
        b.row(START.plusSeconds(1), 10);
        LogReading r = b.build(false);
        assertThat(r.problemCount()).isEqualTo(kept ? 0 : 1);
        if (!kept) {
            assertThat(r.problems().get(0).sentence()).startsWith("line 9 [position]: found \"");
        }
    }

    @Test
    void aLogWithoutPlacesSaysWhatCannotBeTold() throws Exception {
        assertThat(times("0 1 2").notes())
                .containsExactly("the log has no positions: no path, distance or zone can be told");
    }

    // --- what belongs to rows ----------------------------------------------------------------------------------------

    /** Words and modes move with the row they were said in, and go with it. */
    @Test
    void messagesAndModesStayAtTheirRow() throws Exception {
        TraceBuilder b = new TraceBuilder();
        double[] at = {0, 1, 3600, 2, 3, 4, 5};
        for (int i = 0; i < at.length; i++) {
            b.row(START.plusSeconds((long) at[i]), i + 2);
            b.put(Channel.BATTERY_PCT, 90 - i);
            b.message("info", "row " + i);
            b.mode(i < 4 ? "manual" : "return");
        }
        Trace t = b.build(true).trace();
        assertThat(t.messages())
                .extracting(Trace.Message::text)
                .doesNotContain("row 2")
                .hasSize(6);
        assertThat(t.messages().get(2)).isEqualTo(new Trace.Message(2, "info", "row 3"));
        assertThat(t.modes()).containsExactly(new Trace.ModeChange(0, "manual"), new Trace.ModeChange(3, "return"));
        assertThat(t.column(Channel.BATTERY_PCT)).containsExactly(90, 89, 87, 86, 85, 84);
    }

    /** A figure that is missing stays missing, also where the store has grown since. */
    @Test
    void missingFiguresStayMissing() throws Exception {
        TraceBuilder b = new TraceBuilder();
        for (int i = 0; i < 5000; i++) {
            b.row(START.plusMillis(100L * i), i + 2);
            b.put(Channel.VOLTAGE_V, i % 7 == 0 ? 11.5 : Double.NaN);
            if (i == 3000) {
                b.put(Channel.CURRENT_A, 4.25);
            }
        }
        Trace t = b.build(false).trace();
        for (int i = 0; i < 5000; i++) {
            assertThat(Double.isNaN(t.at(Channel.VOLTAGE_V, i))).isEqualTo(i % 7 != 0);
            assertThat(Double.isNaN(t.at(Channel.CURRENT_A, i))).isEqualTo(i != 3000);
        }
    }

    @Test
    void theFirstProblemsAreKeptAndAllAreCounted() throws Exception {
        TraceBuilder b = new TraceBuilder();
        for (int i = 0; i < 80; i++) {
            b.row(START.plusSeconds(i), i + 2);
            b.position(95, 0);
        }
        LogReading r = b.build(false);
        assertThat(r.problems()).hasSize(50);
        assertThat(r.problemCount()).isEqualTo(80);
    }

    /** Whatever the clock did: times never fall, and no row is invented. */
    @Test
    void timesNeverFall() throws Exception {
        Random random = new Random(11);
        for (int n = 0; n < 300; n++) {
            TraceBuilder b = new TraceBuilder();
            int rows = 1 + random.nextInt(60);
            double at = 0;
            for (int i = 0; i < rows; i++) {
                at += random.nextInt(10) == 0 ? (random.nextDouble() - 0.5) * 5000 : random.nextDouble();
                b.row(START.plusMillis((long) (at * 1000)), i + 2);
            }
            LogReading r = b.build(false);
            double[] s = r.trace().seconds();
            assertThat(s.length).isBetween(1, rows);
            assertThat(s[0]).isZero();
            for (int i = 1; i < s.length; i++) {
                assertThat(s[i]).isGreaterThanOrEqualTo(s[i - 1]);
            }
        }
    }
}
