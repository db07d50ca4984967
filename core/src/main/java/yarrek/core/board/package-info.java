/** Who and what is spoken for on which days, and where two jobs pull on one of them. */
package yarrek.core.board;
