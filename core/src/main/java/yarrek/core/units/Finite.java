package yarrek.core.units;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.regex.Pattern;

/** Guards and machine formatting shared by the quantity classes. */
public final class Finite {
    private static final double GROUPED_FROM = 10_000;

    /** Between a digit and a multiple of three digits that end the whole part. */
    private static final Pattern THOUSANDS = Pattern.compile("(?<=\\d)(?=(?:\\d{3})+(?:\\.|$))(?<!\\.\\d{0,3})");

    private Finite() {}

    /**
     * Returns the value unchanged, with -0.0 turned into 0.0.
     *
     * @throws IllegalArgumentException if the value is NaN or infinite
     */
    public static double require(String name, double value, String unit) {
        if (!(Math.abs(value) <= Double.MAX_VALUE)) {
            throw new IllegalArgumentException(name + " must be a finite number of " + unit + ", got " + value);
        }
        return value + 0.0;
    }

    /** Decimal text with at most three places and no trailing zeros, in the root locale: "12.5", "0", "-3.125". */
    public static String format(double value) {
        BigDecimal rounded = BigDecimal.valueOf(value).setScale(3, RoundingMode.HALF_UP);
        return rounded.signum() == 0 ? "0" : rounded.stripTrailingZeros().toPlainString();
    }

    /** The same for people: from 10,000 on with a comma at the thousands, "1,500,000", "12,000.5". */
    public static String words(double value) {
        String plain = format(value);
        return Math.abs(value) < GROUPED_FROM ? plain : THOUSANDS.matcher(plain).replaceAll(",");
    }
}
