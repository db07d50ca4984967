package yarrek.core.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import org.junit.jupiter.api.Test;

class AssignmentTest {
    /** Cases in which the answer costs more than the best of all ways. */
    static int differences(int cases) {
        Random random = new Random(11);
        int different = 0;
        for (int k = 0; k < cases; k++) {
            int rows = 2 + random.nextInt(4);
            double[][] cost = new double[rows][rows + random.nextInt(7 - rows)];
            for (double[] row : cost) {
                for (int c = 0; c < row.length; c++) {
                    row[c] = random.nextInt(10) == 0 ? 1e6 : random.nextInt(100);
                }
            }
            if (Math.abs(sum(cost, Assignment.least(cost)) - least(cost, 0, new boolean[cost[0].length])) > 1e-6) {
                different++;
            }
        }
        return different;
    }

    private static double sum(double[][] cost, int[] columns) {
        double sum = 0;
        for (int r = 0; r < columns.length; r++) {
            sum += cost[r][columns[r]];
        }
        return sum;
    }

    private static double least(double[][] cost, int row, boolean[] taken) {
        if (row == cost.length) {
            return 0;
        }
        double best = Double.MAX_VALUE;
        for (int c = 0; c < taken.length; c++) {
            if (!taken[c]) {
                taken[c] = true;
                best = Math.min(best, cost[row][c] + least(cost, row + 1, taken));
                taken[c] = false;
            }
        }
        return best;
    }

    @Test
    void noneAndTooFew() {
        assertThat(Assignment.least(new double[0][0])).isEmpty();
        assertThatThrownBy(() -> Assignment.least(new double[][] {{1}, {2}}))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("2 rows need as many columns, got 1");
    }

    @Test
    void sixtyPacksAtEightChargersAreEachAtAPlaceOfTheirOwn() {
        double[][] cost = new double[60][480];
        for (int r = 0; r < 60; r++) {
            for (int c = 0; c < 480; c++) {
                cost[r][c] = (c % 60) * (30 + r);
            }
        }
        assertThat(Assignment.least(cost)).hasSize(60).doesNotHaveDuplicates();
    }
}
