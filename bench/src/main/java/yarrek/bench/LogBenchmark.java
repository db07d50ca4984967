package yarrek.bench;

import java.security.MessageDigest;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
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
import yarrek.core.flight.FlightFinder;
import yarrek.core.flight.FlightJudge;
import yarrek.core.flight.FlightSummary;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.RulePack;
import yarrek.core.time.TimeWindow;
import yarrek.core.trace.Trace;
import yarrek.core.trace.TraceCodec;
import yarrek.formats.csv.CsvLogReader;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.gpx.GpxReader;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.rules.RulePackReader;

/** A 2-hour log at 10 Hz from bytes to judged and packed, against hashing the same bytes; judging of 20-minute flights. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 3)
@Measurement(iterations = 5, time = 3)
public class LogBenchmark {
    static final int TWO_HOURS_S = 7200;
    private static final int TWENTY_MINUTES_S = 1200;
    private static final int HZ = 10;

    private final List<RulePack> packs =
            List.of(RulePackReader.shipped("eu.yaml"), RulePackReader.shipped("house.yaml"));
    private byte[] csv;
    private byte[] gpx;
    private Trace twentyMinutes;
    private FlightFinder.Span span;

    @Setup
    public void make() throws BrokenFileException {
        csv = MadeLogs.csv(TWO_HOURS_S, HZ);
        gpx = MadeLogs.gpx(TWO_HOURS_S, HZ);
        twentyMinutes = read(MadeLogs.csv(TWENTY_MINUTES_S, HZ)).trace();
        span = FlightFinder.find(twentyMinutes).get(0);
    }

    static LogReading read(byte[] csv) throws BrokenFileException {
        CsvSheet sheet = CsvSheet.look(csv);
        return CsvLogReader.read(sheet, PlanSuggester.suggest(sheet));
    }

    @Benchmark
    public byte[] hashCsv() throws Exception {
        return MessageDigest.getInstance("SHA-256").digest(csv);
    }

    @Benchmark
    public byte[] hashGpx() throws Exception {
        return MessageDigest.getInstance("SHA-256").digest(gpx);
    }

    @Benchmark
    public Object csvFromBytesToJudged() throws Exception {
        return whole(read(csv));
    }

    @Benchmark
    public Object gpxFromBytesToJudged() throws Exception {
        return whole(GpxReader.read(gpx));
    }

    @Benchmark
    public Assessment judgeTwentyMinutes() {
        return judge(twentyMinutes, span);
    }

    Object whole(LogReading reading) throws Exception {
        Trace trace = reading.trace();
        byte[] stored = null;
        for (FlightFinder.Span s : FlightFinder.find(trace)) {
            FlightSummary.of(trace, s);
            judge(trace, s);
            stored = TraceCodec.encode(trace.slice(s.shareFrom(), s.shareTo()));
            MessageDigest.getInstance("SHA-256").digest(stored);
        }
        return stored;
    }

    private Assessment judge(Trace trace, FlightFinder.Span s) {
        Instant from = trace.instant(trace.seconds()[s.takeoff()]);
        Instant to = trace.instant(trace.seconds()[s.landing()]);
        Facts constant = Facts.builder(ZoneId.of("Atlantic/Azores"))
                .window(new TimeWindow(from, to))
                .word("jurisdiction", "EU", "bench")
                .word("category", "open", "bench")
                .word("subcategory", "A3", "bench")
                .build();
        FlightJudge.Context context = new FlightJudge.Context(
                constant, OptionalDouble.of(5), OptionalDouble.empty(), Optional.empty(), Optional.of(List.of()), Map.of(), Optional.empty(), List.of());
        return Assessment.of(FlightJudge.facts(trace, s, context), packs);
    }
}
