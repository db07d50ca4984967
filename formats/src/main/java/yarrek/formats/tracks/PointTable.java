package yarrek.formats.tracks;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import yarrek.formats.csv.ColumnRole;
import yarrek.formats.csv.CsvLogReader;
import yarrek.formats.csv.CsvSheet;
import yarrek.formats.csv.PlanSuggester;
import yarrek.formats.csv.ReadingPlan;
import yarrek.formats.csv.Unit;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;

/** Points of a track with what stands beside each, read as the table that they are. */
final class PointTable {
    static final String TIME = "time";
    static final String LATITUDE = "latitude";
    static final String LONGITUDE = "longitude";
    static final String ALTITUDE = "altitude msl m";
    static final String HEIGHT = "height above take-off m";
    static final String LEVEL = "message level";
    static final String MESSAGE = "message";

    private static final Set<String> OWN = Set.of(TIME, LATITUDE, LONGITUDE, ALTITUDE, HEIGHT, LEVEL, MESSAGE);
    private static final int MOST_NAMES = 150;

    private final List<List<Map<String, String>>> tracks = new ArrayList<>();
    private final Set<String> names = new LinkedHashSet<>(List.of(TIME, LATITUDE, LONGITUDE));

    /** Begins a track: tracks come one after the other. */
    void track() {
        tracks.add(new ArrayList<>());
    }

    /** @param cells by name; those without one are empty */
    void point(Map<String, String> cells) {
        if (tracks.isEmpty()) {
            track();
        }
        cells.keySet().stream().filter(n -> names.size() < MOST_NAMES).forEach(names::add);
        tracks.get(tracks.size() - 1).add(cells);
    }

    int points() {
        return tracks.stream().mapToInt(List::size).sum();
    }

    /**
     * @param format for the messages
     * @param truncated the file breaks off after the last point
     * @param notes to be told besides
     */
    LogReading read(String format, boolean truncated, List<String> notes) throws BrokenFileException {
        tracks.removeIf(List::isEmpty);
        if (tracks.isEmpty()) {
            throw new BrokenFileException(
                    format + ".empty", "no point with a time was found; a track needs the time of each of its points");
        }
        tracks.sort(Comparator.comparing(t -> t.get(0).getOrDefault(TIME, "")));
        StringWriter text = new StringWriter();
        try (CsvWriter out = CsvWriter.builder().build(text)) {
            out.writeRecord(names);
            for (List<Map<String, String>> track : tracks) {
                for (Map<String, String> p : track) {
                    out.writeRecord(
                            names.stream().map(n -> p.getOrDefault(n, "")).toList());
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        CsvSheet sheet = CsvSheet.look(text.toString().getBytes(StandardCharsets.UTF_8));
        ReadingPlan plan = PlanSuggester.suggest(sheet);
        LogReading r = CsvLogReader.read(sheet, plan);
        List<String> all = new ArrayList<>(notes);
        told(plan).ifPresent(all::add);
        all.addAll(r.notes());
        return new LogReading(r.trace(), r.problems(), r.problemCount(), all, truncated || r.truncated());
    }

    /** What the names beside the points were taken for: nobody is asked, so it is told. */
    private static Optional<String> told(ReadingPlan plan) {
        List<String> taken = plan.columns().stream()
                .filter(c -> !OWN.contains(c.header()))
                .map(c -> "“" + c.header() + "” "
                        + (c.role() == ColumnRole.IGNORE
                                ? "is not read"
                                : "as " + c.role().label()
                                        + (c.unit() == Unit.TEXT
                                                ? ""
                                                : " in " + c.unit().label())))
                .toList();
        return taken.isEmpty() ? Optional.empty() : Optional.of("beside the places stood " + String.join(", ", taken));
    }

    /** Cells of a point. */
    static Map<String, String> cells(String time, String latitude, String longitude) {
        Map<String, String> cells = new LinkedHashMap<>();
        cells.put(TIME, time);
        cells.put(LATITUDE, latitude);
        cells.put(LONGITUDE, longitude);
        return cells;
    }
}
