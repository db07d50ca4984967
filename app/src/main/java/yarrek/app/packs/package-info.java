/** Packs as they stand: what is counted of each, and what that asks for. */
package yarrek.app.packs;
