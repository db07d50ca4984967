package yarrek.app.forms;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;

/** Values of facts as people type them: "400 ft", "yes", a word, words with spaces between, a date, "today 10:45". */
public final class TypedFact {
    private TypedFact() {}

    /**
     * @param zone whose civil time times of day are in, unless they say UTC
     * @throws IllegalArgumentException naming the question and what is accepted
     */
    public static FactValue read(FactDefinition d, String text, ZoneId zone, Instant now) {
        FactValue value = parsed(d, text.strip(), zone, now);
        d.nonsense(value, LocalDate.ofInstant(now, zone).plusDays(1)).ifPresent(why -> {
            throw new IllegalArgumentException(why);
        });
        return value;
    }

    private static FactValue parsed(FactDefinition d, String s, ZoneId zone, Instant now) {
        try {
            return switch (d.type()) {
                case QUANTITY -> new FactValue.Quantity(quantity(d, s), 0);
                case YES_NO ->
                    switch (s.toLowerCase(Locale.ROOT)) {
                        case "yes", "true" -> new FactValue.YesNo(true);
                        case "no", "false" -> new FactValue.YesNo(false);
                        default -> throw new IllegalArgumentException("type yes or no");
                    };
                case WORD -> {
                    if (!d.words().isEmpty() && !d.words().contains(s)) {
                        throw new IllegalArgumentException("one of " + String.join(", ", d.words()));
                    }
                    yield new FactValue.Word(s);
                }
                case WORDS -> {
                    Set<String> all = new TreeSet<>(s.equals("none") ? List.of() : List.of(s.split("[ ,]+")));
                    if (!d.words().isEmpty() && !d.words().containsAll(all)) {
                        throw new IllegalArgumentException("words of " + String.join(", ", d.words()) + ", or none");
                    }
                    yield new FactValue.Words(all);
                }
                case DATE -> new FactValue.Date(TypedInput.date(s, LocalDate.ofInstant(now, zone)));
                case INSTANT -> new FactValue.Moment(moment(s, zone, now));
            };
        } catch (IllegalArgumentException | DateTimeException e) {
            throw new IllegalArgumentException(d.label() + ": “" + s + "” is not understood; " + e.getMessage(), e);
        }
    }

    private static Instant moment(String s, ZoneId zone, Instant now) {
        if (s.matches(".*\\dT\\d.*")) {
            return OffsetDateTime.parse(s).toInstant();
        }
        boolean utc = s.toUpperCase(Locale.ROOT).endsWith("UTC");
        String local = utc ? s.substring(0, s.length() - 3).strip() : s;
        int at = local.lastIndexOf(' ');
        if (at < 0) {
            throw new IllegalArgumentException("type a day and a time, such as today 10:45, or 25 Nov 2026 14:05");
        }
        ZoneId of = utc ? ZoneOffset.UTC : zone;
        return TypedInput.date(local.substring(0, at).strip(), LocalDate.ofInstant(now, of))
                .atTime(TypedInput.time(local.substring(at + 1)))
                .atZone(of)
                .toInstant();
    }

    private static double quantity(FactDefinition d, String s) {
        return switch (d.unit()) {
            case "m" -> TypedInput.metres(s);
            case "g" -> TypedInput.grams(s);
            case "m/s" -> TypedInput.metresPerSecond(s);
            default -> TypedInput.plain(s, d.unit());
        };
    }
}
