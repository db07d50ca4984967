/** Tables of plain texts in and out: CSV and XLSX. Cells are texts; what they mean is for whoever asked for them. */
package yarrek.formats.table;
