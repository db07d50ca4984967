package yarrek.core.energy;

/** How long a pack keeps a build in the air. */
public final class Endurance {
    /** Half the width of an interval that holds nine in ten. */
    private static final double NINE_IN_TEN = 1.645;

    private static final int SECONDS = 3600;

    private Endurance() {}

    /** What the minutes of a leaflet were flown at; many are not in hover, which hides a third of the power. */
    public enum Stated {
        HOVER("in hover"),
        BEST_SPEED("at its best forward speed"),
        NOT_KNOWN("not said how");

        private final String words;

        Stated(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Power in hover at the maker's mass in standard air behind minutes that were stated.
     *
     * @param least the least power over that in hover, of the curve of the airframe: 0 to 1
     * @param carefully whether minutes not said how are read as the dearer
     * @return W
     */
    public static double hoverBehind(double wh, double minutes, Stated stated, double least, boolean carefully) {
        double mean = wh * 60 / minutes;
        boolean forward = stated == Stated.BEST_SPEED || (stated == Stated.NOT_KNOWN && carefully);
        return forward ? mean / least : mean;
    }

    /** Minutes in hover of the same pack at another mass in other air. */
    public static double scaled(double minutes, double massRatio, double density) {
        return minutes / (Math.pow(massRatio, 1.5) * Math.sqrt(Air.STANDARD / density));
    }

    /** Minutes that an energy lasts at a power. */
    public static double minutes(double wh, double watts) {
        return wh * 60 / watts;
    }

    /**
     * What is lost against new, in seconds.
     *
     * @param within half the width of the interval that holds nine in ten
     */
    public record Loss(double whenNew, double now, double lost, double within) {
        /** Whether the interval leaves out 0. */
        public boolean shown() {
            return Math.abs(lost) > within;
        }

        public String words() {
            String figure = Math.round(lost) + " s ± " + Math.round(within) + " s";
            return shown() ? figure + " less than when new" : "no loss shown: " + figure;
        }
    }

    /**
     * @param sdHealth of {@code health}, same unit
     * @param relativeSdPower of {@code wattsNow}
     */
    public static Loss loss(
            double wh,
            double reserve,
            double health,
            double sdHealth,
            double wattsNew,
            double wattsNow,
            double relativeSdPower) {
        double whenNew = wh * (1 - reserve) * SECONDS / wattsNew;
        double now = wh * health * (1 - reserve) * SECONDS / wattsNow;
        double sd = now * Math.hypot(sdHealth / health, relativeSdPower);
        return new Loss(whenNew, now, whenNew - now, NINE_IN_TEN * sd);
    }
}
