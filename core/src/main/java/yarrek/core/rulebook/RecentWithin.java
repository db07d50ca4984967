package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import yarrek.core.time.Days;

/** A date so recent that the last instant of the flying still lies within so many months of it; its last day is close. */
public record RecentWithin(String fact, int months, Days.Counting counting) implements Requirement {
    static final Kind<RecentWithin> KIND = Kind.comparing(
            FactType.DATE,
            "withinMonths a number",
            List.of(new Kind.Op(
                    "withinMonths", "within so many months", Kind.Takes.NUMBER, Map.of("counting", "sameDay"))),
            RecentWithin::read);

    private static RecentWithin read(Written n, Reading reading) {
        FactDefinition d = reading.fact(n, FactType.DATE);
        n.only(Set.of("fact", "withinMonths", "counting"), reading.what());
        return new RecentWithin(
                d.name(),
                n.get("withinMonths").number().intValueExact(),
                n.get("counting").oneOf(Days.COUNTINGS));
    }

    @Override
    public Outcome judge(Facts facts) {
        Optional<Facts.Known> known = facts.get(fact);
        if (known.isEmpty()) {
            return Outcome.unknown(fact);
        }
        if (facts.windows().isEmpty()) {
            return Outcome.unknown("not known: days and hours of the flying", List.of());
        }
        LocalDate done = ((FactValue.Date) known.get().value()).value();
        LocalDate last = Days.lastWithin(done, months, counting);
        LocalDate flown = facts.days().stream().max(LocalDate::compareTo).orElseThrow();
        String says = Vocabulary.define(fact).label() + ": " + Days.show(done) + ", counts through " + Days.show(last);
        return flown.isAfter(last)
                ? Outcome.breached(says + ", flown on " + Days.show(flown))
                : flown.equals(last) ? Outcome.close(says + ": its last day") : Outcome.met(says);
    }

    @Override
    public Set<String> factNames() {
        return Set.of(fact);
    }

    @Override
    public String words() {
        return Vocabulary.define(fact).label() + " within " + months
                + (counting == Days.Counting.SAME_DAY ? " months, to the day of the same number" : " calendar months");
    }

    @Override
    public void offer(Offers to) {
        to.facts().days().stream()
                .min(LocalDate::compareTo)
                .ifPresent(day -> to.value(fact, new FactValue.Date(day.minusDays(1))));
    }

    @Override
    public Optional<RuleLines> lines() {
        return counting == Days.Counting.SAME_DAY
                ? Optional.of(RuleLines.of(fact, "withinMonths", String.valueOf(months)))
                : Optional.empty();
    }
}
