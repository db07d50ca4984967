/** The rulebook in the application: the packs in use, assessments as they are stored and shown, the ladder. */
package yarrek.app.rulebook;
