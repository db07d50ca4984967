package yarrek.core.energy;

/**
 * What a pack holds at take-off and what of it may be flown.
 *
 * @param wh when new and full, above 0
 * @param health share of it that is left, above 0; beyond 1.05 the design figure is to be looked at
 * @param charge share of that at take-off, 0 to 1
 * @param reserve share kept for the landing, 0 to 1
 * @param cold factor of its temperature, above 0, at most 1
 */
public record Charge(double wh, double health, double charge, double reserve, double cold) {
    /** Health beyond this says that the design capacity is wrong. */
    public static final double HEALTHIEST = 1.1;

    /** @throws IllegalArgumentException naming the figure that is out of its range */
    public Charge {
        within("energy", wh, 0, Double.MAX_VALUE, "Wh");
        within("health", health, 0, HEALTHIEST, "of 1");
        if (!(charge >= 0 && charge <= 1 && reserve >= 0 && reserve <= 1)) {
            throw new IllegalArgumentException("charge and reserve lie from 0 to 1, got " + charge + " and " + reserve);
        }
        within("factor of the cold", cold, 0, 1, "of 1");
    }

    private static void within(String what, double value, double above, double most, String unit) {
        if (!(value > above && value <= most)) {
            throw new IllegalArgumentException("the " + what + " of a pack lies above " + above
                    + (most < Double.MAX_VALUE ? " and up to " + most : "") + " " + unit + ", got " + value);
        }
    }

    /** Wh to fly with, the cold read as a factor: the middle of what is expected. Never below 0. */
    public double usable() {
        return Math.max(0, wh * health * cold * (charge - reserve));
    }

    /** Wh to fly with, the cold read as a loss at the bottom, where the volts sag first: never more than {@link #usable}. */
    public double usableAtLeast() {
        return Math.max(0, wh * health * (charge - (1 - cold) - reserve));
    }

    /**
     * A reserve in minutes of hover as a share of the charge, if that is more than the share itself.
     *
     * @return 0 to 1
     */
    public double reserveOf(double minutes, double hoverW) {
        return Math.min(1, Math.max(reserve, minutes * hoverW / (60 * wh * health * cold)));
    }
}
