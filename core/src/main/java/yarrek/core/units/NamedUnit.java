package yarrek.core.units;

import java.math.BigDecimal;
import java.math.MathContext;

/**
 * Units other than the one each quantity is kept in, exact by definition: international foot and pound (1959), nautical and
 * statute mile. Every reader, form and rule takes its factors from here, so that a figure typed equals the figure of a law.
 */
public enum NamedUnit {
    /** Metres. */
    KILOMETRE("1000", "1"),
    FOOT("0.3048", "1"),
    NAUTICAL_MILE("1852", "1"),
    STATUTE_MILE("1609.344", "1"),
    /** Metres a second. */
    KILOMETRE_PER_HOUR("1000", "3600"),
    KNOT("1852", "3600"),
    STATUTE_MILE_PER_HOUR("1609.344", "3600"),
    FOOT_PER_MINUTE("0.3048", "60"),
    /** Grams. */
    KILOGRAM("1000", "1"),
    POUND("453.59237", "1"),
    OUNCE("28.349523125", "1");

    private final BigDecimal exact;
    private final double factor;

    NamedUnit(String over, String under) {
        exact = new BigDecimal(over).divide(new BigDecimal(under), new MathContext(40));
        factor = exact.doubleValue();
    }

    /** The factor to the unit kept, to more places than a double holds. */
    public BigDecimal exact() {
        return exact;
    }

    /** The factor to the unit kept: metres, metres a second or grams. */
    public double factor() {
        return factor;
    }
}
