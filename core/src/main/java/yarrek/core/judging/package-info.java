/**
 * From what is on file to facts: of a plan, and of a flight that was flown. Values in, facts and an assessment out; no clock,
 * no database, no interface.
 */
package yarrek.core.judging;
