/** Zones and map features as GeoJSON (RFC 7946). */
package yarrek.formats.zones;
