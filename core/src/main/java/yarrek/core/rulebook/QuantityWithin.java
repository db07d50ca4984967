package yarrek.core.rulebook;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntFunction;
import java.util.stream.Collectors;

/**
 * A quantity on one side of a limit: as a requirement on the right side of it, as a condition surely there; not known when
 * either is not.
 *
 * @param closeness how near counts as close, where it is required
 */
public record QuantityWithin(String fact, Bound bound, Limit limit, Closeness closeness)
        implements Requirement, Condition {
    static final Kind<QuantityWithin> KIND = Kind.comparing(
            FactType.QUANTITY,
            "atMost, below, atLeast or above a figure",
            List.of(
                    new Kind.Op("atMost", "at most", Kind.Takes.FIGURE),
                    new Kind.Op("below", "below", Kind.Takes.FIGURE),
                    new Kind.Op("atLeast", "at least", Kind.Takes.FIGURE),
                    new Kind.Op("above", "above", Kind.Takes.FIGURE)),
            QuantityWithin::read);
    private static final Map<String, Bound> BOUNDS =
            Map.of("atMost", Bound.AT_MOST, "below", Bound.BELOW, "atLeast", Bound.AT_LEAST, "above", Bound.ABOVE);

    public QuantityWithin(String fact, Bound bound, Limit limit) {
        this(fact, bound, limit, Closeness.USUAL);
    }

    private static QuantityWithin read(Written n, Reading reading) {
        String side = KIND.word(n);
        FactDefinition d = reading.fact(n, FactType.QUANTITY);
        n.only(
                reading.isRequired() ? Set.of("fact", side, "closeness", "closePercent") : Set.of("fact", side),
                reading.what());
        return new QuantityWithin(d.name(), BOUNDS.get(side), Limit.read(n.get(side), d), Closeness.read(n));
    }

    @Override
    public Outcome judge(Facts facts) {
        FactValue.Quantity q = facts.quantity(fact);
        Optional<Limit.Span> at = limit.span(facts);
        if (q == null || at.isEmpty()) {
            List<String> missing = new ArrayList<>();
            if (q == null) {
                missing.add(fact);
            }
            if (at.isEmpty()) {
                limit.factNames().stream().filter(f -> facts.get(f).isEmpty()).forEach(missing::add);
            }
            return missing.isEmpty()
                    ? Outcome.unknown(
                            "not known: the limit of " + Outcome.lower(label()) + " for "
                                    + limit.factNames().stream()
                                            .map(f -> Outcome.lower(
                                                            Vocabulary.define(f).label()) + " "
                                                    + facts.get(f)
                                                            .map(k -> k.value().show(Vocabulary.define(f)))
                                                            .orElse(""))
                                            .collect(Collectors.joining(", ")),
                            List.of())
                    : Outcome.unknown("not known: " + Words.labels(missing), missing);
        }
        return outcome(q, q.value(), q.value(), at.get());
    }

    private String label() {
        return Vocabulary.define(fact).label();
    }

    @Override
    public OptionalDouble least(String quantity) {
        return !bound.isUpper() && fact.equals(quantity)
                ? limit.of(Facts.builder(ZoneOffset.UTC).build())
                : OptionalDouble.empty();
    }

    @Override
    public Verdict verdict(Facts facts) {
        return verdict(facts.quantity(fact), limit.span(facts));
    }

    @Override
    public double margin(Facts facts) {
        return margin(facts.quantity(fact), limit.span(facts));
    }

    @Override
    public OverTime overTime(Moments m) {
        IntFunction<FactValue.Quantity> quantity = m.quantities(fact);
        IntFunction<Optional<Limit.Span>> limits = limit.overTime(m);
        return new OverTime(
                i -> verdict(quantity.apply(i), limits.apply(i)), i -> margin(quantity.apply(i), limits.apply(i)));
    }

    private Verdict verdict(FactValue.Quantity q, Optional<Limit.Span> at) {
        return q == null || at.isEmpty() ? Verdict.NOT_KNOWN : closeness.verdict(q, at.get(), bound);
    }

    private double margin(FactValue.Quantity q, Optional<Limit.Span> at) {
        return q == null || at.isEmpty()
                ? Double.POSITIVE_INFINITY
                : bound.margin(q.value(), at.get().at());
    }

    Outcome outcome(FactValue.Quantity q, double least, double greatest, Limit.Span at) {
        FactDefinition d = Vocabulary.define(fact);
        Verdict verdict = closeness.verdict(q, at, bound);
        Gauge gauge =
                new Gauge(fact, d.unit(), q.value(), q.uncertainty(), least, greatest, at.at(), bound, limit.stated());
        if (verdict == Verdict.NOT_KNOWN) {
            String settles = Facts.settles(
                    q.isOpen() ? fact : limit.factNames().iterator().next());
            return Outcome.unknown(
                    d.label() + " " + q.show(d) + ", " + gauge.limitText() + ": not known: "
                            + Outcome.lower(Vocabulary.define(settles).label()),
                    List.of(settles));
        }
        boolean open = !q.isOpen() && bound.surely(q, at) != bound.possibly(q, at);
        String says = d.label() + " " + gauge.valueText() + ", " + gauge.limitText() + ": " + gauge.marginText()
                + (!open
                        ? ""
                        : verdict == Verdict.BREACHED
                                ? ", within the uncertainty"
                                : "; the uncertainty reaches over the limit: measure it");
        return new Outcome(verdict, says, Optional.of(gauge), List.of());
    }

    @Override
    public Set<String> factNames() {
        Set<String> names = new TreeSet<>(limit.factNames());
        names.add(fact);
        return names;
    }

    @Override
    public String words() {
        FactDefinition d = Vocabulary.define(fact);
        return d.label() + " " + bound.words() + " " + limit.words(d.unit());
    }

    @Override
    public Optional<QuantityWithin> quantity() {
        return Optional.of(this);
    }

    @Override
    public Truth test(Facts facts) {
        return test(facts.quantity(fact), limit.span(facts));
    }

    private Truth test(FactValue.Quantity q, Optional<Limit.Span> at) {
        if (q == null || at.isEmpty()) {
            return Truth.UNKNOWN;
        }
        return bound.surely(q, at.get()) ? Truth.YES : bound.possibly(q, at.get()) ? Truth.UNKNOWN : Truth.NO;
    }

    @Override
    public IntFunction<Truth> truthOverTime(Moments m) {
        IntFunction<FactValue.Quantity> quantity = m.quantities(fact);
        IntFunction<Optional<Limit.Span>> limits = limit.overTime(m);
        return i -> test(quantity.apply(i), limits.apply(i));
    }

    @Override
    public List<Undecided> undecided(Facts facts) {
        List<Undecided> open = Condition.super.undecided(facts);
        if (!open.isEmpty() || test(facts) != Truth.UNKNOWN) {
            return open;
        }
        FactDefinition d = Vocabulary.define(fact);
        FactValue.Quantity q = facts.quantity(fact);
        String words = Outcome.lower(d.label()) + " " + q.show(d) + ", which leaves open whether it is " + bound.words()
                + " " + limit.words(d.unit());
        return q.isOpen()
                ? List.of(new Undecided(Facts.settles(fact), words))
                : List.of(new Undecided("", words + ": measure it"));
    }

    @Override
    public boolean clashes(Contradiction.Left left) {
        return limit.constant().isPresent()
                && left.quantity(fact, bound, limit.constant().getAsDouble());
    }

    @Override
    public void offer(Offers to) {
        limit.of(to.facts()).ifPresent(at -> to.quantity(fact, within(at)));
        limit.offer(fact, to);
    }

    @Override
    public void offerTrue(Offers to) {
        limit.of(to.facts()).ifPresent(at -> to.quantity(fact, within(at)));
    }

    @Override
    public void offerFalse(Offers to) {
        limit.of(to.facts())
                .ifPresent(at -> to.quantity(fact, bound.holds(at, at) ? at + (bound.isUpper() ? 0.1 : -0.1) : at));
    }

    /** On the limit where it complies, else a tenth of the unit inside. */
    private double within(double at) {
        return bound.holds(at, at) ? at : at + (bound.isUpper() ? -0.1 : 0.1);
    }

    @Override
    public Optional<RuleLines> lines() {
        return closeness.equals(Closeness.USUAL)
                ? limit.figure().map(f -> RuleLines.of(fact, side(), f))
                : Optional.empty();
    }

    private String side() {
        return BOUNDS.entrySet().stream()
                .filter(e -> e.getValue() == bound)
                .map(Map.Entry::getKey)
                .findFirst()
                .orElseThrow();
    }
}
