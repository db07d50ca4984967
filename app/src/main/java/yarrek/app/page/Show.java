package yarrek.app.page;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;
import yarrek.core.rulebook.Verdict;
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

    /** "14:05 (15:05 UTC)". */
    public String clock(Instant i, ZoneId zone) {
        return CLOCK.format(i.atZone(zone)) + " (" + CLOCK.format(i.atZone(ZoneOffset.UTC)) + " UTC)";
    }

    /** "24 Nov 2026 15:05 UTC". */
    public String utc(Instant i) {
        return SHORT_DATE.format(i.atZone(ZoneOffset.UTC)) + " " + CLOCK.format(i.atZone(ZoneOffset.UTC)) + " UTC";
    }

    public String utcSeconds(Instant i) {
        return SECONDS.format(i.atZone(ZoneOffset.UTC)) + " UTC";
    }

    /** "2 min 24 s", "1 h 05 min". */
    public String duration(double seconds) {
        Duration d = Duration.ofMillis(Math.round(seconds * 1000));
        if (d.toHours() > 0) {
            return String.format(Locale.ROOT, "%d h %02d min", d.toHours(), d.toMinutesPart());
        }
        return d.toMinutes() > 0
                ? String.format(Locale.ROOT, "%d min %02d s", d.toMinutes(), d.toSecondsPart())
                : String.format(Locale.ROOT, "%.1f s", seconds);
    }

    /** Name of the status shape of a verdict. */
    public String shape(Verdict v) {
        return switch (v) {
            case MET, DUTY -> "full";
            case CLOSE -> "cut";
            case BREACHED -> "notch";
            case NOT_KNOWN, NOT_APPLICABLE -> "dots";
        };
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

    /** One decimal and the unit, or "not known". */
    public String one(Double v, String unit) {
        return v == null || v.isNaN()
                ? "not known"
                : String.format(Locale.ROOT, "%.1f %s", v, unit).strip();
    }

    /** No decimals and the unit, or "not known". */
    public String whole(Double v, String unit) {
        return v == null || v.isNaN()
                ? "not known"
                : String.format(Locale.ROOT, "%.0f %s", v, unit).strip();
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
}
