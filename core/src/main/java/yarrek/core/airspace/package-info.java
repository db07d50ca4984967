/** Zones: pieces of airspace or ground with a condition attached. Heights are above ground. */
package yarrek.core.airspace;
