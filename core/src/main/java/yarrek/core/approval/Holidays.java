package yarrek.core.approval;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Month;
import java.time.MonthDay;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.IntFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Days on which granters do not work, written one in a line:
 *
 * <ul>
 *   <li>{@code 12-25 Christmas}, a date of every year; {@code 2027-04-30 bridge day}, one date
 *   <li>{@code easter+1 Easter Monday}, days from Easter Sunday
 *   <li>{@code 09-mon-1}, {@code 05-mon-last}: the nth weekday of a month; none in a month that has no fifth
 *   <li>{@code 06-20+sat}, {@code 05-24-mon}: the first such weekday on or after a date, the last on or before it
 *   <li>{@code 04-27 else 04-26 if sun}: another date when the first falls on that weekday; after an nth weekday, the other
 *       date when that is one: {@code 02-mon-1 else 02-01 if fri}
 * </ul>
 *
 * After it may stand {@code lieu} (on a weekend, also the next weekday that is no holiday itself), {@code observed} (also the
 * Friday before a Saturday, the Monday after a Sunday), {@code from 2026}, {@code to 2030}, and a name. A line that begins
 * with {@code #} says something of the list, such as what it leaves out.
 */
public final class Holidays {
    private static final Pattern LINE = Pattern.compile(
            "(?<when>easter[+-]\\d{1,3}|\\d{4}-\\d{2}-\\d{2}|\\d{2}-\\d{2}[+-][a-z]{3}|\\d{2}-\\d{2}|\\d{2}-[a-z]{3}-(?:\\d|last))"
                    + "(?:\\s+else\\s+(?<other>\\d{2}-\\d{2})\\s+if\\s+(?<if>[a-z]{3}))?"
                    + "(?:\\s+(?<move>lieu(?:\\s+mon)?|observed))?(?:\\s+from\\s+(?<from>\\d{4}))?(?:\\s+to\\s+(?<to>\\d{4}))?"
                    + "(?<name>\\s.*)?",
            Pattern.CASE_INSENSITIVE);
    private static final List<String> WEEKDAYS = List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun");
    private static final Set<DayOfWeek> WEEKEND = Set.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY);

    /** A line read: its day in a year, empty in a year that has none. */
    private record Line(IntFunction<Optional<LocalDate>> day, String move, String name) {}

    private Holidays() {}

    /**
     * The days of these lines in the years from and through, both included; empty lines are passed over.
     *
     * @throws IllegalArgumentException naming the line that is not understood
     */
    public static Set<LocalDate> of(String lines, int fromYear, int throughYear) {
        return days(lines, fromYear, throughYear).keySet();
    }

    /** The days of these lines in one year with their names, soonest first: for showing what is counted. */
    public static List<String> named(String lines, int year) {
        return days(lines, year, year).entrySet().stream()
                .map(d -> (d.getKey() + " " + d.getValue()).strip())
                .toList();
    }

    /** The same by day; a day with two names has both. */
    public static SortedMap<LocalDate, String> days(String lines, int fromYear, int throughYear) {
        List<Line> read = read(lines);
        SortedMap<LocalDate, String> days = new TreeMap<>();
        SortedMap<LocalDate, String> moved = new TreeMap<>();
        // a day of the next year may be observed in this one, and one of the last in lieu in it
        for (int year = fromYear - 1; year <= throughYear + 1; year++) {
            for (Line l : read) {
                Optional<LocalDate> day = l.day().apply(year);
                day.ifPresent(d -> days.merge(d, l.name(), Holidays::both));
                day.filter(d -> !l.move().isEmpty() && WEEKEND.contains(d.getDayOfWeek()))
                        .ifPresent(d -> moved.merge(d, l.move() + l.name(), Holidays::both));
            }
        }
        moved.forEach((d, n) -> {
            if (n.startsWith("observed")) {
                days.merge(
                        d.plusDays(d.getDayOfWeek() == DayOfWeek.SATURDAY ? -1 : 1),
                        n.substring("observed".length()) + ", observed",
                        Holidays::both);
            } else {
                LocalDate free = d.plusDays(1);
                while (WEEKEND.contains(free.getDayOfWeek()) || days.containsKey(free)) {
                    free = free.plusDays(1);
                }
                days.put(free, "in lieu of " + n.substring("lieu".length()));
            }
        });
        return days.subMap(LocalDate.of(fromYear, 1, 1), LocalDate.of(throughYear + 1, 1, 1));
    }

    /** What these lines say of themselves: the text after each {@code #}. */
    public static String remark(String lines) {
        return lines.lines()
                .map(String::strip)
                .filter(l -> l.startsWith("#"))
                .map(l -> l.substring(1).strip())
                .collect(Collectors.joining(" "));
    }

    private static String both(String a, String b) {
        return a.isEmpty() || a.equals(b) ? b : b.isEmpty() ? a : a + ", " + b;
    }

    private static List<Line> read(String lines) {
        List<Line> read = new ArrayList<>();
        int number = 0;
        for (String raw : lines.split("\\R", -1)) {
            number++;
            if (!raw.isBlank() && !raw.strip().startsWith("#")) {
                read.add(line(raw.strip(), number));
            }
        }
        return read;
    }

    private static Line line(String line, int number) {
        Matcher m = LINE.matcher(line);
        if (!m.matches()) {
            throw wrong(line, number, null);
        }
        try {
            String when = m.group("when").toLowerCase(Locale.ROOT);
            IntFunction<Optional<LocalDate>> day = day(when);
            if (m.group("other") != null) {
                MonthDay other = monthDay(m.group("other"));
                DayOfWeek on = weekday(m.group("if"));
                boolean ofTheOther = !when.matches("\\d{2}-\\d{2}");
                IntFunction<Optional<LocalDate>> first = day;
                day = year -> {
                    LocalDate tested =
                            ofTheOther ? other.atYear(year) : first.apply(year).orElseThrow();
                    return tested.getDayOfWeek() == on ? Optional.of(other.atYear(year)) : first.apply(year);
                };
            }
            int from = m.group("from") == null ? Integer.MIN_VALUE : Integer.parseInt(m.group("from"));
            int to = m.group("to") == null ? Integer.MAX_VALUE : Integer.parseInt(m.group("to"));
            IntFunction<Optional<LocalDate>> always = day;
            String move = m.group("move") == null ? "" : m.group("move").toLowerCase(Locale.ROOT);
            return new Line(
                    year -> year < from || year > to ? Optional.empty() : always.apply(year),
                    move.startsWith("lieu") ? "lieu" : move,
                    m.group("name") == null ? "" : m.group("name").strip());
        } catch (DateTimeException | IllegalArgumentException e) {
            throw wrong(line, number, e);
        }
    }

    private static IntFunction<Optional<LocalDate>> day(String when) {
        if (when.startsWith("easter")) {
            int offset = Integer.parseInt(when.substring("easter".length()));
            return year -> Optional.of(easter(year).plusDays(offset));
        }
        if (when.length() == "2027-04-30".length()) {
            LocalDate d = LocalDate.parse(when);
            return year -> Optional.of(d).filter(x -> x.getYear() == year);
        }
        if (when.length() == "06-20+sat".length() && Character.isDigit(when.charAt(3))) {
            MonthDay d = monthDay(when.substring(0, 5));
            DayOfWeek on = weekday(when.substring(6));
            return year -> Optional.of(d.atYear(year)
                    .with(
                            when.charAt(5) == '+'
                                    ? TemporalAdjusters.nextOrSame(on)
                                    : TemporalAdjusters.previousOrSame(on)));
        }
        if (when.length() == "12-25".length()) {
            MonthDay d = monthDay(when);
            return year -> Optional.of(d.atYear(year));
        }
        String[] parts = when.split("-");
        Month month = Month.of(Integer.parseInt(parts[0]));
        DayOfWeek on = weekday(parts[1]);
        int nth = parts[2].equals("last") ? -1 : Integer.parseInt(parts[2]);
        if (nth == 0 || nth > 5) {
            throw new IllegalArgumentException("no month has that many");
        }
        return year -> Optional.of(LocalDate.of(year, month, 1).with(TemporalAdjusters.dayOfWeekInMonth(nth, on)))
                .filter(d -> d.getMonth() == month);
    }

    private static MonthDay monthDay(String text) {
        return MonthDay.of(Integer.parseInt(text.substring(0, 2)), Integer.parseInt(text.substring(3)));
    }

    private static DayOfWeek weekday(String text) {
        int at = WEEKDAYS.indexOf(text.toLowerCase(Locale.ROOT));
        if (at < 0) {
            throw new IllegalArgumentException("no weekday");
        }
        return DayOfWeek.of(at + 1);
    }

    private static IllegalArgumentException wrong(String line, int number, Exception cause) {
        return new IllegalArgumentException(
                "line " + number + ": “" + (line.length() > 64 ? line.substring(0, 64) + "…" : line)
                        + "” is no holiday; write 12-25, easter+1, 09-mon-1, 05-mon-last, 06-20+sat, 12-26 lieu or"
                        + " 2027-04-30, and a name after it",
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
}
