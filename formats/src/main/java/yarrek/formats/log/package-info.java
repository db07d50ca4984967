/** What all readers of flight logs share: problems with their place, broken files, and the building of a trace. */
package yarrek.formats.log;
