package yarrek.core.time;

import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/** Calendar arithmetic as laws count it, and days as people read them. */
public final class Days {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.UK);

    private static final DateTimeFormatter OF_MONTH = DateTimeFormatter.ofPattern("d", Locale.UK);
    private static final DateTimeFormatter OF_YEAR = DateTimeFormatter.ofPattern("d MMM", Locale.UK);
    private static final Pattern INSTANT =
            Pattern.compile("\\b(\\d{4}-\\d{2}-\\d{2})T(\\d{2}:\\d{2}(?::\\d{2}(?:\\.\\d{1,9})?)?)Z");
    private static final Pattern ISO = Pattern.compile("\\b\\d{4}-\\d{2}-\\d{2}\\b");

    /** How months are counted. */
    public enum Counting {
        /**
         * To the day of the same number N months on, or the last day of a month that has none, included: Interpretation Act
         * (RSC 1985 c I-21) s. 28; Regulation (EEC, Euratom) 1182/71 Art 3.
         */
        SAME_DAY,
        /** To the last day of the Nth month, included: "calendar months" of 14 CFR. */
        CALENDAR_MONTHS
    }

    /** As packs write them. */
    public static final Map<String, Counting> COUNTINGS =
            Map.of("sameDay", Counting.SAME_DAY, "calendarMonths", Counting.CALENDAR_MONTHS);

    private Days() {}

    /** The last day, included, that still lies within so many months of a day. */
    public static LocalDate lastWithin(LocalDate day, int months, Counting counting) {
        return counting == Counting.SAME_DAY
                ? day.plusMonths(months)
                : YearMonth.from(day).plusMonths(months).atEndOfMonth();
    }

    /**
     * A text with its days "2026-12-01" as "1 Dec 2026" and its moments "2026-12-01T10:00:11Z" as "1 Dec 2026 10:00:11 UTC";
     * what is none of the calendar stays.
     */
    public static String inWords(String text) {
        String moments = INSTANT.matcher(text).replaceAll("$1 $2 UTC");
        return ISO.matcher(moments).replaceAll(m -> {
            try {
                return show(LocalDate.parse(m.group()));
            } catch (DateTimeParseException e) {
                return m.group();
            }
        });
    }

    /** "1 Dec 2026". */
    public static String show(LocalDate day) {
        return DAY.format(day);
    }

    /** "1 Dec 2026", or "5 to 7 Dec 2026", "29 Nov to 2 Dec 2026": month and year stand once where they are the same. */
    public static String show(LocalDate first, LocalDate last) {
        return stretch(first, last, " to ");
    }

    /** The same with another word between. */
    public static String stretch(LocalDate first, LocalDate last, String between) {
        if (first.equals(last)) {
            return show(first);
        }
        DateTimeFormatter shorter =
                first.getYear() != last.getYear() ? DAY : first.getMonth() == last.getMonth() ? OF_MONTH : OF_YEAR;
        return shorter.format(first) + between + show(last);
    }
}
