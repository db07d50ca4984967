package yarrek.core.mass;

import java.util.List;
import java.util.Optional;
import yarrek.core.units.Mass;

/**
 * A mass class of a jurisdiction, from rule-pack data.
 *
 * @param name as the pack says it
 * @param from lower bound, included
 * @param below upper bound, not included; empty for the open top class
 * @param means what follows from it, in a sentence
 * @param source citation
 */
public record MassClass(String name, Mass from, Optional<Mass> below, String means, String source) {

    public boolean contains(Mass mass) {
        return mass.compareTo(from) >= 0
                && below.map(b -> mass.compareTo(b) < 0).orElse(true);
    }

    /**
     * Judges a take-off mass against classes in rising order.
     *
     * @throws IllegalArgumentException if no class holds the mass
     */
    public static Placement place(TakeoffMass takeoff, List<MassClass> classes) {
        MassClass found = find(takeoff.mass(), classes);
        MassClass lightest = find(takeoff.least().isNegative() ? Mass.ZERO : takeoff.least(), classes);
        MassClass heaviest = find(takeoff.most(), classes);
        return new Placement(
                found,
                found.below().map(b -> b.minus(takeoff.mass())),
                !lightest.equals(heaviest),
                lightest.equals(heaviest)
                        ? Optional.empty()
                        : heaviest.equals(found) ? Optional.of(found.from()) : found.below());
    }

    private static MassClass find(Mass mass, List<MassClass> classes) {
        return classes.stream()
                .filter(c -> c.contains(mass))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no mass class holds " + mass));
    }

    /**
     * Where a mass falls.
     *
     * @param massClass the class of the best figure
     * @param headroom grams left to the next threshold; zero is already over it; empty in the top class
     * @param close the tolerance reaches over a threshold: weigh it
     * @param doubtfulThreshold the threshold that the tolerance reaches over
     */
    public record Placement(
            MassClass massClass, Optional<Mass> headroom, boolean close, Optional<Mass> doubtfulThreshold) {}
}
