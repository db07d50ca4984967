/** The sample world: invented people, aircraft and papers around today, and simulated flights brought in like any log. */
package yarrek.app.demo;
