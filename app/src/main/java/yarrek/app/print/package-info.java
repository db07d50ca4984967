/** Pages and pictures as PDF. */
package yarrek.app.print;
