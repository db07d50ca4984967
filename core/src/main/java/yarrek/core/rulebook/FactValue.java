package yarrek.core.rulebook;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import yarrek.core.time.Days;
import yarrek.core.units.Finite;

/** A known value of a fact. Immutable. */
public sealed interface FactValue {

    /** As shown, with the unit of the definition. */
    String show(FactDefinition definition);

    FactType type();

    /** As it is stored: a figure without its unit, yes or no, words with spaces between, an ISO date or instant. */
    String text();

    /**
     * The stored form back.
     *
     * @throws IllegalArgumentException when it is none of the type
     */
    static FactValue of(FactDefinition d, String text) {
        try {
            return switch (d.type()) {
                case QUANTITY -> new Quantity(Double.parseDouble(text), 0);
                case YES_NO -> new YesNo(text.equals("yes"));
                case WORD -> new Word(text);
                case WORDS -> new Words(text.equals(Words.NONE) ? Set.of() : Set.of(text.split(" ")));
                case DATE -> new Date(LocalDate.parse(text));
                case INSTANT -> new Moment(Instant.parse(text));
            };
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(d.name() + ": '" + text + "' is no stored value", e);
        }
    }

    /**
     * A quantity that is known to lie in a stretch.
     *
     * @param value in the unit of the fact, the best figure; finite
     * @param below how far the true value may lie below it, zero or more
     * @param above how far it may lie above it, zero or more; infinite when only the least it can be is known
     */
    record Quantity(double value, double below, double above) implements FactValue {
        public Quantity {
            Finite.require("value", value, "the fact's unit");
            if (!(below >= 0 && below <= Double.MAX_VALUE) || !(above >= 0)) {
                throw new IllegalArgumentException("uncertainty must be 0 or more, got " + below + " and " + above);
            }
        }

        /** @param uncertainty plus or minus, zero or more */
        public Quantity(double value, double uncertainty) {
            this(value, uncertainty, Finite.require("uncertainty", uncertainty, "the fact's unit"));
        }

        /** A quantity of which only the least it can be is known. */
        public static Quantity atLeast(double value, double below) {
            return new Quantity(value, below, Double.POSITIVE_INFINITY);
        }

        public double low() {
            return value - below;
        }

        public double high() {
            return value + above;
        }

        /** Whether nothing says how great it can be. */
        public boolean isOpen() {
            return Double.isInfinite(above);
        }

        /** The greater of the finite sides. */
        public double uncertainty() {
            return isOpen() ? below : Math.max(below, above);
        }

        @Override
        public String show(FactDefinition definition) {
            String sides = below == above
                    ? (below > 0 ? " ± " + Finite.format(below) : "")
                    : isOpen()
                            ? (below > 0 ? " − " + Finite.format(below) : "")
                            : " + " + Finite.format(above) + " − " + Finite.format(below);
            return (isOpen() ? "at least " : "")
                    + Finite.words(value)
                    + sides
                    + (definition.unit().isEmpty() ? "" : " " + definition.unit());
        }

        @Override
        public String text() {
            return Double.toString(value);
        }

        @Override
        public FactType type() {
            return FactType.QUANTITY;
        }
    }

    record YesNo(boolean value) implements FactValue {
        @Override
        public String show(FactDefinition definition) {
            return value ? "yes" : "no";
        }

        @Override
        public String text() {
            return value ? "yes" : "no";
        }

        @Override
        public FactType type() {
            return FactType.YES_NO;
        }
    }

    record Word(String value) implements FactValue {
        @Override
        public String show(FactDefinition definition) {
            return definition.say(value);
        }

        @Override
        public String text() {
            return value;
        }

        @Override
        public FactType type() {
            return FactType.WORD;
        }
    }

    record Words(Set<String> values) implements FactValue {
        /** How a list without any word is written. */
        static final String NONE = "none";

        public Words {
            values = Set.copyOf(values);
        }

        @Override
        public String show(FactDefinition definition) {
            return values.isEmpty()
                    ? "none"
                    : new TreeSet<>(values).stream().map(definition::say).collect(Collectors.joining(", "));
        }

        @Override
        public String text() {
            return values.isEmpty() ? NONE : String.join(" ", new TreeSet<>(values));
        }

        @Override
        public FactType type() {
            return FactType.WORDS;
        }
    }

    /** A day in the civil calendar of the place or the issuer. */
    record Date(LocalDate value) implements FactValue {
        @Override
        public String show(FactDefinition definition) {
            return Days.show(value);
        }

        @Override
        public String text() {
            return value.toString();
        }

        @Override
        public FactType type() {
            return FactType.DATE;
        }
    }

    /** A point in time. */
    record Moment(Instant value) implements FactValue {
        @Override
        public String show(FactDefinition definition) {
            return value.toString();
        }

        @Override
        public String text() {
            return value.toString();
        }

        @Override
        public FactType type() {
            return FactType.INSTANT;
        }
    }
}
