/**
 * Logs as delimited text: what the file looks like, a reading plan that says which column means what in which unit, a
 * suggestion for it, and the reader that follows it.
 */
package yarrek.formats.csv;
