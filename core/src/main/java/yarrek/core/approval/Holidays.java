package yarrek.core.approval;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.MonthDay;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Days on which granters do not work, written one in a line: a date of every year ({@code 12-25 Christmas}), days from
 * Easter Sunday ({@code easter+1 Easter Monday}), the nth weekday of a month ({@code 09-mon-1}, {@code 05-mon-last}), or
 * one date ({@code 2027-04-30 bridge day}). A fixed date that falls on a weekend is not moved.
 */
public final class Holidays {
    private static final Pattern LINE = Pattern.compile(
            "(?<when>easter[+-]\\d{1,3}|\\d{4}-\\d{2}-\\d{2}|\\d{2}-\\d{2}|\\d{2}-[a-z]{3}-(\\d|last))" + "(\\s+.*)?");
    private static final List<String> WEEKDAYS = List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun");

    private Holidays() {}

    /**
     * The days of these lines in the years from and through, both included; empty lines are passed over.
     *
     * @throws IllegalArgumentException naming the line that is not understood
     */
    public static Set<LocalDate> of(String lines, int fromYear, int throughYear) {
        Set<LocalDate> days = new HashSet<>();
        int number = 0;
        for (String raw : lines.split("\\R", -1)) {
            number++;
            String line = raw.strip().toLowerCase(Locale.ROOT);
            if (!line.isEmpty()) {
                IntFunction<LocalDate> day = day(line, number);
                for (int year = fromYear; year <= throughYear; year++) {
                    LocalDate d = day.apply(year);
                    if (d.getYear() >= fromYear && d.getYear() <= throughYear) {
                        days.add(d);
                    }
                }
            }
        }
        return days;
    }

    private static IntFunction<LocalDate> day(String line, int number) {
        Matcher m = LINE.matcher(line);
        if (!m.matches()) {
            throw wrong(line, number, null);
        }
        String when = m.group("when");
        try {
            if (when.startsWith("easter")) {
                int offset = Integer.parseInt(when.substring("easter".length()));
                return year -> easter(year).plusDays(offset);
            }
            if (when.length() == "2027-04-30".length() && when.charAt(4) == '-') {
                LocalDate d = LocalDate.parse(when);
                return year -> d;
            }
            String[] parts = when.split("-");
            int month = Integer.parseInt(parts[0]);
            if (parts.length == 2) {
                MonthDay d = MonthDay.of(month, Integer.parseInt(parts[1]));
                return d::atYear;
            }
            int weekday = WEEKDAYS.indexOf(parts[1]);
            int nth = parts[2].equals("last") ? -1 : Integer.parseInt(parts[2]);
            if (weekday < 0 || nth == 0 || nth > 5) {
                throw wrong(line, number, null);
            }
            LocalDate.of(2000, month, 1);
            return year -> LocalDate.of(year, month, 1)
                    .with(TemporalAdjusters.dayOfWeekInMonth(nth, DayOfWeek.of(weekday + 1)));
        } catch (DateTimeException e) {
            throw wrong(line, number, e);
        }
    }

    private static IllegalArgumentException wrong(String line, int number, Exception cause) {
        return new IllegalArgumentException(
                "line " + number + ": “" + (line.length() > 64 ? line.substring(0, 64) + "…" : line)
                        + "” is no holiday; write 12-25, easter+1, 09-mon-1, 05-mon-last or 2027-04-30, and a name after it",
                cause);
    }

    /**
     * Easter Sunday of the Gregorian calendar, from the year 1583 on.
     *
     * <p>By the anonymous algorithm as printed in J. Meeus, Astronomical Algorithms, 2nd edition, chapter 8.
     */
    static LocalDate easter(int year) {
        int a = year % 19;
        int b = year / 100;
        int c = year % 100;
        int d = b / 4;
        int e = b % 4;
        int f = (b + 8) / 25;
        int g = (b - f + 1) / 3;
        int h = (19 * a + b - d - g + 15) % 30;
        int i = c / 4;
        int k = c % 4;
        int l = (32 + 2 * e + 2 * i - h - k) % 7;
        int m = (a + 11 * h + 22 * l) / 451;
        int n = h + l - 7 * m + 114;
        return LocalDate.of(year, n / 31, n % 31 + 1);
    }

    /** Lines whose day each is, with the names, soonest first; for showing what is counted. */
    public static List<String> named(String lines, int year) {
        List<String> named = new ArrayList<>();
        for (String line : lines.split("\\R")) {
            of(line, year, year).stream().sorted().forEach(d -> named.add(d + " " + line.strip()));
        }
        named.sort(null);
        return named;
    }
}
