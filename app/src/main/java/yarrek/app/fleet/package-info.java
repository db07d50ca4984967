/** The fleet: models, aircraft, packs, accessories, builds and their take-off mass. */
package yarrek.app.fleet;
