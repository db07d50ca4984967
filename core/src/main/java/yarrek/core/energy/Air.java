package yarrek.core.energy;

/** Air by height, pressure, temperature and moisture. Standard air: ISO 2533. */
public final class Air {
    /** At sea level in standard air; kg/m³. */
    public static final double STANDARD = 1.225;

    private static final double SEA_LEVEL_PA = 101_325;
    private static final double GAS_DRY = 287.05;
    private static final double GAS_VAPOUR = 461.5;
    private static final double ZERO_K = 273.15;
    private static final double WARMEST_C = 60;
    private static final double HIGHEST_M = 9000;

    private Air() {}

    /**
     * @param elevationM above sea level, -500 to 9,000
     * @return Pa in standard air
     * @throws IllegalArgumentException outside that
     */
    public static double pressure(double elevationM) {
        if (!(elevationM >= -500 && elevationM <= HIGHEST_M)) {
            throw new IllegalArgumentException("an elevation lies from -500 to 9,000 m, got " + elevationM);
        }
        return SEA_LEVEL_PA * Math.pow(1 - 2.25577e-5 * elevationM, 5.25588);
    }

    /**
     * @param pressurePa as measured on the spot, or {@link #pressure} of its height
     * @return kg/m³ of dry air
     * @throws IllegalArgumentException for a pressure of 0 or less, or a temperature outside -60 to 60 °C
     */
    public static double density(double pressurePa, double airC) {
        return density(pressurePa, airC, 0);
    }

    /**
     * Vapour makes air lighter: by 1.4 % at 30 °C and 90 %. Its pressure by the Magnus formula.
     *
     * @param humidity relative, 0 to 1
     * @return kg/m³
     * @throws IllegalArgumentException for a pressure of 0 or less, a temperature outside -60 to 60 °C, a humidity outside 0 to 1
     */
    public static double density(double pressurePa, double airC, double humidity) {
        if (!(pressurePa > 0 && Math.abs(airC) <= WARMEST_C && humidity >= 0 && humidity <= 1)) {
            throw new IllegalArgumentException(
                    "air has a pressure above 0 Pa, -60 to 60 °C and a humidity from 0 to 1, got " + pressurePa
                            + " Pa, " + airC + " °C, " + humidity);
        }
        double kelvin = airC + ZERO_K;
        double vapour = humidity * 611.2 * Math.exp(17.62 * airC / (243.12 + airC));
        return (pressurePa - vapour) / (GAS_DRY * kelvin) + vapour / (GAS_VAPOUR * kelvin);
    }
}
