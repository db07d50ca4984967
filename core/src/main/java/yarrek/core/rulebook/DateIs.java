package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import yarrek.core.time.Days;

/** A date before a day, or on or after it. */
public record DateIs(String fact, boolean before, LocalDate day) implements Requirement, Condition {
    static final Kind<DateIs> KIND = Kind.comparing(
            FactType.DATE,
            "before or onOrAfter a date",
            List.of(
                    new Kind.Op("before", "before", Kind.Takes.DATE),
                    new Kind.Op("onOrAfter", "on or after", Kind.Takes.DATE)),
            DateIs::read);

    private static DateIs read(Written n, Reading reading) {
        String side = KIND.word(n);
        FactDefinition d = reading.fact(n, FactType.DATE);
        n.only(Set.of("fact", side), reading.what());
        return new DateIs(d.name(), side.equals("before"), n.get(side).date());
    }

    @Override
    public Outcome judge(Facts facts) {
        Optional<Facts.Known> known = facts.get(fact);
        if (known.isEmpty()) {
            return Outcome.unknown(fact);
        }
        LocalDate is = ((FactValue.Date) known.get().value()).value();
        String says = Vocabulary.define(fact).label() + ": " + Days.show(is) + " (" + side() + ")";
        return is.isBefore(day) == before ? Outcome.met(says) : Outcome.breached(says);
    }

    private String side() {
        return (before ? "before " : "on or after ") + Days.show(day);
    }

    @Override
    public Set<String> factNames() {
        return Set.of(fact);
    }

    @Override
    public String words() {
        return Vocabulary.define(fact).label() + " " + side();
    }

    @Override
    public Truth test(Facts facts) {
        return facts.get(fact)
                .map(k -> Truth.of(((FactValue.Date) k.value()).value().isBefore(day) == before))
                .orElse(Truth.UNKNOWN);
    }

    @Override
    public boolean clashes(Contradiction.Left left) {
        return left.date(fact, before, day);
    }

    @Override
    public Optional<RuleLines> lines() {
        return Optional.of(RuleLines.of(fact, before ? "before" : "onOrAfter", day.toString()));
    }
}
