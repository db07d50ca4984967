/** GPX 1.1 tracks. */
package yarrek.formats.gpx;
