/** What people changed: who, when, before and after; taking a change back, and the bin. */
package yarrek.app.history;
