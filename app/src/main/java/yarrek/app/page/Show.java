package yarrek.app.page;

import java.math.BigDecimal;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;
import yarrek.core.time.Days;
import yarrek.core.units.Finite;
import yarrek.core.weather.Observation;

/** How figures, dates and times are shown: always with unit, local time with UTC beside it. */
@Component("show")
public class Show {
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("EEE d MMM uuuu", Locale.UK);
    private static final DateTimeFormatter SHORT_DATE = DateTimeFormatter.ofPattern("d MMM uuuu", Locale.UK);
    private static final DateTimeFormatter DAY_MONTH = DateTimeFormatter.ofPattern("EEE d MMM", Locale.UK);
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm", Locale.UK);
    private static final DateTimeFormatter SECONDS = DateTimeFormatter.ofPattern("HH:mm:ss", Locale.UK);

    public String date(LocalDate d) {
        return d == null ? "–" : DATE.format(d);
    }

    /** One day, or from the first to the last. */
    public String dates(LocalDate first, LocalDate last) {
        return first.equals(last) ? date(first) : date(first) + " to " + date(last);
    }

    public String day(LocalDate d) {
        return d == null ? "–" : SHORT_DATE.format(d);
    }

    /** "24 Nov", for narrow columns in which the year goes without saying. */
    public String dayMonth(LocalDate d) {
        return d == null ? "–" : DAY_MONTH.format(d);
    }

    /** Local time of day alone; the full form with UTC stands beside it or in its tip. */
    public String hour(Instant i, ZoneId zone) {
        return CLOCK.format(i.atZone(zone));
    }

    /** "Tue 24 Nov 2026 14:05 (15:05 UTC)". */
    public String moment(Instant i, ZoneId zone) {
        return i == null ? "–" : DATE.format(i.atZone(zone)) + " " + clock(i, zone);
    }

    /** "3 Jan 2027 11:00 to 14:00 UTC (10:00 to 13:00 local)"; days stand where they change. */
    public String stretch(Instant from, Instant to, ZoneId zone) {
        ZonedDateTime a = from.atZone(ZoneOffset.UTC);
        String local = side(from.atZone(zone), a.toLocalDate()) + " to "
                + side(to.atZone(zone), from.atZone(zone).toLocalDate());
        return day(a.toLocalDate()) + " " + CLOCK.format(a) + " to " + side(to.atZone(ZoneOffset.UTC), a.toLocalDate())
                + " UTC (" + local + " local)";
    }

    private static String side(ZonedDateTime at, LocalDate said) {
        return (at.toLocalDate().equals(said) ? "" : SHORT_DATE.format(at) + " ") + CLOCK.format(at);
    }

    /** "14:05 (15:05 UTC)"; with its day where the two have different ones, "23:30 (Wed 2 Dec 00:30 UTC)". */
    public String clock(Instant i, ZoneId zone) {
        ZonedDateTime utc = i.atZone(ZoneOffset.UTC);
        ZonedDateTime local = i.atZone(zone);
        boolean otherDay = !utc.toLocalDate().equals(local.toLocalDate());
        return CLOCK.format(local) + " (" + (otherDay ? dayMonth(utc.toLocalDate()) + " " : "") + CLOCK.format(utc)
                + " UTC)";
    }

    /** "24 Nov 2026 15:05 UTC". */
    public String utc(Instant i) {
        return SHORT_DATE.format(i.atZone(ZoneOffset.UTC)) + " " + CLOCK.format(i.atZone(ZoneOffset.UTC)) + " UTC";
    }

    public String utcSeconds(Instant i) {
        return SECONDS.format(i.atZone(ZoneOffset.UTC)) + " UTC";
    }

    /** The clock so many seconds after a moment. */
    public String utcSeconds(Instant from, double afterS) {
        return utcSeconds(from.plusMillis(Math.round(afterS * 1000)));
    }

    /** "12.3 s", "2 min 24 s", "1 h 05 min": to a tenth of a second, a second, a minute. */
    public String duration(double seconds) {
        if (Math.round(seconds * 10) < 600) {
            return String.format(Locale.ROOT, "%.1f s", seconds);
        }
        Duration d = Duration.ofSeconds(Math.round(seconds));
        if (d.toHours() == 0) {
            return String.format(Locale.ROOT, "%d min %02d s", d.toMinutes(), d.toSecondsPart());
        }
        long minutes = Math.round(d.toSeconds() / 60.0);
        return String.format(Locale.ROOT, "%d h %02d min", minutes / 60, minutes % 60);
    }

    /** What speaks against something, or that nothing does. */
    public String against(List<String> titles) {
        return titles.isEmpty() ? "nothing against it" : String.join(", ", titles);
    }

    /** One decimal and the unit, or a dash where a report need not say. */
    public String dash(OptionalDouble v, String unit) {
        return v.isEmpty() ? "–" : one(v.getAsDouble(), unit);
    }

    /** Base of the lowest cloud, that the sky is clear, or a dash. */
    public String cloud(Observation o) {
        return o.lowestCloudM().isPresent() ? whole(o.lowestCloudM().getAsDouble(), "m") : o.skyClear() ? "clear" : "–";
    }

    /** Hours of work as they are, "0.25 h". */
    public String hours(double h) {
        return yarrek.core.units.Finite.format(Math.round(h * 100) / 100.0) + " h";
    }

    /** At most one decimal and the unit, or a dash. */
    public String figure(Double v, String unit) {
        return v == null ? "–" : (Finite.format(Math.round(v * 10) / 10.0) + " " + unit).strip();
    }

    /** One decimal and the unit, or "not known". */
    public String one(Double v, String unit) {
        return v == null || v.isNaN()
                ? "not known"
                : String.format(Locale.ROOT, "%.1f %s", v, unit).strip();
    }

    /** No decimals and the unit, or "not known". */
    public String whole(Double v, String unit) {
        return v == null || v.isNaN() ? "not known" : (Finite.words(Math.rint(v)) + " " + unit).strip();
    }

    public String two(Double v, String unit) {
        return v == null || v.isNaN()
                ? "not known"
                : String.format(Locale.ROOT, "%.2f %s", v, unit).strip();
    }

    /** Metres below 10 km without decimals, kilometres above with one: "1,240 m", "23.4 km". */
    public String far(Double metres) {
        return metres == null || metres.isNaN()
                ? "not known"
                : metres < 10_000
                        ? String.format(Locale.UK, "%,.0f m", metres)
                        : String.format(Locale.UK, "%,.1f km", metres / 1000);
    }

    public String bytes(long n) {
        return n >= 1_000_000
                ? String.format(Locale.ROOT, "%.1f MB", n / 1e6)
                : String.format(Locale.ROOT, "%.1f kB", n / 1e3);
    }

    /** No decimals and the unit, or what is said instead. */
    public String whole(Double v, String unit, String none) {
        return v == null || v.isNaN() ? none : whole(v, unit);
    }

    public String known(String s) {
        return s == null || s.isEmpty() ? "not known" : s;
    }

    /** One after the other, when the first is known at all. */
    public String known(String s, String more) {
        return s == null || s.isEmpty() ? "not known" : s + (more.isEmpty() ? "" : ", " + more);
    }

    public String known(LocalDate d) {
        return d == null ? "not known" : day(d);
    }

    public String known(Optional<LocalDate> d) {
        return known(d.orElse(null));
    }

    public String known(OptionalDouble v, String unit) {
        return v.isEmpty() ? "not known" : one(v.getAsDouble(), unit);
    }

    /** A name, or that nobody said it. */
    public String said(String name) {
        return name == null || name.isEmpty() ? "not said" : name;
    }

    /** One word for yes, one for no, and that it is not known. */
    public String which(Boolean b, String yes, String no) {
        return b == null ? "not known" : b ? yes : no;
    }

    /** A value of before or after a change. */
    public String orEmpty(String s) {
        return s == null || s.isEmpty() ? "(empty)" : s;
    }

    /** "1 day", "3 days"; a dash for no figure. */
    public String count(Number n, String thing) {
        return n == null
                ? "–"
                : String.format(Locale.UK, "%,d %s%s", n.longValue(), thing, n.longValue() == 1 ? "" : "s");
    }

    /** "a, b", or "nothing". */
    public String list(List<String> words) {
        return words.isEmpty() ? "nothing" : String.join(", ", words);
    }

    /** One day, or from the first to the last. */
    public String days(LocalDate first, LocalDate last) {
        return Days.stretch(first, last, " – ");
    }

    /** The same for narrow columns. */
    public String daysShort(LocalDate first, LocalDate last) {
        return first.equals(last) ? dayMonth(first) : dayMonth(first) + " – " + dayMonth(last);
    }

    /** " to 3 May 2027", or nothing for no day. */
    public String orNothing(String before, LocalDate d) {
        return d == null ? "" : before + day(d);
    }

    /** "to 3 May 2027", "with no end date". */
    public String until(LocalDate last) {
        return last == null ? "with no end date" : "to " + day(last);
    }

    /** "from 3 May 2025 to 2 May 2027". */
    public String validity(LocalDate first, LocalDate last) {
        return (first == null ? "" : "from " + day(first) + " ") + until(last);
    }

    /** "120.00 EUR", or a dash. */
    public String money(BigDecimal amount, String currency) {
        return amount == null
                ? "–"
                : new DecimalFormat("#,##0.00", DecimalFormatSymbols.getInstance(Locale.ROOT)).format(amount) + " "
                        + currency;
    }

    /** Degrees to a decimetre, "46.612345, -17.900000". */
    public String place(Double lat, Double lon) {
        return lat == null || lon == null ? "not known" : String.format(Locale.ROOT, "%.6f, %.6f", lat, lon);
    }
}
