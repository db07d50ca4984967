package yarrek.bench;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import yarrek.core.approval.ChainPlan;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Holidays;
import yarrek.core.approval.Lead;
import yarrek.core.approval.Step;
import yarrek.core.approval.WorkDays;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;

/** A chain of 200 steps planned, and the cover check of a job of 30 days with 40 papers and 20 aircraft. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class ApprovalBenchmark {
    private static final LocalDate JOB = LocalDate.of(2027, 6, 14);
    private static final Position MIDDLE = new Position(46.6, -17.9);

    private List<Step> steps;
    private ChainPlan.Settings settings;
    private List<Cover.Need> needs;
    private List<Cover.Granted> papers;

    @Setup
    public void make() {
        Random random = new Random(5);
        steps = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            Set<String> waits = i == 0 ? Set.of() : Set.copyOf(List.of("s" + random.nextInt(i), "s" + (i - 1)));
            steps.add(Step.open(
                    "s" + i,
                    "step " + i,
                    waits,
                    random.nextInt(20),
                    random.nextBoolean() ? Lead.ofWorkDays(random.nextInt(20)) : Lead.ofDays(random.nextInt(20)),
                    JOB.plusDays(random.nextInt(10))));
        }
        settings = new ChainPlan.Settings(
                LocalDate.of(2026, 11, 25),
                new WorkDays(Holidays.of("01-01\neaster+1\n12-25\n12-26", 2026, 2040)),
                6,
                3);
        needs = new ArrayList<>();
        Area site = Area.circle(MIDDLE, 300);
        Instant start = Instant.parse("2027-06-14T08:00:00Z");
        for (int day = 0; day < 30; day++) {
            for (int craft = 0; craft < 20; craft++) {
                Instant from = start.plus(Duration.ofDays(day));
                needs.add(new Cover.Need(
                        new TimeWindow(from, from.plusSeconds(6 * 3600)),
                        site,
                        OptionalDouble.of(90),
                        "S-" + craft,
                        Set.of("Ailsa"),
                        Optional.of("work"),
                        Set.of("SP-12")));
            }
        }
        papers = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            papers.add(new Cover.Granted(
                    "P-" + i,
                    Optional.of(new TimeWindow(start, start.plus(Duration.ofDays(30)))),
                    Optional.of(Area.circle(MIDDLE, 280 + random.nextInt(60))),
                    OptionalDouble.of(60 + random.nextInt(60)),
                    Set.of("S-1", "S-2", "S-3"),
                    Set.of("Ailsa", "Hanne"),
                    Optional.of("work"),
                    Set.of("SP-12")));
        }
    }

    @Benchmark
    public ChainPlan twoHundredSteps() {
        return ChainPlan.of(steps, settings);
    }

    @Benchmark
    public int thirtyDaysFortyPapersTwentyAircraft() {
        int covered = 0;
        Cover.Overhangs overhangs = new Cover.Overhangs();
        for (Cover.Need n : needs) {
            for (Cover.Granted p : papers) {
                covered += (int) Cover.of(n, p, overhangs).stream()
                        .filter(f -> f.state() == Cover.State.COVERED)
                        .count();
            }
        }
        return covered;
    }
}
