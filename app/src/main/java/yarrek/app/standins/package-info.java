/** Simulated outside services that ship with the application. Each answer says that it is simulated. */
package yarrek.app.standins;
