package yarrek.formats.csv;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import yarrek.core.units.NamedUnit;

/** Units that a column may be in; {@code toSi} = value x factor + offset, in the unit of the channel. */
public enum Unit {
    METRES(Kind.LENGTH, "m", 1, 0),
    FEET(Kind.LENGTH, "ft", NamedUnit.FOOT.factor(), 0),
    METRES_PER_SECOND(Kind.SPEED, "m/s", 1, 0),
    KILOMETRES_PER_HOUR(Kind.SPEED, "km/h", NamedUnit.KILOMETRE_PER_HOUR.factor(), 0),
    MILES_PER_HOUR(Kind.SPEED, "mph", NamedUnit.STATUTE_MILE_PER_HOUR.factor(), 0),
    KNOTS(Kind.SPEED, "kn", NamedUnit.KNOT.factor(), 0),
    FEET_PER_SECOND(Kind.SPEED, "ft/s", NamedUnit.FOOT.factor(), 0),
    FEET_PER_MINUTE(Kind.SPEED, "ft/min", NamedUnit.FOOT_PER_MINUTE.factor(), 0),
    CELSIUS(Kind.TEMPERATURE, "°C", 1, 0),
    FAHRENHEIT(Kind.TEMPERATURE, "°F", 5.0 / 9, -160.0 / 9), // exact: (F - 32) x 5/9
    KELVIN(Kind.TEMPERATURE, "K", 1, -273.15),
    VOLTS(Kind.VOLTAGE, "V", 1, 0),
    MILLIVOLTS(Kind.VOLTAGE, "mV", 1e-3, 0),
    AMPERES(Kind.CURRENT, "A", 1, 0),
    MILLIAMPERES(Kind.CURRENT, "mA", 1e-3, 0),
    MILLIAMPERE_HOURS(Kind.CHARGE, "mAh", 1, 0),
    AMPERE_HOURS(Kind.CHARGE, "Ah", 1e3, 0),
    PERCENT(Kind.SHARE, "%", 1, 0),
    FRACTION(Kind.SHARE, "0–1", 100, 0),
    DEGREES(Kind.ANGLE, "°", 1, 0),
    RADIANS(Kind.ANGLE, "rad", 180 / Math.PI, 0),
    DEGREES_LAT_LON(Kind.COORDINATE, "°", 1, 0),
    DEGREES_E7(Kind.COORDINATE, "° × 10⁷", 1e-7, 0),
    STICK_UNIT(Kind.STICK, "−1–1", 1, 0),
    STICK_PERCENT(Kind.STICK, "%", 1e-2, 0),
    STICK_MICROSECONDS(Kind.STICK, "µs 1000–2000", 1.0 / 500, -3), // 1000 is -1, 1500 is 0, 2000 is 1
    COUNT(Kind.COUNT, "count", 1, 0),
    DATE_TIME(Kind.TIME, "date and time", 1, 0),
    EPOCH_SECONDS(Kind.TIME, "s since 1970", 1, 0),
    EPOCH_MILLIS(Kind.TIME, "ms since 1970", 1e-3, 0),
    EPOCH_MICROS(Kind.TIME, "µs since 1970", 1e-6, 0),
    ELAPSED_SECONDS(Kind.TIME, "s from start", 1, 0),
    ELAPSED_MILLIS(Kind.TIME, "ms from start", 1e-3, 0),
    ELAPSED_MICROS(Kind.TIME, "µs from start", 1e-6, 0),
    TEXT(Kind.TEXT, "text", 1, 0);

    /** What is measured. */
    public enum Kind {
        LENGTH,
        SPEED,
        TEMPERATURE,
        VOLTAGE,
        CURRENT,
        CHARGE,
        SHARE,
        ANGLE,
        COORDINATE,
        STICK,
        COUNT,
        TIME,
        TEXT
    }

    private final Kind kind;
    private final String label;
    private final double factor;
    private final double offset;

    Unit(Kind kind, String label, double factor, double offset) {
        this.kind = kind;
        this.label = label;
        this.factor = factor;
        this.offset = offset;
    }

    public Kind kind() {
        return kind;
    }

    public String label() {
        return label;
    }

    /** The value in the channel's unit; NaN stays NaN. */
    public double convert(double value) {
        return value * factor + offset;
    }

    public boolean isElapsed() {
        return this == ELAPSED_SECONDS || this == ELAPSED_MILLIS || this == ELAPSED_MICROS;
    }

    public static List<Unit> of(Kind kind) {
        return Arrays.stream(values()).filter(u -> u.kind == kind).toList();
    }

    /** The unit a header names, such as "m", "ft", "km/h", "deg F"; empty when it names none of this kind. */
    static Optional<Unit> named(Kind kind, String text) {
        String s =
                text.strip().toLowerCase(java.util.Locale.ROOT).replace(" ", "").replace("°", "deg");
        Unit found = switch (kind) {
            case LENGTH ->
                switch (s) {
                    case "m", "meter", "metre", "meters", "metres" -> METRES;
                    case "ft", "feet", "foot" -> FEET;
                    default -> null;
                };
            case SPEED ->
                switch (s) {
                    case "m/s", "ms", "mps", "m_s", "mpers", "ms-1", "ms^-1", "mtr/s", "msec" -> METRES_PER_SECOND;
                    case "km/h", "kmh", "kph", "kmph", "kmhr", "km/hr" -> KILOMETRES_PER_HOUR;
                    case "mph", "mi/h" -> MILES_PER_HOUR;
                    case "kn", "kt", "kts", "knot", "knots" -> KNOTS;
                    case "ft/s", "fps", "fts" -> FEET_PER_SECOND;
                    case "ft/min", "fpm", "ftmin", "feet/min" -> FEET_PER_MINUTE;
                    default -> null;
                };
            case TEMPERATURE ->
                switch (s) {
                    case "c", "degc", "celsius" -> CELSIUS;
                    case "f", "degf", "fahrenheit" -> FAHRENHEIT;
                    case "k", "kelvin" -> KELVIN;
                    default -> null;
                };
            case VOLTAGE ->
                switch (s) {
                    case "v", "volt", "volts" -> VOLTS;
                    case "mv", "millivolts" -> MILLIVOLTS;
                    default -> null;
                };
            case CURRENT ->
                switch (s) {
                    case "a", "amp", "amps" -> AMPERES;
                    case "ma" -> MILLIAMPERES;
                    default -> null;
                };
            case CHARGE ->
                switch (s) {
                    case "mah" -> MILLIAMPERE_HOURS;
                    case "ah" -> AMPERE_HOURS;
                    default -> null;
                };
            case SHARE ->
                switch (s) {
                    case "%", "pct", "percent" -> PERCENT;
                    case "0-1", "0–1", "fraction" -> FRACTION;
                    default -> null;
                };
            case ANGLE ->
                switch (s) {
                    case "deg", "degrees" -> DEGREES;
                    case "rad", "radians" -> RADIANS;
                    default -> null;
                };
            case COORDINATE ->
                switch (s) {
                    case "deg", "degrees" -> DEGREES_LAT_LON;
                    case "1e7", "e7", "dege7", "deg1e7", "deg*1e7" -> DEGREES_E7;
                    default -> null;
                };
            case STICK ->
                switch (s) {
                    case "%", "pct" -> STICK_PERCENT;
                    case "us", "µs", "pwm" -> STICK_MICROSECONDS;
                    default -> null;
                };
            case TIME, COUNT, TEXT -> null;
        };
        return Optional.ofNullable(found);
    }
}
