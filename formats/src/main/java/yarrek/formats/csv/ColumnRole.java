package yarrek.formats.csv;

import yarrek.core.trace.Channel;

/** What a column can mean. */
public enum ColumnRole {
    IGNORE("not read", Unit.Kind.TEXT, null),
    TIME("time", Unit.Kind.TIME, null),
    DATE("date", Unit.Kind.TEXT, null),
    TIME_OF_DAY("time of day", Unit.Kind.TEXT, null),
    UTC_OFFSET("offset from UTC", Unit.Kind.TEXT, null),
    LATITUDE("latitude", Unit.Kind.COORDINATE, Channel.LATITUDE_DEG),
    LONGITUDE("longitude", Unit.Kind.COORDINATE, Channel.LONGITUDE_DEG),
    HEIGHT_ABOVE_TAKEOFF("height above take-off", Unit.Kind.LENGTH, Channel.HEIGHT_ABOVE_TAKEOFF_M),
    ALTITUDE_MSL("altitude above sea level", Unit.Kind.LENGTH, Channel.ALTITUDE_MSL_M),
    GROUND_SPEED("ground speed", Unit.Kind.SPEED, Channel.GROUND_SPEED_MPS),
    CLIMB("climb rate", Unit.Kind.SPEED, Channel.CLIMB_MPS),
    HEADING("heading", Unit.Kind.ANGLE, Channel.HEADING_DEG),
    ROLL("roll angle", Unit.Kind.ANGLE, Channel.ROLL_DEG),
    PITCH("pitch angle", Unit.Kind.ANGLE, Channel.PITCH_DEG),
    BATTERY_PCT("charge left", Unit.Kind.SHARE, Channel.BATTERY_PCT),
    VOLTAGE("pack voltage", Unit.Kind.VOLTAGE, Channel.VOLTAGE_V),
    CURRENT("pack current", Unit.Kind.CURRENT, Channel.CURRENT_A),
    CHARGE_USED("charge used", Unit.Kind.CHARGE, Channel.CHARGE_USED_MAH),
    BATTERY_TEMPERATURE("pack temperature", Unit.Kind.TEMPERATURE, Channel.BATTERY_TEMPERATURE_C),
    CELL("cell voltage", Unit.Kind.VOLTAGE, null),
    CELLS("all cell voltages in one column", Unit.Kind.VOLTAGE, null),
    LINK("link quality", Unit.Kind.SHARE, Channel.LINK_PCT),
    SATELLITES("satellites", Unit.Kind.COUNT, Channel.SATELLITES),
    WIND("wind speed", Unit.Kind.SPEED, Channel.WIND_MPS),
    WIND_FROM("wind from", Unit.Kind.ANGLE, Channel.WIND_FROM_DEG),
    AIR_TEMPERATURE("air temperature", Unit.Kind.TEMPERATURE, Channel.AIR_TEMPERATURE_C),
    STICK_THROTTLE("throttle stick", Unit.Kind.STICK, Channel.STICK_THROTTLE),
    STICK_YAW("yaw stick", Unit.Kind.STICK, Channel.STICK_YAW),
    STICK_PITCH("pitch stick", Unit.Kind.STICK, Channel.STICK_PITCH),
    STICK_ROLL("roll stick", Unit.Kind.STICK, Channel.STICK_ROLL),
    HOME_SET("home point set", Unit.Kind.TEXT, Channel.HOME_SET),
    MODE("mode", Unit.Kind.TEXT, null),
    MESSAGE_LEVEL("message level", Unit.Kind.TEXT, null),
    MESSAGE("message", Unit.Kind.TEXT, null);

    private final String label;
    private final Unit.Kind kind;
    private final Channel channel;

    ColumnRole(String label, Unit.Kind kind, Channel channel) {
        this.label = label;
        this.kind = kind;
        this.channel = channel;
    }

    public String label() {
        return label;
    }

    public Unit.Kind kind() {
        return kind;
    }

    /** The channel it fills, or null when it fills none or more than one. */
    Channel channel() {
        return channel;
    }

    /** Whether a log has at most one such column. */
    public boolean isSingle() {
        return this != IGNORE && this != CELL;
    }
}
