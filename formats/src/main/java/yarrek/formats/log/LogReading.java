package yarrek.formats.log;

import java.util.List;
import yarrek.core.trace.Trace;

/**
 * What came out of a log.
 *
 * @param problems the first of them; {@code problemCount} says how many there were
 * @param notes what was assumed or mended, in sentences
 * @param truncated the file ends in the middle; the trace holds what came before
 */
public record LogReading(Trace trace, List<Problem> problems, int problemCount, List<String> notes, boolean truncated) {
    public LogReading {
        problems = List.copyOf(problems);
        notes = List.copyOf(notes);
    }
}
