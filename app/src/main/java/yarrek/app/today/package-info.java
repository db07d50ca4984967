/** Today: what needs a hand, by when; the weave; the next jobs. */
package yarrek.app.today;
