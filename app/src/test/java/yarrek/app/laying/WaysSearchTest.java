package yarrek.app.laying;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import yarrek.core.board.Layout;
import yarrek.core.geo.Position;
import yarrek.core.judging.House;
import yarrek.core.judging.Neighbours;
import yarrek.core.time.TimeWindow;

/** The search against every way there is. */
class WaysSearchTest {
    private static final LocalDate DAY = LocalDate.of(2026, 6, 1);
    private static final Layout.Conflicts CONFLICTS = (a, b) -> a.stay().isInTheWayOf(b.stay(), House.USUAL.way());

    private static Layout.Option option(int pilot, int build, int day, int hour, int cost) {
        UUID who = new UUID(1, pilot);
        UUID what = new UUID(2, build);
        Instant from = Instant.parse("2026-06-01T00:00:00Z").plusSeconds(86400L * day + 3600L * hour);
        List<TimeWindow> hours = List.of(new TimeWindow(from, from.plusSeconds(3 * 3600)));
        return new Layout.Option(
                new Layout.Choice(who, what, DAY.plusDays(day)),
                cost,
                new Neighbours.Stay(new Position(54, 10), Map.of(who, hours, what, hours)));
    }

    private static List<List<Layout.Option>> some(Random r, int jobs, int options, int pilots, int builds, int days) {
        return IntStream.range(0, jobs)
                .mapToObj(j -> IntStream.range(0, r.nextInt(options + 1))
                        .mapToObj(i -> option(
                                r.nextInt(pilots),
                                r.nextInt(builds),
                                r.nextInt(days),
                                8 + 2 * r.nextInt(3),
                                r.nextInt(60)))
                        .sorted(Comparator.comparingInt(Layout.Option::cost))
                        .toList())
                .toList();
    }

    private static List<Layout.Option> taken(List<List<Layout.Option>> options, List<Integer> places) {
        List<Layout.Option> taken = new ArrayList<>();
        for (int i = 0; i < places.size(); i++) {
            if (places.get(i) >= 0) {
                taken.add(options.get(i).get(places.get(i)));
            }
        }
        return taken;
    }

    private static long best(List<List<Layout.Option>> options, int from, List<Layout.Option> in) {
        if (from == options.size()) {
            return Layout.worth(in);
        }
        long best = best(options, from + 1, in);
        for (Layout.Option o : options.get(from)) {
            if (in.stream().noneMatch(t -> CONFLICTS.between(t, o))) {
                List<Layout.Option> with = new ArrayList<>(in);
                with.add(o);
                best = Math.max(best, best(options, from + 1, with));
            }
        }
        return best;
    }

    @Test
    void itFindsTheBestOfAllWaysOfFewJobs() {
        Random random = new Random(7);
        for (int n = 0; n < 60; n++) {
            List<List<Layout.Option>> options = some(random, 2 + random.nextInt(4), 6, 2, 2, 2);
            List<Layout.Option> taken = taken(options, new WaysSearch().find(options, CONFLICTS));
            assertThat(Layout.worth(taken)).as("case " + n).isEqualTo(best(options, 0, List.of()));
        }
    }

    @Test
    void ofManyNoneIsInAnothersWayAndTheSameComesAgain() {
        List<List<Layout.Option>> options = some(new Random(3), 40, 60, 8, 12, 14);
        List<Integer> places = new WaysSearch().find(options, CONFLICTS);
        List<Layout.Option> taken = taken(options, places);
        assertThat(taken).hasSizeGreaterThan(30);
        for (Layout.Option a : taken) {
            assertThat(taken.stream().filter(b -> !b.equals(a)).filter(b -> CONFLICTS.between(a, b)))
                    .isEmpty();
        }
        assertThat(new WaysSearch().find(options, CONFLICTS)).isEqualTo(places);
    }

    @Test
    void whereThereIsNoWayThereIsNone() {
        assertThat(new WaysSearch().find(List.of(List.of(), List.of()), CONFLICTS))
                .containsExactly(-1, -1);
        assertThat(new WaysSearch().find(List.of(), CONFLICTS)).isEmpty();
    }
}
