/** Asking outside services: bounded in time, never inside a transaction. */
package yarrek.app.outside;
