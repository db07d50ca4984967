/** Approvals of a job: what must be asked of whom, in which order, and until when. Dates are local to the job's place. */
package yarrek.core.approval;
