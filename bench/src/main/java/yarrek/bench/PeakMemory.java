package yarrek.bench;

import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import yarrek.formats.gpx.GpxReader;

/** Peak heap while one 2-hour log at 10 Hz goes from bytes to judged and packed, in a fresh machine. Argument: csv or gpx. */
public final class PeakMemory {
    private PeakMemory() {}

    public static void main(String[] args) throws Exception {
        boolean csv = args[0].equals("csv");
        byte[] content = csv ? MadeLogs.csv(LogBenchmark.TWO_HOURS_S, 10) : MadeLogs.gpx(LogBenchmark.TWO_HOURS_S, 10);
        LogBenchmark bench = new LogBenchmark();
        System.gc();
        ManagementFactory.getMemoryPoolMXBeans().forEach(MemoryPoolMXBean::resetPeakUsage);
        long before = System.nanoTime();
        bench.whole(csv ? LogBenchmark.read(content) : GpxReader.read(content));
        long millis = (System.nanoTime() - before) / 1_000_000;
        long peak = ManagementFactory.getMemoryPoolMXBeans().stream()
                .filter(p -> p.getType() == MemoryType.HEAP)
                .mapToLong(p -> p.getPeakUsage().getUsed())
                .sum();
        System.out.println(args[0] + ": file " + content.length / 1_000_000 + " MB, cold run " + millis
                + " ms, peak heap " + peak / 1_000_000 + " MB");
    }
}
