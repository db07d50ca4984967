package yarrek.core.judging;

import java.time.LocalDate;
import yarrek.core.rulebook.FactValue;

/**
 * What somebody said in answer to a question.
 *
 * @param ofJob said of the job itself, and so before what its plan takes for granted
 */
public record Said(boolean ofJob, String fact, FactValue value, String source) {
    /** That the own rules of a state were read. */
    public record RulesRead(LocalDate on, String source) {}
}
