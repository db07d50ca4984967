package yarrek.core.energy;

import java.util.List;

/**
 * What of a pack's energy its temperature at take-off leaves. The table is a house figure.
 *
 * @param points by rising temperature, at least one; before the first and beyond the last it stays as there
 */
public record Cold(List<Point> points) {
    /** @param factor of the energy at 25 °C, above 0, at most 1 */
    public record Point(double packC, double factor) {}

    public static final Cold HOUSE = new Cold(List.of(
            new Point(-20, 0.60), new Point(-10, 0.75), new Point(0, 0.88), new Point(10, 0.95), new Point(25, 1.00)));

    private static final double REFERENCE_C = 25;
    private static final double RESISTANCE_PER_KELVIN = 0.03;

    /** @throws IllegalArgumentException for no points, factors outside 0 to 1, or temperatures that do not rise */
    public Cold {
        points = List.copyOf(points);
        for (int i = 0; i < points.size(); i++) {
            Point p = points.get(i);
            if (!(p.factor() > 0 && p.factor() <= 1)
                    || (i > 0 && !(p.packC() > points.get(i - 1).packC()))) {
                throw new IllegalArgumentException(
                        "temperatures rise and factors lie above 0 and up to 1, got " + points);
            }
        }
        if (points.isEmpty()) {
            throw new IllegalArgumentException("a table of the cold needs a line");
        }
    }

    /** Between the points in a straight line. */
    public double factor(double packC) {
        Point before = points.get(0);
        for (Point p : points) {
            if (packC <= p.packC()) {
                return p.packC() == before.packC()
                        ? p.factor()
                        : before.factor()
                                + (p.factor() - before.factor())
                                        * (packC - before.packC())
                                        / (p.packC() - before.packC());
            }
            before = p;
        }
        return before.factor();
    }

    /** Resistance as it would be at 25 °C; 3 % of it a kelvin is a house figure. */
    public static double resistanceAt25(double resistance, double packC) {
        return resistance * Math.exp(-RESISTANCE_PER_KELVIN * (REFERENCE_C - packC));
    }

    /**
     * Volts of a cell at rest by charge.
     *
     * @param charge 0 to 1, rising from line to line
     * @param volts rising
     */
    public record Rest(double charge, double volts) {}

    /**
     * The charge at which a cell under load stands at its lowest volts: what shows as 19 % in the frost is empty.
     *
     * @param rest the model's table, at least two lines
     * @param loadW of the whole pack
     * @param ohm25 of a cell at 25 °C
     * @param slow how much more than the fast resistance a long load sees; the house takes 1.8
     * @param lowestV of a cell
     * @return 0 to 1
     */
    public static double lowestCharge(
            List<Rest> rest, double loadW, int cells, double ohm25, double slow, double packC, double lowestV) {
        double amps = loadW / (cells * lowestV);
        double need = lowestV + amps * slow * ohm25 * Math.exp(RESISTANCE_PER_KELVIN * (REFERENCE_C - packC));
        Rest before = rest.get(0);
        for (Rest r : rest) {
            if (need <= r.volts()) {
                return r.volts() == before.volts()
                        ? r.charge()
                        : before.charge()
                                + (r.charge() - before.charge())
                                        * (need - before.volts())
                                        / (r.volts() - before.volts());
            }
            before = r;
        }
        return 1;
    }
}
