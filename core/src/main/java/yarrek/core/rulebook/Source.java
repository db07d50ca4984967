package yarrek.core.rulebook;

import java.time.LocalDate;

/**
 * Where a rule comes from.
 *
 * @param readOn day on which the rule was last compared with its source
 * @param confidence high, medium or low
 * @param ask what to ask before relying on it; empty when it is settled. A rule that asks is never met, only not known
 */
public record Source(String citation, LocalDate readOn, String confidence, String ask, String notes) {}
