/** Weather reports in open forms. */
package yarrek.formats.weather;
