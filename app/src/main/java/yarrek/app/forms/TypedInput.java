package yarrek.app.forms;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrek.core.units.NamedUnit;

/** Reads what people type: numbers with a unit, dates in natural forms, times of day. */
public final class TypedInput {
    private static final Pattern NUMBER =
            Pattern.compile("([+\\-−]?(?:[0-9]{1,3}(?:,[0-9]{3}){2,}|[0-9]+)(?:[.,][0-9]+)?)\\s*([a-zA-Z°µ/%²·$]*)");

    /** Commas that can only part thousands: "1,500,000". */
    private static final Pattern THOUSANDS = Pattern.compile("[+\\-−]?(?:[0-9]{1,3}(?:,[0-9]{3}){2,})(?:\\.[0-9]+)?");

    /** A comma that one reads as thousands and another as decimals: a thousandfold apart, so it is asked. */
    private static final Pattern EITHER = Pattern.compile("[+\\-−]?([1-9][0-9]{0,2}),([0-9]{3})");

    private static final Pattern RELATIVE =
            Pattern.compile("([+\\-−])\\s*(\\d{1,4})\\s*(d|day|days|w|week|weeks|m|month|months|y|year|years)");

    private static final Map<String, Double> METRES = Map.of(
            "",
            1.0,
            "m",
            1.0,
            "km",
            NamedUnit.KILOMETRE.factor(),
            "ft",
            NamedUnit.FOOT.factor(),
            "feet",
            NamedUnit.FOOT.factor(),
            "nm",
            NamedUnit.NAUTICAL_MILE.factor());
    private static final Map<String, Double> GRAMS = Map.of(
            "",
            1.0,
            "g",
            1.0,
            "kg",
            NamedUnit.KILOGRAM.factor(),
            "lb",
            NamedUnit.POUND.factor(),
            "oz",
            NamedUnit.OUNCE.factor());
    private static final Map<String, Double> METRES_PER_SECOND = Map.of(
            "",
            1.0,
            "m/s",
            1.0,
            "km/h",
            NamedUnit.KILOMETRE_PER_HOUR.factor(),
            "kn",
            NamedUnit.KNOT.factor(),
            "kt",
            NamedUnit.KNOT.factor(),
            "mph",
            NamedUnit.STATUTE_MILE_PER_HOUR.factor());
    private static final List<DateTimeFormatter> DATES = List.of(
            formatter("uuuu-M-d"),
            formatter("d.M.uuuu"),
            formatter("d/M/uuuu"),
            formatter("d MMM uuuu"),
            formatter("d MMMM uuuu"),
            // "Sep", where the British form has "Sept"
            new DateTimeFormatterBuilder()
                    .parseCaseInsensitive()
                    .appendPattern("d MMM uuuu")
                    .toFormatter(Locale.US));

    private TypedInput() {}

    private static DateTimeFormatter formatter(String pattern) {
        return new DateTimeFormatterBuilder()
                .parseCaseInsensitive()
                .appendPattern(pattern)
                .toFormatter(Locale.UK);
    }

    /** @throws IllegalArgumentException saying what is accepted */
    public static double metres(String s) {
        return quantity(s, METRES, "a length such as 120, 120 m, 400 ft or 0.5 km");
    }

    /** @throws IllegalArgumentException saying what is accepted */
    public static double grams(String s) {
        return quantity(s, GRAMS, "a mass such as 249.4, 249.4 g or 0.9 kg");
    }

    /** @throws IllegalArgumentException saying what is accepted */
    public static double metresPerSecond(String s) {
        return quantity(s, METRES_PER_SECOND, "a speed such as 8, 8 m/s, 30 km/h or 15 kn");
    }

    /** @throws IllegalArgumentException saying what is accepted */
    public static double plain(String s, String unit) {
        Map<String, Double> units = new HashMap<>(Map.of("", 1.0));
        units.put(unit, 1.0);
        units.put(unit.toLowerCase(Locale.ROOT), 1.0);
        return quantity(s, units, "a number such as 12.5" + (unit.isEmpty() ? "" : " " + unit));
    }

    private static double quantity(String s, Map<String, Double> units, String accepted) {
        Matcher m = NUMBER.matcher(s.strip());
        Double factor = m.matches()
                ? units.getOrDefault(m.group(2), units.get(m.group(2).toLowerCase(Locale.ROOT)))
                : null;
        if (factor == null) {
            throw new IllegalArgumentException("“" + cut(s) + "” is not understood; type " + accepted);
        }
        Matcher either = EITHER.matcher(m.group(1));
        if (either.matches()) {
            throw new IllegalArgumentException("“" + cut(s) + "” may be read in two ways; type " + either.group(1)
                    + either.group(2) + " or " + either.group(1) + "." + either.group(2));
        }
        String figure = m.group(1).replace('−', '-');
        return Double.parseDouble(
                        THOUSANDS.matcher(m.group(1)).matches() ? figure.replace(",", "") : figure.replace(',', '.'))
                * factor;
    }

    /**
     * A date: "2027-03-14", "14.3.2027", "14/3/2027" (day first), "14 Mar 2027", "today", "tomorrow", "+3 weeks",
     * "-10 days".
     *
     * @throws IllegalArgumentException saying what is accepted
     */
    public static LocalDate date(String s, LocalDate today) {
        String t = s.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
        if (t.equals("today")) {
            return today;
        }
        if (t.equals("tomorrow")) {
            return today.plusDays(1);
        }
        if (t.equals("yesterday")) {
            return today.minusDays(1);
        }
        Matcher m = RELATIVE.matcher(t);
        if (m.matches()) {
            int n = (m.group(1).equals("+") ? 1 : -1) * Integer.parseInt(m.group(2));
            return switch (m.group(3).charAt(0)) {
                case 'd' -> today.plusDays(n);
                case 'w' -> today.plusWeeks(n);
                case 'm' -> today.plusMonths(n);
                default -> today.plusYears(n);
            };
        }
        for (DateTimeFormatter f : DATES) {
            try {
                return LocalDate.parse(t, f.withResolverStyle(java.time.format.ResolverStyle.STRICT));
            } catch (DateTimeException e) {
                // not in this form; the last one decides
            }
        }
        throw new IllegalArgumentException("“" + cut(s)
                + "” is not a date that is understood; type it as 2027-03-14, 14 Mar 2027, tomorrow or +3 weeks");
    }

    /** @throws IllegalArgumentException saying what is accepted */
    public static LocalTime time(String s) {
        Matcher m = Pattern.compile("(\\d{1,2})[:.h]?(\\d{2})?").matcher(s.strip());
        try {
            if (m.matches()) {
                return LocalTime.of(
                        Integer.parseInt(m.group(1)), m.group(2) == null ? 0 : Integer.parseInt(m.group(2)));
            }
        } catch (DateTimeException e) {
            // told below
        }
        throw new IllegalArgumentException("“" + cut(s) + "” is not a time of day; type it as 9:30 or 14");
    }

    private static String cut(String s) {
        return s.length() > 40 ? s.substring(0, 40) + "…" : s;
    }
}
