package yarrek.core.judging;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import yarrek.core.rulebook.FactValue;
import yarrek.core.time.TimeWindow;

/**
 * What somebody said in answer to a question.
 *
 * @param ofJob said of the job itself, and so before what its plan takes for granted
 * @param holdsTo for flying that begins until then; empty: until it is taken back
 */
public record Said(boolean ofJob, String fact, FactValue value, String source, Optional<Instant> holdsTo) {
    public Said(boolean ofJob, String fact, FactValue value, String source) {
        this(ofJob, fact, value, source, Optional.empty());
    }

    /** Whether it holds for all of the flying: what is said of a day says nothing of the next. */
    boolean holdsFor(List<TimeWindow> windows) {
        return holdsTo.isEmpty() || windows.stream().noneMatch(w -> w.start().isAfter(holdsTo.get()));
    }

    /** That the own rules of a state were read. */
    public record RulesRead(LocalDate on, String source) {}
}
