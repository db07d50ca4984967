/** Work in the background: what was begun is in the database, survives a restart, and says how far it is. */
package yarrek.app.work;
