package yarrek.core.pack;

import java.util.Arrays;

/** Each row its own column at the least cost in all: the Hungarian method with potentials (Kuhn 1955, Munkres 1957). */
public final class Assignment {
    private Assignment() {}

    /**
     * Exact, in rows² × columns steps; with equal costs the same answer for the same input.
     *
     * @param cost rows by columns, at least as many columns as rows, each a number
     * @return the column of each row
     * @throws IllegalArgumentException for fewer columns than rows
     */
    public static int[] least(double[][] cost) {
        int rows = cost.length;
        int columns = rows == 0 ? 0 : cost[0].length;
        if (columns < rows) {
            throw new IllegalArgumentException(rows + " rows need as many columns, got " + columns);
        }
        double[] ofRow = new double[rows + 1];
        double[] ofColumn = new double[columns + 1];
        int[] row = new int[columns + 1];
        for (int r = 1; r <= rows; r++) {
            grow(cost, r, ofRow, ofColumn, row);
        }
        int[] column = new int[rows];
        for (int c = 1; c <= columns; c++) {
            if (row[c] > 0) {
                column[row[c] - 1] = c - 1;
            }
        }
        return column;
    }

    /** Finds a place for one more row along the cheapest alternating path; column 0 stands for "none yet". */
    private static void grow(double[][] cost, int r, double[] ofRow, double[] ofColumn, int[] row) {
        int columns = ofColumn.length - 1;
        double[] slack = new double[columns + 1];
        Arrays.fill(slack, Double.POSITIVE_INFINITY);
        int[] came = new int[columns + 1];
        boolean[] seen = new boolean[columns + 1];
        row[0] = r;
        int at = 0;
        while (row[at] != 0) {
            seen[at] = true;
            int here = row[at];
            int next = 0;
            double least = Double.POSITIVE_INFINITY;
            for (int c = 1; c <= columns; c++) {
                if (!seen[c]) {
                    double over = cost[here - 1][c - 1] - ofRow[here] - ofColumn[c];
                    if (over < slack[c]) {
                        slack[c] = over;
                        came[c] = at;
                    }
                    if (slack[c] < least) {
                        least = slack[c];
                        next = c;
                    }
                }
            }
            for (int c = 0; c <= columns; c++) {
                if (seen[c]) {
                    ofRow[row[c]] += least;
                    ofColumn[c] -= least;
                } else {
                    slack[c] -= least;
                }
            }
            at = next;
        }
        while (at != 0) {
            row[at] = row[came[at]];
            at = came[at];
        }
    }
}
