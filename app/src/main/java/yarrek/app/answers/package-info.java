/** Answers to questions that rules ask and no register holds: said once of a job, a site, an aircraft, a pilot or the operator. */
package yarrek.app.answers;
