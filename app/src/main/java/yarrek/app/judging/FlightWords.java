package yarrek.app.judging;

import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/** Names some of the planned flights of a job: their numbers, and what sets them apart from the others. */
final class FlightWords {
    private FlightWords() {}

    /**
     * "flights 2 and 4: Bracken, over water".
     *
     * @param parts of one plan
     * @param which of them, by their places
     */
    static String of(List<Wanted> parts, List<Integer> which, FactSources sources) {
        List<Wanted> some = which.stream().map(parts::get).toList();
        List<Wanted> others = IntStream.range(0, parts.size())
                .filter(i -> !which.contains(i))
                .mapToObj(parts::get)
                .toList();
        List<Integer> numbers = some.stream()
                .flatMap(w -> w.flights().stream())
                .distinct()
                .sorted()
                .toList();
        String apart = Stream.of(
                        apart(
                                some,
                                others,
                                Wanted::buildId,
                                id -> Optional.ofNullable(sources.build(id))
                                        .map(b -> b.aircraft().name() + ", " + b.name())
                                        .orElse("")),
                        apart(
                                some,
                                others,
                                Wanted::pilotId,
                                id -> Optional.ofNullable(sources.people().get(id))
                                        .map(p -> p.name())
                                        .orElse("")))
                .filter(s -> !s.isEmpty())
                .collect(Collectors.joining("; "));
        return numbers(numbers) + (apart.isEmpty() ? "" : ": " + apart);
    }

    /** Names of what only these have; empty where others have one of them too. */
    private static String apart(
            List<Wanted> some, List<Wanted> others, Function<Wanted, UUID> of, Function<UUID, String> name) {
        Set<UUID> its = ids(some, of);
        return its.isEmpty() || !Collections.disjoint(its, ids(others, of)) || others.isEmpty()
                ? ""
                : its.stream().map(name).collect(Collectors.toCollection(TreeSet::new)).stream()
                        .collect(Collectors.joining(" and "));
    }

    private static Set<UUID> ids(Collection<Wanted> of, Function<Wanted, UUID> id) {
        return of.stream().map(id).filter(Objects::nonNull).collect(Collectors.toSet());
    }

    /** "flight 3", "flights 1 to 4 and 7". */
    static String numbers(List<Integer> sorted) {
        StringBuilder words = new StringBuilder(sorted.size() == 1 ? "flight " : "flights ");
        for (int i = 0; i < sorted.size(); i++) {
            int end = i;
            while (end + 1 < sorted.size() && sorted.get(end + 1) == sorted.get(end) + 1) {
                end++;
            }
            int run = end - i;
            boolean last = (run >= 2 ? end : i) == sorted.size() - 1;
            words.append(i == 0 ? "" : last ? " and " : ", ").append(sorted.get(i));
            if (run >= 2) {
                words.append(" to ").append(sorted.get(end));
                i = end;
            }
        }
        return words.toString();
    }
}
