package yarrek.core.rulebook;

import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import yarrek.core.units.Finite;

/** Single changes of a plan that requirements and conditions offer; only what a planner may change, and which way, is taken. */
public final class Offers {
    /**
     * One changed fact or one more paper.
     *
     * @param fact its name; empty for a paper
     * @param words what to change, from what to what
     * @param size how large the change is against what it was, 0 to 1; 1 where no measure exists
     */
    record Offer(String fact, Optional<FactValue> value, Optional<PaperHeld> paper, String words, double size) {}

    private final Facts facts;
    private final Set<Offer> offers = new LinkedHashSet<>();

    Offers(Facts facts) {
        this.facts = facts;
    }

    Facts facts() {
        return facts;
    }

    Set<Offer> all() {
        return offers;
    }

    /** A quantity at a figure in its unit. */
    void quantity(String fact, double value) {
        String name = fact.equals("classMassG") || fact.equals("greaterMassG") ? "takeoffMassG" : fact;
        FactDefinition d = Vocabulary.define(name);
        FactValue.Quantity was = facts.quantity(name);
        boolean may = d.change() != FactDefinition.Change.NOT
                && (was == null || d.change().allows(was.value(), value));
        if (!may || !(value >= 0)) {
            return;
        }
        String to = Finite.format(value) + " " + d.unit();
        double size =
                was == null ? 1 : Math.abs(value - was.value()) / Math.max(Math.abs(was.value()), Math.abs(value));
        offers.add(new Offer(
                name,
                Optional.of(new FactValue.Quantity(value, 0)),
                Optional.empty(),
                d.label() + (was == null ? ": " : " from " + Finite.format(was.value()) + " to ") + to,
                Double.isNaN(size) ? 0 : size));
    }

    /** Another value of a fact that is not measured. */
    void value(String fact, FactValue value) {
        FactDefinition d = Vocabulary.define(fact);
        Optional<Facts.Known> was = facts.get(fact);
        boolean same = was.map(k -> k.value().equals(value)).orElse(false);
        if (d.change() == FactDefinition.Change.NOT || same) {
            return;
        }
        String words =
                d.label() + was.map(k -> " from " + k.value().show(d) + " to ").orElse(": ") + value.show(d);
        offers.add(new Offer(fact, Optional.of(value), Optional.empty(), words, 1));
    }

    void paper(PaperHeld paper, String words) {
        offers.add(new Offer("", Optional.empty(), Optional.of(paper), words, 1));
    }
}
