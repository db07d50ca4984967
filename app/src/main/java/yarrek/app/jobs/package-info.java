/** Jobs: planned operations, their facts, and their assessment by the rulebook. */
package yarrek.app.jobs;
