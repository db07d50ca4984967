/** The first hour: from nothing to a judged flight, one step after the other. */
package yarrek.app.begin;
