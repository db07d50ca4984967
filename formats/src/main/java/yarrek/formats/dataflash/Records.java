package yarrek.formats.dataflash;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.IntFunction;
import java.util.function.IntToDoubleFunction;
import yarrek.core.trace.Channel;
import yarrek.formats.log.Rates;

/** What is taken from which record type, in the units of the channels. */
final class Records {
    private static final double MICRO = 1e6;
    private static final double MILLI = 1e3;
    private static final double PERCENT = 100;
    private static final int CLOCKS = 51;
    private static final int FIX_2D = 2;
    private static final int MOST_CELLS = 14;
    private static final int CELLS = 12;
    private static final double STICK_MIDDLE = 1500;
    private static final double STICK_SPAN = 500;

    /** A receiver says a lost link by a throttle below every stick. */
    private static final double LOST_BELOW = 950;

    private static final double OUTPUT_FROM = 1000;
    private static final double LEAST_OUTPUT = 800;
    private static final int HOME_SET = 25;
    private static final int LANDED = 18;
    private static final int NOT_LANDED = 28;
    private static final Instant GPS_EPOCH = Instant.parse("1980-01-06T00:00:00Z");

    /** Seconds that satellite time runs ahead of UTC, from each day (IERS Bulletin C). */
    private static final Map<Instant, Integer> LEAPS = Map.of(
            Instant.parse("2006-01-01T00:00:00Z"), 14,
            Instant.parse("2009-01-01T00:00:00Z"), 15,
            Instant.parse("2012-07-01T00:00:00Z"), 16,
            Instant.parse("2015-07-01T00:00:00Z"), 17,
            Instant.parse("2017-01-01T00:00:00Z"), 18);

    private static final Map<Integer, String> MODES = Map.ofEntries(
            Map.entry(0, "STABILIZE"),
            Map.entry(1, "ACRO"),
            Map.entry(2, "ALT_HOLD"),
            Map.entry(3, "AUTO"),
            Map.entry(4, "GUIDED"),
            Map.entry(5, "LOITER"),
            Map.entry(6, "RTL"),
            Map.entry(7, "CIRCLE"),
            Map.entry(9, "LAND"),
            Map.entry(11, "DRIFT"),
            Map.entry(13, "SPORT"),
            Map.entry(15, "AUTOTUNE"),
            Map.entry(16, "POSHOLD"),
            Map.entry(17, "BRAKE"),
            Map.entry(18, "THROW"),
            Map.entry(20, "GUIDED_NOGPS"),
            Map.entry(21, "SMART_RTL"),
            Map.entry(23, "FOLLOW"));

    /** Motors by the number of the frame: quad, hexa, octa, octa-quad, Y6, tri. */
    private static final Map<Integer, Integer> MOTORS_OF_FRAMES = Map.of(1, 4, 2, 6, 3, 8, 4, 8, 5, 6, 7, 3);

    private final Rates rates = new Rates();
    private final long[] clocks = new long[CLOCKS];
    private int clockCount;
    private boolean positions;

    /** Where the receiver was, for a log without positions of its own: moment, latitude, longitude, altitude. */
    private final List<double[]> places = new ArrayList<>();

    private boolean tellsOfHome;
    private String said = "";
    private long saidAt = Long.MIN_VALUE;
    private int motors = Channel.MOTORS;

    Rates rates() {
        return rates;
    }

    /** What is left to be said at the end of the log. */
    void end() {
        say("");
        if (!positions) {
            places.forEach(p -> {
                rates.at((long) p[0]);
                put(Channel.LATITUDE_DEG, p[1]);
                put(Channel.LONGITUDE_DEG, p[2]);
                put(Channel.ALTITUDE_MSL_M, p[3]);
            });
        }
        places.clear();
        if (tellsOfHome) {
            rates.fromStart(Channel.HOME_SET, 0);
        }
    }

    /** What to add to the log's clock to have UTC; empty when its receiver never said the time. */
    Optional<Long> toUtcMicros() {
        if (clockCount == 0) {
            return Optional.empty();
        }
        long[] sorted = Arrays.copyOf(clocks, clockCount);
        Arrays.sort(sorted);
        return Optional.of(sorted[clockCount / 2]);
    }

    /** A record as it is taken. */
    private record Row(Definition d, IntToDoubleFunction number, IntFunction<String> text) {
        double get(String... columns) {
            int c = d.column(columns);
            return c < 0 ? Double.NaN : number.applyAsDouble(c);
        }

        String words(String column) {
            int c = d.column(column);
            return c < 0 ? "" : text.apply(c);
        }
    }

    void take(Definition d, IntToDoubleFunction number, IntFunction<String> text) {
        Row r = new Row(d, number, text);
        double seconds = r.get("TimeUS", "TimeMS");
        if (Double.isNaN(seconds)) {
            return;
        }
        long micros = Math.round(seconds * MICRO);
        if (!d.name().equals("ERR")) {
            say("");
        }
        switch (d.name()) {
            case "GPS" -> receiver(r, micros);
            case "POS" -> {
                positions = true;
                places.clear();
                rates.at(micros);
                put(Channel.LATITUDE_DEG, r.get("Lat"));
                put(Channel.LONGITUDE_DEG, r.get("Lng"));
                put(Channel.ALTITUDE_MSL_M, r.get("Alt"));
                put(Channel.HEIGHT_ABOVE_TAKEOFF_M, r.get("RelOriginAlt", "RelHomeAlt", "RelAlt"));
            }
            case "ATT" -> {
                rates.at(micros);
                put(Channel.ROLL_DEG, r.get("Roll"));
                put(Channel.PITCH_DEG, r.get("Pitch"));
                put(Channel.HEADING_DEG, r.get("Yaw"));
            }
            case "BAT", "CURR" -> battery(r, micros);
            case "BCL" -> cells(r, micros);
            case "RCIN" -> sticks(r, micros);
            case "RCOU" -> outputs(r, micros);
            case "RSSI" -> {
                rates.at(micros);
                double quality = r.get("RXLQ");
                put(Channel.LINK_PCT, Double.isNaN(quality) ? r.get("RXRSSI") * PERCENT : quality);
            }
            case "XKF2", "NKF2" -> wind(r, micros);
            case "ESC" -> {
                double instance = r.get("Instance", "Inst");
                if (instance >= 0 && instance < Channel.MOTORS) {
                    rates.at(micros);
                    put(Channel.motorRpm((int) instance + 1), r.get("RPM"));
                }
            }
            case "MODE" -> {
                double n = r.get("ModeNum");
                int mode = (int) (Double.isNaN(n) ? r.get("Mode") : n);
                rates.mode(micros, MODES.getOrDefault(mode, "mode " + mode));
            }
            case "MSG" -> {
                frame(r.words("Message"));
                said = r.words("Message");
                saidAt = micros;
            }
            case "PARM" -> {
                if (r.words("Name").equals("FRAME_CLASS")) {
                    motors = MOTORS_OF_FRAMES.getOrDefault((int) r.get("Value"), motors);
                }
            }
            case "ERR" -> error(r, micros);
            case "EV" -> event((int) r.get("Id"), micros);
            case "ORGN" -> {
                if ((int) r.get("Type") == 1) {
                    home(micros);
                }
            }
            default -> {
                // not needed
            }
        }
        // a log that tells of events tells when home is set: until then it is not
        tellsOfHome |= d.name().equals("EV") || d.name().equals("ORGN");
    }

    private void put(Channel c, double v) {
        rates.put(c, v);
    }

    private void put(Channel c, double v, DoubleUnaryOperator as) {
        rates.put(c, as.applyAsDouble(v));
    }

    /** A message has no level of its own: an error at the same moment makes it one. */
    private void say(String level) {
        if (saidAt != Long.MIN_VALUE) {
            rates.message(saidAt, level, said);
            saidAt = Long.MIN_VALUE;
        }
    }

    private void error(Row r, long micros) {
        if (saidAt == micros) {
            say("error");
            return;
        }
        say("");
        double code = r.get("ECode");
        if (code != 0) {
            rates.message(micros, "error", "error " + (int) code + " of subsystem " + (int) r.get("Subsys"));
        }
    }

    private void event(int id, long micros) {
        if (id == HOME_SET) {
            home(micros);
        } else if (id == LANDED || id == NOT_LANDED) {
            rates.at(micros);
            rates.put(Channel.LANDED, id == LANDED ? 1 : 0);
        }
    }

    private void home(long micros) {
        rates.at(micros);
        rates.put(Channel.HOME_SET, 1);
    }

    private void frame(String text) {
        if (text.startsWith("Frame: ")) {
            motors = text.startsWith("Frame: TRI")
                    ? 3
                    : text.startsWith("Frame: QUAD")
                            ? 4
                            : text.startsWith("Frame: HEXA") || text.startsWith("Frame: Y6") ? 6 : motors;
        }
    }

    private void receiver(Row r, long micros) {
        if (r.get("I") > 0) {
            return; // a second receiver
        }
        double status = r.get("Status");
        rates.at(micros);
        put(Channel.FIX_TYPE, status);
        put(Channel.SATELLITES, r.get("NSats"));
        put(Channel.HDOP, r.get("HDop"));
        if (status >= FIX_2D || Double.isNaN(status)) {
            double speed = r.get("Spd");
            double course = Math.toRadians(r.get("GCrs"));
            put(Channel.GROUND_SPEED_MPS, speed);
            put(Channel.VELOCITY_NORTH_MPS, speed * Math.cos(course));
            put(Channel.VELOCITY_EAST_MPS, speed * Math.sin(course));
            put(Channel.CLIMB_MPS, -r.get("VZ"));
            if (!positions) {
                places.add(new double[] {micros, r.get("Lat"), r.get("Lng"), r.get("Alt")});
            }
            double weeks = r.get("GWk", "Week");
            double seconds = r.get("GMS", "TimeMS");
            if (clockCount < CLOCKS && weeks > 0 && seconds >= 0) {
                Instant at = GPS_EPOCH.plus(Duration.ofDays(7L * (long) weeks)).plusMillis(Math.round(seconds * MILLI));
                Instant utc = at.minusSeconds(leap(at));
                clocks[clockCount++] = utc.getEpochSecond() * 1_000_000L + utc.getNano() / 1000 - micros;
            }
        }
    }

    private static int leap(Instant at) {
        return LEAPS.entrySet().stream()
                .filter(e -> !at.isBefore(e.getKey()))
                .mapToInt(Map.Entry::getValue)
                .max()
                .orElse(0);
    }

    private void battery(Row r, long micros) {
        if (r.get("Inst", "Instance") > 0) {
            return; // a second pack
        }
        rates.at(micros);
        put(Channel.VOLTAGE_V, r.get("Volt"), v -> v > 0 ? v : Double.NaN);
        put(Channel.CURRENT_A, r.get("Curr"), v -> v < 0 ? Double.NaN : v);
        put(Channel.CHARGE_USED_MAH, r.get("CurrTot"), v -> v * MILLI);
        put(Channel.BATTERY_TEMPERATURE_C, r.get("Temp"));
        put(Channel.BATTERY_PCT, r.get("RemPct"), v -> v > PERCENT ? Double.NaN : v);
    }

    private void cells(Row r, long micros) {
        if (r.get("Inst", "Instance") > 0) {
            return;
        }
        rates.at(micros);
        for (int i = 1; i <= Math.min(MOST_CELLS, CELLS); i++) {
            put(Channel.cell(i), r.get("V" + i), v -> v > 0 && v < 60 ? v : Double.NaN);
        }
    }

    private void sticks(Row r, long micros) {
        double throttle = r.get("C3");
        boolean lost = throttle < LOST_BELOW;
        rates.at(micros);
        rates.put(Channel.LINK_LOST, lost ? 1 : 0);
        if (!lost) {
            put(Channel.STICK_ROLL, r.get("C1"), Records::stick);
            put(Channel.STICK_PITCH, r.get("C2"), v -> -stick(v));
            put(Channel.STICK_THROTTLE, throttle, Records::stick);
            put(Channel.STICK_YAW, r.get("C4"), Records::stick);
        }
    }

    private static double stick(double pulse) {
        return pulse < LEAST_OUTPUT ? Double.NaN : (pulse - STICK_MIDDLE) / STICK_SPAN;
    }

    private void outputs(Row r, long micros) {
        rates.at(micros);
        for (int i = 1; i <= motors; i++) {
            put(
                    Channel.motorPct(i),
                    r.get("C" + i),
                    v -> v < LEAST_OUTPUT ? Double.NaN : (v - OUTPUT_FROM) / OUTPUT_FROM * PERCENT);
        }
    }

    private void wind(Row r, long micros) {
        if (r.get("C") > 0) {
            return; // a second filter
        }
        double north = r.get("VWN");
        double east = r.get("VWE");
        if (!Double.isNaN(north) && !Double.isNaN(east)) {
            rates.at(micros);
            put(Channel.WIND_MPS, Math.hypot(north, east));
            put(Channel.WIND_FROM_DEG, (Math.toDegrees(Math.atan2(-east, -north)) + 360) % 360);
        }
    }
}
