package yarrek.bench;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
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
import yarrek.core.airspace.Ground;
import yarrek.core.airspace.SiteLook;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneIndex;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.zones.ZoneFiles;

/** A site against 50,000 zones, what is in sight of the map, and reading a zone file. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class AirspaceBenchmark {
    private static final int ZONES = 50_000;
    private static final int IN_FILE = 5_000;

    private ZoneIndex index;
    private List<Zone> zones;
    private byte[] file;
    private SiteLook.Plan plan;

    @Setup
    public void make() {
        zones = MadeZones.zones(ZONES);
        index = new ZoneIndex(zones);
        file = MadeZones.geoJson(zones.subList(0, IN_FILE));
        plan = new SiteLook.Plan(
                Area.circle(new Position(46.6, -17.9), 400),
                new Position(46.6, -17.9),
                50,
                OptionalDouble.of(100),
                List.of(new TimeWindow(Instant.parse("2027-06-12T09:00:00Z"), Instant.parse("2027-06-12T15:00:00Z"))),
                ZoneOffset.UTC,
                Ground.of(40.0, 10.0));
    }

    /** Overlaps, heights, hours, the nearest of each kind, aerodromes around. */
    @Benchmark
    public SiteLook assessSite() {
        return SiteLook.of(plan, index);
    }

    /** What a map of about 60 by 40 km shows. */
    @Benchmark
    public int inSight() {
        return index.inBox(46.4, -18.3, 46.8, -17.5).size();
    }

    @Benchmark
    public ZoneIndex buildIndex() {
        return new ZoneIndex(zones);
    }

    /** A file of 5,000 zones. */
    @Benchmark
    public ZoneFiles.Reading readFile() throws BrokenFileException {
        return ZoneFiles.read(file, new ZoneFiles.Settings(ZoneKind.OTHER, Optional.empty(), false));
    }
}
