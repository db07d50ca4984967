/** Forms with typed input, lost updates told, and what of a register goes in and out as a table. */
package yarrek.app.forms;
