package yarrek.core.airspace;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.MonthDay;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import yarrek.core.time.TimeWindow;

/**
 * When a zone is in force: in any of its periods, and within its yearly season. Published times are UTC; a season's days
 * are local.
 *
 * @param periods empty for always
 * @param seasonFrom first day of the yearly season, included; empty for the whole year
 * @param seasonThrough last day of the season, included
 * @param text a schedule that is kept as it was published and not reckoned with: the zone counts as in force throughout
 */
public record Timetable(
        List<Period> periods, Optional<MonthDay> seasonFrom, Optional<MonthDay> seasonThrough, String text) {
    /**
     * @param from first instant, included; empty for no beginning
     * @param to last instant, included; empty for no end
     * @param weekly hours of the week within it; empty for all of it
     */
    public record Period(Optional<Instant> from, Optional<Instant> to, List<Weekly> weekly) {
        public Period {
            weekly = List.copyOf(weekly);
            if (from.isPresent() && to.isPresent() && to.get().isBefore(from.get())) {
                throw new IllegalArgumentException(
                        "a period ends at " + to.get() + ", before it begins at " + from.get());
            }
        }
    }

    /**
     * Hours of a day, UTC; an end at or before the start lies on the next day, equal ends are 24 hours.
     *
     * @param days empty for every day
     */
    public record Weekly(Set<DayOfWeek> days, LocalTime from, LocalTime to) {
        public Weekly {
            days = days.isEmpty() ? Set.of() : Set.copyOf(days);
        }
    }

    public static final Timetable ALWAYS = new Timetable(List.of(), Optional.empty(), Optional.empty(), "");
    private static final DateTimeFormatter HOUR =
            DateTimeFormatter.ofPattern("d MMM yyyy HH:mm 'UTC'", Locale.UK).withZone(ZoneOffset.UTC);

    public Timetable {
        periods = List.copyOf(periods);
    }

    public static Timetable season(MonthDay from, MonthDay through) {
        return new Timetable(List.of(), Optional.of(from), Optional.of(through), "");
    }

    public static Timetable between(Instant from, Instant to) {
        return new Timetable(
                List.of(new Period(Optional.ofNullable(from), Optional.ofNullable(to), List.of())),
                Optional.empty(),
                Optional.empty(),
                "");
    }

    public boolean inSeason(LocalDate day) {
        if (seasonFrom.isEmpty() || seasonThrough.isEmpty()) {
            return true;
        }
        MonthDay d = MonthDay.from(day);
        MonthDay from = seasonFrom.get();
        MonthDay through = seasonThrough.get();
        return from.isAfter(through)
                ? !d.isBefore(from) || !d.isAfter(through)
                : !d.isBefore(from) && !d.isAfter(through);
    }

    /**
     * The parts of a window in which the zone is in force, in order; a shared instant counts.
     *
     * @param place zone of the place, for the season's days
     */
    public List<TimeWindow> within(TimeWindow window, ZoneId place) {
        List<TimeWindow> found = new ArrayList<>();
        for (TimeWindow part : seasonal(window, place)) {
            if (periods.isEmpty()) {
                found.add(part);
            }
            for (Period p : periods) {
                Instant from = p.from().filter(f -> f.isAfter(part.start())).orElse(part.start());
                Instant to = p.to().filter(t -> t.isBefore(part.end())).orElse(part.end());
                if (!to.isBefore(from)) {
                    hours(p, new TimeWindow(from, to), found);
                }
            }
        }
        return joined(found);
    }

    private List<TimeWindow> seasonal(TimeWindow window, ZoneId place) {
        if (seasonFrom.isEmpty()) {
            return List.of(window);
        }
        List<TimeWindow> parts = new ArrayList<>();
        LocalDate last = window.end().atZone(place).toLocalDate();
        for (LocalDate d = window.start().atZone(place).toLocalDate(); !d.isAfter(last); d = d.plusDays(1)) {
            if (inSeason(d)) {
                clip(
                                new TimeWindow(
                                        d.atStartOfDay(place).toInstant(),
                                        d.plusDays(1)
                                                .atStartOfDay(place)
                                                .toInstant()
                                                .minusMillis(1)),
                                window)
                        .ifPresent(parts::add);
            }
        }
        return parts;
    }

    private static void hours(Period p, TimeWindow within, List<TimeWindow> found) {
        if (p.weekly().isEmpty()) {
            found.add(within);
            return;
        }
        LocalDate last = within.end().atZone(ZoneOffset.UTC).toLocalDate();
        for (LocalDate d = within.start().atZone(ZoneOffset.UTC).toLocalDate().minusDays(1);
                !d.isAfter(last);
                d = d.plusDays(1)) {
            for (Weekly w : p.weekly()) {
                if (w.days().isEmpty() || w.days().contains(d.getDayOfWeek())) {
                    LocalDate end = w.to().isAfter(w.from()) ? d : d.plusDays(1);
                    clip(
                                    new TimeWindow(
                                            d.atTime(w.from()).toInstant(ZoneOffset.UTC),
                                            end.atTime(w.to()).toInstant(ZoneOffset.UTC)),
                                    within)
                            .ifPresent(found::add);
                }
            }
        }
    }

    private static Optional<TimeWindow> clip(TimeWindow a, TimeWindow b) {
        if (!a.meets(b)) {
            return Optional.empty();
        }
        return Optional.of(new TimeWindow(
                a.start().isAfter(b.start()) ? a.start() : b.start(), a.end().isBefore(b.end()) ? a.end() : b.end()));
    }

    private static List<TimeWindow> joined(List<TimeWindow> parts) {
        List<TimeWindow> sorted = new ArrayList<>(parts);
        sorted.sort(java.util.Comparator.comparing(TimeWindow::start));
        List<TimeWindow> joined = new ArrayList<>();
        for (TimeWindow w : sorted) {
            TimeWindow last = joined.isEmpty() ? null : joined.get(joined.size() - 1);
            // days of a season end a millisecond before the next
            if (last != null && !w.start().isAfter(last.end().plusMillis(1))) {
                joined.set(
                        joined.size() - 1,
                        new TimeWindow(last.start(), w.end().isAfter(last.end()) ? w.end() : last.end()));
            } else {
                joined.add(w);
            }
        }
        return joined;
    }

    public boolean meets(TimeWindow window, ZoneId place) {
        return !within(window, place).isEmpty();
    }

    /** Whether every period has ended before an instant. */
    public boolean isOverAt(Instant now) {
        return !periods.isEmpty()
                && periods.stream()
                        .allMatch(p -> p.to().map(t -> t.isBefore(now)).orElse(false));
    }

    /** "always", "from 1 March through 31 July", "12 Jun 2027 08:00 UTC to 18:00 UTC; MON TUE 08:00 to 16:00 UTC". */
    public String words() {
        List<String> parts = new ArrayList<>();
        if (seasonFrom.isPresent() && seasonThrough.isPresent()) {
            parts.add("from " + words(seasonFrom.get()) + " through " + words(seasonThrough.get()));
        }
        periods.forEach(p -> parts.add(words(p)));
        if (!text.isEmpty()) {
            parts.add("schedule as published, not reckoned with: " + text);
        }
        return parts.isEmpty() ? "always" : String.join("; ", parts);
    }

    private static String words(Period p) {
        String span = p.from().map(f -> "from " + HOUR.format(f)).orElse("")
                + p.to().map(t -> (p.from().isPresent() ? " to " : "until ") + HOUR.format(t))
                        .orElse(p.from().isPresent() ? " with no end" : "always");
        return p.weekly().isEmpty()
                ? span
                : span + ", "
                        + p.weekly().stream()
                                .map(w -> (w.days().isEmpty() || w.days().size() == 7
                                                ? "daily"
                                                : new TreeSet<>(w.days())
                                                        .stream()
                                                                .map(d -> d.getDisplayName(TextStyle.SHORT, Locale.UK))
                                                                .collect(Collectors.joining(" ")))
                                        + " " + w.from() + " to " + w.to() + " UTC")
                                .collect(Collectors.joining(", "));
    }

    private static String words(MonthDay d) {
        return d.getDayOfMonth() + " " + d.getMonth().getDisplayName(TextStyle.FULL, Locale.UK);
    }

    /** Every day of the week, for schedules that say "any". */
    public static Set<DayOfWeek> everyDay() {
        return EnumSet.allOf(DayOfWeek.class);
    }
}
