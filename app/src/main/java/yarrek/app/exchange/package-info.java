/** Registers as tables: handed out, and brought in with columns matched and every row looked at first. */
package yarrek.app.exchange;
