/** What a flight costs in energy: air, power, ground speed, reach, endurance. Momentum theory of rotors (Glauert 1935). */
package yarrek.core.energy;
