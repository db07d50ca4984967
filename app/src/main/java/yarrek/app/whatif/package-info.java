/** What a change would do before it is made: of one fact of a job, of a rule of the house, of a version of the law. */
package yarrek.app.whatif;
