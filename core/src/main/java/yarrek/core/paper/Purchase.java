package yarrek.core.paper;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * From buying an aircraft to its first flight: the papers it waits for, and the first day on which all of them hold.
 *
 * @param mayFlyFrom first day, not before the purchase, from which every paper needed is in force; empty while one is missing
 * @param waitingFor papers needed and not in force today, in words
 * @param heldUpBy the paper that came last; empty while one is missing or none is needed
 */
public record Purchase(
        Optional<LocalDate> boughtOn,
        Optional<LocalDate> mayFlyFrom,
        List<String> waitingFor,
        Optional<String> heldUpBy) {
    /** A paper needed before the first flight, and the ones of that kind that are held. */
    public record Duty(String words, List<Paper> held) {}

    public static Purchase of(Optional<LocalDate> boughtOn, LocalDate today, ZoneId zone, List<Duty> duties) {
        List<String> waiting = new ArrayList<>();
        LocalDate from = boughtOn.orElse(null);
        String last = null;
        boolean missing = false;
        for (Duty d : duties) {
            Optional<LocalDate> first = d.held().stream()
                    .filter(p -> p.validity()
                            .validThrough()
                            .map(t -> !t.isBefore(today))
                            .orElse(true))
                    .map(p -> p.validity().validFrom().orElse(LocalDate.MIN))
                    .min(LocalDate::compareTo);
            if (first.isEmpty() || first.get().isAfter(today)) {
                waiting.add(d.words() + first.map(f -> ", in force from " + f).orElse(", none on record that holds"));
            }
            if (first.isEmpty()) {
                missing = true;
            } else if (!first.get().equals(LocalDate.MIN)
                    && (from == null || first.get().isAfter(from))) {
                from = first.get();
                last = d.words();
            }
        }
        return new Purchase(
                boughtOn,
                missing ? Optional.empty() : Optional.ofNullable(from),
                waiting,
                missing ? Optional.empty() : Optional.ofNullable(last));
    }

    /** Days from purchase to the first day on which it may fly. */
    public OptionalLong days() {
        return boughtOn.isPresent() && mayFlyFrom.isPresent()
                ? OptionalLong.of(ChronoUnit.DAYS.between(boughtOn.get(), mayFlyFrom.get()))
                : OptionalLong.empty();
    }
}
