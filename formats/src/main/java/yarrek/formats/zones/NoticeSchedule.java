package yarrek.formats.zones;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.Month;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yarrek.core.airspace.Timetable;

/**
 * The daily schedule of a notice, item D (ICAO Doc 8126, 6.3): hours of every day, of days of the week, or of named dates,
 * all UTC, such as "DAILY 0800-1600", "MON-FRI 0600-2000, SAT 0800-1200" and "JUN 12 14 16-18 0900-1500". Hours by the sun,
 * exceptions and free words are not read here: then the notice counts as in force throughout.
 */
final class NoticeSchedule {
    private static final List<String> MONTHS =
            List.of("JAN", "FEB", "MAR", "APR", "MAY", "JUN", "JUL", "AUG", "SEP", "OCT", "NOV", "DEC");
    private static final List<String> WEEK = List.of("MON", "TUE", "WED", "THU", "FRI", "SAT", "SUN");
    private static final Pattern HOURS = Pattern.compile("(\\d{2})(\\d{2})-(\\d{2})(\\d{2})");
    private static final Pattern DAYS = Pattern.compile("(\\d{2})(?:-(\\d{2}))?");
    private static final Pattern WEEKDAYS =
            Pattern.compile("(" + String.join("|", WEEK) + ")(?:-(" + String.join("|", WEEK) + "))?");

    /** A date could be of one of several years beyond this. */
    private static final int LONGEST_DAYS = 300;

    private final Instant from;
    private final Optional<Instant> to;

    // the days named last, and whether hours have followed them
    private final Set<DayOfWeek> weekdays = EnumSet.noneOf(DayOfWeek.class);
    private final Set<LocalDate> dates = new TreeSet<>();
    private Month month;
    private boolean named;
    private boolean timed;

    private final List<Timetable.Weekly> weekly = new ArrayList<>();
    private final List<Timetable.Period> periods = new ArrayList<>();

    private NoticeSchedule(Instant from, Optional<Instant> to) {
        this.from = from;
        this.to = to;
    }

    /**
     * The periods in which a notice is in force.
     *
     * @param text item D
     * @param from item B
     * @param to item C; empty when it has no certain end
     * @return empty when the schedule is not understood whole
     */
    static Optional<List<Timetable.Period>> read(String text, Instant from, Optional<Instant> to) {
        NoticeSchedule s = new NoticeSchedule(from, to);
        try {
            String spaced = text.toUpperCase(Locale.ROOT)
                    .replaceAll("\\s*[-\u2013]\\s*", "-")
                    .replaceAll("\\s+TO\\s+", "-");
            boolean read = Arrays.stream(spaced.split("[\\s,;/]+|\\bAND\\b"))
                    .filter(w -> !w.isEmpty())
                    .allMatch(s::word);
            return read && s.timed ? s.periods() : Optional.empty();
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    private boolean word(String w) {
        if (w.equals("DAILY") || w.equals("DLY")) {
            return days(() -> weekdays.addAll(EnumSet.allOf(DayOfWeek.class)));
        }
        if (MONTHS.contains(w)) {
            month = Month.of(MONTHS.indexOf(w) + 1);
            return days(() -> {});
        }
        Matcher m = WEEKDAYS.matcher(w);
        if (m.matches()) {
            int first = WEEK.indexOf(m.group(1));
            int count = m.group(2) == null ? 1 : (WEEK.indexOf(m.group(2)) - first + 7) % 7 + 1;
            return days(() -> {
                for (int i = 0; i < count; i++) {
                    weekdays.add(DayOfWeek.of((first + i) % 7 + 1));
                }
            });
        }
        m = DAYS.matcher(w);
        if (m.matches()) {
            int first = Integer.parseInt(m.group(1));
            int last = m.group(2) == null ? first : Integer.parseInt(m.group(2));
            return first <= last
                    && days(() -> {
                        for (int d = first; d <= last; d++) {
                            dates.add(date(d));
                        }
                    });
        }
        if (w.equals("H24")) {
            return hours(LocalTime.MIN, LocalTime.MIN);
        }
        m = HOURS.matcher(w);
        return m.matches() && hours(time(m.group(1), m.group(2)), time(m.group(3), m.group(4)));
    }

    /** Days after hours begin another group; a day of the week beside a date is an exception that nobody guesses at. */
    private boolean days(Runnable add) {
        if (timed) {
            weekdays.clear();
            dates.clear();
            timed = false;
        }
        named = true;
        add.run();
        return weekdays.isEmpty() || dates.isEmpty();
    }

    /** The date of that day and month within the notice. */
    private LocalDate date(int day) {
        LocalDate first = from.atZone(ZoneOffset.UTC).toLocalDate();
        LocalDate d = LocalDate.of(first.getYear(), month == null ? first.getMonth() : month, day);
        LocalDate found = d.isBefore(first) ? d.plusYears(1) : d;
        boolean within = to.map(t -> !found.isAfter(t.atZone(ZoneOffset.UTC).toLocalDate())
                        && found.toEpochDay() - first.toEpochDay() <= LONGEST_DAYS)
                .orElse(false);
        if (!within || found.getDayOfMonth() != day) {
            throw new DateTimeException("no such day within the notice");
        }
        return found;
    }

    private static LocalTime time(String hour, String minute) {
        return hour.equals("24") && minute.equals("00")
                ? LocalTime.MIN
                : LocalTime.of(Integer.parseInt(hour), Integer.parseInt(minute));
    }

    private boolean hours(LocalTime start, LocalTime end) {
        if (named && weekdays.isEmpty() && dates.isEmpty()) {
            return false; // a month without days
        }
        timed = true;
        if (dates.isEmpty()) {
            weekly.add(new Timetable.Weekly(weekdays, start, end));
        }
        for (LocalDate d : dates) {
            LocalDate last = end.isAfter(start) ? d : d.plusDays(1);
            Instant a = d.atTime(start).toInstant(ZoneOffset.UTC);
            Instant b = last.atTime(end).toInstant(ZoneOffset.UTC);
            Instant begin = a.isBefore(from) ? from : a;
            Instant stop = to.filter(t -> t.isBefore(b)).orElse(b);
            if (!stop.isBefore(begin)) {
                periods.add(new Timetable.Period(Optional.of(begin), Optional.of(stop), List.of()));
            }
        }
        return true;
    }

    private Optional<List<Timetable.Period>> periods() {
        if (!weekly.isEmpty()) {
            periods.add(new Timetable.Period(Optional.of(from), to, weekly));
        }
        return periods.isEmpty() ? Optional.empty() : Optional.of(List.copyOf(periods));
    }
}
