package yarrek.formats.calendar;

import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VAlarm;
import biweekly.component.VEvent;
import biweekly.io.text.ICalWriter;
import biweekly.parameter.Related;
import biweekly.property.Trigger;
import biweekly.util.Duration;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Date;
import java.util.List;
import java.util.Optional;

/** A calendar to subscribe to: days to act by and hours of jobs, each with its alarms (RFC 5545). Times are in UTC. */
public final class CalendarFeed {
    /**
     * Something in the calendar.
     *
     * @param uid stable over the life of what it stands for, so that a changed one replaces the older
     * @param day a whole day; empty when it has hours
     * @param start first instant; empty for a whole day
     * @param end last instant; empty for a whole day
     * @param alarmHours hours after the start at which to remind, negative for before; none reminds of nothing
     */
    public record Entry(
            String uid,
            String summary,
            String description,
            String url,
            Optional<LocalDate> day,
            Optional<Instant> start,
            Optional<Instant> end,
            List<Integer> alarmHours) {
        public Entry {
            alarmHours = List.copyOf(alarmHours);
            if (day.isPresent() == start.isPresent() || start.isPresent() != end.isPresent()) {
                throw new IllegalArgumentException("an entry has either a day, or a start and an end");
            }
        }
    }

    private static final int FOLD_AT = 70;

    private CalendarFeed() {}

    /** The calendar as text, lines folded and texts escaped as the standard asks. */
    public static String write(String name, List<Entry> entries, Instant stamp) {
        ICalendar calendar = new ICalendar();
        calendar.setProductId("-//Yarrek//Feed 1//EN");
        calendar.setName(name);
        calendar.setRefreshInterval(Duration.builder().hours(4).build());
        for (Entry e : entries) {
            calendar.addEvent(event(e, stamp));
        }
        StringWriter text = new StringWriter();
        try (ICalWriter out = new ICalWriter(text, ICalVersion.V2_0)) {
            // the library counts characters without the space a folded line begins with; the standard counts octets
            out.getVObjectWriter().getFoldedLineWriter().setLineLength(FOLD_AT);
            out.write(calendar);
        } catch (IOException e) {
            throw new UncheckedIOException("writing to memory", e);
        }
        return text.toString();
    }

    private static VEvent event(Entry e, Instant stamp) {
        VEvent event = new VEvent();
        event.setUid(e.uid());
        event.setDateTimeStamp(Date.from(stamp));
        event.setSummary(e.summary());
        event.setDescription(e.description());
        event.setUrl(e.url());
        if (e.day().isPresent()) {
            event.setDateStart(date(e.day().get()), false);
            event.setDateEnd(date(e.day().get().plusDays(1)), false);
        } else {
            event.setDateStart(Date.from(e.start().orElseThrow()));
            event.setDateEnd(Date.from(e.end().orElseThrow()));
        }
        for (int hours : e.alarmHours()) {
            Duration offset =
                    Duration.builder().prior(hours < 0).hours(Math.abs(hours)).build();
            event.addAlarm(VAlarm.display(new Trigger(offset, Related.START), e.summary()));
        }
        return event;
    }

    /** The library writes a whole day by the default zone of the machine. */
    private static biweekly.util.ICalDate date(LocalDate d) {
        return new biweekly.util.ICalDate(
                new biweekly.util.DateTimeComponents(d.getYear(), d.getMonthValue(), d.getDayOfMonth()), false);
    }
}
