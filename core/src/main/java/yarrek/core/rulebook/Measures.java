package yarrek.core.rulebook;

import java.math.BigDecimal;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrek.core.units.NamedUnit;

/** Figures with the unit in which a law prints them, such as "400 ft", turned into the unit of the fact. */
public final class Measures {
    private static final Pattern FIGURE = Pattern.compile("(-?[0-9]{1,9}(?:[.][0-9]{1,9})?)(?: ([A-Za-z/°%$²]+))?");

    /** Factors to the unit of the fact. */
    private static final Map<String, Map<String, BigDecimal>> FACTORS = Map.of(
            "m",
            Map.of(
                    "km", NamedUnit.KILOMETRE.exact(),
                    "ft", NamedUnit.FOOT.exact(),
                    "NM", NamedUnit.NAUTICAL_MILE.exact(),
                    "SM", NamedUnit.STATUTE_MILE.exact()),
            "g",
            Map.of("kg", NamedUnit.KILOGRAM.exact(), "lb", NamedUnit.POUND.exact()),
            "m/s",
            Map.of("kt", NamedUnit.KNOT.exact()),
            "months",
            Map.of("years", new BigDecimal("12")));

    private Measures() {}

    /** @throws Written.Wrong unless it is a figure in the unit or one that can be turned into it */
    public static Limit.Constant of(Written n, String unit) {
        Matcher m = FIGURE.matcher(n.text());
        if (!m.matches()) {
            throw n.wrong("a figure such as 120 or 400 ft was expected, got '" + n.text() + "'");
        }
        BigDecimal figure = new BigDecimal(m.group(1));
        if (m.group(2) == null || m.group(2).equals(unit)) {
            return new Limit.Constant(figure.doubleValue());
        }
        BigDecimal factor = FACTORS.getOrDefault(unit, Map.of()).get(m.group(2));
        if (factor == null) {
            throw n.wrong("'" + m.group(2) + "' is no unit of this fact; it is measured in " + unit);
        }
        return new Limit.Constant(figure.multiply(factor).doubleValue(), n.text());
    }
}
