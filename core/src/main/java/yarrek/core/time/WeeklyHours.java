package yarrek.core.time;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Hours of the week in which something is granted, in the civil time of a place: "mon-fri 08:00-18:00; sat 9:00-12:00". An
 * end at or before the start lies on the next day; both ends are included.
 */
public record WeeklyHours(List<Span> spans) {
    private static final List<String> DAYS = List.of("mon", "tue", "wed", "thu", "fri", "sat", "sun");
    private static final Pattern SPAN = Pattern.compile(
            "(?<days>daily|[a-z]{3}(-[a-z]{3})?(,[a-z]{3}(-[a-z]{3})?)*)\\s+(?<from>\\d{1,2}:\\d{2})\\s*[-–]\\s*(?<to>\\d{1,2}:\\d{2})");

    /** @param days on which it begins */
    public record Span(Set<DayOfWeek> days, LocalTime from, LocalTime to) {
        public Span {
            days = Set.copyOf(days);
        }
    }

    public WeeklyHours {
        spans = List.copyOf(spans);
    }

    /** @throws IllegalArgumentException naming the part that is not understood, and what is */
    public static WeeklyHours parse(String text) {
        List<Span> spans = new ArrayList<>();
        for (String part : text.toLowerCase(Locale.ROOT).split("[;\\n]")) {
            if (part.isBlank()) {
                continue;
            }
            Matcher m = SPAN.matcher(part.strip().replaceAll("\\s*,\\s*", ","));
            try {
                if (!m.matches()) {
                    throw new DateTimeException("no span");
                }
                spans.add(new Span(days(m.group("days")), time(m.group("from")), time(m.group("to"))));
            } catch (DateTimeException e) {
                throw new IllegalArgumentException(
                        "“" + part.strip()
                                + "” is no hours of the week; write mon-fri 08:00-18:00, several with semicolons"
                                + " between",
                        e);
            }
        }
        return new WeeklyHours(spans);
    }

    private static LocalTime time(String s) {
        return LocalTime.parse(s.length() == 4 ? "0" + s : s);
    }

    private static Set<DayOfWeek> days(String s) {
        if (s.equals("daily")) {
            return EnumSet.allOf(DayOfWeek.class);
        }
        Set<DayOfWeek> days = EnumSet.noneOf(DayOfWeek.class);
        for (String part : s.split(",")) {
            String[] ends = part.split("-");
            int from = DAYS.indexOf(ends[0]);
            int to = DAYS.indexOf(ends[ends.length - 1]);
            if (from < 0 || to < 0) {
                throw new DateTimeException("no day");
            }
            for (int d = from; ; d = (d + 1) % 7) {
                days.add(DayOfWeek.of(d + 1));
                if (d == to) {
                    break;
                }
            }
        }
        return days;
    }

    /** Minutes of a window that lie outside; zero when all of it lies within. */
    public double minutesOutside(TimeWindow w, ZoneId place) {
        Instant at = w.start();
        double outside = 0;
        while (at.isBefore(w.end())) {
            Instant now = at;
            Instant end = w.end();
            Instant next = end;
            boolean inside = false;
            LocalDate day = at.atZone(place).toLocalDate();
            for (int k = -1; k <= 8 && !inside; k++) {
                for (Span s : spans) {
                    LocalDate d = day.plusDays(k);
                    if (!s.days().contains(d.getDayOfWeek())) {
                        continue;
                    }
                    Instant from = d.atTime(s.from()).atZone(place).toInstant();
                    Instant to = (s.to().isAfter(s.from()) ? d : d.plusDays(1))
                            .atTime(s.to())
                            .atZone(place)
                            .toInstant();
                    if (!now.isBefore(from) && now.isBefore(to)) {
                        inside = true;
                        next = to.isBefore(end) ? to : end;
                        break;
                    }
                    if (from.isAfter(now) && from.isBefore(next)) {
                        next = from;
                    }
                }
            }
            if (!inside) {
                outside += Duration.between(now, next).toMillis() / 60_000.0;
            }
            at = next;
        }
        return outside;
    }

    public boolean covers(TimeWindow w, ZoneId place) {
        return minutesOutside(w, place) == 0;
    }
}
