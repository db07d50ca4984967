/** Points, lines and areas with their properties, in and out of GeoJSON (RFC 7946), KML 2.2 and GPX 1.1. WGS-84. */
package yarrek.formats.maps;
