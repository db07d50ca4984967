package yarrek.core.geo;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Positions as people write them. Read: decimal degrees, degrees and decimal minutes, degrees minutes and seconds, with
 * signs or hemisphere letters before or after, with any of the usual marks or none, packed as on notices
 * ("463452N0175600W"), decimal comma allowed where a semicolon or letters part the two. Latitude comes first unless the
 * letters say otherwise.
 */
public final class PositionText {
    /** How a position is written. */
    public enum Notation {
        DECIMAL("decimal degrees"),
        MINUTES("degrees, decimal minutes"),
        SECONDS("degrees, minutes, seconds");

        private final String words;

        Notation(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private static final String ACCEPTED =
            "type latitude and longitude, such as 46.6123, -17.8934 or 46°36'44\"N 17°53'36\"W or N46 36.74 W017 53.60";
    private static final Pattern PACKED =
            Pattern.compile("(\\d{4}(?:\\d{2})?(?:\\.\\d{1,6})?)([NS])(\\d{5}(?:\\d{2})?(?:\\.\\d{1,6})?)([EW])");
    private static final Pattern PACKED_LED =
            Pattern.compile("([NS])(\\d{4}(?:\\d{2})?(?:\\.\\d{1,6})?)[,/]?([EW])(\\d{5}(?:\\d{2})?(?:\\.\\d{1,6})?)");
    private static final Pattern DECIMAL_COMMAS =
            Pattern.compile("([+-]?\\d{1,3},\\d{2,20})\\s*[,;\\s]\\s*([+-]?\\d{1,3},\\d{2,20})");
    private static final Pattern HEIGHT = Pattern.compile("[+-]?\\d{1,5}(?:\\.\\d{1,20})?\\s*M?");
    private static final Pattern LINK = Pattern.compile("(?i)^geo:|[?;](?:u|crs|z)=.*$");
    private static final Pattern GRID = Pattern.compile(
            "(?i)\\d{1,2}\\s*[C-HJ-NP-X]\\s*[A-HJ-NP-Z]{2}\\s*\\d{2,5}\\s*\\d{2,5}|\\d{1,2}\\s*[C-HJ-NP-X]\\s+\\d{6}(?:[.]\\d+)?[,\\s]+\\d{6,7}(?:[.]\\d+)?|[A-HJ-Z]{2}\\s*\\d{3,5}\\s*\\d{3,5}");
    private static final Pattern LETTER = Pattern.compile("[NSEWO]");
    private static final Pattern NUMBER = Pattern.compile("\\d{1,3}(?:\\.\\d{1,20})?");
    private static final int LONGEST = 80;

    private PositionText() {}

    /** @throws IllegalArgumentException that quotes what was found and says what is accepted */
    public static Position parse(String typed) {
        String t = typed.strip();
        if (t.isEmpty() || t.length() > LONGEST) {
            throw wrong(t);
        }
        if (GRID.matcher(t).matches()) {
            throw new IllegalArgumentException(
                    "“" + t + "” looks like a grid reference; grids are not read here. " + capital(ACCEPTED));
        }
        String s = LINK.matcher(t)
                .replaceAll("")
                .toUpperCase(Locale.ROOT)
                .replaceAll("^[(\\[{]\\s*|\\s*[)\\]}]$", "")
                .replace('−', '-')
                .replace('–', '-')
                .replace('—', '-')
                .replace('′', '\'')
                .replace('’', '\'')
                .replace('‘', '\'')
                .replace('”', '"')
                .replace('“', '"')
                .replace('″', '"')
                .replace("''", "\"")
                .replace('º', '°')
                .replace('˚', '°');
        Matcher led = PACKED_LED.matcher(s.replace(" ", ""));
        if (led.matches()) {
            return made(
                    t,
                    packed(led.group(2), 2) * (led.group(1).equals("S") ? -1 : 1),
                    packed(led.group(4), 3) * (led.group(3).equals("W") ? -1 : 1));
        }
        Matcher packed = PACKED.matcher(s.replace(" ", ""));
        if (packed.matches()) {
            return made(
                    t,
                    packed(packed.group(1), 2) * (packed.group(2).equals("S") ? -1 : 1),
                    packed(packed.group(3), 3) * (packed.group(4).equals("W") ? -1 : 1));
        }
        long letters = LETTER.matcher(s).results().count();
        if (letters != 0 && letters != 2) {
            throw wrong(t);
        }
        List<String> halves = letters == 2 ? byLetters(t, s) : bySeparator(t, s);
        double[] first = half(t, halves.get(0));
        double[] second = half(t, halves.get(1));
        boolean swapped = first[1] == 1 || second[1] == 0;
        if ((first[1] == 1) == (second[1] == 1) && first[1] >= 0) {
            throw wrong(t);
        }
        return swapped ? made(t, second[0], first[0]) : made(t, first[0], second[0]);
    }

    /** Each half carries one letter, before or after its figures. */
    private static List<String> byLetters(String typed, String s) {
        boolean before = LETTER.matcher(s.substring(0, 1)).matches();
        Matcher m = LETTER.matcher(s);
        m.find();
        int one = m.start();
        m.find();
        int two = m.start();
        if (before) {
            return List.of(s.substring(0, two), s.substring(two));
        }
        if (two != s.length() - 1) {
            throw wrong(typed);
        }
        return List.of(s.substring(0, one + 1), s.substring(one + 1));
    }

    private static List<String> bySeparator(String typed, String s) {
        Matcher commas = DECIMAL_COMMAS.matcher(s);
        if (commas.matches()) {
            return List.of(commas.group(1), commas.group(2));
        }
        String[] parts = s.contains(";") ? s.split(";") : s.split(",");
        // a third figure is a height, as other programs write it
        boolean withHeight = parts.length == 3
                && parts[0].contains(".")
                && parts[1].contains(".")
                && HEIGHT.matcher(parts[2].strip()).matches();
        if (parts.length == 2 || withHeight) {
            return List.of(parts[0], parts[1]);
        }
        if (parts.length == 1) {
            List<String> words = new ArrayList<>(List.of(s.strip().split("\\s+")));
            if (words.size() % 2 == 0 && words.size() <= 6) {
                int n = words.size() / 2;
                return List.of(String.join(" ", words.subList(0, n)), String.join(" ", words.subList(n, 2 * n)));
            }
        }
        throw wrong(typed);
    }

    /** Degrees, and which it is: 0 latitude, 1 longitude, -1 not said. */
    private static double[] half(String typed, String text) {
        String s = text.strip().replaceAll("^[,/]|[,/]$", "").strip();
        int axis = -1;
        int sign = 1;
        Matcher letter = LETTER.matcher(s);
        if (letter.find()) {
            char c = s.charAt(letter.start());
            axis = c == 'N' || c == 'S' ? 0 : 1;
            sign = c == 'S' || c == 'W' || c == 'O' ? -1 : 1;
            if (c == 'O') {
                throw new IllegalArgumentException("“" + typed
                        + "” has the letter O, which is east in one language and west in another; use E or W");
            }
            s = s.replace(String.valueOf(c), " ").strip();
        }
        if (s.startsWith("-") || s.startsWith("+")) {
            if (axis >= 0) {
                throw new IllegalArgumentException("“" + typed + "” has both a sign and a letter; use one of them");
            }
            sign = s.startsWith("-") ? -1 : 1;
            s = s.substring(1).strip();
        }
        String[] parts = s.replace(',', '.').replaceAll("[°'\":]", " ").strip().split("\\s+");
        if (parts.length > 3) {
            throw wrong(typed);
        }
        double degrees = 0;
        for (int i = 0; i < parts.length; i++) {
            if (!NUMBER.matcher(parts[i]).matches() || (i < parts.length - 1 && parts[i].contains("."))) {
                throw wrong(typed);
            }
            double v = Double.parseDouble(parts[i]);
            if (i > 0 && v >= 60) {
                throw new IllegalArgumentException(
                        "“" + typed + "” has " + parts[i] + " minutes or seconds; they run from 0 to below 60");
            }
            degrees += v / Math.pow(60, i);
        }
        return new double[] {sign * degrees, axis};
    }

    /** DDMM, DDMMSS or with decimals, and one figure more for longitudes. */
    private static double packed(String figures, int degreeFigures) {
        int point = figures.indexOf('.');
        int whole = point < 0 ? figures.length() : point;
        double degrees = Double.parseDouble(figures.substring(0, degreeFigures));
        if (whole == degreeFigures + 2) {
            return degrees + below60(figures, figures.substring(degreeFigures)) / 60;
        }
        return degrees
                + below60(figures, figures.substring(degreeFigures, degreeFigures + 2)) / 60
                + below60(figures, figures.substring(degreeFigures + 2)) / 3600;
    }

    private static double below60(String figures, String part) {
        double v = Double.parseDouble(part);
        if (v >= 60) {
            throw new IllegalArgumentException(
                    "“" + figures + "” has " + part + " minutes or seconds; they run from 0 to below 60");
        }
        return v;
    }

    private static Position made(String typed, double lat, double lon) {
        if (Math.abs(lat) > 90 && Math.abs(lon) <= 90) {
            throw new IllegalArgumentException("“" + typed + "” has a latitude of " + lat
                    + "; latitude comes first, so perhaps the two are swapped");
        }
        return new Position(lat, lon);
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    private static IllegalArgumentException wrong(String typed) {
        return new IllegalArgumentException("“" + (typed.length() > 40 ? typed.substring(0, 40) + "…" : typed)
                + "” is not a position; " + ACCEPTED);
    }

    /** Written out: six decimals of a degree (0.1 m), three of a minute (2 m), one of a second (3 m). */
    public static String format(Position p, Notation n) {
        return switch (n) {
            case DECIMAL -> p.toString();
            case MINUTES -> minutes(p.latitudeDeg(), 2, "NS") + " " + minutes(p.longitudeDeg(), 3, "EW");
            case SECONDS -> seconds(p.latitudeDeg(), 2, "NS") + " " + seconds(p.longitudeDeg(), 3, "EW");
        };
    }

    private static String minutes(double deg, int figures, String letters) {
        long thousandths = Math.round(Math.abs(deg) * 60_000);
        return String.format(
                Locale.ROOT,
                "%0" + figures + "d°%06.3f'%s",
                thousandths / 60_000,
                thousandths % 60_000 / 1000.0,
                letters.charAt(deg < 0 ? 1 : 0));
    }

    private static String seconds(double deg, int figures, String letters) {
        long tenths = Math.round(Math.abs(deg) * 36_000);
        return String.format(
                Locale.ROOT,
                "%0" + figures + "d°%02d'%04.1f\"%s",
                tenths / 36_000,
                tenths / 600 % 60,
                tenths % 600 / 10.0,
                letters.charAt(deg < 0 ? 1 : 0));
    }
}
