/** Packs: what follows from what is printed on them and from what is counted of them. */
package yarrek.core.pack;
