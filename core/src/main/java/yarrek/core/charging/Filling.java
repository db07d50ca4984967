package yarrek.core.charging;

/**
 * How a pack takes its charge: fast up to a corner, then slower and slower. The curve is a house figure until own charges
 * have shown it.
 *
 * @param wh that it holds today, design × health, above 0
 * @param hours from empty to full at a charger that gives whatever is asked, above 0
 * @param corner share of the charge up to which it takes most, 0 to 1
 * @param cornerTime share of the hours that this takes, 0 to 1
 * @param efficiency of what goes in, 0 to 1
 */
public record Filling(double wh, double hours, double corner, double cornerTime, double efficiency) {
    public static final double CORNER = 0.8;
    public static final double CORNER_TIME = 0.6;
    public static final double EFFICIENCY = 0.97;
    private static final double CHARGER_EFFICIENCY = 0.9;
    private static final int MINUTES = 60;
    private static final double COLDEST_C = 0;
    private static final double WARM_FIRST_C = 5;
    private static final double HOTTEST_C = 40;

    /** @throws IllegalArgumentException naming the figure that is out of its range */
    public Filling {
        if (!(wh > 0 && wh < Double.MAX_VALUE) || !(hours > 0 && hours < Double.MAX_VALUE)) {
            throw new IllegalArgumentException(
                    "energy and hours of a charge lie above 0, got " + wh + " Wh, " + hours + " h");
        }
        if (!(corner > 0 && corner < 1 && cornerTime > 0 && cornerTime < 1 && efficiency > 0 && efficiency <= 1)) {
            throw new IllegalArgumentException("corner, its time and the efficiency lie between 0 and 1");
        }
    }

    /** By the house curve. */
    public static Filling of(double wh, double hours) {
        return new Filling(wh, hours, CORNER, CORNER_TIME, EFFICIENCY);
    }

    /** Share of the charge an hour that the pack takes at most. */
    double acceptance(double charge) {
        return charge < corner ? corner / (cornerTime * hours) : (1 - corner) / ((1 - cornerTime) * hours);
    }

    /** Watts that it would take from the charger. */
    double asks(double charge) {
        return acceptance(charge) * wh / efficiency;
    }

    /**
     * Minutes from one charge to another.
     *
     * @param watts of the charger's place, above 0
     * @return 0 when it holds as much already
     * @throws IllegalArgumentException for charges outside 0 to 1 or a charger without power
     */
    public double minutes(double watts, double from, double to) {
        if (!(from >= 0 && from <= 1 && to >= 0 && to <= 1)) {
            throw new IllegalArgumentException("charges lie from 0 to 1, got " + from + " and " + to);
        }
        if (!(watts > 0)) {
            throw new IllegalArgumentException("a charger gives more than 0 W, got " + watts);
        }
        return part(watts, from, Math.min(to, corner), 0) + part(watts, Math.max(from, corner), to, corner);
    }

    private double part(double watts, double from, double to, double charge) {
        return to <= from ? 0 : MINUTES * (to - from) / Math.min(acceptance(charge), watts * efficiency / wh);
    }

    /**
     * Watts of a charger at a supply, limited by what it draws.
     *
     * @param rated W
     * @param mostA drawn from the supply at most
     * @param volts of the supply
     */
    public static double watts(double rated, double mostA, double volts) {
        return Math.min(rated, mostA * volts * CHARGER_EFFICIENCY);
    }

    /** Whether a pack of this temperature may be charged, in words. House figures: the maker's range goes before them. */
    public static String mayCharge(double packC, int coolMinutes) {
        return packC < COLDEST_C
                ? "no charge: warm first"
                : packC < WARM_FIRST_C ? "warm first" : packC > HOTTEST_C ? "wait " + coolMinutes + " min" : "charge";
    }
}
