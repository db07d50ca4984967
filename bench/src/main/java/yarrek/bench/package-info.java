/** Measurements: reading and judging of long logs, and the load times of pages. Not part of the default build. */
package yarrek.bench;
