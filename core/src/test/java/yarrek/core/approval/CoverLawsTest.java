package yarrek.core.approval;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;

/** What holds of cover whatever the job and the paper; drawn at random, the same each time. */
class CoverLawsTest {
    private static final Instant NOON = Instant.parse("2027-06-12T12:00:00Z");

    private Random random;

    private Area circle(double least, double most) {
        return Area.circle(
                new Position(46.6 + random.nextInt(20) * 1e-4, -17.9 + random.nextInt(20) * 1e-4),
                least + random.nextDouble() * (most - least));
    }

    private TimeWindow window() {
        Instant from = NOON.plus(Duration.ofMinutes(random.nextInt(600) - 300));
        return new TimeWindow(from, from.plus(Duration.ofMinutes(30 + random.nextInt(600))));
    }

    private Cover.Need need() {
        return new Cover.Need(
                window(),
                circle(50, 300),
                OptionalDouble.of(random.nextInt(120)),
                "S-" + random.nextInt(3),
                Set.of("p" + random.nextInt(3)),
                Optional.of("work"),
                random.nextBoolean() ? Set.of() : Set.of("N-1"));
    }

    private Cover.Granted paper() {
        return new Cover.Granted(
                "A",
                random.nextInt(6) == 0 ? Optional.empty() : Optional.of(window()),
                random.nextInt(6) == 0 ? Optional.empty() : Optional.of(circle(50, 500)),
                random.nextInt(6) == 0 ? OptionalDouble.empty() : OptionalDouble.of(random.nextInt(120)),
                random.nextInt(6) == 0 ? Set.of() : Set.of("S-0", "S-" + (1 + random.nextInt(2))),
                random.nextInt(6) == 0 ? Set.of() : Set.of("p0", "p" + (1 + random.nextInt(2))),
                random.nextInt(6) == 0 ? Optional.empty() : Optional.of("work"),
                random.nextBoolean() ? Set.of() : Set.of("N-1"));
    }

    private static long covered(Cover.Need n, Cover.Granted p) {
        return Cover.of(n, p).stream()
                .filter(f -> f.state() == Cover.State.COVERED)
                .count();
    }

    @RepeatedTest(60)
    void askingForLessNeverLosesCover(RepetitionInfo at) {
        random = new Random(at.getCurrentRepetition());
        Cover.Need n = need();
        Cover.Granted p = paper();
        long before = covered(n, p);
        Instant middle = n.window()
                .start()
                .plus(Duration.between(n.window().start(), n.window().end()).dividedBy(2));
        Cover.Need less = new Cover.Need(
                new TimeWindow(middle, middle.plusSeconds(1)),
                Area.circle(n.area().middle(), 10),
                OptionalDouble.of(n.heightM().getAsDouble() / 2),
                n.aircraft(),
                n.pilots(),
                n.purpose(),
                Set.of());
        assertThat(covered(less, p)).isGreaterThanOrEqualTo(before);
    }

    @RepeatedTest(60)
    void grantingMoreNeverLosesCover(RepetitionInfo at) {
        random = new Random(100 + at.getCurrentRepetition());
        Cover.Need n = need();
        Cover.Granted p = paper();
        Cover.Granted more = new Cover.Granted(
                "A",
                p.window()
                        .map(w -> new TimeWindow(
                                w.start().minusSeconds(3600), w.end().plusSeconds(3600))),
                p.area().map(a -> a.widened(50)),
                p.ceilingM().isEmpty()
                        ? p.ceilingM()
                        : OptionalDouble.of(p.ceilingM().getAsDouble() + 10),
                p.aircraft(),
                p.pilots(),
                p.purpose(),
                Set.of("N-1"));
        assertThat(covered(n, more)).isGreaterThanOrEqualTo(covered(n, p));
    }

    /** What a paper does not say is never covered, whatever is flown. */
    @RepeatedTest(20)
    void whatIsNotSaidIsNeverCovered(RepetitionInfo at) {
        random = new Random(200 + at.getCurrentRepetition());
        Cover.Granted silent = new Cover.Granted(
                "A",
                Optional.empty(),
                Optional.empty(),
                OptionalDouble.empty(),
                Set.of(),
                Set.of(),
                Optional.empty(),
                Set.of());
        assertThat(Cover.of(need(), silent))
                .filteredOn(f -> f.dimension() != Cover.Dimension.QUOTED)
                .allMatch(f -> f.state() == Cover.State.NOT_KNOWN);
    }

    @RepeatedTest(40)
    void equalIsTheSameFromEitherSide(RepetitionInfo at) {
        random = new Random(300 + at.getCurrentRepetition());
        Cover.Granted a = paper();
        Cover.Granted b = paper();
        assertThat(states(Cover.equal(a, b, 0, 60))).isEqualTo(states(Cover.equal(b, a, 0, 60)));
        boolean whole = a.window().isPresent() && a.area().isPresent();
        assertThat(states(Cover.equal(a, a, 0, 0)))
                .as("a paper equals itself where it says something")
                .isEqualTo(
                        whole
                                ? List.of(Cover.State.COVERED, Cover.State.COVERED)
                                : List.of(
                                        a.window().isPresent() ? Cover.State.COVERED : Cover.State.NOT_KNOWN,
                                        a.area().isPresent() ? Cover.State.COVERED : Cover.State.NOT_KNOWN));
    }

    private static List<Cover.State> states(List<Cover.Finding> f) {
        return f.stream().map(Cover.Finding::state).toList();
    }

    @RepeatedTest(40)
    void anOverhangIsAPartOfTheAreaAndNoneIsLeftWithinThePaper(RepetitionInfo at) {
        random = new Random(400 + at.getCurrentRepetition());
        Area area = circle(50, 300);
        Area paper = circle(50, 500);
        Cover.overhang(area, paper).ifPresent(o -> {
            assertThat(o.share()).isGreaterThan(0).isLessThanOrEqualTo(1.000001);
            assertThat(o.metres()).isPositive();
            assertThat(o.outside().areaM2()).isLessThanOrEqualTo(area.areaM2() * 1.000001);
        });
        assertThat(Cover.overhang(area, area.widened(1))).isEmpty();
        assertThat(Cover.overhang(area, area)).isEmpty();
    }

    @RepeatedTest(20)
    void overhangsWorkedOutOnceSayTheSame(RepetitionInfo at) {
        random = new Random(500 + at.getCurrentRepetition());
        Cover.Overhangs once = new Cover.Overhangs();
        Cover.Need n = need();
        Cover.Granted p = paper();
        for (int i = 0; i < 3; i++) {
            assertThat(Cover.of(n, p, once)).isEqualTo(Cover.of(n, p));
        }
        assertThat(Cover.of(n.in(window()).with("S-9"), p, once)).isNotEmpty();
    }
}
