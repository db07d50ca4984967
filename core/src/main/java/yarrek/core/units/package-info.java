/** Small quantity classes: one unit inside, named units at every way in and out. No argument is null. */
package yarrek.core.units;
