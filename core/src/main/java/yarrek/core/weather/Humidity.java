package yarrek.core.weather;

/** What follows from air temperature and dew point. */
public final class Humidity {
    /** Magnus coefficients over water, -45 to 60 °C (WMO-No. 8, annex 4.B). */
    private static final double A = 17.62;

    private static final double B_C = 243.12;

    /** Metres of lift for one kelvin of spread: dry adiabat 9.8 K/km less 1.8 K/km of the dew point. */
    private static final double LIFT_M_PER_K = 125;

    private Humidity() {}

    /** Relative humidity in percent, by the Magnus formula; 100 when the spread is zero. */
    public static double relativePct(double temperatureC, double dewPointC) {
        return 100 * Math.exp(A * dewPointC / (B_C + dewPointC) - A * temperatureC / (B_C + temperatureC));
    }

    /** Height in metres at which lifted air makes cloud: 125 m for each kelvin of spread. An estimate, convective days only. */
    public static double cloudBaseM(double temperatureC, double dewPointC) {
        return Math.max(0, LIFT_M_PER_K * (temperatureC - dewPointC));
    }

    /** Moisture may freeze on propellers: spread of at most 3 K between -20 and +5 °C (house bound). */
    public static boolean icingLikely(double temperatureC, double dewPointC) {
        return temperatureC >= -20 && temperatureC <= 5 && temperatureC - dewPointC <= 3;
    }

    /** A lens brought out colder than the dew point mists over; fog is near when the spread is below 2 K (house bound). */
    public static boolean fogNear(double temperatureC, double dewPointC) {
        return temperatureC - dewPointC < 2;
    }
}
