/** Tracks with times in formats for maps: KML and GeoJSON. What stands beside each point is matched like columns of a table. */
package yarrek.formats.tracks;
