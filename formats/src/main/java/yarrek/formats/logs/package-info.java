/** The formats of flight logs, and telling a file's format by how it begins. */
package yarrek.formats.logs;
