package yarrek.core.trace;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;

/**
 * The stored form of a trace: every column at full rate as differences of whole steps, variable-length, deflated.
 *
 * <p>Layout after inflating: magic "YTR1"; start (epoch seconds, nanoseconds); number of samples; times in steps of
 * 0.1 ms; number of channels, each with its name and its column; messages; modes. Figures are rounded to the channel's
 * step; a missing figure is kept as missing.
 */
public final class TraceCodec {
    private static final int MAGIC = 0x59545231; // "YTR1"
    private static final double TIME_STEP_S = 1e-4;

    /** Samples in one trace: 24 h at 100 Hz; more is refused when reading. */
    private static final int MAX_SAMPLES = 8_640_000;

    private TraceCodec() {}

    public static byte[] encode(Trace trace) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        Deflater deflater = new Deflater(Deflater.DEFAULT_COMPRESSION);
        // without a buffer before it the deflater is asked for every single byte
        try (DataOutputStream out = new DataOutputStream(
                new BufferedOutputStream(new DeflaterOutputStream(bytes, deflater, 1 << 14), 1 << 16))) {
            out.writeInt(MAGIC);
            out.writeLong(trace.start().getEpochSecond());
            out.writeInt(trace.start().getNano());
            out.writeInt(trace.size());
            column(out, trace.seconds(), TIME_STEP_S);
            out.writeInt(trace.channels().size());
            for (Channel c : trace.channels()) {
                out.writeUTF(c.name());
                column(out, trace.column(c), c.step());
            }
            out.writeInt(trace.messages().size());
            for (Trace.Message m : trace.messages()) {
                out.writeDouble(m.atS());
                out.writeUTF(m.level());
                out.writeUTF(m.text());
            }
            out.writeInt(trace.modes().size());
            for (Trace.ModeChange m : trace.modes()) {
                out.writeDouble(m.atS());
                out.writeUTF(m.mode());
            }
        } catch (IOException e) {
            throw new UncheckedIOException("writing to memory", e);
        } finally {
            deflater.end();
        }
        return bytes.toByteArray();
    }

    /** @throws IllegalArgumentException if the bytes are not a stored trace */
    public static Trace decode(byte[] bytes) {
        try (DataInputStream in = new DataInputStream(
                new BufferedInputStream(new InflaterInputStream(new ByteArrayInputStream(bytes)), 1 << 16))) {
            if (in.readInt() != MAGIC) {
                throw new IllegalArgumentException("these bytes are not a stored trace");
            }
            Instant start = Instant.ofEpochSecond(in.readLong(), in.readInt());
            int size = in.readInt();
            if (!(size >= 0 && size <= MAX_SAMPLES)) {
                throw new IllegalArgumentException(
                        "a stored trace holds 0 to " + MAX_SAMPLES + " samples, got " + size);
            }
            double[] seconds = column(in, size, TIME_STEP_S);
            EnumMap<Channel, double[]> columns = new EnumMap<>(Channel.class);
            int channels = in.readInt();
            for (int i = 0; i < channels; i++) {
                Channel c = Channel.valueOf(in.readUTF());
                columns.put(c, column(in, size, c.step()));
            }
            List<Trace.Message> messages = new ArrayList<>();
            int count = in.readInt();
            for (int i = 0; i < count; i++) {
                messages.add(new Trace.Message(in.readDouble(), in.readUTF(), in.readUTF()));
            }
            List<Trace.ModeChange> modes = new ArrayList<>();
            count = in.readInt();
            for (int i = 0; i < count; i++) {
                modes.add(new Trace.ModeChange(in.readDouble(), in.readUTF()));
            }
            return new Trace(start, seconds, columns, messages, modes);
        } catch (IOException e) {
            throw new IllegalArgumentException("the stored trace is damaged: " + e.getMessage(), e);
        }
    }

    /** Zigzag differences shifted by one: a zero byte stands for a missing figure. */
    private static void column(DataOutputStream out, double[] values, double step) throws IOException {
        long last = 0;
        double inverse = Math.round(1 / step); // steps are decimal; dividing by them would give binary dust
        for (double v : values) {
            if (Double.isNaN(v)) {
                out.writeByte(0);
                continue;
            }
            long whole = Math.round(v * inverse);
            long difference = whole - last;
            last = whole;
            long rest = ((difference << 1) ^ (difference >> 63)) + 1;
            while ((rest & ~0x7FL) != 0) {
                out.writeByte((int) ((rest & 0x7F) | 0x80));
                rest >>>= 7;
            }
            out.writeByte((int) rest);
        }
    }

    private static double[] column(DataInputStream in, int size, double step) throws IOException {
        double[] values = new double[size];
        double inverse = Math.round(1 / step);
        long last = 0;
        for (int i = 0; i < size; i++) {
            long rest = 0;
            int shift = 0;
            int b;
            do {
                b = in.readUnsignedByte();
                rest |= (long) (b & 0x7F) << shift;
                shift += 7;
            } while ((b & 0x80) != 0 && shift < 64);
            if (rest == 0) {
                values[i] = Double.NaN;
            } else {
                rest -= 1;
                last += (rest >>> 1) ^ -(rest & 1);
                values[i] = last / inverse;
            }
        }
        return values;
    }
}
