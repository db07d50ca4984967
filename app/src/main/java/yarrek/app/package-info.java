/** The application: one package for each feature, named as in the trade. */
package yarrek.app;
