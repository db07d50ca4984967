/** Papers: their register, states and act-by dates, and the validity weave. */
package yarrek.app.papers;
