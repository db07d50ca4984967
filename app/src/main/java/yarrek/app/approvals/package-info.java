/** Approvals of jobs: their kinds, each request with its state, letters and terms, and the unlocks on the aircraft. */
package yarrek.app.approvals;
