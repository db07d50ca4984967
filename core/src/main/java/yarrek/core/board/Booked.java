package yarrek.core.board;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Stream;
import yarrek.core.judging.Neighbours;

/** Bookings by whom or what they hold and when they begin, so that of thousands only those about a time are looked at. */
final class Booked {
    private static final NavigableMap<Instant, List<Layout.Booking>> NONE = Collections.emptyNavigableMap();

    private final Map<UUID, NavigableMap<Instant, List<Layout.Booking>>> byBegin = new HashMap<>();
    private final Neighbours.Way way;
    private Duration longest = Duration.ZERO;

    Booked(List<Layout.Booking> all, Neighbours.Way way) {
        this.way = way;
        for (Layout.Booking b : all) {
            b.stay()
                    .uses()
                    .forEach((who, hours) -> hours.forEach(w -> {
                        byBegin.computeIfAbsent(who, k -> new TreeMap<>())
                                .computeIfAbsent(w.start(), k -> new ArrayList<>())
                                .add(b);
                        Duration d = Duration.between(w.start(), w.end());
                        longest = d.compareTo(longest) > 0 ? d : longest;
                    }));
        }
    }

    /** Those in whose way a stay would be, each once. */
    Stream<Layout.Booking> inTheWayOf(Neighbours.Stay stay) {
        return met(stay).distinct();
    }

    boolean isFree(Neighbours.Stay stay) {
        return met(stay).findAny().isEmpty();
    }

    private Stream<Layout.Booking> met(Neighbours.Stay stay) {
        Duration near = way.night();
        return stay.uses().entrySet().stream()
                .flatMap(e -> e.getValue().stream()
                        .flatMap(w -> byBegin
                                .getOrDefault(e.getKey(), NONE)
                                .subMap(
                                        w.start().minus(near).minus(longest),
                                        true,
                                        w.end().plus(near),
                                        true)
                                .values()
                                .stream()
                                .flatMap(List::stream)))
                .filter(b -> b.stay().isInTheWayOf(stay, way));
    }
}
