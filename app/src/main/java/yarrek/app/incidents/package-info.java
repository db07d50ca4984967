/** Incidents: something went wrong, with what is known of it and the evidence it was opened from. */
package yarrek.app.incidents;
