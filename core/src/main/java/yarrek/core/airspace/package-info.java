/**
 * Zones, the ground and the structures of a site, and what a plan meets among them. Heights name their reference; a
 * relation that cannot be computed for want of a figure is not known, never fine.
 */
package yarrek.core.airspace;
