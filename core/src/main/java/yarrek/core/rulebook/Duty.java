package yarrek.core.rulebook;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import yarrek.core.time.Days;

/**
 * Something to do, keep or remember: nothing is measured.
 *
 * @param within time for it; zero when it has none
 * @param unit HOURS from the instant, or DAYS through the end of the last one
 * @param from the fact from which the law counts: when one became aware, or when it happened
 */
public record Duty(String text, int within, ChronoUnit unit, String from) implements Requirement {
    static final Kind<Duty> KIND = Kind.of("duty", Duty::read);

    private static final DateTimeFormatter HOUR = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm 'UTC'", Locale.UK);

    private static Duty read(Written n, Reading reading) {
        n.only(Set.of("duty", "withinHours", "withinDays", "from"), "a duty");
        String from = "occurrence.awareAt";
        if (n.has("from")) {
            FactDefinition d = Reading.define(n.get("from"));
            if (d.type() != FactType.INSTANT) {
                throw n.get("from").wrong(d.name() + " is no instant, so no time can be counted from it");
            }
            from = d.name();
        }
        int hours = n.has("withinHours") ? n.get("withinHours").number().intValueExact() : 0;
        int days = n.has("withinDays") ? n.get("withinDays").number().intValueExact() : 0;
        return new Duty(n.text("duty"), hours > 0 ? hours : days, hours > 0 ? ChronoUnit.HOURS : ChronoUnit.DAYS, from);
    }

    @Override
    public Outcome judge(Facts facts) {
        return new Outcome(
                Verdict.DUTY,
                (text.endsWith(".") ? text.substring(0, text.length() - 1) : text) + by(facts),
                Optional.empty(),
                List.of());
    }

    private String by(Facts facts) {
        Optional<Instant> due = due(facts);
        if (due.isEmpty()) {
            return within == 0
                    ? ""
                    : "; within " + within + (unit == ChronoUnit.HOURS ? " hours" : " days")
                            + " of what is not known: "
                            + Outcome.lower(Vocabulary.define(from).label());
        }
        return unit == ChronoUnit.HOURS
                ? "; by " + HOUR.format(due.get().atZone(ZoneOffset.UTC))
                : "; by the end of "
                        + Days.show(due.get().atZone(facts.zone()).toLocalDate().minusDays(1));
    }

    /** The first instant at which it is late; empty when it has no time, or what it counts from is not known. */
    public Optional<Instant> due(Facts facts) {
        return within == 0
                ? Optional.empty()
                : facts.get(from).map(k -> {
                    Instant start = ((FactValue.Moment) k.value()).value();
                    return unit == ChronoUnit.HOURS
                            ? start.plus(within, unit)
                            : start.atZone(facts.zone())
                                    .toLocalDate()
                                    .plusDays(within + 1L)
                                    .atStartOfDay(facts.zone())
                                    .toInstant();
                });
    }

    @Override
    public Set<String> factNames() {
        return within == 0 ? Set.of() : Set.of(from);
    }

    @Override
    public String words() {
        return text;
    }

    @Override
    public boolean isDuty() {
        return true;
    }
}
