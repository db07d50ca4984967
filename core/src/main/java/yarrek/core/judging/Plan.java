package yarrek.core.judging;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import yarrek.core.rulebook.FactValue;
import yarrek.core.time.TimeWindow;

/**
 * What is planned, apart from who flies what and where.
 *
 * @param windows the hours of each day
 * @param firstDay local to the place, {@code lastDay} included
 * @param heightM greatest height in metres; empty when not known
 * @param aboveTakeoff whether the height counts from the take-off point, or else from the ground
 * @param observer whether an observer is named
 * @param said everything else that the plan says, by the words of the vocabulary
 * @param flights every flight planned for the job, not only those that this is the plan of
 */
public record Plan(
        List<TimeWindow> windows,
        LocalDate firstDay,
        LocalDate lastDay,
        OptionalDouble heightM,
        boolean aboveTakeoff,
        boolean observer,
        Map<String, FactValue> said,
        Optional<FlightsPlanned> flights) {
    /** Begins the names of facts that a pilot says of himself. */
    static final String PILOTS = "pilot.";

    public Plan {
        windows = List.copyOf(windows);
        said = Map.copyOf(said);
    }

    /** The same in other hours. */
    public Plan in(List<TimeWindow> hours) {
        return new Plan(hours, firstDay, lastDay, heightM, aboveTakeoff, observer, said, flights);
    }

    /** The same flown by another: what the planned pilot said of himself is not said of him. */
    public Plan byAnotherPilot() {
        Map<String, FactValue> others = said.entrySet().stream()
                .filter(e -> !e.getKey().startsWith(PILOTS))
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
        return new Plan(windows, firstDay, lastDay, heightM, aboveTakeoff, observer, others, flights);
    }

    /** Greatest height above ground as far as the plan tells. */
    public OptionalDouble greatestHeight(Place place) {
        return heightM.isEmpty() || !aboveTakeoff ? heightM : place.aboveGround(heightM.getAsDouble());
    }

    Optional<String> purpose() {
        return Optional.ofNullable(said.get("purpose")).map(v -> ((FactValue.Word) v).value());
    }
}
