package yarrek.core.pack;

import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import java.util.OptionalInt;

/** How far the cells of a pack stand apart. */
public final class CellSpread {
    /** A rest lasts at least this long; shorter ones still move. */
    public static final int REST_MINUTES = 10;

    /** Of the capacity an hour; with more drawn or charged it is no rest. */
    public static final double REST_CURRENT = 0.1;

    private static final double ALWAYS = 0.8;
    private static final int STEPS = 3;

    private CellSpread() {}

    /**
     * At rest.
     *
     * @param volts of each cell, at least two
     * @param ampere drawn (+) or charged (−)
     * @return volts between highest and lowest; empty when it was no rest
     */
    public static OptionalDouble atRest(double[] volts, double ampere, double capacityAh, double minutes) {
        return Math.abs(ampere) < REST_CURRENT * capacityAh && minutes >= REST_MINUTES
                ? OptionalDouble.of(spread(volts))
                : OptionalDouble.empty();
    }

    /** Under load: the median over rows in the air. */
    public static OptionalDouble underLoad(List<double[]> rows) {
        return rows.isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(Trend.median(
                        rows.stream().mapToDouble(CellSpread::spread).toArray()));
    }

    /**
     * The cell that is lowest nearly always, by more than the log's own steps; in a quiet log some cell always is.
     *
     * @param step the least difference the log can hold, V
     * @return from 0
     */
    public static OptionalInt alwaysLow(List<double[]> rows, double step) {
        if (rows.isEmpty() || underLoad(rows).orElse(0) < STEPS * step - 1e-9) {
            return OptionalInt.empty();
        }
        int[] lowest = new int[rows.get(0).length];
        for (double[] row : rows) {
            lowest[lowest(row)]++;
        }
        for (int cell = 0; cell < lowest.length; cell++) {
            if (lowest[cell] >= ALWAYS * rows.size()) {
                return OptionalInt.of(cell);
            }
        }
        return OptionalInt.empty();
    }

    private static double spread(double[] volts) {
        return Arrays.stream(volts).max().orElseThrow()
                - Arrays.stream(volts).min().orElseThrow();
    }

    private static int lowest(double[] row) {
        int low = 0;
        for (int cell = 1; cell < row.length; cell++) {
            if (row[cell] < row[low]) {
                low = cell;
            }
        }
        return low;
    }
}
