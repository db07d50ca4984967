package yarrek.core.judging;

import java.util.Map;

/**
 * What a house reckons with.
 *
 * @param chosen in the unit of each figure; the rest is as usual
 */
public record House(Map<HouseFigure, Double> chosen) {
    private static final double PERCENT = 100;

    /** One that has chosen nothing. */
    public static final House USUAL = new House(Map.of());

    public House {
        chosen = Map.copyOf(chosen);
    }

    /** In the unit of the figure. */
    public double of(HouseFigure figure) {
        return chosen.getOrDefault(figure, figure.usual());
    }

    /** A figure in per cent as a share, 0 to 1. */
    public double share(HouseFigure figure) {
        return of(figure) / PERCENT;
    }

    public DayClock.House clock() {
        return new DayClock.House(
                of(HouseFigure.SET_UP),
                of(HouseFigure.TURN_ROUND),
                of(HouseFigure.RECONFIRM),
                of(HouseFigure.BREAK_EVERY),
                of(HouseFigure.BREAK_FOR),
                of(HouseFigure.PACK_UP),
                share(HouseFigure.KEEP_FREE));
    }

    public Neighbours.Way way() {
        return new Neighbours.Way(
                of(HouseFigure.WAY_SPEED),
                of(HouseFigure.WAY_SETTLE),
                of(HouseFigure.WAY_SAME),
                of(HouseFigure.WAY_NIGHT));
    }
}
