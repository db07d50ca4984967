/** Airspace: zones and scenery brought in as GeoJSON, sites with their areas, the map without tiles. */
package yarrek.app.airspace;
