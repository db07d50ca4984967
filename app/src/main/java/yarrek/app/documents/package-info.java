/** What is shown and printed: papers over time, labels, documents for an official, the binder of a job. */
package yarrek.app.documents;
