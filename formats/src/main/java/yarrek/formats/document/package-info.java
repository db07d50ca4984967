/** Writes editable documents (Office Open XML). */
package yarrek.formats.document;
