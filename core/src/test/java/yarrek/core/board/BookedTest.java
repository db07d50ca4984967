package yarrek.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.geo.Position;
import yarrek.core.judging.House;
import yarrek.core.judging.Neighbours;
import yarrek.core.time.TimeWindow;

class BookedTest {
    private static final Instant BEGIN = Instant.parse("2027-06-01T00:00:00Z");

    private static Neighbours.Stay stay(Random random, List<UUID> people) {
        Instant from = BEGIN.plus(Duration.ofMinutes(random.nextInt(14 * 24 * 60)));
        TimeWindow hours = new TimeWindow(from, from.plus(Duration.ofMinutes(1 + random.nextInt(3000))));
        Position at = random.nextInt(5) == 0 ? null : new Position(38 + random.nextDouble(), -28 + random.nextDouble());
        return new Neighbours.Stay(at, Map.of(people.get(random.nextInt(people.size())), List.of(hours)));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void findsThoseThatAskingAllWouldFind(long seed) {
        Random random = new Random(seed);
        List<UUID> people = List.of(new UUID(0, 1), new UUID(0, 2), new UUID(0, 3));
        Neighbours.Way way = House.USUAL.way();
        List<Layout.Booking> all = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            all.add(new Layout.Booking("job " + i, stay(random, people)));
        }
        Booked booked = new Booked(all, way);
        for (int i = 0; i < 200; i++) {
            Neighbours.Stay s = stay(random, people);
            List<String> asked = all.stream()
                    .filter(b -> b.stay().isInTheWayOf(s, way))
                    .map(Layout.Booking::name)
                    .sorted()
                    .toList();
            assertThat(booked.inTheWayOf(s).map(Layout.Booking::name).sorted()).isEqualTo(asked);
            assertThat(booked.isFree(s)).isEqualTo(asked.isEmpty());
        }
    }
}
