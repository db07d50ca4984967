/** Weather as observed, typed or forecast: what follows from it for a flight. Speeds in m/s, temperatures in °C. */
package yarrek.core.weather;
