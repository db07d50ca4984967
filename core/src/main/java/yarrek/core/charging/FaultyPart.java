package yarrek.core.charging;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import org.hipparchus.exception.MathIllegalArgumentException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.stat.regression.OLSMultipleLinearRegression;

/**
 * Which cable, port or pack makes charging slow: the logarithm of measured over expected minutes as the sum of a part's
 * doings, by least squares over charges in which parts met each other crosswise.
 *
 * @param part the slowest, by name
 * @param factor of time against its sisters
 * @param t its effect over its standard error
 * @param freedom charges left over for the doubt
 * @param why there is no figure, null when there is one
 */
public record FaultyPart(String part, double factor, double t, int freedom, String why) {
    /** A pivot below this is no pivot: the parts always met the same way. */
    private static final double SINGULAR = 1e-9;

    private static final double SLOW = 1.15;
    private static final double SURE = 4;
    private static final int LEAST_FREEDOM = 4;

    /**
     * A charge.
     *
     * @param ratio measured over expected minutes, above 0
     */
    public record Charge(String cable, String port, String pack, double ratio) {}

    /** Whether it is said of the part: at least 15 % slow and no chance. */
    public boolean faulty() {
        return why == null && factor >= SLOW && t >= SURE && freedom >= LEAST_FREEDOM;
    }

    public String words() {
        return why != null
                ? why
                : faulty()
                        ? part + " takes " + Math.round(100 * (factor - 1)) + " % longer than its like"
                        : "no part is slower than its like by more than chance";
    }

    /** @throws IllegalArgumentException for a ratio that is not above 0 */
    public static FaultyPart of(List<Charge> charges) {
        List<List<String>> levels = List.of(
                distinct(charges.stream().map(Charge::cable).toList()),
                distinct(charges.stream().map(Charge::port).toList()),
                distinct(charges.stream().map(Charge::pack).toList()));
        int columns = levels.stream().mapToInt(l -> l.size() - 1).sum();
        int freedom = charges.size() - columns - 1;
        if (columns < 1 || freedom < 1) {
            return new FaultyPart(null, 1, 0, Math.max(0, freedom), "not known: too few charges on file");
        }
        double[] y = new double[charges.size()];
        double[][] x = new double[charges.size()][columns];
        for (int i = 0; i < y.length; i++) {
            Charge c = charges.get(i);
            if (!(c.ratio() > 0 && c.ratio() < Double.MAX_VALUE)) {
                throw new IllegalArgumentException("a charge takes longer than no time, got the ratio " + c.ratio());
            }
            y[i] = Math.log(c.ratio());
            code(x[i], levels, List.of(c.cable(), c.port(), c.pack()));
        }
        OLSMultipleLinearRegression fit = new OLSMultipleLinearRegression(SINGULAR);
        fit.newSampleData(y, x);
        double[] b;
        RealMatrix variance;
        double error;
        try {
            b = fit.estimateRegressionParameters();
            variance = new Array2DRowRealMatrix(fit.estimateRegressionParametersVariance());
            error = fit.estimateErrorVariance();
        } catch (MathIllegalArgumentException e) {
            return new FaultyPart(null, 1, 0, freedom, "not known: swap cables between ports");
        }
        return slowest(levels, b, variance, error, freedom);
    }

    private static FaultyPart slowest(
            List<List<String>> levels, double[] b, RealMatrix variance, double error, int freedom) {
        FaultyPart worst = null;
        int from = 1;
        for (List<String> kind : levels) {
            int n = kind.size();
            for (int l = 0; l < n && n > 1; l++) {
                // effects of a kind sum to nothing, so the last is what the others leave
                double[] weights = new double[b.length];
                for (int k = 0; k < n - 1; k++) {
                    weights[from + k] = l == n - 1 ? -1 : k == l ? 1 : 0;
                }
                double effect = 0;
                for (int k = 0; k < b.length; k++) {
                    effect += weights[k] * b[k];
                }
                double[] spread = variance.operate(weights);
                double se = 0;
                for (int k = 0; k < b.length; k++) {
                    se += weights[k] * spread[k];
                }
                double factor = Math.exp(effect * n / (n - 1));
                double t = effect / Math.sqrt(Math.max(se * error, Double.MIN_NORMAL));
                if (worst == null || t > worst.t) {
                    worst = new FaultyPart(kind.get(l), factor, t, freedom, null);
                }
            }
            from += n - 1;
        }
        return worst;
    }

    private static void code(double[] row, List<List<String>> levels, List<String> met) {
        int from = 0;
        for (int k = 0; k < levels.size(); k++) {
            List<String> kind = levels.get(k);
            int at = kind.indexOf(met.get(k));
            for (int l = 0; l < kind.size() - 1; l++) {
                row[from + l] = at == kind.size() - 1 ? -1 : at == l ? 1 : 0;
            }
            from += kind.size() - 1;
        }
    }

    private static List<String> distinct(List<String> names) {
        return new ArrayList<>(new TreeSet<>(names));
    }
}
