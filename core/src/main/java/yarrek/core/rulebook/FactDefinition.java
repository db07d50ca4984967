package yarrek.core.rulebook;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import yarrek.core.time.Days;
import yarrek.core.units.Finite;

/**
 * A word of the vocabulary.
 *
 * @param name as in packs, API and code
 * @param type kind of value
 * @param unit of a quantity, as shown; empty otherwise
 * @param label as shown to people
 * @param question what to ask when it is not known
 * @param words the words it may take; empty when free or not a word
 * @param group the question's place: place, how, aircraft, people, time, airspace, weather, papers, day or occurrence
 * @param change how a planner may change it; most facts are not the planner's to choose
 * @param saidOf whether it holds of a plan, of a flight, or of both
 * @param of whom or what it is usually asked of: site, aircraft, operator, job or occurrence
 * @param holdsHours for how long an answer holds; empty: until it is taken back
 * @param plan how the form of a plan asks it; empty when it does not
 */
public record FactDefinition(
        String name,
        FactType type,
        String unit,
        String label,
        String question,
        Set<String> words,
        String group,
        Change change,
        SaidOf saidOf,
        String of,
        OptionalInt holdsHours,
        Optional<InPlan> plan) {
    private static final Map<String, double[]> RANGES = Map.ofEntries(
            Map.entry("m", new double[] {0, 1e7}),
            Map.entry("mm", new double[] {0, 1e5}),
            Map.entry("NM", new double[] {0, 2e4}),
            Map.entry("g", new double[] {0.001, 1e9}),
            Map.entry("J", new double[] {0, 1e12}),
            Map.entry("m/s", new double[] {0, 400}),
            Map.entry("°C", new double[] {-90, 70}),
            Map.entry("%", new double[] {0, 100}),
            Map.entry("h", new double[] {0, 1e6}),
            Map.entry("min", new double[] {0, 1e6}),
            Map.entry("years", new double[] {0, 120}),
            Map.entry("months", new double[] {0, 1200}));

    /** Facts whose sense is narrower or wider than that of their unit. */
    private static final Map<String, double[]> NARROWER = Map.of(
            "pilot.bloodAlcoholPct", new double[] {0, 1},
            "heightAbovePilotM", new double[] {-1e4, 1e5},
            "heightAboveTakeoffM", new double[] {-1e4, 1e5},
            "pilot.aircraftAtOnce", new double[] {0, 1000});

    /**
     * Why a value makes no sense for this fact, whoever says it: a negative mass, an age of 400, a day that has not come yet.
     *
     * @param latest the last day that may have come: today, or the last day flown
     * @return empty when it may be
     */
    public Optional<String> nonsense(FactValue v, LocalDate latest) {
        if (v instanceof FactValue.Quantity q) {
            double[] r = NARROWER.getOrDefault(name, RANGES.getOrDefault(unit, new double[] {0, 1e15}));
            boolean within = q.value() >= r[0] && q.value() <= r[1] && q.below() <= r[1];
            return within
                    ? Optional.empty()
                    : Optional.of(label + " is " + Finite.format(r[0]) + " to " + Finite.format(r[1]) + " " + unit
                            + ", got " + q.show(this));
        }
        // every date of the vocabulary is of something that has happened
        boolean impossible = v instanceof FactValue.Date d
                && (d.value().isAfter(latest) || d.value().getYear() < 1900);
        return impossible
                ? Optional.of(label + " is a day from 1900 to " + Days.show(latest) + ", got " + v.show(this))
                : Optional.empty();
    }

    /**
     * How the form of a plan asks for a fact.
     *
     * @param place its place among the questions, the least first
     * @param hint what a planner should know, or an example; may be empty
     * @param least in the unit of the fact, for quantities; {@code most} alike
     */
    public record InPlan(
            int place, String group, String label, String hint, OptionalDouble least, OptionalDouble most) {
        /** Why a planned value cannot be; empty when it can. */
        public Optional<String> wrong(FactValue v, String unit) {
            if (!(v instanceof FactValue.Quantity q) || least.isEmpty() || most.isEmpty()) {
                return Optional.empty();
            }
            return q.value() >= least.getAsDouble() && q.value() <= most.getAsDouble()
                    ? Optional.empty()
                    : Optional.of("must be from " + Finite.format(least.getAsDouble()) + " to "
                            + Finite.format(most.getAsDouble()) + " " + unit);
        }
    }

    /** A word of it as people say it: "withObserver" is "with observer". */
    public String say(String word) {
        return Words.word(word);
    }

    /** Of what a fact is said: what was planned is no record of what was flown. */
    public enum SaidOf {
        /** Of plan and flight alike, such as what the place, the aircraft and the papers are. */
        BOTH,
        /** Of the plan; no log records it, so a flight takes it over as planned, and says so. */
        PLAN,
        /** Of each for itself: the plan has its figure, and the flight what was measured, or it is not known. */
        OWN,
        /** Of a flight only. */
        FLIGHT
    }

    /** Ways in which a plan may be changed. */
    public enum Change {
        /** What the place, the sky, the maker or the day decides. */
        NOT,
        DOWN,
        UP,
        FREE;

        boolean allows(double from, double to) {
            return this == FREE || (this == DOWN && to < from) || (this == UP && to > from);
        }
    }

    /** What is typed for it: its words, its unit, or what a moment looks like. */
    public String example() {
        return switch (type) {
            case QUANTITY -> unit;
            case YES_NO -> "yes or no";
            case WORD -> String.join(" ", words);
            case WORDS -> String.join(" ", words) + " or none";
            case DATE -> "a date";
            case INSTANT -> "such as today 10:45, local time";
        };
    }

    /** "Greatest height, m". */
    public String labelWithUnit() {
        return label + (unit.isEmpty() ? "" : ", " + unit);
    }
}
