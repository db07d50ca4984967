package yarrek.core.units;

import java.math.BigDecimal;
import java.math.RoundingMode;

/**
 * A mass, held in whole milligrams so that sums of tenths of a gram are exact and a comparison with a legal threshold
 * never depends on binary fractions. May be negative (a shortfall). Immutable.
 */
public final class Mass implements Comparable<Mass> {
    public static final Mass ZERO = new Mass(0);

    private static final BigDecimal MILLIGRAMS_PER_GRAM = BigDecimal.valueOf(1000); // exact, by definition

    /** From 10 kg on a mass is shown in kilograms. */
    private static final long KILOGRAMS_FROM_MG = 10_000_000;

    private final long milligrams;

    private Mass(long milligrams) {
        this.milligrams = milligrams;
    }

    /** Rounded half up to the milligram. */
    public static Mass ofGrams(double grams) {
        return ofGrams(BigDecimal.valueOf(Finite.require("mass", grams, "g")));
    }

    /** Rounded half up to the milligram. */
    public static Mass ofGrams(BigDecimal grams) {
        return new Mass(grams.multiply(MILLIGRAMS_PER_GRAM)
                .setScale(0, RoundingMode.HALF_UP)
                .longValueExact());
    }

    public double toGrams() {
        return milligrams / 1000.0;
    }

    /** Grams with exactly one decimal, rounded half up, in the root locale: "249.4". */
    public String toGramsText() {
        return BigDecimal.valueOf(milligrams, 3)
                .setScale(1, RoundingMode.HALF_UP)
                .toPlainString();
    }

    public Mass plus(Mass other) {
        return new Mass(Math.addExact(milligrams, other.milligrams));
    }

    public Mass minus(Mass other) {
        return new Mass(Math.subtractExact(milligrams, other.milligrams));
    }

    public boolean isNegative() {
        return milligrams < 0;
    }

    @Override
    public int compareTo(Mass other) {
        return Long.compare(milligrams, other.milligrams);
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof Mass m && milligrams == m.milligrams;
    }

    @Override
    public int hashCode() {
        return Long.hashCode(milligrams);
    }

    @Override
    public String toString() {
        return Math.abs(milligrams) < KILOGRAMS_FROM_MG
                ? toGramsText() + " g"
                : BigDecimal.valueOf(milligrams, 6)
                                .setScale(4, RoundingMode.HALF_UP)
                                .stripTrailingZeros()
                                .toPlainString()
                        + " kg";
    }
}
