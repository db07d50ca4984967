package yarrek.core.rulebook;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntFunction;

/** The moments of a flight by their index: what changes over it, on top of what holds throughout. */
public final class Moments {
    private final Facts constant;
    private final Map<String, FlightFacts.Series> series;
    private final Moment moment;

    Moments(Facts constant, Map<String, FlightFacts.Series> series) {
        this.constant = constant;
        this.series = new HashMap<>(series); // asked some hundred thousand times
        this.moment = new Moment(constant, this.series);
    }

    /** Whether any of these facts changes over the flight. */
    boolean moves(Collection<String> facts) {
        return facts.stream().anyMatch(series::containsKey);
    }

    /** What holds throughout. */
    Facts constant() {
        return constant;
    }

    /** The facts at one moment, until the next is asked for. */
    Facts at(int index) {
        moment.index = index;
        return moment;
    }

    /** A quantity at each moment; null where it is not known. */
    IntFunction<FactValue.Quantity> quantities(String fact) {
        FlightFacts.Series s = series.get(fact);
        if (s == null) {
            FactValue.Quantity always = constant.quantity(fact);
            return i -> always;
        }
        return i -> quantity(s, i);
    }

    private static FactValue.Quantity quantity(FlightFacts.Series s, int index) {
        double v = s.values()[index];
        return Double.isNaN(v) ? null : new FactValue.Quantity(v, Double.isNaN(s.uncertainty()) ? 0 : s.uncertainty());
    }

    /** The facts at one moment: series at an index over the constant ones. */
    private static final class Moment extends Facts {
        private final Map<String, FlightFacts.Series> series;
        private int index;

        private Moment(Facts constant, Map<String, FlightFacts.Series> series) {
            super(constant);
            this.series = series;
        }

        @Override
        public Optional<Known> get(String name) {
            FlightFacts.Series s = series.get(name);
            if (s == null) {
                return super.get(name);
            }
            FactValue.Quantity q = quantity(name);
            return q == null ? Optional.empty() : Optional.of(new Known(q, s.source()));
        }

        @Override
        FactValue.Quantity quantity(String name) {
            FlightFacts.Series s = series.get(name);
            if (s == null) {
                return super.quantity(name);
            }
            return Moments.quantity(s, index);
        }
    }
}
