package yarrek.core.trace;

/** What a trace can hold. The unit stands in the name; {@code step} is the finest difference that is stored. */
public enum Channel {
    LATITUDE_DEG(1e-7),
    LONGITUDE_DEG(1e-7),
    HEIGHT_ABOVE_TAKEOFF_M(1e-3),
    ALTITUDE_MSL_M(1e-3),
    GROUND_SPEED_MPS(1e-3),
    CLIMB_MPS(1e-3),
    BATTERY_PCT(1e-2),
    VOLTAGE_V(1e-3),
    CURRENT_A(1e-3),
    CHARGE_USED_MAH(1e-2),
    BATTERY_TEMPERATURE_C(1e-2),
    CELL_1_V(1e-3),
    CELL_2_V(1e-3),
    CELL_3_V(1e-3),
    CELL_4_V(1e-3),
    CELL_5_V(1e-3),
    CELL_6_V(1e-3),
    CELL_7_V(1e-3),
    CELL_8_V(1e-3),
    CELL_9_V(1e-3),
    CELL_10_V(1e-3),
    CELL_11_V(1e-3),
    CELL_12_V(1e-3),
    LINK_PCT(1e-1),
    WIND_MPS(1e-3),
    WIND_FROM_DEG(1e-1),
    AIR_TEMPERATURE_C(1e-2),
    SATELLITES(1),
    HEADING_DEG(1e-1),
    ROLL_DEG(1e-1),
    PITCH_DEG(1e-1),
    STICK_THROTTLE(1e-3),
    STICK_YAW(1e-3),
    STICK_PITCH(1e-3),
    STICK_ROLL(1e-3),
    HOME_SET(1),
    VELOCITY_NORTH_MPS(1e-3),
    VELOCITY_EAST_MPS(1e-3),
    FIX_TYPE(1),
    HDOP(1e-2),
    POSITION_ERROR_M(1e-2),
    /** The receiver's own level, 0 to 255. */
    INTERFERENCE(1),
    LINK_LOST(1),
    LANDED(1),
    MOTOR_1_PCT(1e-1),
    MOTOR_2_PCT(1e-1),
    MOTOR_3_PCT(1e-1),
    MOTOR_4_PCT(1e-1),
    MOTOR_5_PCT(1e-1),
    MOTOR_6_PCT(1e-1),
    MOTOR_7_PCT(1e-1),
    MOTOR_8_PCT(1e-1),
    MOTOR_1_RPM(1),
    MOTOR_2_RPM(1),
    MOTOR_3_RPM(1),
    MOTOR_4_RPM(1),
    MOTOR_5_RPM(1),
    MOTOR_6_RPM(1),
    MOTOR_7_RPM(1),
    MOTOR_8_RPM(1);

    /** Motors that a trace can hold. */
    public static final int MOTORS = 8;

    private static final java.util.List<Channel> CELLS =
            java.util.Arrays.stream(values()).filter(Channel::isCell).toList();
    private static final int MAX_CELLS = 12;
    private static final java.util.List<Channel> ASKED = java.util.Arrays.stream(values())
            .filter(c -> c.name().endsWith("_PCT") && c.isMotor())
            .toList();
    private static final java.util.List<Channel> TURNING = java.util.Arrays.stream(values())
            .filter(c -> c.name().endsWith("_RPM") && c.isMotor())
            .toList();

    private final double step;

    Channel(double step) {
        this.step = step;
    }

    public double step() {
        return step;
    }

    /**
     * The channel of a cell, counted from 1.
     *
     * @throws IllegalArgumentException if the cell is not 1 to 12
     */
    public static Channel cell(int number) {
        if (!(number >= 1 && number <= MAX_CELLS)) {
            throw new IllegalArgumentException("cell must be 1 to " + MAX_CELLS + ", got " + number);
        }
        return CELLS.get(number - 1);
    }

    /**
     * What the controller asks of a motor, counted from 1.
     *
     * @throws IllegalArgumentException if the motor is not 1 to 8
     */
    public static Channel motorPct(int number) {
        return motor(ASKED, number);
    }

    /**
     * Its revolutions per minute.
     *
     * @throws IllegalArgumentException if the motor is not 1 to 8
     */
    public static Channel motorRpm(int number) {
        return motor(TURNING, number);
    }

    private static Channel motor(java.util.List<Channel> all, int number) {
        if (!(number >= 1 && number <= MOTORS)) {
            throw new IllegalArgumentException("motor must be 1 to " + MOTORS + ", got " + number);
        }
        return all.get(number - 1);
    }

    private boolean isMotor() {
        return name().startsWith("MOTOR_");
    }

    public boolean isCell() {
        return compareTo(CELL_1_V) >= 0 && compareTo(CELL_12_V) <= 0;
    }
}
