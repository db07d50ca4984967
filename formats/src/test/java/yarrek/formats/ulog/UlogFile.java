package yarrek.formats.ulog;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.function.Consumer;

/** Writes small ULog files, record by record. */
final class UlogFile {
    static final Instant START = Instant.parse("2024-05-14T09:12:30Z");
    private static final long BOOT = 5_000_000;

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    UlogFile(int version) {
        out.writeBytes(new byte[] {0x55, 0x4C, 0x6F, 0x67, 0x01, 0x12, 0x35, (byte) version});
        out.writeBytes(little(8, b -> b.putLong(BOOT)));
    }

    private static byte[] little(int size, Consumer<ByteBuffer> fill) {
        ByteBuffer b = ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
        fill.accept(b);
        return b.array();
    }

    UlogFile record(char type, byte[] body) {
        out.writeBytes(little(3, b -> b.putShort((short) body.length).put((byte) type)));
        out.writeBytes(body);
        return this;
    }

    UlogFile record(char type, int size, Consumer<ByteBuffer> fill) {
        return record(type, little(size, fill));
    }

    UlogFile format(String definition) {
        return record('F', definition.getBytes(StandardCharsets.UTF_8));
    }

    UlogFile subscribe(int id, int instance, String topic) {
        byte[] name = topic.getBytes(StandardCharsets.UTF_8);
        return record(
                'A',
                3 + name.length,
                b -> b.put((byte) instance).putShort((short) id).put(name));
    }

    /** Microseconds since boot. */
    static long clock(double seconds) {
        return BOOT + Math.round(seconds * 1e6);
    }

    UlogFile data(int id, double seconds, int size, Consumer<ByteBuffer> fill) {
        return record('D', 10 + size, b -> {
            b.putShort((short) id).putLong(clock(seconds));
            fill.accept(b);
        });
    }

    UlogFile message(char level, double seconds, String text) {
        byte[] words = text.getBytes(StandardCharsets.UTF_8);
        return record(
                'L',
                9 + words.length,
                b -> b.put((byte) level).putLong(clock(seconds)).put(words));
    }

    /** A receiver with the time and a place, as older writers have it. */
    UlogFile receiver() {
        return format(
                        "vehicle_gps_position:uint64_t timestamp;uint64_t time_utc_usec;int32_t lat;int32_t lon;int32_t alt;"
                                + "uint8_t fix_type;uint8_t satellites_used;uint8_t[2] _padding0;")
                .subscribe(1, 0, "vehicle_gps_position");
    }

    UlogFile fix(double seconds, double lat, double lon, double alt, int fixType) {
        // the padding at the end of a record is not written
        return data(
                1,
                seconds,
                22,
                b -> b.putLong(START.toEpochMilli() * 1000 + Math.round(seconds * 1e6))
                        .putInt((int) Math.round(lat * 1e7))
                        .putInt((int) Math.round(lon * 1e7))
                        .putInt((int) Math.round(alt * 1000))
                        .put((byte) fixType)
                        .put((byte) 12));
    }

    UlogFile raw(byte... bytes) {
        out.writeBytes(bytes);
        return this;
    }

    int size() {
        return out.size();
    }

    byte[] bytes() {
        return out.toByteArray();
    }
}
