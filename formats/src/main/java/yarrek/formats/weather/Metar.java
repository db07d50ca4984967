package yarrek.formats.weather;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrek.core.units.Length;
import yarrek.core.units.NamedUnit;
import yarrek.core.weather.Observation;

/**
 * Aerodrome reports in code form (WMO FM 15 METAR and FM 16 SPECI): wind with gusts and variable direction, visibility in
 * metres or statute miles, weather, cloud, temperature and dew point, pressure, and what a trend says may become of them.
 * Runway ranges, wind shear, recent weather and remarks are kept as text and not reckoned with. A group that is none of
 * these is told, never guessed at.
 */
public final class Metar {
    private static final double HPA_PER_INCH = 33.8639;
    private static final int MOST_TEXT = 600;

    /** What begins another report. */
    private static final Pattern SECOND = Pattern.compile("(?:^| )(?:METAR|SPECI|[A-Z][A-Z0-9]{3} \\d{6}Z)(?: |$)");

    private static final int OLDEST_DAYS = 20; // further back, a day of the month is as likely one still to come
    private static final Pattern TRENDS = Pattern.compile("(?:^| )(NOSIG|BECMG|TEMPO)( |$).*");
    private static final Pattern TREND_TIME = Pattern.compile("(FM|TL|AT)(\\d{2})(\\d{2})");
    private static final Pattern TIME = Pattern.compile("(\\d{2})(\\d{2})(\\d{2})Z");
    private static final Pattern WIND =
            Pattern.compile("(\\d{3}|VRB|///)(P?\\d{2,3}|//)(?:G(P?\\d{2,3}))?(KT|MPS|KMH)");
    private static final Pattern VARIES = Pattern.compile("(\\d{3})V(\\d{3})");
    private static final Pattern METRES = Pattern.compile("(\\d{4})(NDV|N|NE|E|SE|S|SW|W|NW)?");
    private static final Pattern MILES =
            Pattern.compile("([PM])?(?:(\\d{1,2}) )?(?:(\\d{1,2})/(\\d{1,2})|(\\d{1,2}))SM");
    private static final Pattern CLOUD = Pattern.compile("(FEW|SCT|BKN|OVC|VV)(\\d{3}|///)(CB|TCU|///)?");
    private static final Pattern HEAT = Pattern.compile("(M?\\d{2}|//)/(M?\\d{2}|//)?");
    private static final Pattern PRESSURE = Pattern.compile("Q(\\d{4})|A(\\d{4})");
    private static final Pattern WEATHER = Pattern.compile(
            "(\\+|-|VC)?(MI|PR|BC|DR|BL|SH|TS|FZ)?((?:DZ|RA|SN|SG|IC|PL|GR|GS|UP)*)((?:BR|FG|FU|VA|DU|SA|HZ|PY|PO|SQ|FC|SS|DS)?)");

    private static final Map<String, String> WORDS = new LinkedHashMap<>();

    static {
        String[] pairs = ("MI shallow|PR partial|BC patches of|DR low drifting|BL blowing|SH showers of|TS thunderstorm"
                        + "|FZ freezing|DZ drizzle|RA rain|SN snow|SG snow grains|IC ice crystals|PL ice pellets|GR hail"
                        + "|GS small hail|UP unknown precipitation|BR mist|FG fog|FU smoke|VA volcanic ash|DU dust|SA sand"
                        + "|HZ haze|PY spray|PO dust whirls|SQ squalls|FC funnel cloud|SS sandstorm|DS duststorm")
                .split("\\|");
        for (String p : pairs) {
            WORDS.put(p.substring(0, 2), p.substring(3));
        }
    }

    /**
     * @param station its location indicator
     * @param automatic reported without a person
     * @param trend forecast for the next two hours, as it stands; empty when there is none. The observation holds it read
     * @param remarks after RMK, as they stand
     * @param kept groups that were recognised and are not reckoned with, or were not understood
     */
    public record Reading(
            String station,
            Observation observation,
            boolean automatic,
            String trend,
            String remarks,
            List<String> kept) {}

    // the report being read
    private Instant at;
    private OptionalDouble windFrom = OptionalDouble.empty();
    private boolean variable;
    private OptionalDouble variesFrom = OptionalDouble.empty();
    private OptionalDouble variesTo = OptionalDouble.empty();
    private OptionalDouble wind = OptionalDouble.empty();
    private OptionalDouble gust = OptionalDouble.empty();
    private OptionalDouble visibility = OptionalDouble.empty();
    private final List<String> phenomena = new ArrayList<>();
    private final List<Observation.Layer> layers = new ArrayList<>();
    private boolean clear;
    private OptionalDouble temperature = OptionalDouble.empty();
    private OptionalDouble dewPoint = OptionalDouble.empty();
    private OptionalDouble pressure = OptionalDouble.empty();
    private boolean falls;
    private final List<String> kept = new ArrayList<>();

    private Metar() {}

    /**
     * @param text with or without the word METAR before and the sign = after
     * @param now the report is of the newest day of that number that is not later than an hour from now
     * @throws IllegalArgumentException when it has no station or time, or nothing of it is understood
     */
    public static Reading read(String text, Instant now) {
        String t = text.strip().toUpperCase(Locale.ROOT).replaceAll("\\s+", " ").replaceFirst("\\s*=$", "");
        if (t.isEmpty() || t.length() > MOST_TEXT) {
            throw new IllegalArgumentException("a report has 1 to " + MOST_TEXT + " characters, got " + t.length());
        }
        t = t.replaceFirst("^(METAR|SPECI) ", "").replaceFirst("^COR ", "");
        String[] head = t.split(" ", 3);
        Matcher time = head.length > 1 ? TIME.matcher(head[1]) : null;
        if (!head[0].matches("[A-Z][A-Z0-9]{3}") || time == null || !time.matches()) {
            throw new IllegalArgumentException("“" + (t.length() > 40 ? t.substring(0, 40) + "…" : t)
                    + "” is no report; it begins with the station and the time, such as XTAR 121350Z 24012KT 9999");
        }
        Metar m = new Metar();
        m.at = instant(time, now);
        String rest = head.length > 2 ? head[2] : "";
        String remarks = "";
        int rmk = (" " + rest + " ").indexOf(" RMK ");
        if (rmk >= 0) {
            remarks = rest.substring(Math.min(rest.length(), rmk + 4)).strip();
            rest = rest.substring(0, rmk).strip();
        }
        String trend = "";
        Matcher trends = TRENDS.matcher(rest);
        if (trends.find()) {
            trend = rest.substring(trends.start()).strip();
            rest = rest.substring(0, trends.start()).strip();
        }
        if (rest.equals("NIL") || rest.isEmpty()) {
            throw new IllegalArgumentException("the station " + head[0] + " sent no report"
                    + (rest.isEmpty() ? ": nothing stands after the time" : " (NIL)"));
        }
        Matcher second = SECOND.matcher(rest + " " + trend + " " + remarks);
        if (second.find()) {
            throw new IllegalArgumentException("this is more than one report: another begins at “"
                    + second.group().strip() + "”; paste one at a time");
        }
        boolean automatic = m.groups(rest);
        m.requireSense();
        Observation o = m.observation(m.trend(trend));
        return new Reading(head[0], o, automatic, trend, remarks, List.copyOf(m.kept));
    }

    private Observation observation(List<Observation.Change> mayBe) {
        return new Observation(
                at,
                windFrom,
                variable,
                variesFrom,
                variesTo,
                wind,
                gust,
                10,
                visibility,
                phenomena,
                layers,
                clear,
                temperature,
                dewPoint,
                pressure,
                Optional.of(falls),
                mayBe);
    }

    /** The changes of a trend such as "BECMG FM1430 24020KT TEMPO 0800 FG"; a group not understood is kept. */
    private List<Observation.Change> trend(String text) {
        List<Observation.Change> changes = new ArrayList<>();
        for (String part : text.split("(?=\\b(?:NOSIG|BECMG|TEMPO)\\b)")) {
            String groups = part.replaceFirst("^(NOSIG|BECMG|TEMPO)", "").strip();
            if (groups.isEmpty()) {
                continue;
            }
            Metar m = new Metar();
            m.at = at;
            Instant from = at;
            Instant until = Observation.trendEnds(at);
            StringBuilder rest = new StringBuilder();
            for (String g : groups.split(" ")) {
                Matcher t = TREND_TIME.matcher(g);
                if (!t.matches()) {
                    rest.append(rest.isEmpty() ? "" : " ").append(g);
                } else if (t.group(1).equals("TL")) {
                    // what is changing until then stays as it has become
                    until = part.startsWith("TEMPO") ? trendTime(t, until) : until;
                } else {
                    from = trendTime(t, from);
                }
            }
            m.groups(rest.toString());
            m.requireSense();
            kept.addAll(m.kept);
            if (!until.isBefore(from)) {
                changes.add(new Observation.Change(from, until, m.observation(List.of())));
            }
        }
        return changes;
    }

    /** A time of day within the two hours; any other says nothing that can be relied on, and {@code otherwise} stands. */
    private Instant trendTime(Matcher t, Instant otherwise) {
        int hour = Integer.parseInt(t.group(2));
        int minute = Integer.parseInt(t.group(3));
        if (hour > 24 || minute > 59) {
            return otherwise;
        }
        Instant day = at.atZone(ZoneOffset.UTC)
                .toLocalDate()
                .atStartOfDay(ZoneOffset.UTC)
                .toInstant();
        Instant then = day.plusSeconds(hour * 3600L + minute * 60L);
        then = then.isBefore(at) ? then.plusSeconds(86_400) : then;
        return then.isAfter(Observation.trendEnds(at)) ? otherwise : then;
    }

    private static Instant instant(Matcher time, Instant now) {
        int day = Integer.parseInt(time.group(1));
        int hour = Integer.parseInt(time.group(2));
        int minute = Integer.parseInt(time.group(3));
        if (day < 1 || day > 31 || hour > 23 || minute > 59) {
            throw new IllegalArgumentException("“" + time.group()
                    + "” is no time of a report; day, hour and minute are expected, such as 121350Z");
        }
        LocalDate d = now.plusSeconds(3600).atZone(ZoneOffset.UTC).toLocalDate();
        for (int back = 0; back <= OLDEST_DAYS; back++) {
            LocalDate candidate = d.minusDays(back);
            Instant at = candidate.atTime(LocalTime.of(hour, minute)).toInstant(ZoneOffset.UTC);
            if (candidate.getDayOfMonth() == day && !at.isAfter(now.plusSeconds(3600))) {
                return at;
            }
        }
        throw new IllegalArgumentException("“" + time.group() + "” is no time of the last " + OLDEST_DAYS
                + " days; a report of a time to come is a forecast: type its figures for the hour instead");
    }

    private void requireSense() {
        if (wind.isPresent() && gust.isPresent() && gust.getAsDouble() <= wind.getAsDouble()) {
            throw new IllegalArgumentException("the gust is not above the mean wind; look at the wind group");
        }
        if (temperature.isPresent() && dewPoint.isPresent() && dewPoint.getAsDouble() > temperature.getAsDouble()) {
            throw new IllegalArgumentException(
                    "the dew point lies above the temperature, which cannot be; look at the group such as 12/08");
        }
    }

    private boolean groups(String rest) {
        boolean automatic = false;
        String[] tokens = rest.isEmpty() ? new String[0] : rest.split(" ");
        for (int i = 0; i < tokens.length; i++) {
            String g = tokens[i];
            // "1 1/2SM" stands in two groups
            if (g.matches("\\d") && i + 1 < tokens.length && tokens[i + 1].matches("\\d/\\d{1,2}SM")) {
                g = g + " " + tokens[++i];
            }
            if (g.equals("AUTO")) {
                automatic = true;
            } else if (!group(g)) {
                kept.add(g);
            }
        }
        return automatic;
    }

    private boolean group(String g) {
        return wind(g) || visibility(g) || cloud(g) || heat(g) || pressure(g) || weather(g);
    }

    private boolean wind(String g) {
        Matcher m = WIND.matcher(g);
        if (m.matches()) {
            double unit = switch (m.group(4)) {
                case "KT" -> NamedUnit.KNOT.factor();
                case "KMH" -> NamedUnit.KILOMETRE_PER_HOUR.factor();
                default -> 1;
            };
            variable = m.group(1).equals("VRB");
            if (m.group(1).matches("\\d{3}")) {
                windFrom = OptionalDouble.of(direction(m.group(1)) % 360);
            }
            if (!m.group(2).equals("//")) {
                wind = OptionalDouble.of(speed(m.group(2)) * unit);
            }
            if (m.group(3) != null) {
                gust = OptionalDouble.of(speed(m.group(3)) * unit);
            }
            return true;
        }
        m = VARIES.matcher(g);
        if (m.matches()) {
            variesFrom = OptionalDouble.of(direction(m.group(1)));
            variesTo = OptionalDouble.of(direction(m.group(2)));
            return true;
        }
        return false;
    }

    private static int direction(String s) {
        int degrees = Integer.parseInt(s);
        if (degrees > 360) {
            throw new IllegalArgumentException(
                    "a wind from " + s + " degrees cannot be; directions run from 000 to 360");
        }
        return degrees;
    }

    private static double speed(String s) {
        return Double.parseDouble(s.replace("P", ""));
    }

    private boolean visibility(String g) {
        if (g.equals("CAVOK")) {
            visibility = OptionalDouble.of(10_000);
            clear = true;
            return true;
        }
        Matcher m = METRES.matcher(g);
        if (m.matches()) {
            double v = Integer.parseInt(m.group(1));
            // a second group is the lowest visibility in a direction, and the lower one counts
            double seen = v == 9999 ? 10_000 : v;
            visibility = OptionalDouble.of(Math.min(visibility.orElse(10_000), seen));
            return true;
        }
        m = MILES.matcher(g);
        if (m.matches() && "0".equals(m.group(4) == null ? "" : m.group(4).replaceFirst("^0+", "0"))) {
            throw new IllegalArgumentException("a visibility of " + g + " cannot be");
        }
        if (m.matches()) {
            double miles = m.group(2) == null ? 0 : Double.parseDouble(m.group(2));
            miles += m.group(5) != null
                    ? Double.parseDouble(m.group(5))
                    : Double.parseDouble(m.group(3)) / Double.parseDouble(m.group(4));
            visibility = OptionalDouble.of(miles * NamedUnit.STATUTE_MILE.factor());
            return true;
        }
        return g.equals("////") || g.equals("//////");
    }

    private boolean cloud(String g) {
        if (g.matches("NSC|NCD|SKC|CLR")) {
            clear = true;
            return true;
        }
        Matcher m = CLOUD.matcher(g);
        if (!m.matches()) {
            return false;
        }
        String amount = Map.of(
                        "FEW", "few", "SCT", "scattered", "BKN", "broken", "OVC", "overcast", "VV", "sky not seen")
                .get(m.group(1));
        OptionalDouble base = m.group(2).equals("///")
                ? OptionalDouble.empty()
                : OptionalDouble.of(Integer.parseInt(m.group(2)) * 100 * Length.METRES_PER_FOOT);
        layers.add(new Observation.Layer(
                amount,
                base,
                "CB".equals(m.group(3)) ? "cumulonimbus" : "TCU".equals(m.group(3)) ? "towering cumulus" : ""));
        return true;
    }

    private boolean heat(String g) {
        Matcher m = HEAT.matcher(g);
        if (!m.matches()) {
            return false;
        }
        temperature = celsius(m.group(1));
        dewPoint = celsius(m.group(2));
        return true;
    }

    private static OptionalDouble celsius(String s) {
        return s == null || s.equals("//")
                ? OptionalDouble.empty()
                : OptionalDouble.of(Integer.parseInt(s.replace('M', '-')));
    }

    private boolean pressure(String g) {
        Matcher m = PRESSURE.matcher(g);
        if (!m.matches()) {
            return g.equals("Q////");
        }
        pressure = OptionalDouble.of(
                m.group(1) != null
                        ? Integer.parseInt(m.group(1))
                        : Math.round(Integer.parseInt(m.group(2)) / 100.0 * HPA_PER_INCH * 10) / 10.0);
        return true;
    }

    private boolean weather(String g) {
        if (g.equals("NSW")) {
            return true;
        }
        Matcher m = WEATHER.matcher(g);
        if (!m.matches()
                || (m.group(2) == null && m.group(3).isEmpty() && m.group(4).isEmpty())) {
            return false;
        }
        List<String> words = new ArrayList<>();
        boolean vicinity = "VC".equals(m.group(1));
        if (m.group(1) != null && !vicinity) {
            words.add(m.group(1).equals("+") ? "heavy" : "light");
        }
        if (m.group(2) != null) {
            boolean alone = m.group(2).equals("SH") && m.group(3).isEmpty();
            words.add(alone ? "showers" : WORDS.get(m.group(2)));
        }
        for (int i = 0; i < m.group(3).length(); i += 2) {
            words.add((i > 0 ? "and " : "") + WORDS.get(m.group(3).substring(i, i + 2)));
        }
        if (!m.group(4).isEmpty()) {
            words.add(WORDS.get(m.group(4)));
        }
        if (vicinity) {
            words.add("in the vicinity");
        }
        falls |= !vicinity && !m.group(3).isEmpty();
        phenomena.add(String.join(" ", words));
        return true;
    }
}
