/** Charging: how long it takes, in which order, so that nothing sits full for days; what is wrong when it takes too long. */
package yarrek.core.charging;
