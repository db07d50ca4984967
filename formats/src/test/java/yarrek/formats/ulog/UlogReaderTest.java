package yarrek.formats.ulog;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;

/** The format by small files of its own: what each kind of record means, and what damage does. */
class UlogReaderTest {
    private static UlogFile tenFixes() {
        UlogFile f = new UlogFile(1).receiver();
        for (int i = 0; i < 10; i++) {
            f.fix(i, 46.6 + i * 1e-5, -17.88, 412 + i, 3);
        }
        return f;
    }

    private static Trace trace(UlogFile f) throws BrokenFileException {
        return UlogReader.read(f.bytes()).trace();
    }

    private static double[] known(Trace t, Channel c) {
        return Arrays.stream(t.column(c)).filter(v -> !Double.isNaN(v)).toArray();
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2})
    void placesAndTimesComeFromTheReceiver(int version) throws Exception {
        UlogFile f = new UlogFile(version).receiver();
        f.fix(0, 46.6, -17.88, 412.5, 3).fix(1, 46.6001, -17.88, 413, 3);
        Trace t = trace(f);
        assertThat(t.start()).isEqualTo(UlogFile.START);
        assertThat(t.size()).isEqualTo(2);
        assertThat(t.at(Channel.LATITUDE_DEG, 1)).isCloseTo(46.6001, within(1e-9));
        assertThat(t.at(Channel.ALTITUDE_MSL_M, 0)).isCloseTo(412.5, within(1e-9));
        assertThat(t.at(Channel.SATELLITES, 0)).isEqualTo(12);
    }

    @Test
    void aReceiverWithoutAFixSaysNoTime() throws Exception {
        UlogFile f = new UlogFile(1).receiver();
        f.fix(0, 46.6, -17.88, 412, 1);
        assertThatThrownBy(() -> trace(f))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("never says the date");
    }

    @Test
    void aFormatMayHoldOthersInArrays() throws Exception {
        UlogFile f = tenFixes()
                .format("esc_report:uint64_t timestamp;int32_t esc_rpm;")
                .format("esc_status:uint64_t timestamp;uint8_t esc_count;uint8_t[3] _padding0;esc_report[8] esc;")
                .subscribe(2, 0, "esc_status")
                .data(2, 3, 4 + 8 * 12, b -> {
                    b.put((byte) 2).put(new byte[3]);
                    for (int i = 0; i < 8; i++) {
                        b.putLong(0).putInt(5000 + i);
                    }
                });
        Trace t = trace(f);
        assertThat(known(t, Channel.motorRpm(2))).containsExactly(5001);
        // only as many as there are
        assertThat(t.has(Channel.motorRpm(3))).isFalse();
    }

    @Test
    void cellsAreAsManyAsThePackHasAndAnUnknownCurrentIsNone() throws Exception {
        UlogFile f = tenFixes()
                .format("battery_status:uint64_t timestamp;float voltage_v;float current_a;float remaining;"
                        + "float[14] voltage_cell_v;uint8_t cell_count;")
                .subscribe(2, 0, "battery_status")
                .subscribe(3, 1, "battery_status");
        for (int id : new int[] {2, 3}) {
            f.data(id, 2, 12 + 56 + 1, b -> {
                b.putFloat(12.6f).putFloat(-1).putFloat(0.5f);
                for (int i = 0; i < 14; i++) {
                    b.putFloat(4.2f);
                }
                b.put((byte) 3);
            });
        }
        LogReading r = UlogReader.read(f.bytes());
        assertThat(r.trace().has(Channel.cell(3))).isTrue();
        assertThat(r.trace().has(Channel.cell(4))).isFalse();
        assertThat(r.trace().has(Channel.CURRENT_A)).isFalse();
        assertThat(known(r.trace(), Channel.BATTERY_PCT)).containsExactly(50);
        assertThat(r.notes()).anyMatch(n -> n.contains("2 packs"));
    }

    @Test
    void attitudeIsTurnedFromItsQuaternion() throws Exception {
        // 30 degrees to the right, then 90 degrees east of north
        double half = Math.toRadians(15);
        double yaw = Math.toRadians(45);
        float w = (float) (Math.cos(half) * Math.cos(yaw));
        float x = (float) (Math.sin(half) * Math.cos(yaw));
        float y = (float) (Math.sin(half) * Math.sin(yaw));
        float z = (float) (Math.cos(half) * Math.sin(yaw));
        UlogFile f = tenFixes()
                .format("vehicle_attitude:uint64_t timestamp;float[4] q;")
                .subscribe(2, 0, "vehicle_attitude")
                .data(2, 1, 16, b -> b.putFloat(w).putFloat(x).putFloat(y).putFloat(z));
        Trace t = trace(f);
        assertThat(known(t, Channel.ROLL_DEG)[0]).isCloseTo(30, within(1e-4));
        assertThat(known(t, Channel.PITCH_DEG)[0]).isCloseTo(0, within(1e-4));
        assertThat(known(t, Channel.HEADING_DEG)[0]).isCloseTo(90, within(1e-4));
    }

    @Test
    void theOlderThrottleGoesFromNothingToFullAndTheNewerFromBelow() throws Exception {
        UlogFile older = tenFixes()
                .format("manual_control_setpoint:uint64_t timestamp;float x;float y;float z;float r;")
                .subscribe(2, 0, "manual_control_setpoint")
                .data(
                        2,
                        1,
                        16,
                        b -> b.putFloat(0.5f).putFloat(0).putFloat(0.75f).putFloat(0));
        assertThat(known(trace(older), Channel.STICK_THROTTLE)).containsExactly(0.5);
        assertThat(known(trace(older), Channel.STICK_PITCH)).containsExactly(0.5);
        UlogFile newer = tenFixes()
                .format(
                        "manual_control_setpoint:uint64_t timestamp;float roll;float pitch;float yaw;float throttle;bool valid;")
                .subscribe(2, 0, "manual_control_setpoint")
                .data(
                        2,
                        1,
                        17,
                        b -> b.putFloat(0).putFloat(0).putFloat(0).putFloat(-1).put((byte) 1))
                .data(
                        2,
                        2,
                        17,
                        b -> b.putFloat(0)
                                .putFloat(0)
                                .putFloat(0)
                                .putFloat(0.3f)
                                .put((byte) 0));
        // sticks that are not valid are none
        assertThat(known(trace(newer), Channel.STICK_THROTTLE)).containsExactly(-1);
    }

    @Test
    void messagesKeepTheirLevelAndMoment() throws Exception {
        UlogFile f = tenFixes()
                .message('3', 2.5, "Motor 4 stopped")
                .message('6', 3, "carry on")
                .record(
                        'C',
                        20,
                        b -> b.put((byte) '4')
                                .putShort((short) 7)
                                .putLong(UlogFile.clock(4))
                                .put("high wind".getBytes(java.nio.charset.StandardCharsets.UTF_8)));
        Trace t = trace(f);
        assertThat(t.messages())
                .extracting(Trace.Message::level, Trace.Message::text)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("error", "Motor 4 stopped"),
                        org.assertj.core.groups.Tuple.tuple("info", "carry on"),
                        org.assertj.core.groups.Tuple.tuple("warning", "high wind"));
        assertThat(t.messages().get(0).atS()).isCloseTo(2.5, within(0.001));
    }

    @Test
    void aRecordThatIsCutIsToldAndWhatCameBeforeIsRead() throws Exception {
        byte[] whole = tenFixes().bytes();
        LogReading r = UlogReader.read(Arrays.copyOf(whole, whole.length - 5));
        assertThat(r.truncated()).isTrue();
        assertThat(r.trace().size()).isEqualTo(9);
    }

    @Test
    void readingGoesOnBehindDamage() throws Exception {
        UlogFile f = new UlogFile(1).receiver();
        f.fix(0, 46.6, -17.88, 412, 3);
        f.raw(new byte[] {9, 9, 9, 9, 9, 9, 9, 9, 9, 9, 9});
        f.fix(1, 46.6001, -17.88, 412, 3).fix(2, 46.6002, -17.88, 412, 3);
        LogReading r = UlogReader.read(f.bytes());
        assertThat(r.trace().size()).isEqualTo(3);
        assertThat(r.problemCount()).isEqualTo(1);
        assertThat(r.problems().get(0).sentence()).contains("1 place is damaged, 11 bytes");
    }

    @Test
    void whatWasAppendedIsReadBehindARecordThatItCutOff() throws Exception {
        UlogFile start = new UlogFile(1);
        int header = start.size();
        UlogFile sized = new UlogFile(1).record('B', new byte[40]).receiver();
        sized.fix(0, 46.6, -17.88, 412, 3);
        int cut = sized.size() + 3 + 12;
        UlogFile f = new UlogFile(1)
                .record('B', 40, b -> {
                    b.position(8);
                    b.put((byte) 1);
                    b.position(16);
                    b.putLong(cut);
                })
                .receiver();
        f.fix(0, 46.6, -17.88, 412, 3);
        // the head of a record and the first half of its body, then what was appended
        f.raw(head(32, 'D')).raw(new byte[] {1, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0});
        f.fix(5, 46.6005, -17.88, 412, 3);
        assertThat(header).isEqualTo(16);
        LogReading r = UlogReader.read(f.bytes());
        assertThat(r.problemCount()).isZero();
        assertThat(r.trace().seconds()).containsExactly(0, 5);
    }

    private static byte[] head(int size, char type) {
        return ByteBuffer.allocate(3)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putShort((short) size)
                .put((byte) type)
                .array();
    }

    @Test
    void aFeatureThatIsNotKnownIsRefused() {
        UlogFile f = new UlogFile(1).record('B', 40, b -> {
            b.position(8);
            b.put((byte) 0b110);
        });
        assertThatThrownBy(
                        () -> UlogReader.read(f.receiver().fix(0, 46, -17, 4, 3).bytes()))
                .isInstanceOf(BrokenFileException.class)
                .hasMessageContaining("not known here");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "vehicle_gps_position:uint64_t timestamp;vehicle_gps_position again;",
                "vehicle_gps_position:uint64_t timestamp;uint8_t[999999] much;",
                "vehicle_gps_position:uint64_t timestamp;uint8_t[x] odd;",
                "vehicle_gps_position:nonsense"
            })
    void aDefinitionThatMakesNoSenseIsPassedOver(String definition) {
        UlogFile f = new UlogFile(1).format(definition).subscribe(1, 0, "vehicle_gps_position");
        f.fix(0, 46.6, -17.88, 412, 3);
        assertThatThrownBy(() -> UlogReader.read(f.bytes())).isInstanceOf(BrokenFileException.class);
    }
}
