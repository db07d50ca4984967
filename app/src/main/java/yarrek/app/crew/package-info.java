/** The crew: pilots and observers. */
package yarrek.app.crew;
