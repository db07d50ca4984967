package yarrek.core.judging;

import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yarrek.core.airspace.Ground;
import yarrek.core.airspace.SiteLook;
import yarrek.core.geo.Area;
import yarrek.core.geo.Position;
import yarrek.core.time.TimeWindow;
import yarrek.core.weather.Wind;

/**
 * Where it is flown. A null figure is not known.
 *
 * @param bufferM by which the area is widened, in metres; null for none
 * @param elevationM of the launch point above sea level, in metres
 * @param reliefM by which the ground may lie lower than the launch point, in metres
 * @param terrain for the wind at height; null when nobody has said
 * @param builtUpDistanceM to the nearest built-up or recreational area, in metres
 */
public record Place(
        String name,
        ZoneId zone,
        String jurisdiction,
        Position launch,
        Area area,
        Double bufferM,
        Double elevationM,
        Double reliefM,
        Wind.Terrain terrain,
        Double builtUpDistanceM,
        Boolean overWater) {
    public Ground ground() {
        return Ground.of(elevationM, reliefM);
    }

    /** Greatest height above ground of what reaches a height above take-off; empty when the relief is not known. */
    public OptionalDouble aboveGround(double aboveTakeoffM) {
        return reliefM == null ? OptionalDouble.empty() : OptionalDouble.of(aboveTakeoffM + reliefM);
    }

    public OptionalDouble relief() {
        return reliefM == null ? OptionalDouble.empty() : OptionalDouble.of(reliefM);
    }

    /** The area with its buffer. */
    public Area widened() {
        return bufferM != null && bufferM > 0 ? area.widened(bufferM) : area;
    }

    /** What is flown here, for looking at the zones around. */
    public SiteLook.Plan look(OptionalDouble greatestHeightM, List<TimeWindow> windows) {
        return new SiteLook.Plan(
                area, launch, Optional.ofNullable(bufferM).orElse(0.0), greatestHeightM, windows, zone, ground());
    }
}
