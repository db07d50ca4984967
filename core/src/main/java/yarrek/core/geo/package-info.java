/** Positions, geodesics and areas on WGS-84. Latitudes and longitudes are in degrees, distances in metres. */
package yarrek.core.geo;
