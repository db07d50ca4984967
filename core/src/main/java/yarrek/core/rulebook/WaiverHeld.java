package yarrek.core.rulebook;

import java.time.LocalDate;

/**
 * The manager's decision to depart from a rule that is not law.
 *
 * @param until last day it holds, included
 */
public record WaiverHeld(String ruleId, String reason, String by, LocalDate until) {}
