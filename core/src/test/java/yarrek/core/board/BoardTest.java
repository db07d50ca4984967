package yarrek.core.board;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import yarrek.core.time.TimeWindow;

class BoardTest {
    private static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    private static final LocalDate MON = LocalDate.of(2026, 11, 30);
    private static final UUID HANNE = UUID.randomUUID();
    private static final UUID TOMAS = UUID.randomUUID();
    private static final UUID BRACKEN = UUID.randomUUID();
    private static final UUID BOG = UUID.randomUUID();
    private static final List<Board.Row> ROWS = List.of(
            new Board.Row(HANNE, Board.Kind.CREW, "Hanne"),
            new Board.Row(TOMAS, Board.Kind.CREW, "Tomas"),
            new Board.Row(BRACKEN, Board.Kind.AIRCRAFT, "Bracken"),
            new Board.Row(BOG, Board.Kind.SITE, "Bog"));

    private static TimeWindow hours(int day, int from, int to) {
        LocalDate d = MON.plusDays(day);
        return new TimeWindow(
                d.atTime(LocalTime.of(from, 0)).atZone(ZONE).toInstant(),
                d.atTime(LocalTime.of(to, 0)).atZone(ZONE).toInstant());
    }

    private static Board.Job job(String name, List<UUID> who, TimeWindow... windows) {
        Map<UUID, List<TimeWindow>> uses = new HashMap<>();
        who.forEach(w -> uses.put(w, Arrays.asList(windows)));
        return new Board.Job(UUID.randomUUID(), name, "full", "go", true, uses);
    }

    private static Board board(Board.Job... jobs) {
        return Board.of(MON, MON.plusDays(13), ZONE, ROWS, List.of(jobs), List.of());
    }

    private static Board.Strand of(Board b, UUID id) {
        return b.strands().stream()
                .filter(s -> s.row().id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void withoutAJobEverybodyIsIdle() {
        Board b = board();
        assertThat(b.strands())
                .hasSize(4)
                .allMatch(s -> s.idle() == 14 && s.stitches().isEmpty());
        assertThat(b.threads()).isEmpty();
    }

    @Test
    void daysOnEndAreOneStitchAndADayBetweenMakesTwo() {
        Board b = board(job("grid", List.of(HANNE, BRACKEN), hours(1, 10, 12), hours(2, 10, 12), hours(5, 10, 12)));
        assertThat(of(b, HANNE).stitches())
                .extracting(Board.Stitch::first)
                .containsExactly(MON.plusDays(1), MON.plusDays(5));
        assertThat(of(b, HANNE).stitches().get(0).last()).isEqualTo(MON.plusDays(2));
        assertThat(of(b, HANNE).idle()).isEqualTo(11);
        Board.JobThread t = b.threads().get(0);
        assertThat(t.topRow()).isZero();
        assertThat(t.lastRow()).isEqualTo(2);
        assertThat(t.last()).isEqualTo(MON.plusDays(5));
    }

    @Test
    void twoJobsInTheSameHoursClashOnceAndAtAPlaceNot() {
        Board b = board(
                job("one", List.of(HANNE, BOG), hours(1, 10, 12), hours(2, 10, 12)),
                job("two", List.of(HANNE, BOG), hours(1, 11, 13), hours(2, 11, 13)));
        assertThat(of(b, HANNE).clashes()).singleElement().satisfies(c -> {
            assertThat(c.day()).isEqualTo(MON.plusDays(1));
            assertThat(c.one().name()).isEqualTo("one");
        });
        assertThat(of(b, BOG).clashes()).isEmpty();
        assertThat(b.clashes()).isEqualTo(1);
    }

    @Test
    void oneAfterTheOtherOnOneDayIsNoClash() {
        Board b = board(job("one", List.of(HANNE), hours(1, 10, 12)), job("two", List.of(HANNE), hours(1, 12, 13)));
        assertThat(b.clashes()).isZero();
        assertThat(of(b, HANNE).idle()).isEqualTo(13);
    }

    @Test
    void onlyWhatLiesOnTheBoardIsOnIt() {
        Board b = board(
                job("before", List.of(HANNE), hours(-1, 10, 12)),
                job("after", List.of(HANNE), hours(14, 10, 12)),
                job("across", List.of(TOMAS), hours(13, 10, 12), hours(14, 10, 12)));
        assertThat(b.jobs()).extracting(Board.Job::name).containsExactly("across");
        assertThat(of(b, TOMAS).stitches())
                .singleElement()
                .satisfies(s -> assertThat(s.last()).isEqualTo(MON.plusDays(13)));
    }

    /** A clash is where asking each pair of hours finds one. */
    @Test
    void clashesAreThoseOfEveryPairAsked() {
        Random random = new Random(13);
        for (int n = 0; n < 200; n++) {
            List<Board.Job> jobs = new ArrayList<>();
            for (int i = 0; i < random.nextInt(6); i++) {
                int from = 8 + random.nextInt(8);
                jobs.add(job("job " + i, List.of(HANNE), hours(random.nextInt(4), from, from + 1 + random.nextInt(4))));
            }
            Set<Set<UUID>> expected = new HashSet<>();
            for (Board.Job a : jobs) {
                for (Board.Job b : jobs) {
                    TimeWindow x = a.uses().get(HANNE).get(0);
                    TimeWindow y = b.uses().get(HANNE).get(0);
                    if (!a.id().equals(b.id())
                            && x.start().isBefore(y.end())
                            && y.start().isBefore(x.end())) {
                        expected.add(Set.of(a.id(), b.id()));
                    }
                }
            }
            Set<Set<UUID>> found = new HashSet<>();
            of(board(jobs.toArray(Board.Job[]::new)), HANNE)
                    .clashes()
                    .forEach(c -> found.add(Set.of(c.one().id(), c.other().id())));
            assertThat(found).isEqualTo(expected);
        }
    }

    @Test
    void whoIsAwayIsNotIdleAndOnlyTheDaysOfTheBoardAreDrawn() {
        Board b = Board.of(
                MON,
                MON.plusDays(13),
                ZONE,
                ROWS,
                List.of(job("one", List.of(HANNE), hours(1, 10, 12))),
                List.of(
                        new Board.Away(HANNE, MON.minusDays(3), MON.plusDays(1), "Hanne is away"),
                        new Board.Away(BRACKEN, MON.plusDays(13), MON.plusDays(20), "Bracken is in upkeep"),
                        new Board.Away(TOMAS, MON.plusDays(14), MON.plusDays(20), "Tomas is away")));
        assertThat(of(b, HANNE).away()).containsExactly(new Board.Away(HANNE, MON, MON.plusDays(1), "Hanne is away"));
        assertThat(of(b, HANNE).idle()).isEqualTo(12);
        assertThat(of(b, BRACKEN).away()).extracting(Board.Away::last).containsExactly(MON.plusDays(13));
        assertThat(of(b, BRACKEN).idle()).isEqualTo(13);
        assertThat(of(b, TOMAS).away()).isEmpty();
    }

    @Test
    void moreJobsThanAnybodyCouldMakeOutAreDrawnTogether() {
        Board.Job[] many = new Board.Job[Board.Strand.MOST_STITCHES + 1];
        Arrays.setAll(
                many,
                i -> i == 5
                        ? new Board.Job(
                                UUID.randomUUID(),
                                "stopped",
                                "notch",
                                "no-go",
                                false,
                                Map.of(HANNE, List.of(hours(0, 8, 9))))
                        : job("job " + i, List.of(HANNE), hours(i % 2 == 0 ? 0 : 1 + i % 3 % 2, 10, 12)));
        Board.Strand crowded = of(board(many), HANNE);
        assertThat(crowded.isCrowded()).isTrue();
        assertThat(crowded.crowds())
                .containsExactly(new Board.Crowd(MON, MON.plusDays(2), Board.Strand.MOST_STITCHES + 1, 1));
        Board.Strand few = of(
                board(
                        job("one", List.of(HANNE), hours(0, 10, 12)),
                        job("two", List.of(HANNE), hours(1, 10, 12)),
                        job("three", List.of(HANNE), hours(3, 10, 12))),
                HANNE);
        assertThat(few.isCrowded()).isFalse();
        assertThat(few.crowds())
                .containsExactly(
                        new Board.Crowd(MON, MON.plusDays(1), 2, 0),
                        new Board.Crowd(MON.plusDays(3), MON.plusDays(3), 1, 0));
    }
}
