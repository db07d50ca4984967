/**
 * The rulebook: facts, rules as data, verdicts and assessments. One vocabulary of facts serves planned jobs and flown
 * flights; a fact that is absent is not known, and what is not known is never met.
 */
package yarrek.core.rulebook;
