/** Reads what judging needs, for one plan or flight or for thousands in the same number of statements; the judging is core's. */
package yarrek.app.judging;
