package yarrek.formats.rules;

import java.math.BigDecimal;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrek.core.rulebook.Limit;

/** Figures with the unit in which a law prints them, such as "400 ft", turned into the unit of the fact. */
final class Measures {
    private static final Pattern FIGURE = Pattern.compile("(-?[0-9]{1,9}(?:[.][0-9]{1,9})?)(?: ([A-Za-z/°%$²]+))?");

    /** 1,852 m in 3,600 s, to more places than a double holds. */
    private static final BigDecimal KNOT =
            new BigDecimal(1852).divide(new BigDecimal(3600), new java.math.MathContext(40));

    /** Factors to the unit of the fact, exact by definition: international foot, pound, and nautical and statute mile. */
    private static final Map<String, Map<String, BigDecimal>> FACTORS = Map.of(
            "m",
            Map.of(
                    "km", new BigDecimal("1000"),
                    "ft", new BigDecimal("0.3048"),
                    "NM", new BigDecimal("1852"),
                    "SM", new BigDecimal("1609.344")),
            "g",
            Map.of("kg", new BigDecimal("1000"), "lb", new BigDecimal("453.59237")),
            "m/s",
            Map.of("kt", KNOT),
            "months",
            Map.of("years", new BigDecimal("12")));

    private Measures() {}

    static Limit.Constant of(YamlNode n, String unit) {
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
