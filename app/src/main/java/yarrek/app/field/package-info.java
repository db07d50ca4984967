/** A job at its place: what it meets, the light and weather of its day, the site survey, and the emergency card. */
package yarrek.app.field;
