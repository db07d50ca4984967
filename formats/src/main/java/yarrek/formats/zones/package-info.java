/**
 * Zones in and out: our own GeoJSON (RFC 7946), ED-269 JSON, ED-318 GeoJSON, OpenAir text, KML and NOTAM text. Every
 * fault of a file is told with its feature and property; a file with a fault gives no zones at all.
 */
package yarrek.formats.zones;
