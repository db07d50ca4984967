package yarrek.bench;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.Remedies;
import yarrek.core.rulebook.RulePack;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.Validity;
import yarrek.formats.rules.RulePackReader;

/** One assessment of a planned job by a law and the house rules, and the search for what would make it clean. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class AssessmentBenchmark {
    @Param({"EU", "CA"})
    String law;

    private List<RulePack> packs;
    private Facts facts;

    @Setup
    public void make() {
        packs = List.of(
                RulePackReader.shipped(law.toLowerCase(java.util.Locale.ROOT) + ".yaml"),
                RulePackReader.shipped("house.yaml"));
        ZoneId zone = ZoneId.of("Atlantic/Azores");
        Facts.Builder b = Facts.builder(zone)
                .word("jurisdiction", law, "bench")
                .word("category", "open", "bench")
                .word("subcategory", "A3", "bench")
                .quantity("classMassG", 890, 1, "bench")
                .quantity("heightAboveSurfaceM", 125, 2, "bench")
                .quantity("heightAboveGroundM", 125, 2, "bench")
                .quantity("pilotDistanceM", 350, 0, "bench")
                .quantity("peopleDistanceM", 40, 0, "bench")
                .quantity("weather.windMps", 8, 1, "bench")
                .quantity("weather.temperatureC", 12, 1, "bench")
                .yesNo("remoteIdActive", true, "bench")
                .window(new TimeWindow(Instant.parse("2027-03-14T11:00:00Z"), Instant.parse("2027-03-14T13:00:00Z")))
                .zones(List.of());
        b.papers(List.of(new PaperHeld(
                "pilotCertificate",
                Optional.of("A1/A3"),
                "pilot",
                "B-1",
                law,
                new Validity(Optional.of(LocalDate.of(2024, 1, 1)), Optional.of(LocalDate.of(2029, 1, 1)), zone),
                true)));
        facts = b.build();
    }

    @Benchmark
    public Assessment assess() {
        return Assessment.of(facts, packs);
    }

    @Benchmark
    public Map<Finding, List<Remedies.Change>> remedies() {
        return Remedies.of(facts, packs, Assessment.of(facts, packs));
    }
}
