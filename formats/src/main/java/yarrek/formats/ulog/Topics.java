package yarrek.formats.ulog;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.DoubleUnaryOperator;
import yarrek.core.trace.Channel;
import yarrek.formats.log.Rates;

/** What is taken from which topic, in the units of the channels. Field names of older and newer writers are both known. */
final class Topics {
    private static final double E7 = 1e-7;
    private static final double E3 = 1e-3;
    private static final double PERCENT = 100;
    private static final double LEAST_UTC_MICROS = 9e14; // 1998: no receiver clock that was never set comes so far
    private static final int FIX_2D = 2;
    private static final int MOST_CELLS = 12;
    private static final int CLOCKS = 51;
    private static final double LEAST_OUTPUT = 800;
    private static final double OUTPUT_FROM = 1000;
    private static final double OUTPUT_SPAN = 1000;

    private static final Map<Integer, String> MODES = Map.ofEntries(
            Map.entry(0, "MANUAL"),
            Map.entry(1, "ALTCTL"),
            Map.entry(2, "POSCTL"),
            Map.entry(3, "MISSION"),
            Map.entry(4, "LOITER"),
            Map.entry(5, "RTL"),
            Map.entry(6, "POSITION SLOW"),
            Map.entry(10, "ACRO"),
            Map.entry(12, "DESCEND"),
            Map.entry(13, "TERMINATION"),
            Map.entry(14, "OFFBOARD"),
            Map.entry(15, "STABILIZED"),
            Map.entry(17, "TAKEOFF"),
            Map.entry(18, "LAND"),
            Map.entry(19, "FOLLOW"),
            Map.entry(20, "PRECISION LAND"),
            Map.entry(21, "ORBIT"));

    /** Takes what is wanted from a record. */
    interface Taking {
        void take(ByteBuffer b, int at, int length);
    }

    static final Taking NOTHING = (b, at, n) -> {};

    private final Set<String> present;
    private final Rates rates;
    private final long[] clocks = new long[CLOCKS];
    private int clockCount;

    /** @param present topics of which the log has records */
    Topics(Set<String> present, Rates rates) {
        this.present = present;
        this.rates = rates;
    }

    Rates rates() {
        return rates;
    }

    /** What to add to the log's clock to have UTC: the middle of the first that its receiver said; empty when it never did. */
    Optional<Long> toUtcMicros() {
        if (clockCount == 0) {
            return Optional.empty();
        }
        long[] sorted = Arrays.copyOf(clocks, clockCount);
        Arrays.sort(sorted);
        return Optional.of(sorted[clockCount / 2]);
    }

    /** A record read by the paths of its fields. */
    private static final class Rec {
        private final Layouts.Layout layout;
        private final List<Pick> picks = new ArrayList<>();

        private record Pick(Layouts.Field field, Channel channel, DoubleUnaryOperator as) {}

        Rec(Layouts.Layout layout) {
            this.layout = layout;
        }

        /** The first of these fields that there is, as a channel. */
        Rec pick(Channel channel, DoubleUnaryOperator as, String... paths) {
            for (String p : paths) {
                if (layout.field(p).isPresent()) {
                    picks.add(new Pick(layout.field(p).get(), channel, as));
                    break;
                }
            }
            return this;
        }

        Rec pick(Channel channel, String... paths) {
            return pick(channel, v -> v, paths);
        }
    }

    private Taking of(Rec r) {
        Optional<Layouts.Field> time = r.layout.field("timestamp");
        if (time.isEmpty() || r.picks.isEmpty()) {
            return NOTHING;
        }
        Rec.Pick[] picks = r.picks.toArray(Rec.Pick[]::new);
        return (b, at, n) -> {
            rates.at((long) time.get().read(b, at, n));
            for (Rec.Pick p : picks) {
                rates.put(p.channel(), p.as().applyAsDouble(p.field().read(b, at, n)));
            }
        };
    }

    /** What is taken of a topic whose records lie so. */
    Taking taking(String topic, Layouts.Layout l) {
        if (l.field("timestamp").isEmpty()) {
            return NOTHING;
        }
        return switch (topic) {
            case "vehicle_global_position" ->
                of(new Rec(l)
                        .pick(Channel.LATITUDE_DEG, "lat")
                        .pick(Channel.LONGITUDE_DEG, "lon")
                        .pick(Channel.ALTITUDE_MSL_M, "alt"));
            case "vehicle_gps_position", "sensor_gps" -> receiver(topic, l);
            case "vehicle_local_position" -> local(l);
            case "vehicle_attitude" -> attitude(l);
            case "battery_status" -> battery(l);
            case "manual_control_setpoint" -> sticks(l);
            case "input_rc" ->
                of(new Rec(l)
                        .pick(Channel.LINK_PCT, v -> v < 0 ? Double.NaN : Math.min(v, PERCENT), "link_quality", "rssi")
                        .pick(Channel.LINK_LOST, "rc_lost"));
            case "vehicle_status" -> status(l);
            case "vehicle_status_flags" ->
                of(new Rec(l).pick(Channel.HOME_SET, "home_position_valid", "condition_home_position_valid"));
            case "failsafe_flags" ->
                of(new Rec(l)
                        .pick(Channel.HOME_SET, v -> 1 - v, "home_position_invalid")
                        .pick(Channel.LINK_LOST, "manual_control_signal_lost"));
            case "home_position" ->
                present.contains("vehicle_status_flags") || present.contains("failsafe_flags")
                        ? NOTHING
                        : of(new Rec(l).pick(Channel.HOME_SET, "valid_hpos"));
            case "wind", "wind_estimate" -> wind(l);
            case "vehicle_land_detected" -> of(new Rec(l).pick(Channel.LANDED, "landed"));
            case "actuator_outputs" -> outputs(l);
            case "actuator_motors" -> motors(l);
            case "esc_status" -> revolutions(l);
            default -> NOTHING;
        };
    }

    private static double scaled(double v, double by) {
        return v * by;
    }

    private Taking receiver(String topic, Layouts.Layout l) {
        // one receiver is told of by both topics in some logs: the fused one of the older name leads
        if (topic.equals("sensor_gps") && present.contains("vehicle_gps_position")) {
            return NOTHING;
        }
        Rec r = new Rec(l)
                .pick(Channel.SATELLITES, "satellites_used")
                .pick(Channel.FIX_TYPE, "fix_type")
                .pick(Channel.HDOP, "hdop")
                .pick(Channel.POSITION_ERROR_M, "eph")
                .pick(Channel.INTERFERENCE, "jamming_indicator");
        if (!present.contains("vehicle_global_position")) {
            r.pick(Channel.LATITUDE_DEG, "latitude_deg")
                    .pick(
                            Channel.LATITUDE_DEG,
                            v -> scaled(v, E7),
                            l.field("latitude_deg").isPresent() ? "" : "lat")
                    .pick(Channel.LONGITUDE_DEG, "longitude_deg")
                    .pick(
                            Channel.LONGITUDE_DEG,
                            v -> scaled(v, E7),
                            l.field("longitude_deg").isPresent() ? "" : "lon")
                    .pick(Channel.ALTITUDE_MSL_M, "altitude_msl_m")
                    .pick(
                            Channel.ALTITUDE_MSL_M,
                            v -> scaled(v, E3),
                            l.field("altitude_msl_m").isPresent() ? "" : "alt");
        }
        if (!present.contains("vehicle_local_position")) {
            r.pick(Channel.GROUND_SPEED_MPS, "vel_m_s")
                    .pick(Channel.VELOCITY_NORTH_MPS, "vel_n_m_s")
                    .pick(Channel.VELOCITY_EAST_MPS, "vel_e_m_s")
                    .pick(Channel.CLIMB_MPS, v -> -v, "vel_d_m_s");
        }
        Taking figures = of(r);
        Layouts.Field time = l.field("timestamp").orElseThrow();
        Optional<Layouts.Field> utc = l.field("time_utc_usec");
        Optional<Layouts.Field> fix = l.field("fix_type");
        return (b, at, n) -> {
            if (clockCount < CLOCKS && utc.isPresent()) {
                double micros = utc.get().read(b, at, n);
                boolean fixed = fix.isEmpty() || fix.get().read(b, at, n) >= FIX_2D;
                if (fixed && micros >= LEAST_UTC_MICROS) {
                    clocks[clockCount++] = (long) micros - (long) time.read(b, at, n);
                }
            }
            figures.take(b, at, n);
        };
    }

    private Taking local(Layouts.Layout l) {
        Layouts.Field time = l.field("timestamp").orElseThrow();
        Optional<Layouts.Field> vx = l.field("vx");
        Optional<Layouts.Field> vy = l.field("vy");
        Optional<Layouts.Field> vz = l.field("vz");
        Optional<Layouts.Field> z = l.field("z");
        Optional<Layouts.Field> zValid = l.field("z_valid");
        Optional<Layouts.Field> vValid = l.field("v_xy_valid");
        return (b, at, n) -> {
            rates.at((long) time.read(b, at, n));
            if (z.isPresent() && isSet(zValid, b, at, n)) {
                rates.put(Channel.HEIGHT_ABOVE_TAKEOFF_M, -z.get().read(b, at, n));
            }
            if (vz.isPresent()) {
                rates.put(Channel.CLIMB_MPS, -vz.get().read(b, at, n));
            }
            if (vx.isPresent() && vy.isPresent() && isSet(vValid, b, at, n)) {
                double north = vx.get().read(b, at, n);
                double east = vy.get().read(b, at, n);
                rates.put(Channel.VELOCITY_NORTH_MPS, north);
                rates.put(Channel.VELOCITY_EAST_MPS, east);
                rates.put(Channel.GROUND_SPEED_MPS, Math.hypot(north, east));
            }
        };
    }

    private static boolean isSet(Optional<Layouts.Field> flag, ByteBuffer b, int at, int n) {
        return flag.isEmpty() || flag.get().read(b, at, n) != 0;
    }

    /** Roll, pitch and yaw of the quaternion w, x, y, z, in the order yaw, pitch, roll. */
    private Taking attitude(Layouts.Layout l) {
        Layouts.Field time = l.field("timestamp").orElseThrow();
        Layouts.Field[] q = new Layouts.Field[4];
        for (int i = 0; i < q.length; i++) {
            Optional<Layouts.Field> f = l.field("q[" + i + "]");
            if (f.isEmpty()) {
                return NOTHING;
            }
            q[i] = f.get();
        }
        return (b, at, n) -> {
            double w = q[0].read(b, at, n);
            double x = q[1].read(b, at, n);
            double y = q[2].read(b, at, n);
            double z = q[3].read(b, at, n);
            rates.at((long) time.read(b, at, n));
            rates.put(Channel.ROLL_DEG, Math.toDegrees(Math.atan2(2 * (w * x + y * z), 1 - 2 * (x * x + y * y))));
            rates.put(Channel.PITCH_DEG, Math.toDegrees(Math.asin(Math.max(-1, Math.min(1, 2 * (w * y - z * x))))));
            double yaw = Math.toDegrees(Math.atan2(2 * (w * z + x * y), 1 - 2 * (y * y + z * z)));
            rates.put(Channel.HEADING_DEG, yaw < 0 ? yaw + 360 : yaw);
        };
    }

    private Taking battery(Layouts.Layout l) {
        Rec r = new Rec(l)
                .pick(Channel.VOLTAGE_V, v -> v > 0 ? v : Double.NaN, "voltage_v")
                .pick(Channel.CURRENT_A, v -> v < 0 ? Double.NaN : v, "current_a")
                .pick(Channel.CHARGE_USED_MAH, v -> v < 0 ? Double.NaN : v, "discharged_mah")
                .pick(Channel.BATTERY_PCT, v -> v < 0 ? Double.NaN : v * PERCENT, "remaining")
                .pick(Channel.BATTERY_TEMPERATURE_C, "temperature");
        Taking figures = of(r);
        Optional<Layouts.Field> many = l.field("cell_count");
        List<Layouts.Field> cells = new ArrayList<>();
        for (int i = 0; i < MOST_CELLS; i++) {
            l.field("voltage_cell_v[" + i + "]").ifPresent(cells::add);
        }
        return (b, at, n) -> {
            figures.take(b, at, n);
            int count = many.isEmpty() ? cells.size() : (int) many.get().read(b, at, n);
            for (int i = 0; i < Math.min(count, cells.size()); i++) {
                double v = cells.get(i).read(b, at, n);
                rates.put(Channel.cell(i + 1), v > 0 ? v : Double.NaN);
            }
        };
    }

    private Taking sticks(Layouts.Layout l) {
        // the older names are axes: x forward, y right, z up from 0 to 1, r about the vertical
        boolean older = l.field("throttle").isEmpty();
        Optional<Layouts.Field> valid = l.field("valid");
        Taking figures = of(new Rec(l)
                .pick(Channel.STICK_PITCH, "pitch", "x")
                .pick(Channel.STICK_ROLL, "roll", "y")
                .pick(Channel.STICK_YAW, "yaw", "r")
                .pick(Channel.STICK_THROTTLE, v -> older ? 2 * v - 1 : v, "throttle", "z"));
        return (b, at, n) -> {
            if (isSet(valid, b, at, n)) {
                figures.take(b, at, n);
            }
        };
    }

    private Taking status(Layouts.Layout l) {
        Layouts.Field time = l.field("timestamp").orElseThrow();
        Optional<Layouts.Field> mode = l.field("nav_state");
        Optional<Layouts.Field> lost =
                present.contains("failsafe_flags") ? Optional.empty() : l.field("rc_signal_lost");
        String[] last = {""};
        return (b, at, n) -> {
            long micros = (long) time.read(b, at, n);
            if (lost.isPresent()) {
                rates.at(micros);
                rates.put(Channel.LINK_LOST, lost.get().read(b, at, n));
            }
            if (mode.isPresent()) {
                int number = (int) mode.get().read(b, at, n);
                String name = MODES.getOrDefault(number, "mode " + number);
                if (!name.equals(last[0])) {
                    rates.mode(micros, name);
                    last[0] = name;
                }
            }
        };
    }

    /** The direction that it blows from, true. */
    private Taking wind(Layouts.Layout l) {
        Layouts.Field time = l.field("timestamp").orElseThrow();
        Optional<Layouts.Field> north = l.field("windspeed_north");
        Optional<Layouts.Field> east = l.field("windspeed_east");
        return north.isEmpty() || east.isEmpty()
                ? NOTHING
                : (b, at, n) -> {
                    double vn = north.get().read(b, at, n);
                    double ve = east.get().read(b, at, n);
                    rates.at((long) time.read(b, at, n));
                    rates.put(Channel.WIND_MPS, Math.hypot(vn, ve));
                    rates.put(Channel.WIND_FROM_DEG, (Math.toDegrees(Math.atan2(-ve, -vn)) + 360) % 360);
                };
    }

    private Taking outputs(Layouts.Layout l) {
        Layouts.Field time = l.field("timestamp").orElseThrow();
        Optional<Layouts.Field> many = l.field("noutputs");
        List<Layouts.Field> each = fields(l, "output[", "]");
        return present.contains("actuator_motors")
                ? NOTHING
                : (b, at, n) -> {
                    rates.at((long) time.read(b, at, n));
                    int count = many.isEmpty() ? each.size() : (int) many.get().read(b, at, n);
                    for (int i = 0; i < Math.min(count, each.size()); i++) {
                        double v = each.get(i).read(b, at, n);
                        rates.put(
                                Channel.motorPct(i + 1),
                                v < LEAST_OUTPUT ? Double.NaN : (v - OUTPUT_FROM) / OUTPUT_SPAN * PERCENT);
                    }
                };
    }

    private Taking motors(Layouts.Layout l) {
        Layouts.Field time = l.field("timestamp").orElseThrow();
        List<Layouts.Field> each = fields(l, "control[", "]");
        return (b, at, n) -> {
            rates.at((long) time.read(b, at, n));
            for (int i = 0; i < each.size(); i++) {
                rates.put(Channel.motorPct(i + 1), each.get(i).read(b, at, n) * PERCENT);
            }
        };
    }

    private Taking revolutions(Layouts.Layout l) {
        Layouts.Field time = l.field("timestamp").orElseThrow();
        Optional<Layouts.Field> many = l.field("esc_count");
        List<Layouts.Field> each = fields(l, "esc[", "].esc_rpm");
        return (b, at, n) -> {
            rates.at((long) time.read(b, at, n));
            int count = many.isEmpty() ? each.size() : (int) many.get().read(b, at, n);
            for (int i = 0; i < Math.min(count, each.size()); i++) {
                rates.put(Channel.motorRpm(i + 1), each.get(i).read(b, at, n));
            }
        };
    }

    private static List<Layouts.Field> fields(Layouts.Layout l, String before, String after) {
        List<Layouts.Field> fields = new ArrayList<>();
        for (int i = 0; i < Channel.MOTORS; i++) {
            l.field(before + i + after).ifPresent(fields::add);
        }
        return fields;
    }
}
