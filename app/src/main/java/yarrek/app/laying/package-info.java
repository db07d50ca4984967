/** Laying out the weeks: a search proposes who flies which job with what and when; the rulebook judges every line of it. */
package yarrek.app.laying;
