package yarrek.core.units;

import java.math.BigDecimal;
import java.math.RoundingMode;

/** Guards and machine formatting shared by the quantity classes. */
public final class Finite {
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
}
