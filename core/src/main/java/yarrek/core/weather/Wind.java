package yarrek.core.weather;

import yarrek.core.units.Finite;

/**
 * Wind at another height by the power law w(h) = w_ref (h / h_ref)^α, for neutral air over uniform ground. Trust it from 2
 * to 200 m; the lee of cliffs, woods and houses is not in it.
 */
public final class Wind {
    /** The ground over which the wind comes; α by terrain (domain figures: open land 1/7). */
    public enum Terrain {
        OPEN_WATER("open water", 0.11),
        OPEN_LAND("open land", 1.0 / 7),
        SUBURB("suburb or low woods", 0.22),
        CITY("city", 0.30);

        private final String words;
        private final double exponent;

        Terrain(String words, double exponent) {
            this.words = words;
            this.exponent = exponent;
        }

        public String words() {
            return words;
        }

        public double exponent() {
            return exponent;
        }
    }

    private Wind() {}

    /**
     * @param windMps at the reference height, zero or more
     * @param referenceM above 0 m: 10 for a station, 2 for a meter in the hand
     * @param heightM above 0 m
     * @return m/s
     * @throws IllegalArgumentException for heights of 0 m or below, or a negative wind
     */
    public static double at(double windMps, double referenceM, double heightM, Terrain terrain) {
        return at(windMps, referenceM, heightM, terrain.exponent());
    }

    /** The same with an exponent of one's own, as a flight has shown it. */
    public static double at(double windMps, double referenceM, double heightM, double exponent) {
        if (!(windMps >= 0 && referenceM > 0 && heightM > 0)) {
            throw new IllegalArgumentException("wind must be 0 m/s or more and heights above 0 m, got " + windMps
                    + " at " + referenceM + " for " + heightM);
        }
        return windMps * Math.pow(heightM / referenceM, exponent);
    }

    /** The calculation in words, for "why?". */
    public static String why(double windMps, double referenceM, double heightM, Terrain terrain) {
        return Finite.format(windMps) + " m/s at " + Finite.format(referenceM) + " m over " + terrain.words()
                + " (α = " + Finite.format(terrain.exponent()) + ") → " + Finite.format(windMps) + " · ("
                + Finite.format(heightM) + "/" + Finite.format(referenceM) + ")^" + Finite.format(terrain.exponent())
                + " = " + Finite.format(Math.round(at(windMps, referenceM, heightM, terrain) * 100) / 100.0)
                + " m/s at " + Finite.format(heightM) + " m";
    }
}
