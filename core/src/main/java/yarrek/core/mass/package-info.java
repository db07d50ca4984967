/** Take-off mass of a build: sum with tolerance, weighings, mass class and the headroom to the next threshold. */
package yarrek.core.mass;
