/** Validity of papers, hours of a job, and the light at a place. No clock of its own: "now" is an argument. */
package yarrek.core.time;
