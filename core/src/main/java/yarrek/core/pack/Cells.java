package yarrek.core.pack;

/** Cells of a lithium pack. */
public final class Cells {
    /** Nominal voltages of lithium cells lie from 3.6 V (ion) to 3.85 V (high voltage polymer); V. */
    private static final double NOMINAL_V = 3.75;

    private Cells() {}

    /**
     * Cells in series by the nominal voltage of the whole pack.
     *
     * @param nominalV as printed, in V, above 0
     * @return 1 or more
     * @throws IllegalArgumentException when the voltage is not above 0
     */
    public static int inSeries(double nominalV) {
        if (!(nominalV > 0 && nominalV < 1000)) {
            throw new IllegalArgumentException("a nominal voltage must be above 0 V, got " + nominalV);
        }
        return Math.max(1, (int) Math.round(nominalV / NOMINAL_V));
    }
}
