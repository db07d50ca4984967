/** The time series of a flight: columns of figures, messages and modes, and their compact stored form. */
package yarrek.core.trace;
