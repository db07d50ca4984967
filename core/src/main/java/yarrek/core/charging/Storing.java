package yarrek.core.charging;

import java.util.Locale;
import yarrek.core.pack.PackStanding.Limits;

/**
 * What a pack that stands asks for. House figures, per model of pack.
 *
 * @param managesItself lowers its charge by itself after some days
 * @param holdDays until it begins to
 * @param fallDays until it is at its floor
 * @param floor charge below which it does not lower itself, 0 to 1
 * @param storage charge at which it is best kept, 0 to 1
 * @param idleDays without a flight after which it is exercised
 */
public record Storing(
        boolean managesItself, double holdDays, double fallDays, double floor, double storage, int idleDays) {
    public static final Storing MANUAL = new Storing(false, 5, 10, 0.6, 0.5, Limits.HOUSE.idleDays());
    public static final Storing SELF_MANAGING = new Storing(true, 5, 10, 0.6, 0.5, Limits.HOUSE.idleDays());

    private static final double EMPTY = 0.15;
    private static final double TOO_FULL = 0.65;
    private static final double TOO_LOW = 0.40;
    private static final int SOON_DAYS = 3;

    /** @throws IllegalArgumentException naming what is out of range */
    public Storing {
        if (!(holdDays >= 0
                && fallDays > 0
                && floor >= 0
                && floor <= 1
                && storage > 0
                && storage < 1
                && idleDays > 0)) {
            throw new IllegalArgumentException("days lie above 0 and charges from 0 to 1");
        }
    }

    /**
     * Charge after standing for so many days.
     *
     * @param charge at their beginning, 0 to 1
     */
    public double after(double charge, double days) {
        if (!managesItself || charge <= floor || days <= holdDays) {
            return charge;
        }
        return Math.max(floor, charge - (charge - floor) * (days - holdDays) / fallDays);
    }

    /** What to do. */
    public enum Deed {
        CHARGE_TODAY,
        EXERCISE,
        LEAVE,
        TOP_UP,
        BRING_DOWN,
        CHARGE
    }

    /** In words: the deed, and the charge it aims at. */
    public record Advice(Deed deed, String words) {}

    /**
     * The first rule that holds.
     *
     * @param charge now, 0 to 1
     * @param toNextUse days; a large number when none is planned
     * @param sinceFlown days
     */
    public Advice advice(double charge, double toNextUse, double sinceFlown) {
        String half = String.format(Locale.ROOT, "%.0f %%", 100 * storage);
        if (charge < EMPTY) {
            return new Advice(Deed.CHARGE_TODAY, "charge to " + half + " today");
        }
        if (sinceFlown > idleDays) {
            return new Advice(Deed.EXERCISE, "exercise due");
        }
        if (toNextUse <= SOON_DAYS) {
            return new Advice(Deed.LEAVE, "leave");
        }
        if (managesItself) {
            return new Advice(Deed.TOP_UP, "leave, top up before the job");
        }
        if (charge > TOO_FULL) {
            return new Advice(Deed.BRING_DOWN, "bring down to " + half);
        }
        return charge < TOO_LOW ? new Advice(Deed.CHARGE, "charge to " + half) : new Advice(Deed.LEAVE, "leave");
    }
}
