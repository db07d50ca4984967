package yarrek.core.rulebook;

import java.util.Set;
import java.util.TreeSet;
import yarrek.core.units.Finite;

/** A known value of a fact. Immutable. */
public sealed interface FactValue {

    /** As shown, with the unit of the definition. */
    String show(FactDefinition definition);

    FactType type();

    /**
     * @param value in the unit of the fact; finite
     * @param uncertainty plus or minus, zero or more
     */
    record Quantity(double value, double uncertainty) implements FactValue {
        public Quantity {
            Finite.require("value", value, "the fact's unit");
            if (!(uncertainty >= 0 && uncertainty <= Double.MAX_VALUE)) {
                throw new IllegalArgumentException("uncertainty must be 0 or more, got " + uncertainty);
            }
        }

        @Override
        public String show(FactDefinition definition) {
            return Finite.format(value)
                    + (uncertainty > 0 ? " ± " + Finite.format(uncertainty) : "")
                    + (definition.unit().isEmpty() ? "" : " " + definition.unit());
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
        public FactType type() {
            return FactType.YES_NO;
        }
    }

    record Word(String value) implements FactValue {
        @Override
        public String show(FactDefinition definition) {
            return value;
        }

        @Override
        public FactType type() {
            return FactType.WORD;
        }
    }

    record Words(Set<String> values) implements FactValue {
        public Words {
            values = Set.copyOf(values);
        }

        @Override
        public String show(FactDefinition definition) {
            return values.isEmpty() ? "none" : String.join(", ", new TreeSet<>(values));
        }

        @Override
        public FactType type() {
            return FactType.WORDS;
        }
    }

    /** A day in the civil calendar of the place or the issuer. */
    record Date(java.time.LocalDate value) implements FactValue {
        @Override
        public String show(FactDefinition definition) {
            return Days.show(value);
        }

        @Override
        public FactType type() {
            return FactType.DATE;
        }
    }

    /** A point in time. */
    record Moment(java.time.Instant value) implements FactValue {
        @Override
        public String show(FactDefinition definition) {
            return value.toString();
        }

        @Override
        public FactType type() {
            return FactType.INSTANT;
        }
    }
}
