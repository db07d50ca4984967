/** Flights: bringing logs in, matching columns, summaries, judging over time, counting. */
package yarrek.app.flights;
