/** Packs: what follows from what is printed on them. */
package yarrek.core.pack;
