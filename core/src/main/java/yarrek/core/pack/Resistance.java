package yarrek.core.pack;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.hipparchus.stat.regression.OLSMultipleLinearRegression;
import yarrek.core.energy.Cold;

/**
 * Inner resistance of a cell, from how its volts follow the current.
 *
 * @param ohms as measured, of the fast part
 * @param se one standard error
 */
public record Resistance(double ohms, double se) {
    /**
     * Rows of one stretch in the air.
     *
     * @param ampere drawn, V a volt of one cell for each
     */
    public record Stretch(double[] ampere, double[] volts) {
        public Stretch {
            if (ampere.length != volts.length) {
                throw new IllegalArgumentException(ampere.length + " currents but " + volts.length + " volts");
            }
            ampere = ampere.clone();
            volts = volts.clone();
        }

        @Override
        public double[] ampere() {
            return ampere.clone();
        }

        @Override
        public double[] volts() {
            return volts.clone();
        }
    }

    /** How a worst cell stands against new. */
    public enum Verdict {
        KEEP,
        WATCH,
        RETIRE
    }

    private static final double LEAST_SWING = 0.01;
    private static final int LEAST_ROWS = 120;
    private static final double MOST_DOUBT = 0.10;
    private static final double WATCH_FROM = 1.5;
    static final double RETIRE_FROM = 2.0;

    /**
     * Over stretches of evenly spaced rows, each rid of its slow drift.
     *
     * @param drift 1 for a straight one, 2 for a bent one
     * @return empty when the current swings by less than 1 % of its mean: then nothing follows it
     */
    public static Optional<Resistance> regress(List<Stretch> stretches, int drift) {
        double iv = 0;
        double ii = 0;
        double vv = 0;
        double sum = 0;
        int rows = 0;
        int free = -1;
        for (Stretch s : stretches) {
            if (s.ampere().length <= drift + 1) {
                continue;
            }
            double[] i = detrended(s.ampere(), drift);
            double[] v = detrended(s.volts(), drift);
            for (int k = 0; k < i.length; k++) {
                iv += i[k] * v[k];
                ii += i[k] * i[k];
                vv += v[k] * v[k];
            }
            sum += Arrays.stream(s.ampere()).sum();
            rows += i.length;
            free += i.length - drift - 1;
        }
        if (free < 1 || !(Math.sqrt(ii / rows) >= LEAST_SWING * Math.abs(sum / rows)) || ii == 0) {
            return Optional.empty();
        }
        double r = -iv / ii;
        double left = Math.max(0, vv + 2 * r * iv + r * r * ii);
        return Optional.of(new Resistance(r, Math.sqrt(left / free / ii)));
    }

    /** Good enough to keep: many rows, little doubt, and more than none. */
    public static Optional<Resistance> measured(List<Stretch> stretches) {
        int rows = stretches.stream().mapToInt(s -> s.ampere().length).sum();
        return rows < LEAST_ROWS
                ? Optional.empty()
                : regress(stretches, 2).filter(r -> r.ohms > 0 && r.se <= MOST_DOUBT * r.ohms);
    }

    public double at25(double packC) {
        return Cold.resistanceAt25(ohms, packC);
    }

    /** Worst and mean cell against new, at one temperature. */
    public record Against(double worst, double mean, Verdict verdict) {}

    /**
     * @param at25 of each cell
     * @param whenNew in the same unit, above 0
     */
    public static Against against(double[] at25, double whenNew) {
        double worst = Arrays.stream(at25).max().orElseThrow() / whenNew;
        double mean = Arrays.stream(at25).average().orElseThrow() / whenNew;
        return new Against(
                worst,
                mean,
                worst >= RETIRE_FROM ? Verdict.RETIRE : worst >= WATCH_FROM ? Verdict.WATCH : Verdict.KEEP);
    }

    private static double[] detrended(double[] values, int order) {
        double[][] time = new double[values.length][order];
        for (int k = 0; k < values.length; k++) {
            double t = 2.0 * k / (values.length - 1) - 1;
            for (int o = 0; o < order; o++) {
                time[k][o] = Math.pow(t, o + 1);
            }
        }
        OLSMultipleLinearRegression line = new OLSMultipleLinearRegression();
        line.newSampleData(values, time);
        return line.estimateResiduals();
    }
}
