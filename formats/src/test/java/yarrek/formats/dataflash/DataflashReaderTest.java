package yarrek.formats.dataflash;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.logs.LogFormat;

/** The text form by small files of its own, and how figures are scaled. */
class DataflashReaderTest {
    private static final List<String> DEFINITIONS = List.of(
            "FMT, 128, 89, FMT, BBnNZ, Type,Length,Name,Format,Columns",
            "FMT, 130, 20, MULT, Qbd, TimeUS,Id,Mult",
            "FMT, 131, 44, FMTU, QBNN, TimeUS,FmtType,UnitIds,MultIds",
            "FMT, 133, 51, GPS, QBBIHBcLLeffffB, TimeUS,I,Status,GMS,GWk,NSats,HDop,Lat,Lng,Alt,Spd,GCrs,VZ,Yaw,U",
            "FMT, 134, 39, BAT, QBfffffcfB, TimeUS,Inst,Volt,VoltR,Curr,CurrTot,EnrgTot,Temp,Res,RemPct",
            "FMT, 135, 40, BCL, QBfHHHHHHHHHHHH, TimeUS,Inst,Volt,V1,V2,V3,V4,V5,V6,V7,V8,V9,V10,V11,V12",
            "FMT, 137, 14, MODE, QMBB, TimeUS,Mode,ModeNum,Rsn",
            "FMT, 138, 13, ERR, QBB, TimeUS,Subsys,ECode",
            "FMT, 139, 12, EV, QB, TimeUS,Id",
            "FMT, 140, 75, MSG, QZ, TimeUS,Message",
            "FMT, 141, 39, RCIN, QHHHH, TimeUS,C1,C2,C3,C4");

    /** Week 2314, Tuesday 14 May 2024 09:12:48 of satellite time: 18 leap seconds ahead of UTC. */
    private static String gps(double s, String status) {
        return String.format(
                java.util.Locale.ROOT,
                "GPS, %d, 0, %s, %d, 2314, 14, 0.80, %.7f, -17.8800000, 412.50, 5.0, 90.0, -1.0, 0, 1",
                Math.round(s * 1e6) + 1_000_000,
                status,
                Math.round((2 * 86400 + 9 * 3600 + 12 * 60 + 48 + s) * 1000),
                46.6 + s * 1e-5);
    }

    private static byte[] text(Stream<String> lines) {
        return (Stream.concat(DEFINITIONS.stream(), lines).collect(Collectors.joining("\n")) + "\n")
                .getBytes(StandardCharsets.UTF_8);
    }

    private static LogReading read(String... further) throws BrokenFileException {
        byte[] log = text(Stream.concat(Stream.of(gps(0, "3"), gps(1, "3"), gps(2, "3")), Arrays.stream(further)));
        assertThat(LogFormat.of(log)).contains(LogFormat.DATAFLASH_TEXT);
        return DataflashReader.readText(log);
    }

    private static double[] known(Trace t, Channel c) {
        return t.has(c)
                ? Arrays.stream(t.column(c)).filter(v -> !Double.isNaN(v)).toArray()
                : new double[0];
    }

    @Test
    void placesTimesAndSpeedsComeFromTheReceiver() throws Exception {
        Trace t = read().trace();
        assertThat(t.start()).isEqualTo(java.time.Instant.parse("2024-05-14T09:12:30Z"));
        assertThat(known(t, Channel.LATITUDE_DEG)).hasSize(3);
        assertThat(t.at(Channel.ALTITUDE_MSL_M, 0)).isCloseTo(412.5, within(1e-9));
        assertThat(t.at(Channel.VELOCITY_EAST_MPS, 0)).isCloseTo(5, within(1e-9));
        assertThat(t.at(Channel.CLIMB_MPS, 0)).isEqualTo(1);
        assertThat(t.at(Channel.HDOP, 0)).isEqualTo(0.8);
    }

    @Test
    void multipliersOfTheLogComeBeforeThoseThatAreUsual() throws Exception {
        String cells = "BCL, 2000000, 0, 12.3, 4100, 4110, 4090, 0, 0, 0, 0, 0, 0, 0, 0, 0";
        assertThat(known(read(cells).trace(), Channel.cell(2))).containsExactly(4.11);
        assertThat(known(read(cells).trace(), Channel.cell(4))).isEmpty();
        // hundredths of a volt, says this log
        Trace other = read(
                        "MULT, 0, 66, 0.01",
                        "FMTU, 0, 135, s#vvvvvvvvvvvvv, F-0BBBBBBBBBBBB",
                        "BCL, 2000000, 0, 12.3, 410, 411, 409, 0, 0, 0, 0, 0, 0, 0, 0, 0")
                .trace();
        assertThat(known(other, Channel.cell(2))[0]).isCloseTo(4.11, within(1e-9));
    }

    @Test
    void aSecondPackAndAChargeOverFullAreLeftOut() throws Exception {
        Trace t = read(
                        "BAT, 2000000, 0, 12.3, 12.4, 9.5, 250.0, 3.1, 21.50, 0.01, 87",
                        "BAT, 2500000, 1, 11.1, 11.2, 1.0, 10.0, 0.1, 20.00, 0.01, 50",
                        "BAT, 3000000, 0, 12.2, 12.3, -1, 260.0, 3.2, 21.60, 0.01, 255")
                .trace();
        assertThat(known(t, Channel.VOLTAGE_V)).containsExactly(12.3, 12.2);
        assertThat(known(t, Channel.CHARGE_USED_MAH)).containsExactly(250, 260);
        assertThat(known(t, Channel.CURRENT_A)).containsExactly(9.5);
        assertThat(known(t, Channel.BATTERY_PCT)).containsExactly(87);
        assertThat(known(t, Channel.BATTERY_TEMPERATURE_C)).containsExactly(21.5, 21.6);
    }

    @Test
    void anErrorAtTheSameMomentMakesAMessageOne() throws Exception {
        Trace t = read(
                        "MSG, 2000000, Motor 4 stopped, no rotation",
                        "ERR, 2000000, 25, 1",
                        "MSG, 2100000, carry on",
                        "ERR, 2200000, 6, 2",
                        "ERR, 2300000, 6, 0")
                .trace();
        assertThat(t.messages())
                .extracting(Trace.Message::level, Trace.Message::text)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("error", "Motor 4 stopped, no rotation"),
                        org.assertj.core.groups.Tuple.tuple("", "carry on"),
                        org.assertj.core.groups.Tuple.tuple("error", "error 2 of subsystem 6"));
    }

    @Test
    void sticksAreUnknownWhileTheLinkIsLost() throws Exception {
        Trace t = read("RCIN, 2000000, 1500, 1000, 2000, 1750", "RCIN, 3000000, 1500, 1500, 900, 1500")
                .trace();
        // the stick forward is the lesser pulse
        assertThat(known(t, Channel.STICK_PITCH)).containsExactly(1);
        assertThat(known(t, Channel.STICK_THROTTLE)).containsExactly(1);
        assertThat(known(t, Channel.STICK_YAW)).containsExactly(0.5);
        assertThat(known(t, Channel.LINK_LOST)).containsExactly(0, 1);
    }

    @ParameterizedTest
    @CsvSource({"'EV, 2000000, 25', 0;1", "'EV, 2000000, 10', 0", "'MODE, 2000000, 16, 16, 1', ''"})
    void whetherHomeIsSetIsOnlyKnownOfALogThatTellsOfEvents(String line, String home) throws Exception {
        double[] expected = home.isEmpty()
                ? new double[0]
                : Stream.of(home.split(";")).mapToDouble(Double::parseDouble).toArray();
        assertThat(known(read(line).trace(), Channel.HOME_SET)).containsExactly(expected);
    }

    @Test
    void linesThatAreNotAsDefinedAreCountedAndLeftOut() throws Exception {
        LogReading r = read("XYZ, 1, 2", "\u0000\u0001");
        assertThat(r.problems().get(0).sentence()).contains("2 of 16 lines are not as their definition says");
    }

    @Test
    void withoutAFixNothingIsKnownOfTheDate() {
        byte[] log = text(Stream.of(gps(0, "1")));
        assertThatThrownBy(() -> DataflashReader.readText(log))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("never says the date");
    }

    /** Every type of field by its bytes. */
    @ParameterizedTest
    @CsvSource({
        "b, -5, -5",
        "B, 251, 251",
        "M, 16, 16",
        "h, -300, -300",
        "H, 65000, 65000",
        "c, -1234, -12.34",
        "C, 65000, 650",
        "i, -70000, -70000",
        "I, 4000000000, 4000000000",
        "e, -123456, -1234.56",
        "E, 4000000000, 40000000",
        "L, -178800000, -17.88",
        "q, -9000000000, -9000000000",
        "Q, 9000000000, 9000000000"
    })
    void fieldsAreReadByTheirType(String type, long raw, double value) {
        Definition d = new Definition("X", type, "A");
        ByteBuffer b = ByteBuffer.allocate(8).order(ByteOrder.LITTLE_ENDIAN).putLong(0, raw);
        assertThat(d.number(b, 0, 0)).isCloseTo(value, within(1e-6));
    }

    @ParameterizedTest
    @CsvSource({"3C00, 1", "C000, -2", "3555, 0.33325195", "0001, 5.9604645e-8", "7BFF, 65504", "0000, 0"})
    void halfPrecisionIsReadAsItStands(String bits, double value) {
        Definition d = new Definition("X", "g", "A");
        ByteBuffer b =
                ByteBuffer.allocate(2).order(ByteOrder.LITTLE_ENDIAN).putShort(0, (short) Integer.parseInt(bits, 16));
        assertThat(d.number(b, 0, 0)).isCloseTo(value, within(1e-7 * Math.max(1, Math.abs(value))));
    }

    @Test
    void whatScalesItselfIsNotScaledAgain() {
        Definition d = new Definition("X", "cH", "A,B");
        d.scale("BB", Map.of('B', 0.01));
        ByteBuffer b = ByteBuffer.allocate(4)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putShort(0, (short) 1234)
                .putShort(2, (short) 1234);
        assertThat(d.number(b, 0, 0)).isCloseTo(12.34, within(1e-9));
        assertThat(d.number(b, 0, 1)).isCloseTo(12.34, within(1e-9));
    }

    @Test
    void aDefinitionOfUnknownTypesMakesNoSense() {
        assertThat(new Definition("X", "Qx", "A,B").makesSense()).isFalse();
        assertThat(new Definition("X", "QB", "A").makesSense()).isFalse();
        assertThat(new Definition("X", "QB", "A,B").makesSense()).isTrue();
        assertThat(new Definition("X", "QZB", "A,B,C").size()).isEqualTo(73);
    }
}
