package yarrek.core.mass;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import yarrek.core.time.Days;
import yarrek.core.units.Mass;

/**
 * The mass of a build as it will take off, and how it was found.
 *
 * @param mass best figure
 * @param uncertainty plus or minus
 * @param weighing the weighing it rests on, or empty when it is the sum of the parts
 * @param parts what was added up, in order
 */
public record TakeoffMass(Mass mass, Mass uncertainty, Optional<Weighing> weighing, List<Part> parts) {
    public TakeoffMass {
        parts = List.copyOf(parts);
    }

    /**
     * Sum of the parts with their tolerances added (worst case, not root of squares), or the newest weighing of exactly
     * this list of parts, which overrides the sum.
     */
    public static TakeoffMass of(List<Part> parts, List<Weighing> weighings) {
        Set<String> ids = parts.stream().map(Part::id).collect(Collectors.toSet());
        Weighing newest = null;
        for (Weighing w : weighings) {
            if (w.partIds().equals(ids) && (newest == null || !w.on().isBefore(newest.on()))) {
                newest = w;
            }
        }
        if (newest != null) {
            return new TakeoffMass(newest.mass(), newest.resolution(), Optional.of(newest), parts);
        }
        Mass sum = Mass.ZERO;
        Mass tolerance = Mass.ZERO;
        for (Part part : parts) {
            sum = sum.plus(part.mass());
            tolerance = tolerance.plus(part.uncertainty());
        }
        return new TakeoffMass(sum, tolerance, Optional.empty(), parts);
    }

    public Mass least() {
        return mass.minus(uncertainty);
    }

    public Mass most() {
        return mass.plus(uncertainty);
    }

    /**
     * How it stands against the greatest mass that the maker declares, in words; empty when it is no heavier for certain.
     *
     * @param declared empty when it is not on file, and then it is not known
     */
    public Optional<String> overDeclared(Optional<Mass> declared) {
        if (declared.isEmpty()) {
            return Optional.of("not known: the greatest take-off mass that its maker declares is not on file");
        }
        Mass limit = declared.get();
        String figures = this + ", at most " + limit;
        if (least().compareTo(limit) > 0) {
            return Optional.of("heavier than its maker declares: " + figures);
        }
        return most().compareTo(limit) > 0
                ? Optional.of("perhaps heavier than its maker declares, weigh it: " + figures)
                : Optional.empty();
    }

    /** The inputs and the arithmetic, line by line, for "why?". */
    public List<String> steps() {
        List<String> steps = new ArrayList<>();
        weighing.ifPresent(w -> steps.add("weighed on " + Days.show(w.on()) + " (" + w.scale() + "): " + w.mass()
                + " ± " + w.resolution() + "; this overrides the sum for exactly these parts"));
        Mass sum = Mass.ZERO;
        Mass tolerance = Mass.ZERO;
        for (Part part : parts) {
            sum = sum.plus(part.mass());
            tolerance = tolerance.plus(part.uncertainty());
            steps.add(part.name() + ": " + part.mass() + " ± " + part.uncertainty()
                    + part.weighed().map(w -> " (weighed " + w.on() + ")").orElse(" (maker's figure)"));
        }
        steps.add("sum: " + sum + " ± " + tolerance + " (tolerances add)");
        return steps;
    }

    @Override
    public String toString() {
        return mass + " ± " + uncertainty;
    }
}
