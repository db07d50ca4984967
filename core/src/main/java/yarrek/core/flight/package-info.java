/**
 * Flights found in a trace, their summaries, and the facts by which the rulebook judges them. Heights are above the
 * take-off point unless named otherwise.
 */
package yarrek.core.flight;
