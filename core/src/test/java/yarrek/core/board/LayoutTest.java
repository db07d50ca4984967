package yarrek.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.UUID;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.judging.House;
import yarrek.core.judging.Neighbours;
import yarrek.core.rulebook.Tally;
import yarrek.core.time.TimeWindow;

class LayoutTest {
    private static final LocalDate DAY = LocalDate.of(2026, 6, 1);
    private static final Position HERE = new Position(54, 10);
    private static final List<UUID> PILOTS = ids('a', 3);
    private static final List<UUID> BUILDS = ids('b', 2);

    private static List<UUID> ids(char kind, int n) {
        return IntStream.range(0, n)
                .mapToObj(i -> UUID.fromString("00000000-0000-0000-0000-00000000000" + i)
                        .toString()
                        .replaceFirst("0", "" + kind))
                .map(UUID::fromString)
                .toList();
    }

    private static Neighbours.Stay stay(Position at, LocalTime from, LocalTime to, Layout.Choice c) {
        List<TimeWindow> hours = List.of(new TimeWindow(
                c.first().atTime(from).toInstant(ZoneOffset.UTC),
                c.first().atTime(to).toInstant(ZoneOffset.UTC)));
        return new Neighbours.Stay(at, Map.of(c.pilot(), hours, c.build(), hours));
    }

    private static Layout.Job job(String name, LocalDate planned, Position at, int from, int to) {
        return new Layout.Job(
                UUID.nameUUIDFromBytes(name.getBytes(java.nio.charset.StandardCharsets.UTF_8)),
                name,
                new Layout.Choice(PILOTS.get(0), BUILDS.get(0), planned),
                c -> stay(at, LocalTime.of(from, 0), LocalTime.of(to, 0), c));
    }

    private static Layout.Job job(String name) {
        return job(name, DAY, HERE, 9, 12);
    }

    private static final Tally GO = new Tally(0, 0, 0, 0, Tally.Go.GO);
    private static final Tally NO_GO = new Tally(1, 0, 0, 0, Tally.Go.NO_GO);

    private static Layout.Judged open(String... what) {
        return new Layout.Judged(what.length == 0 ? GO : NO_GO, List.of(what));
    }

    /** Every way of taking one option or none of each job; the best of them. */
    static List<Integer> everyWay(List<List<Layout.Option>> options, Layout.Conflicts conflicts) {
        List<Integer> best = new ArrayList<>();
        options.forEach(o -> best.add(-1));
        long[] worth = {Layout.worth(List.of())};
        every(options, conflicts, new ArrayList<>(), best, worth);
        return best;
    }

    private static void every(
            List<List<Layout.Option>> options,
            Layout.Conflicts conflicts,
            List<Integer> taken,
            List<Integer> best,
            long[] worth) {
        List<Layout.Option> in = IntStream.range(0, taken.size())
                .filter(i -> taken.get(i) >= 0)
                .mapToObj(i -> options.get(i).get(taken.get(i)))
                .toList();
        if (taken.size() == options.size()) {
            if (Layout.worth(in) > worth[0]) {
                worth[0] = Layout.worth(in);
                for (int i = 0; i < taken.size(); i++) {
                    best.set(i, taken.get(i));
                }
            }
            return;
        }
        List<Layout.Option> next = options.get(taken.size());
        for (int i = 0; i <= next.size(); i++) {
            int k = i < next.size() ? i : -1;
            Layout.Option o = k < 0 ? null : next.get(k);
            if (o == null || in.stream().noneMatch(t -> conflicts.between(t, o))) {
                taken.add(k);
                every(options, conflicts, taken, best, worth);
                taken.remove(taken.size() - 1);
            }
        }
    }

    private static Layout.Field field(int days) {
        return new Layout.Field(PILOTS, BUILDS, Layout.days(DAY, DAY.plusDays(days - 1), 1));
    }

    private static Layout layout(Layout.Field field, List<Layout.Booking> bookings, Layout.Judge judge, int budget) {
        return layout(field, bookings, judge, budget, Instant.EPOCH);
    }

    private static Layout layout(
            Layout.Field field, List<Layout.Booking> bookings, Layout.Judge judge, int budget, Instant now) {
        return new Layout(j -> field, bookings, judge, LayoutTest::everyWay, House.USUAL.way(), now, budget);
    }

    /** Each of these stands open where it says so. */
    private static Layout.Judge opening(Map<String, Predicate<Layout.Choice>> when) {
        return (job, choices) -> choices.stream()
                .map(c -> open(when.entrySet().stream()
                        .filter(e -> e.getValue().test(c))
                        .map(Map.Entry::getKey)
                        .sorted()
                        .toArray(String[]::new)))
                .toList();
    }

    private static Layout.Judge goWhen(Predicate<Layout.Choice> go, String else_) {
        return (job, choices) ->
                choices.stream().map(c -> go.test(c) ? open() : open(else_)).toList();
    }

    @Test
    void whatIsGoAndInNobodysWayStaysAsItIs() {
        Layout.Proposal p =
                layout(field(2), List.of(), goWhen(c -> true, ""), 1000).propose(List.of(job("A")));
        assertThat(p.lines().get(0).isAsPlanned()).isTrue();
        assertThat(p.judged()).isEqualTo(12);
        assertThat(p.ways()).isEqualTo(12);
    }

    @Test
    void oneOfTwoInTheSameHoursIsMovedAsLittleAsCanBe() {
        Layout.Proposal p =
                layout(field(3), List.of(), goWhen(c -> true, ""), 1000).propose(List.of(job("A"), job("B")));
        assertThat(p.in()).isEqualTo(2);
        // a day later costs less than another pilot and another build
        assertThat(p.lines().stream().map(l -> l.choice().first())).containsExactlyInAnyOrder(DAY, DAY.plusDays(1));
        assertThat(p.lines().stream().map(l -> l.choice().pilot())).containsOnly(PILOTS.get(0));
    }

    @Test
    void onOneDayTheWayBetweenCounts() {
        Position far = Geodesy.destination(HERE, 90, 60_000);
        Layout one = layout(field(1), List.of(), goWhen(c -> true, ""), 1000);
        // 60 km at 45 km/h and half an hour: 110 min
        assertThat(one.propose(List.of(job("A"), job("B", DAY, far, 14, 16)))
                        .lines()
                        .get(1)
                        .isAsPlanned())
                .isTrue();
        Layout.Proposal late = layout(field(1), List.of(), goWhen(c -> true, ""), 1000)
                .propose(List.of(job("A"), job("B", DAY, far, 13, 16)));
        assertThat(late.in()).isEqualTo(2);
        assertThat(late.lines().stream().map(l -> l.choice().pilot()).distinct())
                .hasSize(2);
        assertThat(late.lines().stream().map(l -> l.choice().build()).distinct())
                .hasSize(2);
    }

    @Test
    void aDayOfWhichTheHoursHaveBegunIsNoMoreToBeTaken() {
        Layout.Judge judge = goWhen(c -> true, "");
        // it begins at nine: at nine sharp the first day is gone, but for a job that is planned on it
        Instant nine = DAY.atTime(9, 0).toInstant(ZoneOffset.UTC);
        Layout.Job later = job("A", DAY.plusDays(1), HERE, 9, 12);
        assertThat(layout(field(1), List.of(), judge, 1000, nine.minusSeconds(1))
                        .propose(List.of(later))
                        .in())
                .isEqualTo(1);
        Layout.Line gone = layout(field(1), List.of(), judge, 1000, nine)
                .propose(List.of(later))
                .lines()
                .get(0);
        assertThat(gone.isIn()).isFalse();
        assertThat(gone.keepsOut()).isEqualTo("these weeks have too few days left for it");
        assertThat(layout(field(1), List.of(), judge, 1000, nine)
                        .propose(List.of(job("A")))
                        .lines()
                        .get(0)
                        .isAsPlanned())
                .isTrue();
    }

    @Test
    void whatIsBookedElsewhereIsNotTaken() {
        Layout.Booking fair = new Layout.Booking(
                "Fair",
                stay(
                        HERE,
                        LocalTime.of(8, 0),
                        LocalTime.of(18, 0),
                        new Layout.Choice(PILOTS.get(0), BUILDS.get(0), DAY)));
        Layout.Line l = layout(field(1), List.of(fair), goWhen(c -> true, ""), 1000)
                .propose(List.of(job("A")))
                .lines()
                .get(0);
        assertThat(l.choice().pilot()).isNotEqualTo(PILOTS.get(0));
        assertThat(l.choice().build()).isEqualTo(BUILDS.get(1));
    }

    @Test
    void theOneThingThatKeepsAJobOutIsSaid() {
        Layout.Field one = new Layout.Field(PILOTS.subList(0, 1), BUILDS.subList(0, 1), List.of(DAY));
        assertThat(out(one, List.of(), goWhen(c -> false, "no certificate"), job("A")))
                .isEqualTo("no certificate");
        assertThat(out(new Layout.Field(PILOTS, BUILDS, List.of()), List.of(), goWhen(c -> true, ""), job("A")))
                .isEqualTo("these weeks have too few days left for it");
        assertThat(out(new Layout.Field(List.of(), BUILDS, List.of(DAY)), List.of(), goWhen(c -> true, ""), job("A")))
                .isEqualTo("nobody may be asked to fly");
        assertThat(out(new Layout.Field(PILOTS, List.of(), List.of(DAY)), List.of(), goWhen(c -> true, ""), job("A")))
                .isEqualTo("no build may be flown");
        assertThat(out(one, List.of(), goWhen(c -> true, ""), job("A"), job("B")))
                .isEqualTo("whoever or whatever could fly it is at “A” in those hours");
        Layout.Booking fair = new Layout.Booking(
                "Fair",
                stay(
                        HERE,
                        LocalTime.of(8, 0),
                        LocalTime.of(18, 0),
                        new Layout.Choice(PILOTS.get(0), BUILDS.get(0), DAY)));
        assertThat(out(one, List.of(fair), goWhen(c -> true, ""), job("A")))
                .isEqualTo("whoever or whatever could fly it is booked for “Fair”");
        // of two things with one pilot and one thing with another, the one that is alone
        Layout.Judge judge = (job, choices) -> choices.stream()
                .map(c -> c.pilot().equals(PILOTS.get(0)) ? open("paper", "recency") : open("recency"))
                .toList();
        assertThat(out(field(1), List.of(), judge, job("A"))).isEqualTo("recency");
    }

    private static String out(Layout.Field f, List<Layout.Booking> bookings, Layout.Judge judge, Layout.Job... jobs) {
        List<Layout.Line> lines =
                layout(f, bookings, judge, 1000).propose(List.of(jobs)).lines();
        Layout.Line last = lines.get(lines.size() - 1);
        assertThat(last.isIn()).isFalse();
        return last.keepsOut();
    }

    @Test
    void whereThereAreTooManyWaysTheRestAreForeseenAndJudgedWhenProposed() {
        // the plan's own pilot lacks a paper, the first build a light, the first day is too windy: each shows by itself
        Layout.Judge judge = opening(Map.of(
                "paper", c -> c.pilot().equals(PILOTS.get(0)),
                "light", c -> c.build().equals(BUILDS.get(0)),
                "wind", c -> c.first().equals(DAY)));
        Layout.Proposal p = layout(field(5), List.of(), judge, 5).propose(List.of(job("A")));
        assertThat(p.lines().get(0).choice())
                .isEqualTo(new Layout.Choice(PILOTS.get(1), BUILDS.get(1), DAY.plusDays(1)));
        // one of each at a time, and the one proposed
        assertThat(p.judged()).isEqualTo(1 + 2 + 1 + 4 + 1);
    }

    @Test
    void whatWasNotJudgedIsNotTakenForBetterThanThePlan() {
        // everything is go with as much left open
        Layout.Judge judge = (job, choices) -> choices.stream()
                .map(c -> new Layout.Judged(new Tally(0, 0, 9, 9, Tally.Go.ON_THE_DAY), List.of()))
                .toList();
        assertThat(layout(field(5), List.of(), judge, 5)
                        .propose(List.of(job("A")))
                        .lines()
                        .get(0)
                        .isAsPlanned())
                .isTrue();
    }

    @Test
    void whatWasForeseenWronglyIsNotProposed() {
        // the second pilot may not fly the second build, which neither shows by itself
        Layout.Judge judge = opening(Map.of(
                "paper", c -> c.pilot().equals(PILOTS.get(0)),
                "light", c -> c.build().equals(BUILDS.get(0)),
                "not trained on it",
                        c -> c.pilot().equals(PILOTS.get(1)) && c.build().equals(BUILDS.get(1))));
        Layout.Line l = layout(field(1), List.of(), judge, 1)
                .propose(List.of(job("A")))
                .lines()
                .get(0);
        assertThat(l.choice()).isEqualTo(new Layout.Choice(PILOTS.get(2), BUILDS.get(1), DAY));
    }

    /**
     * Whatever the rulebook says of each way, what is proposed is go and nobody is in two places; and foreseeing takes no more
     * jobs in than judging all of them does.
     */
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8})
    void nothingProposedIsNotGoOrInTheWay(int seed) {
        Random random = new Random(seed);
        List<Layout.Job> jobs = IntStream.range(0, 3)
                .mapToObj(i -> job("J" + i, DAY.plusDays(random.nextInt(2)), HERE, 8 + random.nextInt(4), 13))
                .toList();
        Map<List<Object>, Boolean> go = new HashMap<>();
        Layout.Judge judge = (job, choices) -> choices.stream()
                .map(c -> go.computeIfAbsent(List.of(job.name(), c), k -> random.nextInt(3) == 0) ? open() : open("no"))
                .toList();
        Layout.Proposal all = layout(field(2), List.of(), judge, 1000).propose(jobs);
        Layout.Proposal few = layout(field(2), List.of(), judge, 0).propose(jobs);
        for (Layout.Proposal p : List.of(all, few)) {
            List<Layout.Line> in = p.lines().stream().filter(Layout.Line::isIn).toList();
            assertThat(in).allMatch(l -> go.get(List.of(l.job().name(), l.choice())));
            for (Layout.Line a : in) {
                assertThat(in.stream()
                                .filter(b -> !b.equals(a))
                                .filter(b -> a.job()
                                        .stay()
                                        .apply(a.choice())
                                        .isInTheWayOf(b.job().stay().apply(b.choice()), House.USUAL.way())))
                        .isEmpty();
            }
            assertThat(p.lines().stream().filter(l -> !l.isIn()))
                    .allMatch(l -> !l.keepsOut().isEmpty());
        }
        assertThat(few.in()).isLessThanOrEqualTo(all.in());
        assertThat(all.lines().stream().map(Layout.Line::job).filter(Objects::nonNull))
                .containsExactlyElementsOf(jobs);
    }

    @Test
    void aJobBeginsWhereItsDaysHaveRoom() {
        assertThat(Layout.days(DAY, DAY.plusDays(3), 2)).containsExactly(DAY, DAY.plusDays(1), DAY.plusDays(2));
        assertThat(Layout.days(DAY, DAY, 1)).containsExactly(DAY);
        assertThat(Layout.days(DAY, DAY, 2)).isEmpty();
    }
}
