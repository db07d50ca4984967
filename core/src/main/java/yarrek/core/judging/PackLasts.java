package yarrek.core.judging;

import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.energy.Air;
import yarrek.core.energy.Cold;
import yarrek.core.energy.Endurance;
import yarrek.core.energy.Reach;
import yarrek.core.units.Finite;

/**
 * How long a full pack keeps a build in the air with a share kept for the landing, from the maker's minutes. Which pack flies is
 * not known yet, nor how much its leaflet flatters: so a middle with what it may be off.
 *
 * @param minutes the middle
 * @param least with a pack that is only just not watched, a leaflet that flatters, and the coldest air that may be
 * @param most with one as new, and air that helps
 * @param words how it comes about
 */
public record PackLasts(double minutes, double least, double most, String words) {
    /** Least power over that in hover, for airframes like those that were worked out; a house figure. */
    private static final double BEST_SPEED = 0.67;

    /** Below this health a pack is watched; a house figure. */
    private static final double HEALTH = 0.85;

    /** Of power and energy, before flights of one's own are fitted; the wind is not in it. */
    private static final Reach.Doubt DOUBT = Reach.Doubt.house(null, 0, false);

    /** One in ten lies beyond it. */
    private static final double OFF = Math.exp(DOUBT.z() * Math.hypot(DOUBT.power(), DOUBT.energy()));

    private static final double HIGHEST_M = 2500;
    private static final double COLDEST_C = -20;
    private static final double WARM_C = 25;
    private static final double USUAL_C = 15;

    /**
     * What a maker says of the minutes of a full pack.
     *
     * @param wh of the pack they are stated with; null where it is that of the build
     */
    public record Leaflet(double minutes, Endurance.Stated stated, Double wh) {}

    /**
     * @param elevationM of the place; null when not known
     * @param airC on file for the hours; empty when none is
     * @param coldestC that the maker allows; null when not known
     * @param reserve share of the charge kept, 0 to 1
     */
    public record Conditions(Double elevationM, OptionalDouble airC, Double coldestC, double reserve) {}

    /** Empty where the maker's minutes are not on file. */
    public static Optional<PackLasts> of(Built build, Conditions c) {
        Leaflet l = build.craft().model().leaflet();
        if (l == null) {
            return Optional.empty();
        }
        double hover = l.stated() == Endurance.Stated.BEST_SPEED ? BEST_SPEED : 1;
        double full = l.minutes() * build.packWh() / (l.wh() == null ? build.packWh() : l.wh());
        double ratio = build.mass().mass().toGrams() / build.bareG();
        double elevation = c.elevationM() == null ? 0 : c.elevationM();
        double air = c.airC().orElse(USUAL_C);
        double middle = flown(full * hover, ratio, elevation, air, c.reserve(), false);
        double coldest = c.coldestC() == null ? COLDEST_C : c.coldestC();
        double least = flown(
                        full * (l.stated() == Endurance.Stated.HOVER ? 1 : BEST_SPEED),
                        ratio,
                        c.elevationM() == null ? HIGHEST_M : elevation,
                        Math.min(air, c.airC().orElse(coldest)),
                        c.reserve(),
                        true)
                * HEALTH
                / OFF;
        double most = flown(full, ratio, elevation, c.airC().orElse(WARM_C), c.reserve(), false) * OFF;
        return Optional.of(new PackLasts(
                middle,
                Math.min(least, middle),
                Math.max(most, middle),
                "a full pack: " + figure(l.minutes()) + " min by the maker, "
                        + l.stated().words()
                        + (l.wh() == null
                                ? ""
                                : ", with " + figure(l.wh()) + " Wh; this one has " + figure(build.packWh()) + " Wh")
                        + "; at " + figure(build.mass().mass().toGrams()) + " g instead of " + figure(build.bareG())
                        + " g, "
                        + (c.elevationM() == null
                                ? "height of the place not known"
                                : figure(elevation) + " m above the sea")
                        + ", " + (c.airC().isEmpty() ? "temperature not known" : figure(air) + " °C") + ", "
                        + figure(100 * c.reserve()) + " % kept: " + figure(middle) + " min, from " + figure(least)
                        + " to "
                        + figure(most) + " with what is not known of pack, leaflet and air"));
    }

    /** @param careful whether the cold is read as a loss at the bottom */
    private static double flown(
            double full, double massRatio, double elevation, double airC, double reserve, boolean careful) {
        double cold = Cold.HOUSE.factor(airC);
        double share = careful ? cold - reserve : cold * (1 - reserve);
        return Math.max(0, share) * Endurance.scaled(full, massRatio, Air.density(Air.pressure(elevation), airC));
    }

    private static String figure(double d) {
        return Finite.format(Math.round(d * 10) / 10.0);
    }
}
