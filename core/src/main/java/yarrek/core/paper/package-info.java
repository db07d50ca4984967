/** Papers: anything with a validity, its act-by date and state, and the weave of papers and jobs. */
package yarrek.core.paper;
