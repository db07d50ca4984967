package yarrek.formats.csv;

import java.text.Normalizer;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrek.formats.log.Numbers;

/**
 * Suggests a reading plan from headers and first rows: words in English, German, French and Spanish, units in brackets or
 * at the end of the header, and the size of the figures. What is guessed is marked so; a person has the last word.
 */
public final class PlanSuggester {
    private static final Pattern BRACKETED = Pattern.compile("^(.*?)[\\[(]([^\\])]*)[\\])]\\s*$");
    /** "speed m/s", "vs_ft/min": a unit with a stroke that stands at the end without brackets. */
    private static final Pattern PER_TIME = Pattern.compile("^(.*?)[ _]+((?:m|km|ft|mi)/(?:s|h|min))\\s*$");

    /** Words that make a moment beside them the start of the flight, and those that make it another. */
    private static final Pattern START = Pattern.compile(
            "\\b(start(ed|s| time)?|begin(s|ning)?|began|begun|recorded|recording|flown|take ?off|armed|beginn|gestartet|aufgezeichnet|aufzeichnung|debut|depart|decollage|inicio|comienzo|despegue|log ?start)\\b");

    private static final Pattern NO_START = Pattern.compile(
            "\\b(export(ed|iert)?|printed|saved|created|written|downloaded|generated|converted|firmware|version|built|until|end(ed|s)?|stop(ped)?|landed|landing)\\b");

    private static final Pattern ISO =
            Pattern.compile("\\d{4}-\\d{2}-\\d{2}[T ]\\d{2}:\\d{2}(:\\d{2}([.,]\\d+)?)?\\s*(Z|[+-]\\d{2}:?\\d{2})?");
    private static final Pattern ZONED = Pattern.compile(".*\\d(Z|[+-]\\d{2}:\\d{2})");
    private static final Pattern DATE = Pattern.compile("\\d{1,4}[./-]\\d{1,2}[./-]\\d{1,4}");
    private static final Pattern CLOCK = Pattern.compile("\\d{1,2}:\\d{2}(:\\d{2}([.,]\\d+)?)?(\\s*[AaPp][Mm])?");
    private static final Pattern CELL = Pattern.compile("\\b(cell|zelle|cellule|celda)\\s?0?(\\d{1,2})\\b");

    private static final int MONTHS = 12;
    private static final int LABEL = 40; // characters before a moment that can name it

    private static final double EPOCH_SECONDS_FROM = 5e8; // 1985; no log counts seconds from its start that far
    private static final double EPOCH_MILLIS_FROM = 5e11;
    private static final double EPOCH_MICROS_FROM = 5e14;

    /** Words by role, tried in this order; the first that matches wins. */
    private static final Map<ColumnRole, Pattern> WORDS = new LinkedHashMap<>();

    static {
        words(ColumnRole.MESSAGE_LEVEL, "severity|stufe|gravite|nivel|level|levels|msg levels?|message level");
        words(ColumnRole.MESSAGE, "message|messages|msgs?|meldung|meldungen|mensaje|warnings?|events?|notes?|text");
        words(ColumnRole.CELLS, "cells|zellen|cellules|celdas|cell voltages");
        words(ColumnRole.WIND_FROM, "wind.*(from|aus|dir|direction|richtung|deg)|(direction|richtung).*wind");
        words(ColumnRole.WIND, "wind|vent|viento");
        words(
                ColumnRole.BATTERY_TEMPERATURE,
                "(batt?ery|akku|pack|batt|batterie|bateria|cell).*temp\\w*|akkutemperatur|temp\\w* (batt?ery|akku|batterie|bateria)");
        words(
                ColumnRole.AIR_TEMPERATURE,
                "(air|luft|ambient|outside|oat|aire).*temp\\w*|lufttemperatur|temperature de l air");
        words(ColumnRole.CHARGE_USED, ".*(used|consumed|verbraucht|verbrauch|discharged|consomme|drawn|usado).*");
        words(
                ColumnRole.VOLTAGE,
                "(batt?ery |pack |batt |akku )?(voltage|volts?|spannung|tension|voltaje)( total)?|akkuspannung|vbat");
        words(
                ColumnRole.CURRENT,
                "(batt?ery |pack |batt |akku )?(current|strom|amps?|courant|corriente|amperage)|ibat");
        words(
                ColumnRole.BATTERY_PCT,
                "batt?ery|akku|soc|batterie|bateria|charge|ladung|ladestand|batt|remaining|batt?ery (remaining|level|charge|percent\\w*)|akkustand|state of charge");
        words(ColumnRole.LINK, "link|signal|rssi|funk|radio|rc quality|rc signal|link quality|lq|liaison|senal");
        words(ColumnRole.SATELLITES, "(gps |gnss )?(sats?|satell\\w*|satelites|num ?sv|numsats?)( (count|used))?|nsat");
        words(ColumnRole.LATITUDE, "(gps |gnss )?(lat|latitude|breite|breitengrad|latitud)");
        words(ColumnRole.LONGITUDE, "(gps |gnss )?(lon|lng|long|longitude|lange|langengrad|longitud)");
        words(ColumnRole.STICK_THROTTLE, "throttle|gas|(stick|rc|input) (t|throttle|thr|gas)|gasknuppel|gaz");
        words(ColumnRole.STICK_YAW, "rudder|(stick|rc|input) (y|yaw|rudder)|gierknuppel|yaw stick");
        words(ColumnRole.STICK_PITCH, "elevator|(stick|rc|input) (p|pitch|elevator|ele)|nickknuppel|pitch stick");
        words(ColumnRole.STICK_ROLL, "aileron|(stick|rc|input) (r|roll|aileron|ail)|rollknuppel|roll stick");
        words(ColumnRole.MODE, "(flight )?(mode|modus|state)|flugmodus|mode de vol|modo");
        words(ColumnRole.HOME_SET, "home|home (set|point|valid)|heimpunkt|home point set|homepoint");
        words(
                ColumnRole.UTC_OFFSET,
                "(utc|gmt|tz|zone|zeitzone).*(versatz|offset|shift)|offset|tz|timezone|utc ?versatz|utcversatz");
        words(
                ColumnRole.CLIMB,
                "climb|climb rate|vspeed|vertical (speed|velocity)|v speed|vs|vz|vario|steigrate|steigen|vertikalgeschwindigkeit|vitesse verticale|speed (z|vertical)|velocidad vertical");
        words(
                ColumnRole.GROUND_SPEED,
                "speed|velocity|(ground|horizontal|gps|h) ?(speed|velocity)|gs|groundspeed|geschwindigkeit|vitesse( sol)?|velocidad|speed (horizontal|2d)|hspeed");
        words(
                ColumnRole.ALTITUDE_MSL,
                "(alt|altitude|hohe|height|elevation|ele|elev|altura|altitud|hauteur).*\\b(msl|amsl|asl|sea|sea level|u m|uber meer|nn|nhn|mer|mar)\\b.*|(msl|amsl|asl).*(alt|altitude|height)?|(gps|gnss) (alt|altitude|height)|elevation|ele");
        words(
                ColumnRole.HEIGHT_ABOVE_TAKEOFF,
                "(rel|relative|baro).*(alt|altitude|height|hohe)|(alt|altitude|hohe|height|hauteur|altura).*(take ?off|home|start|rel|relative|despegue|decollage|launch|ground).*|height|hohe|hauteur|altura|agl|hagl|above ground( level)?|(alt|altitude|height|hohe|elevation|gps alt|gps altitude).*\\bagl|agl (alt|altitude|height)");
        words(ColumnRole.HEADING, "yaw|heading|gieren|kurs|course|compass|cap|rumbo|hdg|bearing");
        words(ColumnRole.ROLL, "roll|rollen|roulis|alabeo|bank");
        words(ColumnRole.PITCH, "pitch|nicken|tangage|cabeceo");
        words(ColumnRole.DATE, "date|datum|fecha|jour|day|(utc|local) date");
        words(
                ColumnRole.TIME,
                "(utc|gps|local|log|elapsed|flight)? ?(time|timestamp|zeit|uhrzeit|zeitstempel|hora|heure|tiempo|temps|clock|datetime|date time|time (utc|local)|elapsed|t)|timestamp( (utc|local))?|elapsed( time)?|time since.*|offset time|uptime|timeus|time us|dateutc|utc");
    }

    private PlanSuggester() {}

    /** The best plan that headers and first rows allow. */
    public static ReadingPlan suggest(CsvSheet sheet) {
        List<ColumnPlan> columns = new ArrayList<>();
        Set<ColumnRole> taken = EnumSet.noneOf(ColumnRole.class);
        for (int i = 0; i < sheet.headers().size(); i++) {
            ColumnPlan plan = column(sheet, i);
            boolean again = plan.role().isSingle() && !taken.add(plan.role());
            columns.add(again ? new ColumnPlan(plan.header(), ColumnRole.IGNORE, Unit.TEXT, true) : plan);
        }
        return new ReadingPlan(
                columns, sheet.decimalComma(), zone(sheet, columns), dateOrder(sheet, columns), start(sheet));
    }

    private static ColumnPlan column(CsvSheet sheet, int index) {
        String header = sheet.headers().get(index).strip();
        String name = header;
        String unitText = "";
        Matcher bracketed = BRACKETED.matcher(header);
        if (bracketed.matches()) {
            name = bracketed.group(1);
            unitText = bracketed.group(2);
        }
        Matcher perTime = PER_TIME.matcher(name.strip());
        if (unitText.isEmpty() && perTime.matches()) {
            name = perTime.group(1);
            unitText = perTime.group(2);
        }
        String plain = plain(name);
        List<String> cells = sheet.column(index);
        // a last word may be a unit: "height_m", "battery_v", "speed_ms"
        int lastSpace = plain.lastIndexOf(' ');
        String last = lastSpace > 0 ? plain.substring(lastSpace + 1) : "";
        String stem = lastSpace > 0 ? plain.substring(0, lastSpace) : plain;
        String unit = unitText.isEmpty() ? last : unitText;
        if (CELL.matcher(plain).find()) {
            return withUnit(header, ColumnRole.CELL, unit, plain, cells, sheet);
        }
        if (stem.matches("batt?ery|batt|akku|pack|batterie|bateria|bat")
                || plain.matches("batt?ery|batt|akku|pack|bat")) {
            String u = unit.toLowerCase(Locale.ROOT);
            if (u.matches("m?v|volts?")) {
                return withUnit(header, ColumnRole.VOLTAGE, unit, plain, cells, sheet);
            }
            if (u.matches("m?a|amps?")) {
                return withUnit(header, ColumnRole.CURRENT, unit, plain, cells, sheet);
            }
        }
        for (String candidate :
                unitText.isEmpty() && looksLikeUnit(last) ? List.of(stem, plain) : List.of(plain, stem)) {
            for (Map.Entry<ColumnRole, Pattern> e : WORDS.entrySet()) {
                if (e.getValue().matcher(candidate).matches()) {
                    return withUnit(header, e.getKey(), unit, plain, cells, sheet);
                }
            }
        }
        return altitudeByName(header, unit, stem, plain, cells, sheet);
    }

    /** "altitude" alone says no reference: near zero at the start it is taken from take-off, else from the sea. */
    private static ColumnPlan altitudeByName(
            String header, String unit, String stem, String plain, List<String> cells, CsvSheet sheet) {
        if (stem.matches("alt|altitude|altitud") || plain.matches("alt|altitude|altitud")) {
            double first = cells.isEmpty() ? Double.NaN : Numbers.parse(cells.get(0), sheet.decimalComma());
            ColumnRole role = Math.abs(first) < 5 ? ColumnRole.HEIGHT_ABOVE_TAKEOFF : ColumnRole.ALTITUDE_MSL;
            ColumnPlan plan = withUnit(header, role, unit, plain, cells, sheet);
            return new ColumnPlan(header, role, plan.unit(), true);
        }
        return new ColumnPlan(header, ColumnRole.IGNORE, Unit.TEXT, false);
    }

    private static boolean looksLikeUnit(String word) {
        for (Unit.Kind kind : Unit.Kind.values()) {
            if (Unit.named(kind, word).isPresent()) {
                return true;
            }
        }
        return word.matches("s|ms|us|sec|seconds|utc");
    }

    private static ColumnPlan withUnit(
            String header, ColumnRole role, String unitText, String plain, List<String> cells, CsvSheet sheet) {
        if (role == ColumnRole.TIME) {
            return time(header, unitText, plain, cells, sheet);
        }
        if (role.kind() == Unit.Kind.TEXT || role.kind() == Unit.Kind.COUNT) {
            return new ColumnPlan(header, role, Unit.of(role.kind()).get(0), false);
        }
        Optional<Unit> named = Unit.named(role.kind(), unitText);
        double largest = largest(cells, sheet.decimalComma());
        if (role.kind() == Unit.Kind.COORDINATE && largest > 1000) {
            return new ColumnPlan(header, role, Unit.DEGREES_E7, false);
        }
        if (named.isPresent()) {
            return new ColumnPlan(header, role, named.get(), false);
        }
        Unit guess = switch (role.kind()) {
            case VOLTAGE -> largest > 1000 ? Unit.MILLIVOLTS : Unit.VOLTS;
            case CURRENT -> largest > 400 ? Unit.MILLIAMPERES : Unit.AMPERES;
            case SHARE -> largest <= 1 && largest > 0 ? Unit.FRACTION : Unit.PERCENT;
            case STICK ->
                largest > 900 ? Unit.STICK_MICROSECONDS : largest > 1.5 ? Unit.STICK_PERCENT : Unit.STICK_UNIT;
            case CHARGE -> Unit.MILLIAMPERE_HOURS;
            default -> Unit.of(role.kind()).get(0);
        };
        boolean stated = role.kind() == Unit.Kind.COORDINATE || role.kind() == Unit.Kind.STICK;
        return new ColumnPlan(header, role, guess, !stated);
    }

    private static ColumnPlan time(String header, String unitText, String plain, List<String> cells, CsvSheet sheet) {
        String first = cells.isEmpty() ? "" : cells.get(0);
        if (ISO.matcher(first).matches() || (DATE.matcher(first).lookingAt() && first.contains(":"))) {
            return new ColumnPlan(header, ColumnRole.TIME, Unit.DATE_TIME, false);
        }
        if (CLOCK.matcher(first).matches()) {
            return new ColumnPlan(header, ColumnRole.TIME_OF_DAY, Unit.TEXT, false);
        }
        double v = Math.abs(Numbers.parse(first, sheet.decimalComma()));
        if (v >= EPOCH_SECONDS_FROM) {
            return new ColumnPlan(
                    header,
                    ColumnRole.TIME,
                    v >= EPOCH_MICROS_FROM
                            ? Unit.EPOCH_MICROS
                            : v >= EPOCH_MILLIS_FROM ? Unit.EPOCH_MILLIS : Unit.EPOCH_SECONDS,
                    false);
        }
        String u = unitText.toLowerCase(Locale.ROOT).strip();
        if (u.matches("ms|msec|milliseconds?|millisecond") || plain.matches(".*\\b(ms|millis\\w*)\\b.*")) {
            return new ColumnPlan(header, ColumnRole.TIME, Unit.ELAPSED_MILLIS, false);
        }
        if (u.matches("us|µs|micros\\w*") || plain.matches(".*\\b(us|micros\\w*|timeus)\\b.*")) {
            return new ColumnPlan(header, ColumnRole.TIME, Unit.ELAPSED_MICROS, false);
        }
        boolean stated = u.matches("s|sec|seconds?");
        return new ColumnPlan(header, ColumnRole.TIME, Unit.ELAPSED_SECONDS, !stated);
    }

    /** UTC when the times say so themselves, or their header does; else a person must say. */
    private static Optional<ZoneId> zone(CsvSheet sheet, List<ColumnPlan> columns) {
        for (int i = 0; i < columns.size(); i++) {
            ColumnPlan c = columns.get(i);
            if (c.unit() != Unit.DATE_TIME && c.role() != ColumnRole.TIME_OF_DAY) {
                continue;
            }
            List<String> cells = sheet.column(i);
            boolean says = !cells.isEmpty()
                    && cells.stream().allMatch(s -> ZONED.matcher(s).matches());
            if (says || plain(c.header()).matches(".*\\b(utc|gmt|zulu)\\b.*")) {
                return Optional.of(ZoneOffset.UTC);
            }
        }
        return Optional.empty();
    }

    private static double largest(List<String> cells, boolean decimalComma) {
        return cells.stream()
                .mapToDouble(c -> Math.abs(Numbers.parse(c, decimalComma)))
                .filter(d -> !Double.isNaN(d))
                .max()
                .orElse(Double.NaN);
    }

    /**
     * The order of day and month as the dates show it: a part over 12 can only be a day, a point between is written day
     * first. Where every date can be both, nobody has said.
     */
    private static ReadingPlan.DateOrder dateOrder(CsvSheet sheet, List<ColumnPlan> columns) {
        ReadingPlan.DateOrder order = ReadingPlan.DateOrder.DAY_MONTH_YEAR;
        for (int i = 0; i < columns.size(); i++) {
            ColumnPlan c = columns.get(i);
            if (c.role() != ColumnRole.DATE && c.unit() != Unit.DATE_TIME) {
                continue;
            }
            for (String cell : sheet.column(i)) {
                Matcher m = DATE.matcher(cell);
                if (!m.lookingAt()) {
                    continue;
                }
                String[] parts = m.group().split("[./-]");
                if (parts[0].length() == 4) {
                    return ReadingPlan.DateOrder.YEAR_MONTH_DAY;
                }
                if (Integer.parseInt(parts[0]) > MONTHS || m.group().contains(".")) {
                    return ReadingPlan.DateOrder.DAY_MONTH_YEAR;
                }
                if (Integer.parseInt(parts[1]) > MONTHS) {
                    return ReadingPlan.DateOrder.MONTH_DAY_YEAR;
                }
                if (!parts[0].equals(parts[1])) {
                    order = ReadingPlan.DateOrder.NOT_SAID;
                }
            }
        }
        return order;
    }

    /** A full date and time with a zone in the lines above the header, where the line says that it is the start. */
    private static Optional<Instant> start(CsvSheet sheet) {
        for (String line : sheet.preamble()) {
            Matcher m = ISO.matcher(line);
            while (m.find()) {
                // what stands before a moment names it; a line may name two
                String before = plain(line.substring(0, m.start()));
                String label = before.substring(Math.max(0, before.length() - LABEL));
                boolean starts =
                        START.matcher(label).find() && !NO_START.matcher(label).find();
                if (!starts || m.group(3) == null) {
                    continue;
                }
                String iso = m.group().replace(" ", "T").replace(',', '.');
                try {
                    return Optional.of(OffsetDateTime.parse(iso).toInstant());
                } catch (java.time.DateTimeException e) {
                    // not a moment after all; the next may be
                }
            }
        }
        return Optional.empty();
    }

    /** Lower case, no accents, camelCase and underscores as spaces. */
    private static String plain(String s) {
        String split = s.replaceAll("([a-z])([A-Z])", "$1 $2");
        return Normalizer.normalize(split, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", " ")
                .strip();
    }

    private static void words(ColumnRole role, String pattern) {
        WORDS.put(role, Pattern.compile(pattern));
    }
}
